import { expect, test } from 'vitest';
import type { JobListed } from '../api/client';
import { sizeErrors } from './records';

const job = (title: string, off: number | null, state: 'finished' | 'spoiled' = 'finished'): JobListed => ({
  id: title,
  title,
  sentence: '',
  state,
  number: 1,
  created_at: '',
  updated_at: '',
  begun_by: '',
  batch_id: null,
  for_whom: '',
  ended_at: '2026-11-25T12:00:00Z',
  record: {
    state,
    why: '',
    off_mm: off,
    size: null,
    off: off === null ? null : 'a little',
    wire: null,
    minutes: 20,
    planned_minutes: 25,
  },
});

test('sizes of finished rings that were read are shown, the oldest first', () => {
  const rings = [job('new', 0.4), job('spoiled', 1, 'spoiled'), job('unread', null), job('old', -0.4)];
  expect(sizeErrors(rings).map((ring) => [ring.title, ring.off])).toEqual([
    ['old', -0.4],
    ['new', 0.4],
  ]);
});
