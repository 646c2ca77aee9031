import { memo, useId, useMemo } from 'react';
import type { Plan } from '../api/client';
import { figures } from '../app/theme';
import { length, measure, type Units } from '../words/figures';
import type { Chunk, Flat } from './chunks';
import { metalColours } from './metals';
import { strokesOf } from './strokes';
import { useWidth } from './useWidth';

type Fit = NonNullable<Plan['fit']>;

interface Props {
  fit: Fit;
  baseMetal: string;
  weaveMetal: string;
  units: Units;
  /** A wrap of the enlarged repeat was tapped: its place among the repeat's wraps. */
  onWrap?: ((pass: number) => void) | undefined;
  /** A fixed scale, for paper; without it the weave fills the width. */
  pxPerMm?: number;
}

const RULER = 34;
/** How many points of a strand are painted at one depth. */
const BRAID_STEP = 3;
const REPEAT_PX = 300;
/** Left of the enlarged repeat, for the base wires' letters: not on copper. */
const LETTERS_PX = 24;

/** The weave over its base wires, true to scale: the whole flat length against its target, and one repeat enlarged. */
export const WeaveChart = memo(function WeaveChart({ fit, baseMetal, weaveMetal, units, onWrap, pxPerMm }: Props) {
  const [ref, shown] = useWidth<HTMLDivElement>(1160);
  const long = Math.max(fit.target_mm, fit.made_mm);
  const scale = pxPerMm ?? (shown - 4) / long;
  const width = long * scale + 4;
  const offset = (long - fit.made_mm) / 2;
  // A bound row is drawn whole: its coils are no repeats of each other.
  const repeats = Array.from({ length: fit.kind === 'bind' ? 1 : fit.repeats }, (_, k) => k);
  const high = bandHeight(fit) * scale;
  const every = Math.max(1, Math.ceil(repeats.length / Math.max(3, Math.floor(width / 130))));
  return (
    <div ref={ref}>
      <svg
        width={width}
        height={high + RULER + 26}
        role="img"
        aria-label={`${fit.repeats} repeats, ${measure(fit.made_mm, units)} of ${length(fit.target_mm, units)}`}
        style={{ display: 'block', overflow: 'visible' }}
      >
        <g transform={`translate(2 4) scale(${scale})`}>
          <Bases fit={fit} metal={baseMetal} from={0} to={long} />
          {fit.kind === 'braid' && <Strands fit={fit} metal={baseMetal} />}
          {repeats.map((k) => (
            <g key={k} transform={`translate(${offset + k * fit.repeat_mm} 0)`}>
              <Wraps fit={fit} metal={weaveMetal} {...(fit.kind === 'bind' && onWrap ? { onWrap } : {})} />
            </g>
          ))}
        </g>
        <g
          transform={`translate(2 ${high + 12})`}
          fill="var(--mui-palette-text-secondary)"
          fontSize="12"
          fontFamily={figures}
        >
          {fit.kind !== 'bind' &&
            repeats
              .filter(
                (k) => (k % every === 0 || k === fit.repeats - 1) && (k + 1) * fit.repeat_mm <= fit.made_mm + 1e-6,
              )
              .map((k) => {
                const x = (offset + (k + 1) * fit.repeat_mm) * scale;
                const last = k === fit.repeats - 1;
                if (!last && x > width - 150) return null;
                return (
                  <g key={k}>
                    <path d={`M ${x} 0 v 7`} stroke="var(--mui-palette-text-secondary)" />
                    <text x={x} y={20} textAnchor={x < 60 ? 'start' : x > width - 60 ? 'end' : 'middle'}>
                      {fit.repeats > 1 ? `${k + 1}: ` : ''}
                      {length(Math.round((k + 1) * fit.wire_per_repeat_mm), units)}
                    </text>
                  </g>
                );
              })}
          <path
            d={`M ${((long - fit.target_mm) / 2) * scale} ${RULER - 6} H ${((long + fit.target_mm) / 2) * scale}`}
            stroke="var(--mui-palette-primary-main)"
            strokeWidth="3"
          />
          {[long - fit.target_mm, long + fit.target_mm].map((at) => (
            <path
              key={at}
              d={`M ${(at / 2) * scale} ${RULER - 12} v 12`}
              stroke="var(--mui-palette-primary-main)"
              strokeWidth="3"
            />
          ))}
          <text
            x={(long / 2) * scale}
            y={RULER + 12}
            textAnchor="middle"
            fill="var(--mui-palette-primary-main)"
            fontWeight="700"
          >
            {length(fit.target_mm, units)} to fill
          </text>
        </g>
      </svg>
      {onWrap && fit.kind === 'weave' && (
        <OneRepeat fit={fit} baseMetal={baseMetal} weaveMetal={weaveMetal} onWrap={onWrap} />
      )}
    </div>
  );
});

const bandHeight = (fit: Fit) => {
  if (fit.kind === 'braid') return 2 * reachOf(fit) + fit.wire_mm;
  const [first, last] = [fit.base[0], fit.base.at(-1)];
  return first && last ? last.z_mm - first.z_mm + last.width_mm + 2 * fit.wire_mm : 1;
};

/** Where a base wire's middle lies in the drawing [mm], the first wire at the bottom as on the lap. */
const heightOf = (fit: Fit, z: number) => {
  const last = fit.base.at(-1);
  return last ? last.z_mm + last.width_mm / 2 + fit.wire_mm - z : 0;
};

