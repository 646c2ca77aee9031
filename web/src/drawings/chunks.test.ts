import { expect, test } from 'vitest';
import type { Drawing, Plan } from '../api/client';
import { bounds, chunksOf } from './chunks';

const circle = (radius: number, z: number) =>
  Array.from({ length: 73 }, (_, k) => [
    radius * Math.sin((k * Math.PI) / 36),
    radius * Math.cos((k * Math.PI) / 36),
    z,
  ]);

const drawing: Drawing = {
  inside_x_mm: 0,
  inside_y_mm: 0,
  inside_radius_mm: 8.6,
  strands: [
    {
      role: 'band',
      piece: 1,
      move: 2,
      kind: 'arc',
      id: 'arc',
      width_mm: 0.8,
      height_mm: 0.8,
      hidden: [],
      points: circle(9, 0.4),
    },
    {
      role: 'band',
      piece: 1,
      move: 3,
      kind: 'arc',
      id: 'arc',
      width_mm: 0.8,
      height_mm: 0.8,
      hidden: [],
      points: circle(9, -0.4),
    },
    {
      role: 'nobody',
      piece: 1,
      move: 0,
      kind: 'arc',
      id: 'arc',
      width_mm: 0.8,
      height_mm: 0.8,
      hidden: [],
      points: circle(9, 0),
    },
    { role: 'band', piece: 1, move: 4, kind: 'straight', id: 'straight', width_mm: 0.8, height_mm: 0.8, hidden: [], points: [[0, 9, 0], [0, 60, 0]] }, // prettier-ignore
  ],
  beads: [
    {
      x_mm: 0,
      y_mm: 13,
      z_mm: 0,
      what: 'bead',
      colour: 'honey',
      shape: 'ellipsoid',
      length_mm: 7,
      width_mm: 7,
      height_mm: 7,
      diameter_mm: 7,
    },
  ],
  soldered: [],
};
const plan = {
  wires: [{ role: 'band', piece: 1, width_mm: 0.8, metal: 'brass', moves: [] }],
  drawing,
} as unknown as Plan;

test('seen end-on, a flat turn is one piece, and the nearer lies over the farther', () => {
  const chunks = chunksOf(plan, drawing, 'end').filter((c) => c.move !== 4);
  expect(chunks.map((c) => c.move)).toEqual([3, 2]);
  expect(chunks.every((c) => c.width === 0.8 && c.colours.body === '#bb9a3a')).toBe(true);
});

test('seen from above, the far half is painted before the near half', () => {
  const depths = chunksOf(plan, drawing, 'top').map((c) => c.depth);
  expect(depths.length).toBeGreaterThan(10);
  expect(depths).toEqual([...depths].sort((a, b) => a - b));
  expect(Math.min(...depths)).toBeLessThan(-8);
});

test('pieces join: each begins where the last ended', () => {
  const ends = chunksOf(plan, drawing, 'top')
    .filter((c) => c.move === 2)
    .flatMap((c) => {
      const points = c.points.map((p) => p.map((v) => v.toFixed(2).replace('-0.00', '0.00')).join(' '));
      return [points[0], points.at(-1)];
    });
  const counts = new Map<string | undefined, number>();
  for (const end of ends) counts.set(end, (counts.get(end) ?? 0) + 1);
  // The near and the far side of the ring lie over each other from here.
  expect([...counts.values()].every((count) => count % 2 === 0)).toBe(true);
});

test('the picture holds ring and bead, and lets the ends for the head run out of it', () => {
  const [left, top, width, height] = bounds(drawing, plan, 'end');
  expect(left).toBeCloseTo(-9.6);
  expect(width).toBeCloseTo(19.2);
  expect(top).toBeCloseTo(-(13 + 3.5 + 0.2));
  expect(height).toBeCloseTo(13 + 3.7 + 9.6);
});

test('what runs through a bead is not seen, and what is seen on both its sides are two pieces', () => {
  const points = Array.from({ length: 25 }, (_, k) => [k / 2 - 6, 13, 0]);
  const hidden = Array.from({ length: 12 }, (_, k) => k + 6);
  const strand = { role: 'band', piece: 1, kind: 'bead-row', id: 'row', width_mm: 0.8, height_mm: 0.8, move: 0 };
  for (const side of ['end', 'top'] as const) {
    const seen = chunksOf(plan, { ...drawing, strands: [{ ...strand, points, hidden }] }, side);
    expect(seen.map((c) => c.points.map(([x]) => x))).toEqual([
      [-6, -5.5, -5, -4.5, -4, -3.5, -3],
      [3, 3.5, 4, 4.5, 5, 5.5, 6],
    ]);
    expect(Math.abs((seen[0]?.place ?? 0) - (seen[1]?.place ?? 0))).toBeGreaterThan(1);
  }
});
