import { expect, test } from 'vitest';
import { groupOfWrap, groupsOf, withWraps } from './program';

test('a wrap more or fewer changes its own group', () => {
  expect(withWraps('A3 AB1', 0, 1)).toBe('A4 AB1');
  expect(withWraps('a3, ab1', 1, 1)).toBe('A3 AB2');
  expect(withWraps('A1 AB1 B1', 0, -1)).toBe('AB1 B1');
  expect(groupsOf('AB2 BC2')).toHaveLength(2);
});

test('a tapped wrap knows its group', () => {
  expect([0, 1, 2, 3].map((wrap) => groupOfWrap('A3 AB1', wrap))).toEqual([0, 0, 0, 1]);
});
