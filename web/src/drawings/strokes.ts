import type { Chunk, Flat } from './chunks';

/** Pieces that are painted at one time: a woven ring has a thousand pieces, and a screen of so many elements answers slowly. */
export interface Stroke {
  d: string;
  look: Chunk;
}

/** By how much of their width wires may lie over each other and still be told apart, whichever is painted first. */
export const BESIDE = 0.9;
const CELL_MM = 0.7;

/** The pieces in as few strokes as may be, in an order in which every piece lies over what it covers.
 *
 * `chunks` run from back to front. Told apart `byMove`, every stroke is one move's, so that it can be pointed at.
 */
export function strokesOf(chunks: readonly Chunk[], byMove: boolean): Stroke[] {
  const layers: Chunk[][] = [];
  const ofMove = new Map<string, number[]>();
  const painted = new Painted();
  for (const chunk of chunks) {
    const lines = linesOf(chunk).map((line) => ({ line, cells: cellsOf(line, chunk.width) }));
    const least = painted.above(chunk, lines);
    const whose = byMove ? `${chunk.wire} ${chunk.move}` : `${chunk.colours.edge} ${chunk.ghost}`;
    const key = `${whose} ${chunk.width} ${chunk.round}`;
    const own = ofMove.get(key) ?? [];
    let layer = own.find((one) => one >= least);
    if (layer === undefined) {
      layer = layers.push([]) - 1;
      ofMove.set(key, [...own, layer]);
    }
    layers[layer]?.push(chunk);
    painted.add(chunk, lines, layer);
  }
  return layers.flatMap((layer) => (layer[0] ? [{ d: lineOf(layer), look: layer[0] }] : []));
}

/** One goes on where the other ends: they are drawn as one line. */
const followed = (a: Chunk, b: Chunk) => Math.abs(a.place - b.place) === 1;

function lineOf(layer: readonly Chunk[]): string {
  let last = -2;
  const parts: string[] = [];
  for (const { place, points } of [...layer].sort((a, b) => a.place - b.place)) {
    const goesOn = place === last + 1;
    points.forEach(([x, y], k) => {
      if (k || !goesOn) parts.push(`${k ? 'L' : 'M'}${x.toFixed(2)} ${y.toFixed(2)}`);
    });
    last = place;
  }
  return parts.join('');
}

/** A straight part of a piece. */
type Line = readonly [Flat, Flat];

export const linesOf = ({ points }: Chunk): Line[] => points.slice(1).map((to, k): Line => [points[k] ?? to, to]);

interface Placed {
  line: Line;
  cells: readonly number[];
}

/** Whether one is seen to lie over the other. */
function cover(a: Line, b: Line, widths: number): boolean {
  const apart = (widths / 2) * BESIDE;
  // Most lie nowhere near.
  for (const k of [0, 1] as const)
    if (
      Math.min(a[0][k], a[1][k]) - Math.max(b[0][k], b[1][k]) >= apart ||
      Math.min(b[0][k], b[1][k]) - Math.max(a[0][k], a[1][k]) >= apart
    )
      return false;
  return distance(a, b) < apart;
}

/** Between two straight pieces. */
export function distance([a, b]: Line, [c, d]: Line): number {
  const side = (p: Flat, q: Flat, r: Flat) => (q[0] - p[0]) * (r[1] - p[1]) - (q[1] - p[1]) * (r[0] - p[0]);
  if (side(a, b, c) * side(a, b, d) < 0 && side(c, d, a) * side(c, d, b) < 0) return 0;
  return Math.min(toPiece(a, c, d), toPiece(b, c, d), toPiece(c, a, b), toPiece(d, a, b));
}

function toPiece(p: Flat, a: Flat, b: Flat): number {
  const [x, y] = [b[0] - a[0], b[1] - a[1]];
  const long = x * x + y * y;
  const part = long ? Math.max(0, Math.min(1, ((p[0] - a[0]) * x + (p[1] - a[1]) * y) / long)) : 0;
  return Math.hypot(p[0] - a[0] - part * x, p[1] - a[1] - part * y);
}

/** What is painted already, by where it lies. */
class Painted {
  private readonly cells = new Map<number, { line: Line; chunk: Chunk; layer: number }[]>();

  add(chunk: Chunk, lines: readonly Placed[], layer: number): void {
    for (const { line, cells } of lines) {
      const entry = { line, chunk, layer };
      for (const cell of cells) {
        const there = this.cells.get(cell);
        if (there) there.push(entry);
        else this.cells.set(cell, [entry]);
      }
    }
  }

  /** The first layer in which a piece lies over all that it covers. */
  above(chunk: Chunk, lines: readonly Placed[]): number {
    let least = 0;
    for (const { line, cells } of lines)
      for (const cell of cells) {
        const there = this.cells.get(cell) ?? [];
        // The last ones lie highest: once one is found, few others have to be looked at.
        for (let k = there.length - 1; k >= 0; k -= 1) {
          const other = there[k];
          if (!other) continue;
          const over = followed(chunk, other.chunk) ? other.layer : other.layer + 1;
          if (over > least && cover(line, other.line, chunk.width + other.chunk.width)) least = over;
        }
      }
    return least;
  }
}

/** The squares that a line of this width may touch. */
function cellsOf([a, b]: Line, width: number): number[] {
  const column = (v: number) => Math.floor(v / CELL_MM) + 500;
  const cells: number[] = [];
  const right = column(Math.max(a[0], b[0]) + width / 2);
  const bottom = column(Math.max(a[1], b[1]) + width / 2);
  for (let i = column(Math.min(a[0], b[0]) - width / 2); i <= right; i += 1)
    for (let j = column(Math.min(a[1], b[1]) - width / 2); j <= bottom; j += 1) cells.push(i * 1000 + j);
  return cells;
}
