import { useScales } from '../api/queries';
import { figures } from '../app/theme';
import { usePreferences } from '../preferences/Preferences';
import { useWidth } from '../drawings/useWidth';
import { withFractions } from '../words/figures';

const ROW = 46;
const TOP = 30;
/** Inside diameter shown on either side of the size [mm]. */
const REACH = 2.4;
const NAME_PX = 40;
/** Names closer than this would run into each other [px]. */
const APART = 38;

/** The marks that have room for their names: whole ones first. */
function namedMarks(marks: { label: string; inside_diameter_mm: number }[], x: (d: number) => number, width: number) {
  const placed: number[] = [];
  const named = new Set<string>();
  for (const whole of [true, false])
    for (const mark of marks) {
      const px = x(mark.inside_diameter_mm);
      if (/[/.]/.test(mark.label) === whole || px < NAME_PX + 14 || px > width - 18) continue;
      if (placed.some((other) => Math.abs(other - px) < APART)) continue;
      placed.push(px);
      named.add(mark.label);
    }
  return named;
}

/** Every system's marks along one rule of inside diameters, round the size that is looked at. */
export function Scales({ at }: { at: number }) {
  const [ref, width] = useWidth<HTMLDivElement>(640);
  const [{ systems }] = usePreferences();
  const scales = useScales().data ?? [];
  const ordered = [
    ...systems.map((code) => scales.find((s) => s.code === code)),
    ...scales.filter((s) => !systems.includes(s.code)),
  ].filter((s) => s !== undefined);
  const unique = ordered.filter((scale, k) => ordered.indexOf(scale) === k);
  const x = (diameter: number) => NAME_PX + ((diameter - at + REACH) / (2 * REACH)) * (width - NAME_PX);
  const height = TOP + unique.length * ROW + 10;
  return (
    <div ref={ref}>
      <svg
        width={width}
        height={height}
        role="img"
        aria-label="Marks of every system side by side round this size"
        style={{ display: 'block' }}
      >
        <path
          d={`M ${x(at)} ${TOP - 12} V ${height - 8}`}
          stroke="var(--mui-palette-primary-main)"
          strokeWidth="3"
          opacity="0.75"
        />
        {unique.map((scale, row) => {
          const y = TOP + row * ROW;
          const named = namedMarks(scale.marks, x, width);
          return (
            <g key={scale.code} fontFamily={figures} fill="var(--mui-palette-text-primary)">
              <text x="0" y={y + 20} fontSize="14" fontWeight="700">
                {scale.code.toUpperCase()}
              </text>
              <path d={`M ${NAME_PX} ${y} H ${width}`} stroke="var(--mui-palette-divider)" strokeWidth="2" />
              {scale.marks.map((mark) => {
                const px = x(mark.inside_diameter_mm);
                if (px < NAME_PX + 4 || px > width - 6) return null;
                return (
                  <g key={mark.label}>
                    <path
                      d={`M ${px} ${y} v ${named.has(mark.label) ? 11 : 7}`}
                      stroke="var(--mui-palette-text-secondary)"
                      strokeWidth="1.4"
                    />
                    {named.has(mark.label) && (
                      <text
                        x={px}
                        y={y + 26}
                        fontSize="13"
                        textAnchor="middle"
                        paintOrder="stroke"
                        stroke="var(--mui-palette-mat)"
                        strokeWidth="5"
                      >
                        {withFractions(mark.label)}
                      </text>
                    )}
                  </g>
                );
              })}
            </g>
          );
        })}
        <path d={`M ${x(at) - 8} ${TOP - 24} h 16 l -8 12 z`} fill="var(--mui-palette-primary-main)" />
      </svg>
    </div>
  );
}
