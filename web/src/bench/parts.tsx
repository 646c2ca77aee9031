import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Link from '@mui/material/Link';
import Typography from '@mui/material/Typography';
import { useMemo, useState } from 'react';
import { Link as RouterLink } from 'react-router';
import type { Plan, Progress } from '../api/client';
import { RingView } from '../drawings/RingView';
import { stoneOf } from '../drawings/stones';
import { WireStrip } from '../drawings/WireStrip';
import { usePreferences } from '../preferences/Preferences';
import { withFractions } from '../words/figures';

/** What is pressed with a knuckle. */
export const big = { minHeight: 64, px: 3, fontSize: '1.1rem' } as const;

/** The ring as it stands now, and the stretch of wire that is at hand. */
export function Beside({
  plan,
  progress,
  wire,
  active,
}: {
  plan: Plan;
  progress: Progress;
  wire: number;
  active: number;
}) {
  const [{ units }] = usePreferences();
  const [looked, setLooked] = useState<number | null>(null);
  const made = useMemo(() => new Set(progress.made), [progress.made]);
  const step = plan.steps[progress.place];
  const standing = useMemo(() => {
    if (!plan.drawing) return null;
    // What is made, and what this step makes.
    const strands = plan.drawing.strands.filter((s) => made.has(s.id) || step?.makes.includes(s.id));
    // Before anything is made, the ring as it shall be.
    return strands.length ? { ...plan, drawing: { ...plan.drawing, strands } } : plan;
  }, [plan, made, step]);
  const strip = plan.wires[wire];
  if (!strip && !standing) return null;
  return (
    <Box
      sx={{
        display: 'grid',
        gap: 3,
        mt: 2,
        gridTemplateColumns: { xs: 'minmax(0, 1fr)', md: strip ? 'minmax(0, 1fr) 260px' : 'minmax(0, 1fr)' },
      }}
    >
      {strip && (
        <WireStrip wire={strip} active={looked ?? active} onActive={setLooked} units={units} stone={stoneOf(plan)} />
      )}
      {standing && (
        <Box sx={{ height: strip ? 220 : 340, justifySelf: 'center', width: '100%' }}>
          <RingView
            plan={standing}
            side="end"
            active={active >= 0 ? { wire, move: active } : null}
            onActive={() => undefined}
          />
        </Box>
      )}
    </Box>
  );
}

interface OverProps {
  progress: Progress;
  onEnd: () => void;
  onReopen: () => void;
  onBack: () => void;
  /** Begins the same ring anew. */
  onAgain: () => void;
  /** What was left of the wires, against what another one takes. */
  leftOver: string;
}

export function Over({ progress, onEnd, onReopen, onBack, onAgain, leftOver }: OverProps) {
  const open = progress.state === 'open';
  return (
    <Box sx={{ py: 3 }}>
      <Typography component="h2" sx={{ fontSize: '2rem', fontWeight: 700 }}>
        {open ? 'Every step is done.' : progress.state === 'finished' ? 'It is finished.' : 'It is put away.'}
      </Typography>
      <Box sx={{ display: 'flex', gap: 1.5, mt: 2, flexWrap: 'wrap', alignItems: 'center' }}>
        {open ? (
          <Button variant="contained" onClick={onEnd} sx={big}>
            Into the logbook
          </Button>
        ) : (
          <>
            <Link
              component={RouterLink}
              to="/logbook"
              sx={{ minHeight: 48, display: 'inline-flex', alignItems: 'center' }}
            >
              See it in the logbook
            </Link>
            {progress.state !== 'finished' && (
              <Button variant="outlined" onClick={onAgain} sx={big}>
                Start it again
              </Button>
            )}
            {progress.state === 'finished' && (
              <Button variant="outlined" onClick={onBack} sx={big}>
                It came back
              </Button>
            )}
            <Button variant="outlined" onClick={onReopen} sx={big}>
              Take it up again
            </Button>
          </>
        )}
      </Box>
      {!open && leftOver && <Typography sx={{ mt: 2 }}>{withFractions(leftOver)}</Typography>}
    </Box>
  );
}

export function Keys() {
  const keys = [
    ['Space', 'one more'],
    ['Backspace', 'one back'],
    ['Enter', 'the step is done'],
    ['R', 'a mandrel reading'],
    ['T', 'a tail’s length'],
    ['N', 'a note'],
    ['?', 'these keys'],
  ];
  return (
    <Box component="dl" sx={{ display: 'grid', gridTemplateColumns: 'auto 1fr', gap: 1.5, m: 0 }}>
      {keys.map(([key, words]) => (
        <Box key={key} sx={{ display: 'contents' }}>
          <Typography component="dt" sx={{ fontWeight: 700 }}>
            {key}
          </Typography>
          <Typography component="dd" sx={{ m: 0 }}>
            {words}
          </Typography>
        </Box>
      ))}
      <Typography variant="body2" sx={{ gridColumn: '1 / -1' }}>
        A foot pedal that types Space or Enter works too.
      </Typography>
    </Box>
  );
}
