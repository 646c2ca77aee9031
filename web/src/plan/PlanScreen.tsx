import Box from '@mui/material/Box';
import { useEffect, useState } from 'react';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { Link, useLocation, useParams } from 'react-router';
import type { Draft } from '../api/client';
import { useRing } from '../api/queries';
import { PlanDesk } from './PlanDesk';

/** What another screen hands on to this one. */
export interface PlanState {
  /** A ring to lay on the desk of new ones. */
  laidOut?: Draft;
  /** The new ring on the desk has just been saved: the desk goes on at the ring’s own address. */
  savedHere?: boolean;
}

/** The Plan screen at its address: a new ring, or a saved one. */
export default function PlanScreen() {
  const { ringId } = useParams();
  const { key, state } = useLocation() as { key: string; state: PlanState | null };
  const ring = useRing(ringId);
  const laid = state?.laidOut && key;
  const [desk, setDesk] = useState({ number: 0, ringId, laid });
  if (desk.ringId !== ringId || (laid && desk.laid !== laid)) {
    const sameDesk = !desk.ringId && ringId && state?.savedHere;
    setDesk({ number: sameDesk ? desk.number : desk.number + 1, ringId, laid: laid ?? desk.laid });
  }
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
  return <PlanDesk key={desk.number} saved={ring.data} laidOut={ringId ? undefined : state?.laidOut} />;
}
