import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { memo, useState } from 'react';
import { TextEntry } from './fields';
import type { Plan } from '../api/client';
import { useHabits } from '../api/queries';
import { figures } from '../app/theme';
import { useReader } from '../preferences/Preferences';
import { withFractions } from '../words/figures';
import { hasSize } from '../words/sized';
import { useDesk } from './Desk';
import { valueAt } from './draft';

const NAMES: Record<string, string> = {
  geometry: 'Solved for this ring',
  'at-size': 'At the size',
  'half-up': 'Half a size up',
  'one-up': 'One size up',
  'two-up': 'Two sizes up',
  down: 'One size down',
};

/** Why what comes off differs from where it was formed, each cause named; they add up. */
export const Contributions = memo(function Contributions({ plan }: { plan: Plan }) {
  if (!hasSize(plan)) return null;
  return (
    <Box component="section" aria-label="Why start there" sx={{ mb: 2 }}>
      <Typography variant="h2">
        {plan.contributions.length === 0 ? 'It comes off as it was formed' : 'Why it comes off another size'}
      </Typography>
      {plan.contributions.map((c) => (
        <Box key={c.code} sx={{ display: 'flex', justifyContent: 'space-between', gap: 2, py: 0.4 }}>
          <Typography>{c.cause.charAt(0).toUpperCase() + c.cause.slice(1)}</Typography>
          <Typography sx={{ fontFamily: figures, fontWeight: 650, whiteSpace: 'nowrap' }}>{c.said}</Typography>
        </Box>
      ))}
      <Typography color="text.secondary" sx={{ py: 0.4 }}>
        Start along the mandrel: {withFractions(plan.start.along)}.
      </Typography>
      {plan.wide_band_us > 0 && (
        <Typography sx={{ py: 0.4 }}>
          The band is {withFractions(plan.band.width)} wide: with the room that you chose it aims at{' '}
          {withFractions(plan.aim.said)}.
        </Typography>
      )}
    </Box>
  );
});

/** Where makers of other habits would start: one line, the comparison when it is asked for. Reading it changes nothing. */
export function Habit() {
  const { draft, plan, change, standing } = useDesk();
  const [open, setOpen] = useState(false);
  const habits = useHabits(draft, useReader(), open && standing === 'fresh').data ?? [];
  // Whole repeats or an overlap set the size of the others: no habit of starting changes it.
  if (plan?.band.sized_by !== 'mark') return null;
  const chosen = valueAt(draft, 'sizing.school') ?? 'geometry';
  const name = typeof chosen === 'string' ? (NAMES[chosen] ?? chosen) : 'A mark of your own';
  return (
    <Box component="section" aria-label="Where to start">
      <Box sx={{ display: 'flex', flexWrap: 'wrap', alignItems: 'center', columnGap: 1 }}>
        <Typography>
          Start: <strong>{name}</strong>, {withFractions(plan.start.mark)}.
        </Typography>
        <Button onClick={() => setOpen(!open)} aria-expanded={open} sx={{ px: 1 }}>
          {open ? 'Close the comparison' : 'Compare habits'}
        </Button>
      </Box>
      {open &&
        habits.map((school) => (
          <Box
            key={school.school}
            sx={{ borderTop: 1, borderColor: 'divider', py: 1, display: 'flex', gap: 2, alignItems: 'center' }}
          >
            <Box sx={{ flex: 1 }}>
              <Typography sx={{ fontWeight: school.school === chosen ? 700 : 450 }}>
                {NAMES[school.school] ?? school.school}: {withFractions(school.start)} →{' '}
                {withFractions(school.finished)}
              </Typography>
              <Typography variant="body2" color="text.secondary">
                {withFractions(school.why)}
              </Typography>
            </Box>
            <Button
              variant="outlined"
              aria-label={`Start ${(NAMES[school.school] ?? school.school).toLowerCase()}`}
              aria-pressed={school.school === chosen}
              disabled={school.school === chosen}
              onClick={() => change('sizing.school', school.school)}
            >
              {school.school === chosen ? 'Taken' : 'Take'}
            </Button>
          </Box>
        ))}
      {open && <TextEntry path="sizing.school.start" label="Start at a mark of your own" />}
    </Box>
  );
}
