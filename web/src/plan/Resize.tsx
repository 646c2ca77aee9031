import Box from '@mui/material/Box';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import { Refused } from '../api/client';
import { useResizing } from '../api/queries';
import { useReader } from '../preferences/Preferences';
import { withFractions } from '../words/figures';
import { hasSize } from '../words/sized';
import { useDesk } from './Desk';
import { sentence } from '../words/refusal';
import { wayName } from '../words/ways';

/** The ring is finished and is to be another size: what each way can give, and what it can't. */
export function Resize() {
  const { draft, plan, standing } = useDesk();
  const [wanted, setWanted] = useState('');
  const told = useResizing(draft, wanted, useReader(), standing === 'fresh' && wanted.trim() !== '');
  const problem = told.error instanceof Refused ? told.error.problems[0] : undefined;
  if (plan && !hasSize(plan)) return null;
  return (
    <Box component="section" aria-label="Another size" sx={{ mt: 2 }}>
      <Typography variant="h2">Finished, and to be another size?</Typography>
      <TextField
        label="Wanted"
        value={wanted}
        onChange={(event) => setWanted(event.target.value)}
        error={!!problem}
        helperText={problem && withFractions(sentence(problem))}
        sx={{ maxWidth: 320, my: 1 }}
        slotProps={{ htmlInput: { autoComplete: 'off' } }}
      />
      {wanted.trim() !== '' &&
        told.data?.ways.map((way) => (
          <Typography key={way.code} sx={{ py: 0.4, color: way.reaches ? 'text.primary' : 'text.secondary' }}>
            <strong>{wayName(way)}.</strong> {withFractions(way.text)}
          </Typography>
        ))}
    </Box>
  );
}
