import Box from '@mui/material/Box';
import { memo, useId, useMemo, type KeyboardEvent } from 'react';
import type { PlannedWire } from '../api/client';
import { figures } from '../app/theme';
import { MM_PER_INCH, length, measure, type Units } from '../words/figures';
import { layOut, type Layout } from './breaks';
import { placeLabels } from './labels';
import { metalColours } from './metals';
import { stoneColours } from './stones';
import { useWidth } from './useWidth';

const PX_PER_MM_LEAST = 3.1;
const ROWS_MOST = 4;
/** What fits across a sheet between its margins, on A4 and on US letter alike. */
const PAPER_MM = 170;
/** Heights within a row [px]: the millimetre scale, the labels, the wire, the lengths, the inch scale. */
const Y = { mm: 14, tick: 18, upper: 38, lower: 54, wire: 76, length: 102, lengthLow: 121, jaw: 90, inch: 154 };
const ROW = 160;

interface Props {
  wire: PlannedWire;
  /** The stretch that is looked at, by its place among the wire's moves. */
  active: number | null;
  onActive: (move: number | null) => void;
  /** What comes first: the ruler above the wire, and every length on it. */
  units: Units;
  /** The colour of what is strung on it. */
  stone?: string | null | undefined;
  /** A fixed scale, for paper; without it the wire fills the width. */
  pxPerMm?: number;
}

/** A piece of wire as it lies on the table before anything is bent: to scale, folded like a line of text when it is long. */
export const WireStrip = memo(function WireStrip({ wire, active, onActive, units, stone, pxPerMm }: Props) {
  const [ref, width] = useWidth<HTMLDivElement>(1160);
  const laid = useMemo(() => layOut(wire.moves, wire.cut_mm, pxPerMm !== undefined), [wire, pxPerMm]);
  const fit = Math.min(ROWS_MOST, Math.max(1, Math.ceil((laid.length * PX_PER_MM_LEAST) / width)));
  const perRow = pxPerMm ? PAPER_MM : laid.length / fit;
  const rows = pxPerMm ? Math.ceil(laid.length / perRow) : fit;
  const scale = pxPerMm ?? (width - 2) / perRow;

  const onKeyDown = (event: KeyboardEvent) => {
    const step = { ArrowRight: 1, ArrowLeft: -1 }[event.key];
    if (step !== undefined) {
      event.preventDefault();
      const from = active ?? (step > 0 ? -1 : wire.moves.length);
      onActive(Math.min(wire.moves.length - 1, Math.max(0, from + step)));
    } else if (event.key === 'Escape') onActive(null);
  };

  return (
    <Box
      ref={ref}
      tabIndex={0}
      role="group"
      aria-label={`${wire.label}, ${length(wire.cut_mm, units)}: arrow keys go from stretch to stretch`}
      onKeyDown={onKeyDown}
      onMouseLeave={() => onActive(null)}
      sx={{ '&:focus-visible': { outline: '3px solid', outlineColor: 'primary.main', outlineOffset: 4 } }}
    >
      {Array.from({ length: rows }, (_, row) => (
        <StripRow
          key={row}
          wire={wire}
          laid={laid}
          from={row * perRow}
          to={Math.min(laid.length, (row + 1) * perRow)}
          scale={scale}
          width={pxPerMm ? perRow * pxPerMm + 2 : width}
          active={active}
          onActive={onActive}
          units={units}
          stone={stone}
        />
      ))}
    </Box>
  );
});

interface RowProps extends Omit<Props, 'pxPerMm'> {
  laid: Layout;
  /** The row's ends [drawn mm]. */
  from: number;
  to: number;
  scale: number;
  width: number;
}

