import { expect, test } from 'vitest';
import type { JobListed } from '../api/client';
import { sizeErrors, wireOf } from './records';

const piece = (used: number | null) => ({ piece: 'band.1', cut_mm: 200, planned_mm: 150, used_mm: used, kinds: {} });
const job = (
  title: string,
  size: number | null,
  used: (number | null)[],
  state: JobListed['state'] = 'finished',
): JobListed => ({
  id: title,
  title,
  sentence: '',
  state,
  number: 1,
  created_at: '',
  updated_at: '',
  ended_at: '2026-11-25T12:00:00Z',
  record: {
    state,
    why: '',
    aim_mm: 17,
    planned_size_mm: 17,
    size_mm: size,
    minutes: 20,
    planned_minutes: 25,
    family: 'turned',
    pieces: used.map(piece),
  },
});

test('wire counts only where its rest was measured', () => {
  expect(wireOf(job('a', null, [160, null, 148]))).toEqual({ used: 308, planned: 300 });
  expect(wireOf(job('b', null, [null]))).toBeNull();
});

test('sizes are told in US sizes, the oldest first, of finished rings', () => {
  const rings = [
    job('new', 17.4064, []),
    job('spoiled', 18, [], 'spoiled'),
    job('unread', null, []),
    job('old', 16.5936, []),
  ];
  const errors = sizeErrors(rings);
  expect(errors.map((e) => e.title)).toEqual(['old', 'new']);
  expect(errors.map((e) => Number(e.off.toFixed(3)))).toEqual([-0.5, 0.5]);
});
