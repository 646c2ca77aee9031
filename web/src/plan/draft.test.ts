import { expect, test } from 'vitest';
import { FIRST_RING, valueAt, withValue } from './draft';

test('a value is put and found at its path, and nothing else changes', () => {
  const next = withValue(FIRST_RING, 'head.bead.hole_mm', 1.5);
  expect(valueAt(next, 'head.bead.hole_mm')).toBe(1.5);
  expect(valueAt(FIRST_RING, 'head.bead.hole_mm')).toBe(1.1);
  expect(next.band).toBe(FIRST_RING.band);
});

test('the way to a value is made when it is missing, and undefined takes it out', () => {
  expect(withValue({}, 'wires.band.metal', 'brass')).toEqual({ wires: { band: { metal: 'brass' } } });
  expect(withValue({ finger: { size: '7' } }, 'finger.size', undefined)).toEqual({ finger: {} });
  expect(valueAt({ finger: 'seven' }, 'finger.size')).toBeUndefined();
});
