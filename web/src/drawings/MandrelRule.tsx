import { memo, useId } from 'react';
import type { Plan, SizeScale } from '../api/client';
import { figures } from '../app/theme';
import { withFractions } from '../words/figures';
import { wordsWidth } from './labels';
import { metalColours } from './metals';

const WIDTH = 372;
const HEIGHT = 420;
const TOP = 18;
const BOTTOM = HEIGHT - 18;
const MIDDLE = 92;
/** Half the drawn width of the taper [px] at its top and bottom; the slope is shown, not to scale. */
const [NARROW, WIDE] = [46, 62];
/** Heights that a size's words and a cause between them take [px]. */
const [WORDS, CAUSE] = [64, 20];
/** Sizes of type [px]. */
const [START_SIZE, FINISH_SIZE, CAUSE_SIZE, SMALL] = [23, 17, 14, 13.5];
/** Inside diameter [mm] shown beyond start and finish. */
const MARGIN = 1.3;

interface Props {
  plan: Plan;
  scales: SizeScale[];
  /** Codes of the systems on the left and on the right of the taper. */
  systems: [string, string];
}

/** The mandrel between where the band is formed and where it ends, and what lies between the two. */
export const MandrelRule = memo(function MandrelRule({ plan, scales, systems }: Props) {
  const id = useId();
  const start = plan.start.inside_diameter_mm;
  const finish = plan.finished.inside_diameter_mm;
  const low = Math.min(start, finish) - MARGIN;
  const high = Math.max(start, finish) + MARGIN;
  const y = (diameter: number) => TOP + ((diameter - low) / (high - low)) * (BOTTOM - TOP);
  const half = (diameter: number) => NARROW + ((y(diameter) - TOP) / (BOTTOM - TOP)) * (WIDE - NARROW);
  const metal = metalColours(plan.wires[0]?.metal ?? 'copper');
  const [startY, finishY] = [y(start), y(finish)];
  // Words that would lie on each other, or on the causes between them, move apart, the smaller size upwards.
  const room = WORDS + CAUSE * plan.contributions.length;
  const apart = Math.max(0, (room - Math.abs(startY - finishY)) / 2);
  const startWords = startY + (startY >= finishY ? apart : -apart);
  const finishWords = finishY + (startY >= finishY ? -apart : apart);
  const off = systems.map((code) => plan.finished.exact[code] ?? '');
  // A mandrel whose marks are off reads something else where a ring of that size stands.
  const reads =
    plan.finished.mark === plan.finished.said ? 'comes off' : `comes off, ${withFractions(plan.finished.mark)} here`;
  const beside = MIDDLE + WIDE + 26;
  // As wide as its longest words: none of them leaves the picture, however narrow that is drawn.
  const width = Math.max(
    WIDTH,
    beside + wordsWidth(withFractions(plan.start.mark), START_SIZE, true),
    beside + wordsWidth(withFractions(off[0] ?? ''), FINISH_SIZE, true),
    ...[`start here · ${plan.start.across} across`, `${reads} · ${plan.finished.across} across`].map(
      (words) => beside + wordsWidth(words, SMALL),
    ),
    ...[plan.start.mark_too, off[1] ?? ''].map((words) => beside + wordsWidth(withFractions(words), SMALL)),
    ...plan.contributions.map((c) => beside + 4 + wordsWidth(c.said, CAUSE_SIZE, true)),
  );
  return (
    <svg
      viewBox={`0 0 ${width} ${HEIGHT}`}
      role="img"
      aria-label={`Start at ${withFractions(plan.start.mark)}, comes off at ${withFractions(plan.finished.said)}`}
      style={{ display: 'block', width: '100%', maxHeight: HEIGHT }}
    >
      <defs>
        <linearGradient id={`${id}steel`} x1="0" x2="1">
          <stop offset="0" stopColor="var(--steel-edge)" />
          <stop offset="0.3" stopColor="var(--steel-light)" />
          <stop offset="1" stopColor="var(--steel-edge)" />
        </linearGradient>
      </defs>
      <path
        d={`M ${MIDDLE - NARROW} ${TOP} H ${MIDDLE + NARROW} L ${MIDDLE + WIDE} ${BOTTOM} H ${MIDDLE - WIDE} Z`}
        fill={`url(#${id}steel)`}
      />
      {systems.map((code, side) => (
        <Marks
          key={`${code}${side}`}
          scale={scales.find((s) => s.code === code)}
          low={low}
          high={high}
          y={y}
          half={half}
          right={side === 1}
          lines={[startY, finishY]}
        />
      ))}
      <path
        d={`M ${MIDDLE - half(finish) - 2} ${finishY} H ${MIDDLE + half(finish) + 2}`}
        stroke="var(--steel-ink)"
        strokeWidth="1.8"
        strokeDasharray="6 4"
      />
      <path
        d={`M ${MIDDLE - half(start) - 4} ${startY} H ${MIDDLE + half(start) + 4}`}
        stroke={metal.edge}
        strokeWidth="9"
        strokeLinecap="round"
      />
      <path
        d={`M ${MIDDLE - half(start) - 4} ${startY - 1} H ${MIDDLE + half(start) + 4}`}
        stroke={metal.shine}
        strokeWidth="4"
        strokeLinecap="round"
      />
      <Words x={beside} y={finishWords} size={plan.finished} words={off} says={reads} />
      <Words
        x={beside}
        y={startWords}
        size={plan.start}
        words={[plan.start.mark, plan.start.mark_too]}
        says="start here"
        accent
      />
      {Math.abs(startY - finishY) > 30 && plan.contributions.length > 0 && (
        <path
          d={`M ${MIDDLE + WIDE + 12} ${startY} q 9 0 9 ${startY > finishY ? -12 : 12} V ${finishY + (startY > finishY ? 12 : -12)} q 0 ${startY > finishY ? -12 : 12} -9 ${startY > finishY ? -12 : 12}`}
          fill="none"
          stroke="var(--mui-palette-primary-main)"
          strokeWidth="1.5"
        />
      )}
      {plan.contributions.map((c, k) => (
        <text
          key={c.cause}
          x={beside + 4}
          y={
            (Math.min(startWords, finishWords) + 34 + Math.max(startWords, finishWords) - 22) / 2 +
            5 +
            (k - (plan.contributions.length - 1) / 2) * CAUSE
          }
          fontSize={CAUSE_SIZE}
          fontFamily={figures}
          fontWeight="650"
          fill="var(--mui-palette-text-primary)"
        >
          {c.said}
        </text>
      ))}
    </svg>
  );
});

