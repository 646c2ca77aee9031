import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import { memo } from 'react';
import type { Plan } from '../api/client';
import { withFractions } from '../words/figures';

/** The bench steps in the order of the trade, each with what to check and what to mind. */
export const Steps = memo(function Steps({ plan }: { plan: Plan }) {
  return (
    <Box component="section" aria-label="Steps" sx={{ mt: 3 }}>
      <Typography variant="h2" sx={{ fontSize: '1.25rem', mb: 1 }}>
        At the bench
      </Typography>
      <Box
        component="ol"
        sx={{
          m: 0,
          pl: 3.5,
          columns: { md: 2 },
          columnGap: 8,
          '& li': { breakInside: 'avoid', pb: 1.75, pl: 0.5 },
          '& li::marker': { fontWeight: 700 },
        }}
      >
        {plan.steps.map((step) => (
          <li key={step.id}>
            <Typography>{withFractions(step.text)}</Typography>
            {step.check && (
              <Typography variant="body2" color="text.secondary">
                Check: {withFractions(step.check)}
              </Typography>
            )}
            {step.cautions.map((caution) => (
              <Typography
                key={caution}
                variant="body2"
                sx={{ borderLeft: 3, borderColor: 'error.main', pl: 1.25, mt: 0.5 }}
              >
                {caution}
              </Typography>
            ))}
          </li>
        ))}
      </Box>
    </Box>
  );
});
