import { expect, test } from 'vitest';
import type { PlannedWire } from '../api/client';
import { alike } from './pieces';

const piece = (role: string, cut_mm: number, at_mm: number): PlannedWire =>
  ({
    role,
    label: 'soft copper, 0.8 mm',
    cut_mm,
    marks: [{ at_mm, label: 'middle', kind: 'mark' }],
  }) as unknown as PlannedWire;

test('pieces that are cut and marked alike stand once, with their number', () => {
  const found = alike([piece('base', 138, 42), piece('base', 138, 42), piece('weave', 798, 0), piece('base', 138, 40)]);
  expect(found.map(({ wire, index, count }) => [wire.role, index, count])).toEqual([
    ['base', 0, 2],
    ['weave', 2, 1],
    ['base', 3, 1],
  ]);
});

test('no wires, no pieces', () => {
  expect(alike([])).toEqual([]);
});
