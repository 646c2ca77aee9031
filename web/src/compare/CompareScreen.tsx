import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { useEffect, useId, useState, type ReactNode } from 'react';
import { Link, useNavigate } from 'react-router';
import { answer, api, Refused, type Plan } from '../api/client';
import { usePlan, useRings } from '../api/queries';
import { figures } from '../app/theme';
import { RingView } from '../drawings/RingView';
import { sentence } from '../words/refusal';
import { usePreferences, useReader } from '../preferences/Preferences';
import { length, withFractions } from '../words/figures';
import { hasSize } from '../words/sized';
import { kept, laid, MOST, type Beside } from './beside';

/** Two to four rings side by side: what each takes, weighs and needs. */
export default function CompareScreen() {
  const [beside, setBeside] = useState<readonly Beside[]>(kept);
  useEffect(() => {
    document.title = 'Side by side · Pliant Coil';
  }, []);
  return (
    <Box component="main" sx={{ px: { xs: 2, sm: 3, lg: 4, xl: 7.5 }, maxWidth: 1600, mx: 'auto', pb: 6 }}>
      <Typography variant="h2" sx={{ mt: 1 }}>
        Side by side
      </Typography>
      {beside.length < 2 && (
        <Typography sx={{ mt: 1, maxWidth: '56ch' }}>
          Lay two to four rings here: from the <Link to="/gallery">gallery</Link>, or one that you saved.
        </Typography>
      )}
      {beside.length < MOST && (
        <Box sx={{ mt: 2 }}>
          <FromSaved onTake={(one) => setBeside(laid(beside, one))} />
        </Box>
      )}
      <Box
        sx={{
          display: 'grid',
          gap: { xs: 4, md: 5 },
          mt: 3,
          gridTemplateColumns: { xs: 'minmax(0, 1fr)', sm: `repeat(${Math.max(2, beside.length)}, minmax(0, 1fr))` },
        }}
      >
        {beside.map((one) => (
          <Column key={one.name} one={one} onAway={() => setBeside(laid(beside, one))} />
        ))}
      </Box>
    </Box>
  );
}

function FromSaved({ onTake }: { onTake: (one: Beside) => void }) {
  const rings = useRings('', undefined, false, true);
  const list = rings.data?.rings ?? [];
  if (list.length === 0) return null;
  const take = async (id: string) => {
    const ring = await answer(api.GET('/api/rings/{ring_id}', { params: { path: { ring_id: id } } }));
    onTake({ name: ring.file.title || 'A saved ring', draft: ring.file });
  };
  return (
    <TextField
      select
      label="Add one that you saved"
      value=""
      onChange={(event) => void take(event.target.value)}
      sx={{ width: 280, maxWidth: '100%' }}
    >
      {list.map((ring) => (
        <MenuItem key={ring.id} value={ring.id}>
          {ring.title || 'Without a title'}
        </MenuItem>
      ))}
    </TextField>
  );
}

function Column({ one, onAway }: { one: Beside; onAway: () => void }) {
  const plan = usePlan(one.draft, useReader(), usePreferences()[0].hand);
  const navigate = useNavigate();
  const name = useId();
  const problem = plan.error instanceof Refused ? plan.error.problems[0] : undefined;
  return (
    <Box component="section" aria-labelledby={name}>
      <Typography component="h3" id={name} sx={{ fontWeight: 700, fontSize: '1.25rem' }}>
        {one.name}
      </Typography>
      {problem && <Typography color="error">{withFractions(sentence(problem))}</Typography>}
      {plan.data && <Told plan={plan.data} />}
      <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 1, mt: 2 }}>
        <Button
          variant="outlined"
          onClick={() => void navigate('/plan', { state: { laidOut: one.draft } })}
          aria-describedby={name}
        >
          Plan this one
        </Button>
        <Button variant="text" onClick={onAway} aria-describedby={name}>
          Put away
        </Button>
      </Box>
    </Box>
  );
}

function Told({ plan }: { plan: Plan }) {
  const [{ units }] = usePreferences();
  return (
    <>
      <Box sx={{ height: { xs: 170, md: 210 }, my: 1 }}>
        <RingView plan={plan} side="top" />
      </Box>
      <Box sx={{ height: { xs: 170, md: 210 }, mb: 2 }}>
        <RingView plan={plan} side="end" />
      </Box>
      <Box component="dl" sx={{ m: 0, display: 'grid', gridTemplateColumns: 'minmax(0, 1fr)', rowGap: 1 }}>
        {hasSize(plan) && (
          <>
            <Row name="Start">{withFractions(plan.start.mark)}</Row>
            <Row name="Comes off">{withFractions(plan.finished.said)}</Row>
          </>
        )}
        <Row name="Wire">
          {plan.wires.map((w) => (
            <Box key={w.id}>
              {withFractions(w.cut)} of {withFractions(w.label)}
            </Box>
          ))}
        </Row>
        <Row name="Weighs">{plan.band.mass_g.toFixed(2)} g</Row>
        <Row name="Wide, high">
          {withFractions(plan.band.width)}, {withFractions(plan.band.height)}
        </Row>
        <Row name="Takes">
          {plan.time}, {plan.steps.length} steps
        </Row>
        <Row name="Needs">
          {[
            ...new Set([
              ...plan.beads.map((b) => `${b.what} with a hole of ${length(b.hole_needed_mm, units)}`),
              ...(plan.torch ? ['a torch, flux and pickle'] : []),
            ]),
          ].join(', ') || 'pliers, cutter, mandrel'}
        </Row>
        {plan.warnings.length > 0 && (
          <Row name="Mind">
            {plan.warnings.map((w) => (
              <Box key={w.code + w.field}>{withFractions(w.text)}</Box>
            ))}
          </Row>
        )}
      </Box>
    </>
  );
}

function Row({ name, children }: { name: string; children: ReactNode }) {
  return (
    <Box sx={{ borderTop: 1, borderColor: 'divider', pt: 0.75 }}>
      <Typography component="dt" variant="body2" color="text.secondary">
        {name}
      </Typography>
      <Typography component="dd" sx={{ m: 0, fontFamily: figures }}>
        {children}
      </Typography>
    </Box>
  );
}
