import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { Suspense, useState } from 'react';
import type { Plan } from '../api/client';
import { laterPart } from '../app/fetched';
import { withFractions } from '../words/figures';
import { hasSize } from '../words/sized';
import { RingView, type Stretch } from '../drawings/RingView';
import { solderWords } from '../drawings/solder';

// Half as large again as everything else together: it comes when it is asked for.
const TurningRing = laterPart(() => import('../drawings/TurningRing'));

interface Props {
  plan: Plan;
  active: Stretch | null;
  onActive: (stretch: Stretch | null) => void;
}

const hasWebGl = () => document.createElement('canvas').getContext('webgl2') !== null;

/** The ring end-on and from above, or turning in space. */
export function RingPictures({ plan, active, onActive }: Props) {
  const [turning, setTurning] = useState(false);
  const [possible, setPossible] = useState(true);
  const toggle = () => {
    setPossible(hasWebGl());
    setTurning(!turning);
  };
  const still = !turning || !possible;
  // An ornament shows its face from above, a ring its circle end-on.
  const [first, second] = hasSize(plan) ? (['end', 'top'] as const) : (['top', 'end'] as const);
  return (
    <Box sx={{ display: 'grid', gap: 1.5, justifyItems: 'center' }}>
      <Box sx={{ width: '100%', maxWidth: 420, height: still ? { xs: 320, lg: 330 } : 426 }}>
        {still ? (
          <RingView plan={plan} side={first} active={active} onActive={onActive} />
        ) : (
          <Suspense fallback={<RingView plan={plan} side={first} active={active} onActive={onActive} />}>
            <TurningRing plan={plan} active={active} onActive={onActive} />
          </Suspense>
        )}
      </Box>
      {still && (
        <Box sx={{ width: '100%', maxWidth: 420, height: 84 }}>
          <RingView plan={plan} side={second} active={active} onActive={onActive} />
        </Box>
      )}
      {turning && !possible && (
        <Typography variant="body2" role="status">
          This browser can’t draw in space; the still pictures show the same ring.
        </Typography>
      )}
      <Box sx={{ display: 'flex', flexWrap: 'wrap', alignItems: 'center', justifyContent: 'center', columnGap: 1 }}>
        <Typography variant="body2" color="text.secondary">
          {still ? 'End-on and from above' : 'Drag it, or use the arrow keys'} ·{' '}
          {hasSize(plan) && `band ${withFractions(plan.band.width)} wide, `}
          {plan.band.mass_g.toFixed(2)} g{still && solderWords(plan.drawing) && `. ${solderWords(plan.drawing)}`}
        </Typography>
        <Button size="small" onClick={toggle} aria-pressed={turning}>
          {turning ? 'Still pictures' : 'Turn it'}
        </Button>
      </Box>
    </Box>
  );
}
