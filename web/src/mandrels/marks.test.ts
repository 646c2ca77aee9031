import { expect, test } from 'vitest';
import { trueAt } from '../words/mandrel';
import { marksOf } from './marks';

test('a line is a mark and what is measured there', () => {
  expect(marksOf('US 7 17.25\n UK N 1/2 = 17,3 mm\n\nUS 10: 19.9', 'mm')).toEqual([
    { mark: 'US 7', measured_mm: 17.25 },
    { mark: 'UK N 1/2', measured_mm: 17.3 },
    { mark: 'US 10', measured_mm: 19.9 },
  ]);
  expect(marksOf('UK N 17.3', 'mm')).toEqual([{ mark: 'UK N', measured_mm: 17.3 }]);
  expect(marksOf('US 7', 'mm')[0]?.measured_mm).toBeNaN();
});

test('a mark that runs small is read smaller than it names', () => {
  const small = { name: 'short', off_mm: -0.2, slope: 0.01 };
  expect(trueAt(small, 17)).toBeCloseTo(16.8, 9);
  expect(trueAt(small, 19)).toBeCloseTo(18.82, 9);
  expect(trueAt(null, 19)).toBe(19);
});
