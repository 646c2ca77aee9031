import { expect, test } from 'vitest';
import { grouped, minutesOf } from './records';

const dot = (group: string, off_mm: number) => ({ id: `${group}${off_mm}`, title: 'a ring', group, off_mm, off: '' });

test('sizes stand by their group, the one with most rings first, with where they are on the whole', () => {
  const rows = grouped([dot('woven', 0.1), dot('turned', -0.2), dot('turned', 0.1), dot('open', 0)]);
  expect(rows.map((row) => [row.group, row.dots.length])).toEqual([
    ['turned', 2],
    ['open', 1],
    ['woven', 1],
  ]);
  expect(rows[0]?.mean).toBeCloseTo(-0.05);
  expect(rows[0]?.dots.map((d) => d.off_mm)).toEqual([-0.2, 0.1]);
});

test('minutes stand beside those that were planned, where there was a plan', () => {
  expect(minutesOf(30.6, 40.2)).toBe('31 of 40 min');
  expect(minutesOf(30.6, null)).toBe('31 min');
  expect(minutesOf(null, null)).toBe('');
});
