import { memo, useId, useMemo } from 'react';
import type { Plan } from '../api/client';
import { hasSize } from '../words/sized';
import { bounds, chunksOf, GHOST, project, type Side } from './chunks';
import { metalColours } from './metals';
import { solderMarks, type SolderMark } from './solder';
import { dropOutline, SHADES, stoneColours } from './stones';
import { strokesOf, type Stroke } from './strokes';

/** The stretch that is looked at: a wire by its place in the plan, a move by its place on the wire. */
export interface Stretch {
  wire: number;
  move: number;
}

interface Props {
  plan: Plan;
  side: Side;
  active?: Stretch | null;
  /** What is pointed at; on paper there is nothing to point with. */
  onActive?: (stretch: Stretch | null) => void;
}

/** The ring itself, true to scale, from its wires' paths; with the circle that the mandrel reads when seen end-on. */
export const RingView = memo(function RingView({ plan, side, active = null, onActive }: Props) {
  const id = useId();
  const { drawing } = plan;
  const byMove = onActive !== undefined;
  const [behind, front] = useMemo(() => {
    const chunks = drawing ? chunksOf(plan, drawing, side) : [];
    const beadDepth = side === 'end' ? 0 : (drawing?.beads[0]?.y_mm ?? 0);
    const [far, near] = [chunks.filter((c) => c.depth <= beadDepth), chunks.filter((c) => c.depth > beadDepth)];
    return [strokesOf(far, byMove), strokesOf(near, byMove)];
  }, [plan, drawing, side, byMove]);
  const soldered = useMemo(
    () => (drawing ? solderMarks(drawing, side, metalColours(plan.wires[0]?.metal ?? '').edge) : []),
    [plan, drawing, side],
  );
  if (!drawing) return null;
  const box = bounds(drawing, plan, side);
  const paint = (strokes: Stroke[]) =>
    strokes.map(({ d, look: chunk }, k) => {
      const lit = active?.wire === chunk.wire && active.move === chunk.move;
      return (
        <g
          key={k}
          fill="none"
          opacity={chunk.ghost ? GHOST : undefined}
          strokeLinecap={chunk.round ? 'round' : 'butt'}
          strokeLinejoin="round"
          onMouseEnter={onActive && (() => onActive({ wire: chunk.wire, move: chunk.move }))}
          onClick={onActive && (() => onActive({ wire: chunk.wire, move: chunk.move }))}
        >
          <path d={d} stroke={lit ? 'var(--mui-palette-primary-main)' : chunk.colours.edge} strokeWidth={chunk.width} />
          <path d={d} stroke={chunk.colours.body} strokeWidth={chunk.width * (lit ? 0.5 : 0.72)} />
          <path d={d} stroke={chunk.colours.shine} strokeWidth={chunk.width * 0.2} opacity="0.75" />
        </g>
      );
    });
  const solder = (marks: SolderMark[]) => (
    <g fill="none" strokeLinecap="round" strokeLinejoin="round" pointerEvents="none">
      {marks.map((mark, k) => (
        <path key={k} d={mark.d} stroke={mark.colour} strokeWidth={mark.width} />
      ))}
    </g>
  );
  return (
    <svg
      viewBox={box.join(' ')}
      role="img"
      aria-label={side === 'end' ? 'The ring end-on' : 'The ring from above'}
      style={{ display: 'block', width: '100%', height: '100%' }}
      onMouseLeave={onActive && (() => onActive(null))}
    >
      <defs>
        {[...new Set(drawing.beads.map((bead) => bead.colour))].map((colour) => (
          <radialGradient key={colour} id={`${id}${colour}`} cx="0.36" cy="0.34" r="0.75">
            {stoneColours(colour).map((shade, k) => (
              <stop key={k} offset={SHADES[k]} stopColor={shade} />
            ))}
          </radialGradient>
        ))}
      </defs>
      {solder(soldered.filter((mark) => !mark.front))}
      {paint(behind)}
      {drawing.beads.map((bead, k) => {
        const [cx, cy] = project[side]([bead.x_mm, bead.y_mm, bead.z_mm]);
        const high = side === 'end' ? bead.height_mm : bead.width_mm;
        if (['rectangle', 'octagon', 'slab', 'barrel'].includes(bead.shape)) {
          return (
            <rect
              key={k}
              x={cx - bead.length_mm / 2}
              y={cy - high / 2}
              width={bead.length_mm}
              height={high}
              rx={Math.min(bead.length_mm, high) / 6}
              fill={bead.shape === 'barrel' ? 'none' : `url(#${id}${bead.colour})`}
              pointerEvents="none"
            />
          );
        }
        const fill = `url(#${id}${bead.colour})`;
        if (bead.shape === 'drop' && side === 'top')
          return <path key={k} d={dropOutline(cx, cy, bead.length_mm, high)} fill={fill} pointerEvents="none" />;
        return (
          <ellipse key={k} cx={cx} cy={cy} rx={bead.length_mm / 2} ry={high / 2} fill={fill} pointerEvents="none" />
        );
      })}
      {paint(front)}
      {solder(soldered.filter((mark) => mark.front))}
      {side === 'end' && hasSize(plan) && (
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
            {plan.finished.across}
          </text>
          <text x="0" y="1.9" textAnchor="middle" fontSize="0.95" fill="var(--mui-palette-text-secondary)">
            largest circle inside
          </text>
        </g>
      )}
    </svg>
  );
});