/** How far a braid's strands go to either side of its middle. */
const reachOf = (fit: Fit) => Math.max(...fit.strands.flat().map(([, z = 0]) => z));

/** A braid seen flat: short pieces of its strands, painted from the lowest to the highest. */
function Strands({ fit, metal }: { fit: Fit; metal: string }) {
  const colours = metalColours(metal);
  const wide = fit.wire_mm;
  const strokes = useMemo(() => strokesOf(braidOf(fit, metal), false), [fit, metal]);
  return strokes.map(({ d }, k) => (
    <g key={k} fill="none">
      <path d={d} stroke={colours.edge} strokeWidth={wide} />
      <path d={d} stroke={colours.body} strokeWidth={wide * 0.72} strokeLinecap="round" />
      <path d={d} stroke={colours.shine} strokeWidth={wide * 0.2} strokeLinecap="round" />
    </g>
  ));
}

function braidOf(fit: Fit, metal: string): Chunk[] {
  const middle = reachOf(fit) + fit.wire_mm / 2;
  const rest = { width: fit.wire_mm, colours: metalColours(metal), round: false, ghost: false, wire: 0, move: 0 };
  const chunks: Chunk[] = [];
  let place = 0;
  for (let repeat = 0; repeat < fit.repeats; repeat += 1)
    for (const strand of fit.strands) {
      for (let start = 0; start < strand.length - 1; start += BRAID_STEP, place += 1) {
        const part = strand.slice(start, start + BRAID_STEP + 1);
        const points = part.map(([s = 0, z = 0]): Flat => [repeat * fit.repeat_mm + s, middle - z]);
        const depth = part.reduce((sum, [, , out = 0]) => sum + out, 0) / part.length;
        if ((points[0]?.[0] ?? 0) < fit.target_mm) chunks.push({ points, place, depth, ...rest });
      }
      place += 1;
    }
  return chunks.sort((a, b) => a.depth - b.depth);
}

function Bases({ fit, metal, from, to }: { fit: Fit; metal: string; from: number; to: number }) {
  const colours = metalColours(metal);
  return fit.base.map((wire) => {
    const y = heightOf(fit, wire.z_mm);
    return (
      <g key={wire.name}>
        <path d={`M ${from} ${y} H ${to}`} stroke={colours.edge} strokeWidth={wire.width_mm} />
        <path d={`M ${from} ${y} H ${to}`} stroke={colours.body} strokeWidth={wire.width_mm * 0.7} />
        <path
          d={`M ${from} ${y - wire.width_mm * 0.12} H ${to}`}
          stroke={colours.shine}
          strokeWidth={wire.width_mm * 0.2}
          opacity="0.8"
        />
      </g>
    );
  });
}

function Wraps({ fit, metal, onWrap }: { fit: Fit; metal: string; onWrap?: (pass: number) => void }) {
  const id = useId();
  const colours = metalColours(metal);
  const wide = fit.wire_mm * 0.94;
  return (
    <>
      <defs>
        <linearGradient id={id}>
          <stop offset="0" stopColor={colours.edge} />
          <stop offset="0.4" stopColor={colours.shine} />
          <stop offset="1" stopColor={colours.edge} />
        </linearGradient>
      </defs>
      {fit.passes.map((pass, k) => {
        const [low, top] = [fit.base[pass.first], fit.base[pass.last]];
        if (!low || !top) return null;
        const y = heightOf(fit, top.z_mm + top.width_mm / 2 + fit.wire_mm * 0.8);
        const end = heightOf(fit, low.z_mm - low.width_mm / 2 - fit.wire_mm * 0.8);
        return (
          <rect
            key={k}
            x={pass.at_mm - wide / 2}
            y={y}
            width={wide}
            height={end - y}
            rx={wide / 2}
            fill={`url(#${id})`}
            stroke={colours.edge}
            strokeWidth={wide * 0.06}
            onClick={onWrap && (() => onWrap(k))}
            style={onWrap && { cursor: 'pointer' }}
          />
        );
      })}
    </>
  );
}

function OneRepeat({
  fit,
  baseMetal,
  weaveMetal,
  onWrap,
}: Omit<Props, 'onWrap' | 'pxPerMm' | 'units'> & { onWrap: (pass: number) => void }) {
  const scale = Math.min(60, REPEAT_PX / fit.repeat_mm);
  const high = bandHeight(fit) * scale;
  return (
    <svg width={REPEAT_PX + 90} height={high + 10} aria-hidden style={{ display: 'block', maxWidth: '100%' }}>
      <g transform={`translate(${LETTERS_PX + 0.6 * scale} 5) scale(${scale})`}>
        <Bases fit={fit} metal={baseMetal} from={-0.6} to={fit.repeat_mm + 0.6} />
        <Wraps fit={fit} metal={weaveMetal} onWrap={onWrap} />
      </g>
      {fit.base.map((wire) => (
        <text
          key={wire.name}
          x="4"
          y={heightOf(fit, wire.z_mm) * scale + 10}
          fontSize="15"
          fontWeight="700"
          fill="var(--mui-palette-text-primary)"
        >
          {wire.name}
        </text>
      ))}
    </svg>
  );
}
