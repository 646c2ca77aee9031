import { expect, test } from 'vitest';
import type { PlannedMove } from '../api/client';
import { placeLabels, type RowStretch } from './labels';

const stretch = (label: string, left: number, right: number, index: number): RowStretch => {
  const move: PlannedMove = {
    kind: 'arc',
    label,
    from_mm: left,
    to_mm: right,
    count: null,
    length_mm: right - left,
    in_ring: true,
    arithmetic: '',
    id: 'x',
    fate: 'ring',
    length: '',
  };
  return { move, index, left, right };
};
const px = (at: number) => at * 5;

test('labels stand over their stretch, in the first line where there is room', () => {
  const placed = placeLabels([stretch('hold', 0, 25, 0), stretch('once round', 25, 75, 1)], px, 1000);
  expect(placed.map(({ at, tier }) => [at, tier])).toEqual([
    [62.5, 0],
    [250, 0],
  ]);
});

test('a label that would run into its neighbour goes a line higher, and the next comes back down', () => {
  const placed = placeLabels(
    [stretch('shoulder', 20, 24, 0), stretch('bead', 24, 31, 1), stretch('turn', 50, 60, 2)],
    px,
    1000,
  );
  expect(placed.map((p) => p.tier)).toEqual([0, 1, 0]);
});

test('what is too short to be told apart is left to be looked at', () => {
  expect(placeLabels([stretch('bend', 10, 10.6, 0)], px, 1000)).toEqual([]);
});

test('a third label where two lines are full is left out rather than printed over', () => {
  const crowded = [stretch('first one', 10, 12, 0), stretch('second one', 12, 14, 1), stretch('third one', 14, 16, 2)];
  expect(placeLabels(crowded, px, 1000)).toHaveLength(2);
});

test('labels at the ends stay on the paper', () => {
  const [first, last] = placeLabels([stretch('a long label', 0, 2, 0), stretch('a long label', 198, 200, 1)], px, 1000);
  expect(first?.at).toBeGreaterThan(40);
  expect(last?.at).toBeLessThan(960);
});