interface WordsProps {
  x: number;
  y: number;
  size: Plan['start'];
  /** In the first system, and in the second. */
  words: readonly string[];
  says: string;
  accent?: boolean;
}

function Words({ x, y, size, words, says, accent = false }: WordsProps) {
  const [first, second] = words.map(withFractions);
  return (
    <g>
      <text
        x={x}
        y={y}
        fontSize={accent ? START_SIZE : FINISH_SIZE}
        fontWeight={accent ? 750 : 550}
        fill={accent ? 'var(--mui-palette-primary-main)' : 'var(--mui-palette-text-primary)'}
      >
        {first}
      </text>
      <text x={x} y={y + 18} fontSize={SMALL} fill="var(--mui-palette-text-secondary)">
        {says} · {size.across} across
      </text>
      <text x={x} y={y + 34} fontSize="12.5" fill="var(--mui-palette-text-secondary)">
        {second}
      </text>
    </g>
  );
}

interface MarksProps {
  scale: SizeScale | undefined;
  low: number;
  high: number;
  y: (diameter: number) => number;
  half: (diameter: number) => number;
  right: boolean;
  /** Heights where a line is drawn across: words there could not be read. */
  lines: number[];
}

function Marks({ scale, low, high, y, half, right, lines }: MarksProps) {
  const side = right ? 1 : -1;
  return (
    <g fill="var(--steel-ink)" stroke="none" fontSize="12.5" fontFamily={figures} fontWeight="650">
      {scale?.marks.map(({ label, inside_diameter_mm: diameter }) => {
        if (diameter < low || diameter > high) return null;
        const whole = !label.includes('/') && !label.includes('.');
        const edge = MIDDLE + side * half(diameter);
        return (
          <g key={label}>
            <path
              d={`M ${edge} ${y(diameter)} h ${-side * (whole ? 20 : 10)}`}
              stroke="var(--steel-ink)"
              strokeWidth="1.3"
            />
            {whole && lines.every((line) => Math.abs(line - y(diameter)) > 10) && (
              <text x={edge - side * 24} y={y(diameter) + 4} textAnchor={right ? 'end' : 'start'}>
                {label}
              </text>
            )}
          </g>
        );
      })}
    </g>
  );
}
