import { memo, useMemo } from 'react';
import type { Plan } from '../api/client';
import { figures } from '../app/theme';
import { MM_PER_INCH, measure, type Units } from '../words/figures';
import { SOLDER } from './solder';
import { unrolledTop } from './unrolled';
import { useWidth } from './useWidth';

interface Props {
  plan: Plan;
  units: Units;
  /** A fixed scale, for paper; without it the top fills the width. */
  pxPerMm?: number;
}

const MOST_PX_PER_MM = 22;
const RULER = 30;

/** The waved tops rolled out flat: every lane, where neighbours meet, the windows between them, seams, and where the solder begins. */
export const UnrolledTop = memo(function UnrolledTop({ plan, units, pxPerMm }: Props) {
  const [ref, shown] = useWidth<HTMLDivElement>(1160);
  const top = useMemo(() => unrolledTop(plan), [plan]);
  if (!top) return null;
  const scale = pxPerMm ?? Math.min(MOST_PX_PER_MM, (shown - 4) / (2 * top.reach));
  const [width, high] = [2 * top.reach * scale + 4, top.high * scale + 8];
  const step = units === 'in' ? MM_PER_INCH / 4 : 5;
  const each = Math.floor(top.reach / step);
  const ticks = Array.from({ length: 2 * each + 1 }, (_, k) => (k - each) * step);
  const path = (points: readonly (readonly [number, number])[]) =>
    points.map(([u, z], k) => `${k ? 'L' : 'M'}${u.toFixed(2)} ${z.toFixed(2)}`).join('');
  return (
    <div ref={ref}>
      <svg
        width={width}
        height={high + RULER}
        role="img"
        aria-label="The tops rolled out flat"
        style={{ display: 'block', overflow: 'visible' }}
      >
        <g transform={`translate(${width / 2} ${high / 2}) scale(${scale})`} fill="none" strokeLinejoin="round">
          {top.lanes.map((lane, k) => (
            <g key={k}>
              <path d={path(lane.points)} stroke={lane.colours.edge} strokeWidth={lane.width} />
              <path d={path(lane.points)} stroke={lane.colours.body} strokeWidth={lane.width * 0.76} />
              <path d={path(lane.points)} stroke={lane.colours.shine} strokeWidth={lane.width * 0.2} opacity="0.75" />
            </g>
          ))}
          {top.marks.map((mark, k) =>
            mark.what === 'contact' ? (
              mark.points.map(([u, z]) => (
                <circle
                  key={k}
                  cx={u}
                  cy={z}
                  r={0.36}
                  fill="var(--mui-palette-background-paper)"
                  stroke={SOLDER}
                  strokeWidth={0.2}
                />
              ))
            ) : (
              <path
                key={k}
                d={path(mark.points)}
                stroke={mark.what === 'tube' ? (top.lanes[0]?.colours.edge ?? SOLDER) : SOLDER}
                strokeWidth={mark.what === 'back' ? 0.5 : 0.22}
              />
            ),
          )}
        </g>
        <g
          transform={`translate(${width / 2} ${high})`}
          fill="var(--mui-palette-text-secondary)"
          stroke="none"
          fontSize="12"
          fontFamily={figures}
        >
          {ticks.map((u) => (
            <g key={u} transform={`translate(${u * scale} 0)`}>
              <path d={`M 0 0 v ${u === 0 ? 9 : 5}`} stroke="var(--mui-palette-text-secondary)" />
              {(Math.round(u / step) % 2 === 0 || step * scale > 40) && (
                <text y={20} textAnchor="middle">
                  {u === 0 ? '0' : measure(Math.abs(u), units)}
                </text>
              )}
            </g>
          ))}
        </g>
      </svg>
    </div>
  );
});
