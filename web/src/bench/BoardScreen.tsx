import Box from '@mui/material/Box';
import Link from '@mui/material/Link';
import Typography from '@mui/material/Typography';
import { useQueryClient } from '@tanstack/react-query';
import { useCallback, useEffect } from 'react';
import { Link as RouterLink, useParams } from 'react-router';
import { changed } from '../api/changed';
import { useBoard } from '../api/bench';
import type { BenchTold, Board } from '../api/client';
import { keys } from '../api/queries';
import { useChanges } from '../api/useChanges';
import { figures } from '../app/theme';
import { useReader } from '../preferences/Preferences';
import { withFractions } from '../words/figures';
import { nameOf, PHASES } from './several';

const KINDS = { by_ring: 'ring by ring', by_stage: 'stage by stage', class: 'a class' } as const;
/** Somebody takes much longer at a step than the others did. */
const LONG = 2;

/** Several rings side by side: who stands where, who waits, and what comes next. */
export default function BoardScreen() {
  const { batchId = '' } = useParams();
  const board = useBoard(batchId, useReader());
  const at = board.data;
  const queries = useQueryClient();
  const ask = useCallback(() => void changed(queries, keys.boards), [queries]);
  useChanges(`/api/batches/${batchId}/changes`, ask);
  useEffect(() => {
    document.title = `${at?.title ?? 'Several rings'} · Bench · Pliant Coil`;
  }, [at?.title]);
  if (!at)
    return (
      <Typography component="main" sx={{ p: 4 }}>
        {board.isError ? board.error.message : 'The rings are being fetched.'}
      </Typography>
    );
  const waiting = at.benches.filter((bench) => bench.waits_since);
  return (
    <Box component="main" sx={{ px: { xs: 2, sm: 3, lg: 4, xl: 7.5 }, maxWidth: 1600, mx: 'auto', pb: 6, pt: 2 }}>
      <Typography color="text.secondary">
        {at.title} · {at.benches.length} rings, {KINDS[at.kind]}
      </Typography>
      <Typography variant="h2" sx={{ fontSize: { xs: '1.5rem', sm: '2rem' }, fontWeight: 700, my: 0.5 }}>
        {headline(at)}
      </Typography>
      {waiting.length > 0 && (
        <Typography role="status" sx={{ fontWeight: 650, color: 'error.main' }}>
          {waiting.map((bench) => nameOf(bench)).join(', ')} {waiting.length === 1 ? 'waits' : 'wait'} for help.
        </Typography>
      )}
      {at.set_up.length > 0 && (
        <Box component="section" aria-label="The same for every ring" sx={{ mt: 2, maxWidth: '90ch' }}>
          <Typography variant="h3" sx={{ fontSize: '1rem', fontWeight: 650 }}>
            The same for every ring
          </Typography>
          {at.set_up.map((text) => (
            <Typography key={text} color="text.secondary">
              {withFractions(text)}
            </Typography>
          ))}
        </Box>
      )}
      <Box component="ol" aria-label="Rings" sx={{ listStyle: 'none', p: 0, m: 0, mt: 2 }}>
        {at.benches.map((bench) => (
          <Line key={bench.job_id} bench={bench} stage={at.stage} byStage={at.kind === 'by_stage'} />
        ))}
      </Box>
    </Box>
  );
}

function headline(at: Board): string {
  if (!at.stage) return 'Every step of every ring is done.';
  const stage = PHASES[at.stage] ?? at.stage;
  if (at.repeats_left < 1) return `Now: ${stage}`;
  return `Now: ${stage}, ${Math.round(at.repeats_left)} repeats left, about ${Math.max(1, Math.round(at.minutes_left))} min`;
}

interface LineProps {
  bench: BenchTold;
  stage: string;
  byStage: boolean;
}

function Line({ bench, stage, byStage }: LineProps) {
  // Stage by stage those that are ahead wait for the others.
  const ahead = byStage && bench.phase !== stage;
  // A step whose repeats are half made is half done.
  const done = bench.place + (bench.whole > 0 ? bench.made / bench.whole : 0);
  const slow = bench.usual_minutes > 0 && bench.minutes > LONG * bench.usual_minutes;
  return (
    <Box
      component="li"
      sx={{
        display: 'grid',
        columnGap: 3,
        rowGap: 0.5,
        alignItems: 'center',
        gridTemplateColumns: { xs: '1fr', md: 'minmax(170px, 2fr) minmax(0, 5fr) minmax(160px, 2fr)' },
        py: 1.25,
        borderTop: 1,
        borderColor: 'divider',
        borderLeft: bench.waits_since ? '8px solid' : 0,
        borderLeftColor: 'error.main',
        pl: bench.waits_since ? 1.5 : 0,
      }}
    >
      <Link
        component={RouterLink}
        to={`/bench/${bench.job_id}`}
        sx={{ fontSize: '1.15rem', fontWeight: 650, minHeight: 44, display: 'inline-flex', alignItems: 'center' }}
      >
        {nameOf(bench)}
        {bench.for_whom && `, ${withFractions(bench.size)}`}
      </Link>
      <Typography color={ahead ? 'text.secondary' : 'text.primary'}>
        {bench.state !== 'open' ? ENDED[bench.state] : withFractions(bench.step) || 'All its steps are done.'}
      </Typography>
      <Box>
        <Box
          role="img"
          aria-label={`step ${bench.place} of ${bench.steps} done`}
          sx={{ height: 10, bgcolor: 'divider', borderRadius: 5, overflow: 'hidden' }}
        >
          <Box sx={{ height: '100%', width: `${(100 * done) / bench.steps}%`, bgcolor: 'primary.main' }} />
        </Box>
        <Typography variant="body2" sx={{ fontFamily: figures }} color="text.secondary">
          {[
            bench.whole > 0 ? `${bench.made} of ${bench.whole}` : '',
            bench.minutes >= 1 ? `${Math.round(bench.minutes)} min here` : '',
            slow ? `the others took ${Math.max(1, Math.round(bench.usual_minutes))}` : '',
          ]
            .filter(Boolean)
            .join(' · ')}
        </Typography>
      </Box>
    </Box>
  );
}

const ENDED: Record<string, string> = { finished: 'Finished.', spoiled: 'Spoiled.', set_aside: 'Set aside.' };
