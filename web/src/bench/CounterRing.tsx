import Box from '@mui/material/Box';
import { metalColours } from '../drawings/metals';
import type { CounterTold } from '../api/client';
import { figures } from '../app/theme';

const MOST_TICKS = 72;

interface Props {
  counter: CounterTold;
  metal: string;
  onCount: () => void;
}

/** A ring of ticks that fills with metal as it is counted; the whole of it counts one more. */
export function CounterRing({ counter, metal, onCount }: Props) {
  const ticks = Math.min(MOST_TICKS, Math.max(1, Math.round(counter.count / counter.step)));
  const done = (counter.made / counter.count) * ticks;
  const gap = ticks > 1 ? Math.min(0.06, 0.25 / ticks) : 0;
  const units = counter.count === 1 ? counter.unit : `${counter.unit}s`;
  return (
    <Box
      component="button"
      type="button"
      onClick={onCount}
      aria-label={`${counter.label} ${counter.made} of ${counter.count} ${units}: one more`}
      sx={{
        border: 0,
        p: 0,
        background: 'none',
        color: 'inherit',
        font: 'inherit',
        cursor: 'pointer',
        width: '100%',
        maxWidth: 380,
        aspectRatio: '1',
        borderRadius: '50%',
        touchAction: 'manipulation',
        '&:focus-visible': { outline: '3px solid', outlineColor: 'primary.main', outlineOffset: 4 },
      }}
    >
      <svg viewBox="-100 -100 200 200" aria-hidden style={{ display: 'block', width: '100%' }}>
        {Array.from({ length: ticks }, (_, k) => (
          <path
            key={k}
            d={arc(k / ticks + gap / 2, (k + 1) / ticks - gap / 2)}
            fill="none"
            strokeWidth="12"
            stroke={
              k < Math.floor(done + 1e-9)
                ? metalColours(metal).body
                : k < done + 1 - 1e-9
                  ? 'var(--mui-palette-primary-main)'
                  : 'var(--mui-palette-divider)'
            }
          />
        ))}
        <text textAnchor="middle" y="-44" fontSize="14" fill="var(--mui-palette-text-secondary)">
          {`${counter.label} `}
        </text>
        <text textAnchor="middle" y="14" fontSize="62" fontWeight="750" fill="currentColor" fontFamily={figures}>
          {`${counter.made} `}
        </text>
        <text textAnchor="middle" y="40" fontSize="14" fill="var(--mui-palette-text-secondary)">
          of {counter.count} {units}
        </text>
      </svg>
    </Box>
  );
}

const RADIUS = 88;
const at = (share: number) => {
  const angle = 2 * Math.PI * share;
  return `${(RADIUS * Math.sin(angle)).toFixed(2)} ${(-RADIUS * Math.cos(angle)).toFixed(2)}`;
};
// A whole circle has no end to draw to: it is drawn to just before its start.
const arc = (from: number, to: number) => {
  const end = Math.min(to, from + 0.9999);
  return `M${at(from)}A${RADIUS} ${RADIUS} 0 ${end - from > 0.5 ? 1 : 0} 1 ${at(end)}`;
};
