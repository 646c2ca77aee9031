import { expect, test } from 'vitest';
import { groupOfWrap, groupsOf, withCoil, withWraps } from './program';

test('a wrap more or fewer changes its own group', () => {
  expect(withWraps('A3 AB1', 0, 1)).toBe('A4 AB1');
  expect(withWraps('a3, ab1', 1, 1)).toBe('A3 AB2');
  expect(withWraps('A1 AB1 B1', 0, -1)).toBe('AB1 B1');
  expect(groupsOf('AB2 BC2')).toHaveLength(2);
});

test('a tapped wrap knows its group', () => {
  expect([0, 1, 2, 3].map((wrap) => groupOfWrap('A3 AB1', wrap))).toEqual([0, 0, 0, 1]);
});

test.each([
  [0, '6 inner, 3 all'],
  [4, '6 inner, 3 all'],
  [5, '5 inner, 4 all'],
  [8, '6 inner, 3 all'],
  [13, '5 inner, 4 all'],
])('coil %i from the middle belongs to its run, also where the runs repeat', (coil, runs) => {
  expect(withCoil('5 inner, 3 all', coil)).toBe(runs);
});