function StripRow({ wire, laid, from, to, scale, width, active, onActive, units, stone }: RowProps) {
  const id = useId();
  const colours = metalColours(wire.metal);
  /** Of a place along the wire [mm] and of one in the drawing [drawn mm]. */
  const x = (at: number) => (laid.shown(at) - from) * scale + 1;
  const px = (at: number) => (at - from) * scale + 1;
  const thick = Math.min(26, Math.max(9, wire.width_mm * scale * 1.6));
  const stretches = wire.moves
    .map((move, index) => ({
      move,
      index,
      left: Math.max(from, laid.shown(move.from_mm)),
      right: Math.min(to, laid.shown(move.to_mm)),
    }))
    .filter((s) => s.right - s.left > 1e-6);
  const labels = placeLabels(stretches, px, width);
  const inRow = (at: number) => laid.shown(at) >= from - 1e-6 && laid.shown(at) <= to + 1e-6;
  return (
    <svg
      width={width}
      height={ROW}
      viewBox={`0 0 ${width} ${ROW}`}
      style={{ display: 'block', overflow: 'visible' }}
      aria-hidden
    >
      <defs>
        <linearGradient id={`${id}metal`} x1="0" y1="0" x2="0" y2="1">
          <stop offset="0" stopColor={colours.shine} />
          <stop offset="0.45" stopColor={colours.body} />
          <stop offset="1" stopColor={colours.edge} />
        </linearGradient>
        <pattern id={`${id}held`} width="7" height="7" patternUnits="userSpaceOnUse" patternTransform="rotate(-52)">
          <rect width="7" height="7" fill={colours.shine} opacity="0.45" />
          <rect width="2.6" height="7" fill={colours.body} />
        </pattern>
      </defs>
      <Scale laid={laid} inRow={inRow} x={x} cut={wire.cut_mm} scale={scale} inches={units === 'in'} above />
      <Scale laid={laid} inRow={inRow} x={x} cut={wire.cut_mm} scale={scale} inches={units === 'mm'} />
      {stretches.map(({ move, index, left, right }) => (
        <g
          key={index}
          onMouseEnter={() => onActive(index)}
          onClick={() => onActive(index)}
          style={{ cursor: 'pointer' }}
        >
          {/* A knuckle needs more than a thin wire to hit. */}
          <rect
            x={px(left)}
            y={Y.upper - 10}
            width={(right - left) * scale}
            height={Y.length - Y.upper + 10}
            fill="transparent"
          />
          <rect
            x={px(left)}
            y={Y.wire - thick / 2}
            width={(right - left) * scale}
            height={thick}
            fill={`url(#${id}${move.in_ring ? 'metal' : 'held'})`}
          />
          {active === index && (
            <rect
              x={px(left) - 1}
              y={Y.wire - thick / 2 - 4}
              width={(right - left) * scale + 2}
              height={thick + 8}
              fill="none"
              stroke="var(--mui-palette-primary-main)"
              strokeWidth="3"
              rx="2"
            />
          )}
          {move.from_mm >= from && index > 0 && <Divider x={px(left)} thick={thick} />}
          {move.kind === 'through' && inRow((move.from_mm + move.to_mm) / 2) && (
            <ellipse
              cx={x((move.from_mm + move.to_mm) / 2)}
              cy={Y.wire}
              rx={(move.length_mm * scale) / 2}
              ry={Math.min(20, (move.length_mm * scale) / 2)}
              fill={stoneColours(stone)[1]}
              stroke={stoneColours(stone)[3]}
              strokeWidth="1.5"
            />
          )}
        </g>
      ))}
      {laid.breaks
        .filter((gap) => inRow(gap.from))
        .map((gap) => (
          <path
            key={gap.from}
            d={`M ${x(gap.from) + 3} ${Y.wire + thick} l ${(x(gap.to) - x(gap.from)) / 2 - 4} ${-2 * thick} h 5 l ${-(x(gap.to) - x(gap.from)) / 2 + 4} ${2 * thick} z`}
            fill="var(--mui-palette-sheet)"
            stroke="var(--mui-palette-text-primary)"
            strokeWidth="1.5"
          />
        ))}
      {labels.map(({ move, index, at, tier }) => (
        <g key={index} fontSize="14" textAnchor="middle" pointerEvents="none">
          <text
            x={at}
            y={tier === 0 ? Y.lower : Y.upper}
            fill="var(--mui-palette-text-primary)"
            fontWeight={active === index ? 700 : 400}
          >
            {move.label}
          </text>
          <text
            x={at}
            y={tier === 0 ? Y.length : Y.lengthLow}
            fill="var(--mui-palette-text-primary)"
            fontFamily={figures}
            fontWeight={active === index ? 800 : 650}
          >
            {measure(move.length_mm, units)}
          </text>
        </g>
      ))}
      {wire.marks
        .filter((mark) => inRow(mark.at_mm))
        .map((mark) => (
          <g key={`${mark.kind}${mark.at_mm}`} fill="var(--mui-palette-text-primary)">
            <title>{`${mark.label}, ${length(mark.at_mm, units)} from the end`}</title>
            {mark.kind === 'mark' ? (
              <path
                d={`M ${x(mark.at_mm)} ${Y.wire - thick / 2 - 9} v ${thick + 18}`}
                stroke="var(--mui-palette-text-primary)"
                strokeWidth="2.5"
              />
            ) : (
              <path d={`M ${x(mark.at_mm)} ${Y.wire + thick / 2 + 2} l 5 8 h -10 z`} />
            )}
          </g>
        ))}
    </svg>
  );
}

