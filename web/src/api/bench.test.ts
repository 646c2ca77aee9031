import { expect, test } from 'vitest';
import { newest } from './bench';

const at = (number: number, title = 'A row') => ({ job: { title }, progress: { number, made: [] } });

test('what is seen stays when an older answer comes late, and gives way to a newer one', () => {
  const seen = at(5);
  expect(newest(undefined, at(4))).toEqual(at(4));
  expect(newest(seen, at(4))).toBe(seen);
  expect(newest(seen, at(6))).toEqual(at(6));
});

test('an answer with as many events may say something else: what is the same of it stays the same', () => {
  const seen = at(5);
  const again = newest(seen, at(5, 'Another name')) as typeof seen;
  expect(again.job.title).toBe('Another name');
  expect(again.progress).toBe(seen.progress);
});
