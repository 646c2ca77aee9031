import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import type { Plan } from '../api/client';
import { solderWords } from '../drawings/solder';
import { UnrolledTop } from '../drawings/UnrolledTop';
import { waved } from '../drawings/unrolled';
import { usePreferences } from '../preferences/Preferences';

/** Waved tops rolled out flat: what is levered, and where it is soldered. */
export function Tops({ plan }: { plan: Plan }) {
  const [{ units }] = usePreferences();
  if (!waved(plan)) return null;
  return (
    <Box component="section" aria-label="The tops rolled out" sx={{ pt: 1.5, pb: 2 }}>
      <Typography sx={{ mb: 1 }}>The tops rolled out flat, counted from their middle.</Typography>
      <UnrolledTop plan={plan} units={units} />
      <Typography variant="body2" color="text.secondary" sx={{ mt: 0.5 }}>
        {solderWords(plan.drawing)}. The bench card has them at 1:1, to lever after.
      </Typography>
    </Box>
  );
}
