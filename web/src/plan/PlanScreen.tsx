import Box from '@mui/material/Box';
import { useEffect } from 'react';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { Link, useLocation, useParams } from 'react-router';
import type { Draft } from '../api/client';
import { useRing } from '../api/queries';
import { PlanDesk } from './PlanDesk';

/** The Plan screen at its address: a new ring, or a saved one. */
export default function PlanScreen() {
  const { ringId } = useParams();
  const { key, state } = useLocation() as { key: string; state: { laidOut?: Draft } | null };
  const ring = useRing(ringId);
  useEffect(() => {
    // Laid out once: loaded again, the page takes up what was typed since.
    if (state?.laidOut) window.history.replaceState({ ...(window.history.state as object), usr: null }, '');
  }, [state]);
  if (ringId && ring.isError) {
    return (
      <Box sx={{ p: 6, maxWidth: 620 }}>
        <Typography variant="h1">That ring isn’t here.</Typography>
        <Typography sx={{ my: 2 }}>
          {ring.error.message}. It may have been deleted: “Rings” lists deleted ones, to be taken back.
        </Typography>
        <Button variant="contained" component={Link} to="/plan">
          Plan a new ring
        </Button>
      </Box>
    );
  }
  if (ringId && !ring.data) {
    return (
      <Typography role="status" sx={{ p: 6 }}>
        Opening the ring …
      </Typography>
    );
  }
  return (
    <PlanDesk
      key={ringId ?? `new ${state?.laidOut ? key : ''}`}
      saved={ring.data}
      laidOut={ringId ? undefined : state?.laidOut}
    />
  );
}
