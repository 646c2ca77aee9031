import Box from '@mui/material/Box';
import type { components } from '../api/schema.generated';
import { figures } from '../app/theme';

type Told = components['schemas']['OwnMandrelTold'];
const WIDTH = 560;
const HEIGHT = 110;
/** Diameters and errors that are shown [mm]. */
const FROM = 12.5;
const TO = 23.5;
const MOST = 0.6;
const x = (mm: number) => 40 + ((mm - FROM) / (TO - FROM)) * (WIDTH - 50);
const y = (off: number) => HEIGHT / 2 - (Math.max(-MOST, Math.min(MOST, off)) / MOST) * (HEIGHT / 2 - 12);

/** How far the marks are off along a mandrel: each one measured, and the line that they lie on. */
export function MarksPlot({ marks, line }: { marks: Told['marks']; line: readonly (readonly number[])[] }) {
  return (
    <Box
      component="svg"
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      role="img"
      aria-label={`${marks.length} marks measured`}
      sx={{ display: 'block', width: '100%', maxWidth: WIDTH, mt: 1 }}
    >
      <line x1={x(FROM)} x2={x(TO)} y1={y(0)} y2={y(0)} stroke="var(--mui-palette-text-secondary)" />
      {[-0.4, 0.4].map((value) => (
        <line key={value} x1={x(FROM)} x2={x(TO)} y1={y(value)} y2={y(value)} stroke="var(--mui-palette-divider)" />
      ))}
      {[0.4, 0, -0.4].map((value) => (
        <text
          key={value}
          x={34}
          y={y(value) + 4}
          textAnchor="end"
          fontSize="12"
          fontFamily={figures}
          fill="var(--mui-palette-text-secondary)"
        >
          {value > 0 ? `+${value}` : value < 0 ? `−${-value}` : '0'}
        </text>
      ))}
      <polyline
        points={line.map(([named = 0, off = 0]) => `${x(named)},${y(off)}`).join(' ')}
        fill="none"
        stroke="var(--mui-palette-primary-main)"
        strokeWidth="3"
      />
      {marks.map((mark) => (
        <circle
          key={mark.mark}
          cx={x(mark.named_mm)}
          cy={y(mark.measured_mm - mark.named_mm)}
          r="6"
          fill="var(--mui-palette-text-primary)"
        />
      ))}
    </Box>
  );
}
