import { expect, test } from 'vitest';
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
