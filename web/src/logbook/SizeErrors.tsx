import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import type { JobListed } from '../api/client';
import { signed } from '../words/figures';
import { sizeErrors } from './records';

const WIDTH = 380;
const HEIGHT = 150;
const MOST_US = 1;

/** How far rings came off their plans, with the strip of a quarter size that is right. */
export function SizeErrors({ jobs }: { jobs: readonly JobListed[] }) {
  const rings = sizeErrors(jobs);
  if (!rings.length) return null;
  const x = (k: number) => 36 + ((k + 0.5) * (WIDTH - 44)) / rings.length;
  const y = (off: number) => HEIGHT / 2 - (Math.max(-MOST_US, Math.min(MOST_US, off)) / MOST_US) * (HEIGHT / 2 - 12);
  return (
    <Box component="section" aria-label="Size against plan" sx={{ mb: 4 }}>
      <Typography variant="h2" sx={{ fontSize: '1.2rem', mb: 1 }}>
        Size against plan
      </Typography>
      <svg
        viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
        role="img"
        aria-label={rings.map((ring) => `${ring.title}: ${signed(ring.off, 2)} US`).join('; ')}
        style={{ display: 'block', width: '100%' }}
      >
        <rect x="32" y={y(0.25)} width={WIDTH - 36} height={y(-0.25) - y(0.25)} fill="var(--mui-palette-mat)" />
        {[-1, 0, 1].map((off) => (
          <g key={off}>
            <line x1="32" x2={WIDTH - 4} y1={y(off)} y2={y(off)} stroke="var(--mui-palette-divider)" />
            <text x="26" y={y(off) + 4} textAnchor="end" fontSize="12" fill="var(--mui-palette-text-secondary)">
              {off === 0 ? '0' : signed(off, 0)}
            </text>
          </g>
        ))}
        {rings.map((ring, k) => (
          <circle key={k} cx={x(k)} cy={y(ring.off)} r="5" fill="var(--mui-palette-primary-main)">
            <title>
              {ring.title}: {signed(ring.off, 2)} US
            </title>
          </circle>
        ))}
      </svg>
      <Typography variant="body2" color="text.secondary">
        US sizes, the newest on the right. Within the strip is within a quarter size.
      </Typography>
    </Box>
  );
}
