import Box from '@mui/material/Box';
import { useScales } from '../api/queries';
import { usePreferences } from '../preferences/Preferences';
import { withFractions } from '../words/figures';

const PX_PER_MM = 96 / 25.4;
const CHECK_MM = 50;
/** Inside circumferences on the strip [mm]; what is measured round a finger. */
const [SHORTEST, LONGEST] = [40, 76];
/** Before the first mark: the slot that the strip's end goes through [mm]. */
const LEAD = 12;
const GAUGES = 8;
/** Wire that a gauge is bent of [mm]: its middle line is bent round the size. */
const GAUGE_WIRE = 1;

/** On paper at 1:1: a strip to lay round a finger, and lengths of wire to bend a set of gauges from. */
export function SizePaper() {
  const [{ systems }] = usePreferences();
  const scales = useScales().data ?? [];
  const scale = scales.find((s) => s.code === systems[0]);
  const whole = (scale?.marks ?? []).filter((m) => !/[/.]/.test(m.label));
  const onStrip = whole
    .map((m) => ({ label: m.label, around: m.inside_diameter_mm * Math.PI }))
    .filter((m) => m.around >= SHORTEST && m.around <= LONGEST);
  const middle = Math.max(0, Math.floor(onStrip.length / 2) - GAUGES / 2);
  const px = (mm: number) => mm * PX_PER_MM;
  const code = systems[0].toUpperCase();
  return (
    <Box
      data-testid="paper"
      sx={{ display: 'none', '@media print': { display: 'block' }, color: '#000', fontSize: '10.5pt' }}
    >
      <p>
        <strong>Sizes, {code}.</strong> Lay a ruler on this line: it is {CHECK_MM} mm (1 31/32 in). If it isn’t, print
        at 100 %, without fitting to the page.
      </p>
      <svg width={px(CHECK_MM) + 2} height="22" data-testid="scale-check" style={{ display: 'block' }}>
        <path d={`M 1 4 v 12 m 0 -6 h ${px(CHECK_MM)} m 0 -6 v 12`} stroke="#000" fill="none" />
      </svg>
      <p>
        Cut the strip out, cut the slot, lay it round the finger with the print outside, and read where the slot’s edge
        stands. Measure in the evening, twice.
      </p>
      <svg width={px(LEAD + LONGEST + 24)} height={px(14)} style={{ display: 'block' }}>
        <rect x="1" y="1" width={px(LEAD + LONGEST + 22)} height={px(12)} fill="none" stroke="#000" />
        <path d={`M ${px(LEAD)} ${px(2)} v ${px(10)}`} stroke="#000" strokeWidth="2" />
        {onStrip.map((m, k) => (
          <g key={m.label}>
            <path d={`M ${px(LEAD + m.around)} 1 v ${px(k % 2 ? 3.5 : 6)}`} stroke="#000" />
            <text x={px(LEAD + m.around)} y={px(k % 2 ? 7 : 10)} fontSize="11" textAnchor="middle">
              {withFractions(m.label)}
            </text>
          </g>
        ))}
      </svg>
      <p>
        Gauges of {GAUGE_WIRE} mm wire: cut each as long as its line and bend it round until the ends meet. Ends
        rounded; no edge may scratch.
      </p>
      {onStrip.slice(middle, middle + GAUGES).map((m) => (
        <Box key={m.label} sx={{ breakInside: 'avoid', mb: 0.5 }}>
          <svg width={px(m.around + Math.PI * GAUGE_WIRE) + 2} height="12" style={{ display: 'block' }}>
            <path
              d={`M 1 1 v 10 m 0 -5 h ${px(m.around + Math.PI * GAUGE_WIRE)} m 0 -5 v 10`}
              stroke="#000"
              fill="none"
            />
          </svg>
          {code} {withFractions(m.label)}
        </Box>
      ))}
    </Box>
  );
}
