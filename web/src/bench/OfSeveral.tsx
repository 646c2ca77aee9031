import Box from '@mui/material/Box';
import Link from '@mui/material/Link';
import Typography from '@mui/material/Typography';
import { Link as RouterLink } from 'react-router';
import { useBoard } from '../api/bench';
import { useReader } from '../preferences/Preferences';
import { nameOf, PHASES } from './several';

interface Props {
  batch: string;
  job: string;
  /** The stage that this ring stands in; empty when all its steps are done. */
  phase: string;
}

/** This ring is one of several: how the others stand, and which comes next when this one has gone ahead of them. */
export function OfSeveral({ batch, job, phase }: Props) {
  const board = useBoard(batch, useReader()).data;
  if (!board) return null;
  const ahead = board.kind === 'by_stage' && board.stage !== '' && phase !== board.stage;
  const from = board.benches.findIndex((bench) => bench.job_id === job);
  // The one after this, and round to the first.
  const next = [...board.benches.slice(from + 1), ...board.benches.slice(0, from)].find(
    (bench) => bench.state === 'open' && bench.phase === board.stage,
  );
  return (
    <Box sx={{ display: 'flex', flexWrap: 'wrap', columnGap: 3, alignItems: 'center' }}>
      <Link component={RouterLink} to={`/bench/several/${batch}`} sx={{ lineHeight: '44px' }}>
        One of {board.benches.length}: see them all
      </Link>
      {ahead && next && (
        <Typography sx={{ fontWeight: 650 }}>
          {PHASES[board.stage]} isn’t done yet:{' '}
          <Link component={RouterLink} to={`/bench/${next.job_id}`} sx={{ lineHeight: '44px' }}>
            on to {nameOf(next)}
          </Link>
        </Typography>
      )}
    </Box>
  );
}
