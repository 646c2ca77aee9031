import { expect, test } from 'vitest';
import type { Chunk, Flat } from './chunks';
import { metalColours } from './metals';
import { BESIDE, distance, linesOf, strokesOf } from './strokes';

const WIDTH = 0.8;
const piece = (points: Flat[], place: number, move = 0, depth = place): Chunk => ({
  points,
  place,
  depth,
  width: WIDTH,
  colours: metalColours('copper'),
  round: false,
  ghost: false,
  wire: 0,
  move,
});
const text = ([x, y]: Flat) => `${x.toFixed(2)} ${y.toFixed(2)}`;

/** Numbers from 0 to 1 that are the same in every run. */
function* numbers(seed: number) {
  for (let n = seed; ; yield n / 233280) n = (n * 9301 + 49297) % 233280;
}

test.each([3, 17, 88])('what lies over another is painted after it, and nothing twice (%i)', (seed) => {
  const next = numbers(seed);
  const random = () => next.next().value as number;
  const chunks = Array.from({ length: 120 }, (_, k) => {
    const at: Flat = [random() * 12, random() * 12];
    const bent: Flat = [at[0] + random() * 3 - 1.5, at[1] + random() * 3 - 1.5];
    return piece([at, bent, [bent[0] + random(), bent[1] + random()]], 2 * k, Math.floor(random() * 3));
  });
  const strokes = strokesOf(chunks, true);
  const painted = chunks.map((c) => strokes.findIndex((s) => s.look.move === c.move && s.d.includes(text(c.points[1] ?? [0, 0])))); // prettier-ignore
  expect(painted).not.toContain(-1);
  expect(strokes.flatMap((s) => s.d.match(/[ML]/g)).length).toBe(chunks.length * 3);
  expect(strokes.length).toBeLessThan(chunks.length);
  chunks.forEach((far, i) =>
    chunks.slice(i + 1).forEach((near, j) => {
      const over = linesOf(far).some((a) => linesOf(near).some((b) => distance(a, b) < WIDTH * BESIDE));
      if (over) expect(painted[i]).toBeLessThan(painted[i + 1 + j] ?? -1);
    }),
  );
});

test('wraps that touch are one stroke, and a wire that goes on is one line', () => {
  const wraps = Array.from({ length: 50 }, (_, k) => piece([[k * WIDTH, 0], [k * WIDTH, 2]], 2 * k)); // prettier-ignore
  expect(strokesOf(wraps, true)).toHaveLength(1);
  const on = [piece([[0, 0], [1, 0]], 4), piece([[1, 0], [2, 0.1]], 5)]; // prettier-ignore
  expect(strokesOf(on, true).map((s) => s.d)).toEqual(['M0.00 0.00L1.00 0.00L2.00 0.10']);
});

test('moves are kept apart only where they are pointed at', () => {
  const moves = [piece([[0, 0], [0, 1]], 0, 1), piece([[5, 0], [5, 1]], 2, 2)]; // prettier-ignore
  expect(strokesOf(moves, true).map((s) => s.look.move)).toEqual([1, 2]);
  expect(strokesOf(moves, false)).toHaveLength(1);
});

test('a wire that comes back over itself is painted over itself', () => {
  const loop = [piece([[0, 0], [4, 0]], 0, 0, 0), piece([[2, -2], [2, 2]], 2, 0, 1)]; // prettier-ignore
  expect(strokesOf(loop, true)).toHaveLength(2);
});

test('distances, with corners and crossings of known figures', () => {
  expect(distance([[0, 0], [2, 0]], [[1, -1], [1, 1]])).toBe(0); // prettier-ignore
  expect(distance([[0, 0], [2, 0]], [[5, 4], [9, 4]])).toBe(5); // prettier-ignore
  expect(distance([[0, 0], [2, 0]], [[-3, 1.5], [7, 1.5]])).toBe(1.5); // prettier-ignore
});
