import { expect, test } from 'vitest';
import { callOf, groupOfWrap, groupsOf, runsOf, withCoils, withWraps, woven } from './program';

test('another number of wraps changes its own group, and an empty group stays until it is woven', () => {
  expect(withWraps('A3 AB1', 0, 4)).toBe('A4 AB1');
  expect(withWraps('a3, ab1', 1, 2)).toBe('A3 AB2');
  expect(withWraps('A1 AB1 B1', 0, 0)).toBe('A0 AB1 B1');
  expect(woven('A0 AB1 B1')).toBe('AB1 B1');
  expect(groupsOf('AB2 BC2')).toHaveLength(2);
});

test('a tapped wrap knows its group', () => {
  expect([0, 1, 2, 3].map((wrap) => groupOfWrap('A3 AB1', wrap))).toEqual([0, 0, 0, 1]);
});

test('a run of a bundle has its own count', () => {
  expect(runsOf('9 middle, 4 all, 7 inner')).toEqual([
    { coils: 9, where: 'middle' },
    { coils: 4, where: 'all' },
    { coils: 7, where: 'inner' },
  ]);
  expect(withCoils('5 inner, 3 all', 1, 4)).toBe('5 inner, 4 all');
});

test('groups are called as weavers call them', () => {
  expect(groupsOf('A3 AB1').map(callOf)).toEqual(['three on A', 'one round A and B']);
  expect(callOf({ letters: 'BC', wraps: 14 })).toBe('14 round B and C');
});
