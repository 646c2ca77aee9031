import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { useHandChanges } from '../api/bench';
import type { components } from '../api/schema.generated';
import { figures } from '../app/theme';
import { usePreferences } from '../preferences/Preferences';
import { signed, withFractions } from '../words/figures';

type HandTold = components['schemas']['HandTold'];

const WORDS: Record<string, string> = {
  arc: 'arcs on the mandrel',
  straight: 'straight stretches',
  wrap: 'wraps',
  weave: 'weave',
  loop: 'loops',
  coil: 'coils',
  scroll: 'scrolls',
  curve: 'curves past a bead',
  lead: 'short ways',
};
const MOST = 0.16;

/** What the finished rings show of the hand: each kind of move, how much more or less it takes than planned. */
export function Hand({ hand }: { hand: HandTold }) {
  const [preferences, change] = usePreferences();
  const { afresh, leaveOut } = useHandChanges();
  return (
    <Box component="section" aria-label="Your hand">
      <Typography variant="h2" sx={{ fontSize: '1.2rem', mb: 1 }}>
        Your hand
      </Typography>
      {hand.rings === 0 ? (
        <Typography>
          Measure what is left of the wire when a ring is finished: after a few rings this says how much longer or
          shorter your wraps run than planned.
        </Typography>
      ) : (
        <>
          {hand.factors.map((factor) => (
            <Box key={factor.kind} sx={{ mb: 1.5 }}>
              <Typography>
                Your {WORDS[factor.kind] ?? factor.kind} run {Math.abs(factor.share * 100).toFixed(0)} %{' '}
                {factor.share < 0 ? 'short' : 'long'}{' '}
                <Box component="span" sx={{ fontFamily: figures, color: 'text.secondary' }}>
                  ({signed(factor.low * 100, 0)} to {signed(factor.high * 100, 0)} %)
                </Box>
                , {factor.rings} {factor.rings === 1 ? 'ring' : 'rings'}
              </Typography>
              <Interval low={factor.low} share={factor.share} high={factor.high} />
            </Box>
          ))}
          <Button
            variant="outlined"
            aria-pressed={preferences.hand}
            onClick={() => change({ hand: !preferences.hand })}
            sx={{ mb: 1 }}
          >
            {preferences.hand ? 'Plans reckon with it' : 'Reckon with it in plans'}
          </Button>
          {hand.mandrels.map((mandrel) => (
            <Typography key={`${mandrel.mandrel} ${mandrel.family}`} sx={{ mb: 1 }}>
              {withFractions(mandrel.text)}
            </Typography>
          ))}
          {hand.changed && (
            <Box role="status" sx={{ borderLeft: 4, borderColor: 'error.main', pl: 1.5, mb: 1.5 }}>
              <Typography>
                Your last six rings came out other than those before them. New pliers, or another wire?
              </Typography>
              <Button onClick={() => afresh.mutate()}>Learn afresh from here</Button>
            </Box>
          )}
          {hand.odd.map((ring) => (
            <Typography key={ring.id} variant="body2" color="text.secondary">
              {ring.title} looked odd and hardly counts. Was it?{' '}
              <Button size="small" onClick={() => leaveOut.mutate({ id: ring.id, why: 'it was odd' })}>
                Yes, leave it out
              </Button>
            </Typography>
          ))}
          {hand.left_out.map((ring) => (
            <Typography key={ring.id} variant="body2" color="text.secondary">
              {ring.title} is left out: {ring.why}.{' '}
              <Button size="small" onClick={() => leaveOut.mutate({ id: ring.id, why: '' })}>
                Count it again
              </Button>
            </Typography>
          ))}
        </>
      )}
    </Box>
  );
}

function Interval({ low, share, high }: { low: number; share: number; high: number }) {
  const x = (value: number) => 190 + (Math.max(-MOST, Math.min(MOST, value)) / MOST) * 180;
  return (
    <svg viewBox="0 0 380 16" aria-hidden style={{ display: 'block', width: '100%' }}>
      <line x1="10" x2="370" y1="8" y2="8" stroke="var(--mui-palette-divider)" />
      <line x1="190" x2="190" y1="1" y2="15" stroke="var(--mui-palette-text-secondary)" />
      <line x1={x(low)} x2={x(high)} y1="8" y2="8" stroke="var(--mui-palette-primary-main)" strokeWidth="4" />
      <circle cx={x(share)} cy="8" r="6" fill="var(--mui-palette-primary-main)" />
    </svg>
  );
}
