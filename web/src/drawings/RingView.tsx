import { memo, useId, useMemo } from 'react';
import type { Drawing, Plan } from '../api/client';
import { mm } from '../words/figures';
import { metalColours, type MetalColours } from './metals';

/** The stretch that is looked at: a wire by its place in the plan, a move by its place on the wire. */
export interface Stretch {
  wire: number;
  move: number;
}

export type Side = 'end' | 'top';

interface Chunk {
  d: string;
  depth: number;
  width: number;
  colours: MetalColours;
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
const project: Record<Side, (p: Point) => [number, number, number]> = {
  end: ([x = 0, y = 0, z = 0]) => [x, -y, z],
  top: ([x = 0, y = 0, z = 0]) => [x, z, y],
};

/** Cut every strand into short pieces with a depth, so that they can be painted from back to front. */
function chunksOf(plan: Plan, drawing: Drawing, side: Side): Chunk[] {
  const chunks: Chunk[] = [];
  for (const strand of drawing.strands) {
    const wire = plan.wires.findIndex((w) => w.role === strand.role && w.piece === strand.piece);
    const told = plan.wires[wire];
    if (!told) continue;
    const points = strand.points.map(project[side]);
    const colours = metalColours(told.metal);
    const deep = (ROUND.has(strand.kind) ? DEEP_ROUND : DEEP) * told.width_mm;
    for (let start = 0; start < points.length - 1;) {
      const from = points[start]?.[2] ?? 0;
      let end = start + 1;
      while (end < points.length - 1 && Math.abs((points[end]?.[2] ?? 0) - from) < deep) end += 1;
      const part = points.slice(start, end + 1);
      const depth = part.reduce((sum, p) => sum + p[2], 0) / part.length;
      const d = part.map(([x, y], k) => `${k ? 'L' : 'M'}${x.toFixed(2)} ${y.toFixed(2)}`).join('');
      chunks.push({ d, depth, width: told.width_mm, colours, wire, move: strand.move });
      start = end;
    }
  }
  return chunks.sort((a, b) => a.depth - b.depth);
}

interface Props {
  plan: Plan;
  side: Side;
  active: Stretch | null;
  onActive: (stretch: Stretch | null) => void;
}

/** The ring itself, true to scale, from its wires' paths; with the circle that the mandrel reads when seen end-on. */
export const RingView = memo(function RingView({ plan, side, active, onActive }: Props) {
  const id = useId();
  const { drawing } = plan;
  const chunks = useMemo(() => (drawing ? chunksOf(plan, drawing, side) : []), [plan, drawing, side]);
  if (!drawing) return null;
  const box = bounds(drawing, plan, side);
  const beadDepth = side === 'end' ? 0 : (drawing.beads[0]?.y_mm ?? 0);
  const behind = chunks.filter((c) => c.depth <= beadDepth);
  const front = chunks.filter((c) => c.depth > beadDepth);
  const paint = (list: Chunk[]) =>
    list.map((chunk, k) => {
      const lit = active?.wire === chunk.wire && active.move === chunk.move;
      return (
        <g
          key={k}
          fill="none"
          strokeLinecap="butt"
          strokeLinejoin="round"
          onMouseEnter={() => onActive({ wire: chunk.wire, move: chunk.move })}
          onClick={() => onActive({ wire: chunk.wire, move: chunk.move })}
        >
          <path
            d={chunk.d}
            stroke={lit ? 'var(--mui-palette-primary-main)' : chunk.colours.edge}
            strokeWidth={chunk.width}
          />
          <path d={chunk.d} stroke={chunk.colours.body} strokeWidth={chunk.width * (lit ? 0.5 : 0.72)} />
          <path d={chunk.d} stroke={chunk.colours.shine} strokeWidth={chunk.width * 0.2} opacity="0.75" />
        </g>
      );
    });
  const inside = 2 * drawing.inside_radius_mm;
  return (
    <svg
      viewBox={box.join(' ')}
      role="img"
      aria-label={side === 'end' ? `The ring end-on, ${mm(inside, 2)} mm inside` : 'The ring from above'}
      style={{ display: 'block', width: '100%', height: '100%' }}
      onMouseLeave={() => onActive(null)}
    >
      <defs>
        <radialGradient id={`${id}bead`} cx="0.36" cy="0.34" r="0.75">
          <stop offset="0" stopColor="#ffe9b0" />
          <stop offset="0.3" stopColor="#e2a02c" />
          <stop offset="0.8" stopColor="#a8690f" />
          <stop offset="1" stopColor="#75480a" />
        </radialGradient>
      </defs>
      {paint(behind)}
      {drawing.beads.map((bead, k) => {
        const [cx, cy] = project[side]([bead.x_mm, bead.y_mm, bead.z_mm]);
        return (
          <circle key={k} cx={cx} cy={cy} r={bead.diameter_mm / 2} fill={`url(#${id}bead)`} pointerEvents="none" />
        );
      })}
      {paint(front)}
      {side === 'end' && (
        <g pointerEvents="none">
          <circle
            cx={drawing.inside_x_mm}
            cy={-drawing.inside_y_mm}
            r={drawing.inside_radius_mm}
            fill="none"
            stroke="var(--mui-palette-primary-main)"
            strokeWidth="0.16"
          />
          <text
            x="0"
            y="0.2"
            textAnchor="middle"
            fontSize="1.25"
            fontWeight="700"
            fill="var(--mui-palette-text-primary)"
          >
            {mm(inside, 2)} mm
          </text>
          <text x="0" y="1.9" textAnchor="middle" fontSize="0.95" fill="var(--mui-palette-text-secondary)">
            largest circle inside
          </text>
        </g>
      )}
    </svg>
  );
});

function bounds(drawing: Drawing, plan: Plan, side: Side): [number, number, number, number] {
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
