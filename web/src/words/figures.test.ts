import { readFileSync } from 'node:fs';
import { expect, test } from 'vitest';
import { length, mm, oneIn, signed, withFractions, lengthIn } from './figures';

test.each([
  ['8 1/4', '8¼'],
  ['US 6 1/2', 'US 6½'],
  ['UK M 1/2 + 0.05 mm', 'UK M½ + 0.05 mm'],
  ['3/8', '⅜'],
  ['Z+2 1/2', 'Z+2½'],
  ['0.8 mm', '0.8 mm'],
  ['7 3/7', '7 3/7'],
  ['a turn in 1/4 in', 'a turn in ¼ in'],
  ['Bend it 3/8 in', 'Bend it ⅜ in'],
])('%s is written %s', (plain, written) => {
  expect(withFractions(plain)).toBe(written);
});

test('never more digits than a tape shows', () => {
  expect([mm(230), mm(209.55), mm(7.04), mm(0.8118, 2), mm(100)]).toEqual(['230', '209.6', '7', '0.81', '100']);
  expect(signed(-1.084, 2)).toBe('−1.08');
  expect(oneIn(0.02)).toBe('1 in 50');
});

test('drawings write lengths as the server writes its texts', () => {
  const table = JSON.parse(readFileSync('../tests/fixtures/lengths.json', 'utf-8')) as {
    mm: number;
    as_mm: string;
    as_in: string;
  }[];
  for (const row of table) {
    expect([length(row.mm, 'mm'), length(row.mm, 'in')]).toEqual([row.as_mm, withFractions(row.as_in)]);
  }
});

test('lengths are read in the maker’s own unit, fractions too', () => {
  expect(lengthIn('7,5', 'mm')).toBe(7.5);
  expect(lengthIn(' 38 ', 'mm')).toBe(38);
  expect(lengthIn('3/8', 'in')).toBeCloseTo(9.525, 9);
  expect(lengthIn('13/16', 'in')).toBeCloseTo(20.6375, 9);
  expect(lengthIn('11/2', 'mm')).toBe(5.5);
  expect(lengthIn('1 1/2', 'in')).toBeCloseTo(38.1, 9);
  for (const none of ['', ' ', 'long', '1/0', '-3']) expect(lengthIn(none, 'mm')).toBeNaN();
});
