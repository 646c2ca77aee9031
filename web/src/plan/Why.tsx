import Box from '@mui/material/Box';
import ButtonBase from '@mui/material/ButtonBase';
import Collapse from '@mui/material/Collapse';
import Typography from '@mui/material/Typography';
import { memo, useState } from 'react';
import type { Plan } from '../api/client';
import { figures } from '../app/theme';
import { signed, withFractions } from '../words/figures';
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

const Row = ({ words, figure, title }: { words: string; figure: string; title?: string }) => (
  <Box sx={{ display: 'flex', justifyContent: 'space-between', gap: 2, py: 0.4 }} title={title}>
    <Typography>{words}</Typography>
    <Typography sx={{ fontFamily: figures, fontWeight: 650, whiteSpace: 'nowrap' }}>{figure}</Typography>
  </Box>
);

/** Why what comes off differs from where it was formed, each cause named; they add up. */
export const Contributions = memo(function Contributions({ plan }: { plan: Plan }) {
  return (
    <Box component="section" aria-label="Why start there" sx={{ mb: 2 }}>
      <Typography variant="h2">
        {plan.contributions.length === 0 ? 'It comes off as it was formed' : 'Why it comes off another size'}
      </Typography>
      {plan.contributions.map((c) => (
        <Row
          key={c.cause}
          words={c.cause.charAt(0).toUpperCase() + c.cause.slice(1)}
          figure={c.said}
          title={`${signed(c.mm, 2)} mm of inside diameter, from the largest circle that fits`}
        />
      ))}
      {plan.wide_band_us > 0 && (
        <Row
          words={`Room for a ${plan.band.width_mm.toFixed(1)} mm wide band`}
          figure={`aims ${signed(plan.wide_band_us, 2)} US`}
        />
      )}
    </Box>
  );
});

/** The habits of makers side by side, with what each gives for this ring; a tap takes one. */
export function Schools() {
  const { draft, plan, change } = useDesk();
  const [open, setOpen] = useState<string | null>(null);
  if (!plan) return null;
  const chosen = valueAt(draft, 'sizing.school') ?? 'geometry';
  return (
    <Box component="section" aria-label="Where to start">
      <Typography variant="h2">Start</Typography>
      {plan.schools.map((school) => {
        const taken = chosen === school.school;
        const right = Math.abs(school.off_by_us) < 0.13;
        return (
          <Box key={school.school}>
            <ButtonBase
              aria-pressed={taken}
              onClick={() => {
                change('sizing.school', school.school);
                setOpen(open === school.school ? null : school.school);
              }}
              sx={{
                width: '100%',
                display: 'flex',
                gap: 1.5,
                minHeight: 40,
                textAlign: 'left',
                fontSize: '1rem',
                fontFamily: 'inherit',
              }}
            >
              <Box
                aria-hidden
                sx={{
                  width: 14,
                  height: 14,
                  borderRadius: '50%',
                  border: 2.5,
                  borderColor: 'primary.main',
                  bgcolor: taken ? 'primary.main' : 'transparent',
                  flex: 'none',
                }}
              />
              <Box component="span" sx={{ flex: 1, fontWeight: taken ? 650 : 400 }}>
                {NAMES[school.school] ?? school.school}
              </Box>
              <Box
                component="span"
                sx={{ fontFamily: figures, fontWeight: 650, color: right ? 'text.primary' : 'text.secondary' }}
              >
                {withFractions(school.start)} → {withFractions(school.finished)}
              </Box>
            </ButtonBase>
            <Collapse in={open === school.school} unmountOnExit>
              <Typography variant="body2" color="text.secondary" sx={{ pl: 4, pb: 1 }}>
                {school.why}
              </Typography>
            </Collapse>
          </Box>
        );
      })}
    </Box>
  );
}
