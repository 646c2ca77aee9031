import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import type { JobListed } from '../api/client';
import { withFractions } from '../words/figures';
import { sizeErrors } from './records';

const WIDTH = 380;
const HEIGHT = 150;
/** What the plot shows at most, and a quarter US size, in diameter [mm]. */
const MOST_MM = 0.8;
const QUARTER_MM = 0.2032;

/** How far rings came off their plans, with the strip of a quarter size that is right. */
export function SizeErrors({ jobs }: { jobs: readonly JobListed[] }) {
  const rings = sizeErrors(jobs);
  if (!rings.length) return null;
  const x = (k: number) => 36 + ((k + 0.5) * (WIDTH - 44)) / rings.length;
  const y = (off: number) => HEIGHT / 2 - (Math.max(-MOST_MM, Math.min(MOST_MM, off)) / MOST_MM) * (HEIGHT / 2 - 12);
  return (
    <Box component="section" aria-label="Size against plan" sx={{ mb: 4 }}>
      <Typography variant="h2" sx={{ fontSize: '1.2rem', mb: 1 }}>
        Size against plan
      </Typography>
      <svg
        viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
        role="img"
        aria-label={rings.map((ring) => `${ring.title}: ${withFractions(ring.said)}`).join('; ')}
        style={{ display: 'block', width: '100%' }}
      >
        <rect
          x="32"
          y={y(QUARTER_MM)}
          width={WIDTH - 36}
          height={y(-QUARTER_MM) - y(QUARTER_MM)}
          fill="var(--mui-palette-sheet)"
        />
        <line x1="32" x2={WIDTH - 4} y1={y(0)} y2={y(0)} stroke="var(--mui-palette-divider)" />
        {(
          [
            ['large', MOST_MM],
            ['small', -MOST_MM],
          ] as const
        ).map(([words, off]) => (
          <text key={words} x="0" y={y(off) + 4} fontSize="12" fill="var(--mui-palette-text-secondary)">
            {words}
          </text>
        ))}
        {rings.map((ring, k) => (
          <circle key={k} cx={x(k)} cy={y(ring.off)} r="5" fill="var(--mui-palette-primary-main)">
            <title>
              {ring.title}: {withFractions(ring.said)}
            </title>
          </circle>
        ))}
      </svg>
      <Typography variant="body2" color="text.secondary">
        The newest on the right. Within the strip is within a quarter size.
      </Typography>
    </Box>
  );
}
