import type { Drawing, Plan } from '../api/client';
import { metalColours, type MetalColours } from './metals';

export type Side = 'end' | 'top';

/** Where a point stands in the picture [mm]. */
export type Flat = readonly [number, number];

/** A short piece of a wire, to be painted at its depth. */
export interface Chunk {
  points: readonly Flat[];
  /** Its place among all pieces: one that goes on where another ends, and no other, has the next one. */
  place: number;
  depth: number;
  width: number;
  colours: MetalColours;
  /** It turns sharply: its pieces meet round, or their corners would stick out. */
  round: boolean;
  /** It comes out again: what is drawn is only to be worked by. */
  ghost: boolean;
  wire: number;
  move: number;
}

type Point = readonly number[];

/** How far a piece may reach in depth, in wire widths, before what lies before and behind it can't be told any more. */
const DEEP = 1.2;
/** The same for what goes round others, whose near and far sides lie close together. */
const DEEP_ROUND = 0.45;
const ROUND = new Set(['wrap', 'weave', 'bind', 'twist', 'crossing']);

// Seen from the end, one looks along the finger; from the top, down on the head.
export const project: Record<Side, (p: Point) => [number, number, number]> = {
  end: ([x = 0, y = 0, z = 0]) => [x, -y, z],
  top: ([x = 0, y = 0, z = 0]) => [x, z, y],
};

/** How much is seen of what comes out again. */
export const GHOST = 0.4;

/** Whether a stretch of wire is there for a while only. */
export const comesOut = (wire: Plan['wires'][number], move: number) => wire.moves[move]?.fate === 'removed';

/** Cut every strand into short pieces with a depth, so that they can be painted from back to front. */
export function chunksOf(plan: Plan, drawing: Drawing, side: Side): Chunk[] {
  const chunks: Chunk[] = [];
  let place = 0;
  for (const strand of drawing.strands) {
    const wire = plan.wires.findIndex((w) => w.role === strand.role && w.piece === strand.piece);
    const told = plan.wires[wire];
    if (!told) continue;
    const points = strand.points.map(project[side]);
    const hidden = new Set(strand.hidden);
    const colours = metalColours(told.metal);
    const round = ROUND.has(strand.kind);
    // From the end its height is seen, from above how far it reaches along the finger.
    const width = side === 'end' ? strand.height_mm : strand.width_mm;
    const deep = (round ? DEEP_ROUND : DEEP) * width;
    for (let start = 0; start < points.length - 1;) {
      if (hidden.has(start)) {
        start += 1;
        place += 1;
        continue;
      }
      const from = points[start]?.[2] ?? 0;
      let end = start + 1;
      while (end < points.length - 1 && !hidden.has(end) && Math.abs((points[end]?.[2] ?? 0) - from) < deep) end += 1;
      const part = points.slice(start, end + 1);
      const depth = part.reduce((sum, p) => sum + p[2], 0) / part.length;
      const flat = part.map(([x, y]): Flat => [x, y]);
      const ghost = comesOut(told, strand.move);
      chunks.push({ points: flat, place: place++, depth, width, colours, round, ghost, wire, move: strand.move });
      start = end;
    }
    place += 1;
  }
  return chunks.sort((a, b) => a.depth - b.depth);
}

/** What the picture shows [mm]: left, top, width, height. */
export function bounds(drawing: Drawing, plan: Plan, side: Side): [number, number, number, number] {
  let [left, top, right, bottom] = [Infinity, Infinity, -Infinity, -Infinity];
  const thick = Math.max(...plan.wires.map((w) => w.width_mm)) / 2 + 0.2;
  const grow = (p: Point, r: number) => {
    const [x, y] = project[side](p);
    [left, top, right, bottom] = [
      Math.min(left, x - r),
      Math.min(top, y - r),
      Math.max(right, x + r),
      Math.max(bottom, y + r),
    ];
  };
  // Ends that stand up for the head may run out of the picture: the ring is what is looked at.
  for (const strand of drawing.strands) if (strand.kind !== 'straight') for (const p of strand.points) grow(p, thick);
  for (const bead of drawing.beads) grow([bead.x_mm, bead.y_mm, bead.z_mm], bead.diameter_mm / 2 + 0.2);
  return [left, top, right - left, bottom - top];
}