const Divider = ({ x, thick }: { x: number; thick: number }) => (
  <path
    d={`M ${x} ${Y.wire - thick / 2 - 3} v ${thick + 6}`}
    stroke="var(--mui-palette-text-primary)"
    strokeWidth="1.2"
  />
);

interface ScaleProps {
  laid: Layout;
  inRow: (at: number) => boolean;
  x: (at: number) => number;
  cut: number;
  /** Pixels a drawn millimetre. */
  scale: number;
  inches: boolean;
  /** Above the wire, with its numbers on top; the maker's own unit lies there. */
  above?: boolean;
}

/** A ruler along the wire: millimetres with their centimetres, or inches with eighths. What is left out of the wire is left out of it. */
function Scale({ laid, inRow, x, cut, scale, inches, above = false }: ScaleProps) {
  const unit = inches ? MM_PER_INCH : 1;
  const y = above ? Y.tick : Y.inch - 22;
  const parts = inches ? 8 : 1;
  const px = (scale * unit) / parts;
  // Ticks closer than this are a grey smear, and numbers that would run into each other are thinned.
  const every = px >= 3 ? 1 : inches ? 2 : 5;
  const apart = Math.max(1, Math.ceil(30 / (px * (inches ? 8 : 20))));
  const last = Math.floor((cut / unit) * parts + 1e-9);
  const ticks = [];
  const numbers = [];
  for (let k = 0; k <= last; k += 1) {
    const major = inches ? k % 8 === 0 : k % 20 === 0;
    const middle = inches ? k % 4 === 0 : k % 10 === 0;
    const place = (k / parts) * unit;
    if ((k % every !== 0 && !middle) || !inRow(place)) continue;
    if (laid.breaks.some((gap) => place > gap.from - 4 && place < gap.to + 4)) continue;
    const at = x(place);
    const height = major ? 13 : middle ? 9 : 5;
    ticks.push(`M ${at.toFixed(1)} ${y} v ${above ? height : -height}`);
    if (major && Math.round(k / (inches ? 8 : 20)) % apart === 0)
      numbers.push(
        <text
          key={k}
          x={at}
          y={above ? y - 4 : y + 14}
          fontSize="12"
          fontFamily={figures}
          textAnchor={k === 0 ? 'start' : 'middle'}
        >
          {inches ? `${k / 8}″` : k}
        </text>,
      );
  }
  return (
    <g fill="var(--mui-palette-text-secondary)">
      <path d={ticks.join(' ')} stroke="var(--mui-palette-text-secondary)" strokeWidth="1" />
      {numbers}
    </g>
  );
}
