import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Link from '@mui/material/Link';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { useEffect, useState } from 'react';
import { Link as RouterLink } from 'react-router';
import { useHand, useJobs, usePlots, type Ending } from '../api/bench';
import type { JobListed } from '../api/client';
import { figures } from '../app/theme';
import { PAGE } from '../api/queries';
import { useReader } from '../preferences/Preferences';
import { withFractions } from '../words/figures';
import { Hand } from './Hand';
import { Notebook } from './Notebook';
import { Plots } from './Plots';
import { minutesOf } from './records';

const STATES: Record<string, string> = { finished: 'Finished', spoiled: 'Spoiled', set_aside: 'Set aside' };

/** What was made: planned beside what came out, and what the hand has shown by it. */
export default function LogbookScreen() {
  const [search, setSearch] = useState('');
  const [before, setBefore] = useState<readonly string[]>([]);
  const reader = useReader();
  const [state, setState] = useState<Ending | ''>('');
  const jobs = useJobs(reader, true, search, before.at(-1), state || undefined);
  const hand = useHand(reader);
  const plots = usePlots(reader);
  const [notebook, setNotebook] = useState(false);
  const total = jobs.data?.total ?? 0;
  const list = jobs.data?.jobs ?? [];
  useEffect(() => {
    document.title = 'Logbook · Pliant Coil';
  }, []);
  return (
    <Box sx={{ display: 'flex', alignItems: 'flex-start' }}>
      <Box
        component="main"
        sx={{ flex: 1, minWidth: 0, px: { xs: 2, sm: 3, lg: 4, xl: 7.5 }, maxWidth: 1600, mx: 'auto', pb: 6, pt: 2 }}
      >
        <Box sx={{ display: 'grid', gap: 5, gridTemplateColumns: { xs: '1fr', md: 'minmax(0, 1fr) 400px' } }}>
          <Box component="section" aria-label="Rings that were made">
            <Box sx={{ display: 'flex', flexWrap: 'wrap', alignItems: 'end', columnGap: 3, rowGap: 1, mb: 1 }}>
              <Typography variant="h2" sx={{ fontSize: '1.5rem', whiteSpace: 'nowrap' }}>
                Logbook
              </Typography>
              <TextField
                label="Search"
                fullWidth={false}
                sx={{ flex: '1 1 200px', maxWidth: 320 }}
                value={search}
                onChange={(event) => {
                  setSearch(event.target.value);
                  setBefore([]);
                }}
              />
              <TextField
                select
                label="Which"
                value={state}
                sx={{ flex: '0 1 140px', width: 'auto' }}
                slotProps={{ select: { displayEmpty: true }, inputLabel: { shrink: true } }}
                onChange={(event) => {
                  setState(event.target.value as Ending | '');
                  setBefore([]);
                }}
              >
                <MenuItem value="">All</MenuItem>
                {Object.entries(STATES).map(([value, words]) => (
                  <MenuItem key={value} value={value}>
                    {words}
                  </MenuItem>
                ))}
              </TextField>
              <Link
                href="/api/jobs/records.csv"
                download
                sx={{ whiteSpace: 'nowrap', minHeight: 44, lineHeight: '44px' }}
              >
                As a table
              </Link>
              <Link
                href="/api/jobs/records.json"
                download
                sx={{ whiteSpace: 'nowrap', minHeight: 44, lineHeight: '44px' }}
              >
                As JSON
              </Link>
              <Button variant="text" onClick={() => setNotebook(true)} sx={{ whiteSpace: 'nowrap' }}>
                An old notebook …
              </Button>
            </Box>
            {jobs.isError && <Typography color="error">{jobs.error.message}</Typography>}
            {jobs.isSuccess && total === 0 && (
              <Typography sx={{ maxWidth: '60ch' }}>
                {search
                  ? `No ring here says “${search}”.`
                  : state
                    ? 'No ring ended so.'
                    : 'No ring is finished yet. At the bench, “Into the logbook” keeps what was cut, what was left and what the mandrel read.'}
              </Typography>
            )}
            <Box component="ul" sx={{ listStyle: 'none', p: 0, m: 0 }}>
              {list.map((job) => (
                <Line key={job.id} job={job} />
              ))}
            </Box>
            {total > PAGE && (
              <Box sx={{ display: 'flex', justifyContent: 'space-between', mt: 1 }}>
                <Button disabled={!before.length} onClick={() => setBefore(before.slice(0, -1))}>
                  Newer
                </Button>
                <Button
                  disabled={list.length < PAGE || (before.length + 1) * PAGE === total}
                  onClick={() => setBefore([...before, list.at(-1)?.id ?? ''])}
                >
                  Older
                </Button>
              </Box>
            )}
          </Box>
          <Box>
            {plots.data && <Plots plots={plots.data} />}
            {hand.data && <Hand hand={hand.data} />}
          </Box>
        </Box>
      </Box>
      {notebook && <Notebook onClose={() => setNotebook(false)} />}
    </Box>
  );
}

function Line({ job }: { job: JobListed }) {
  const { record } = job;
  const ended = job.ended_at ? new Date(job.ended_at).toLocaleDateString(undefined, { dateStyle: 'medium' }) : '';
  return (
    <Box component="li" sx={{ py: 1.5, borderBottom: 1, borderColor: 'divider', overflow: 'hidden' }}>
      {job.photo && (
        <Box
          component="img"
          src={`/api/photos/${job.photo}`}
          alt={`Photo of ${job.title}`}
          loading="lazy"
          sx={{ float: 'right', ml: 2, mb: 0.5, height: 84, maxWidth: 120, objectFit: 'cover' }}
        />
      )}
      <Box sx={{ display: 'flex', justifyContent: 'space-between', gap: 2, alignItems: 'baseline' }}>
        {record?.planned_minutes === null ? (
          // From a notebook: it has no plan to look at.
          <Typography sx={{ fontWeight: 650, fontSize: '1.1rem' }}>{job.title}</Typography>
        ) : (
          <Link component={RouterLink} to={`/bench/${job.id}`} sx={{ fontWeight: 650, fontSize: '1.1rem' }}>
            {job.title}
          </Link>
        )}
        <Typography variant="body2" color="text.secondary" sx={{ whiteSpace: 'nowrap' }}>
          {STATES[job.state]} {ended}
          {job.begun_by && `, ${job.begun_by}`}
        </Typography>
      </Box>
      <Typography variant="body2" color="text.secondary">
        {withFractions(job.sentence)}
      </Typography>
      <Typography sx={{ fontFamily: figures, fontSize: '0.95rem', mt: 0.5 }}>
        {[
          [record?.size, record?.off]
            .filter(Boolean)
            .map((text) => withFractions(text ?? ''))
            .join(', '),
          record?.wire ? `wire ${withFractions(record.wire)}` : '',
          record ? minutesOf(record.minutes, record.planned_minutes) : '',
        ]
          .filter(Boolean)
          .join(' · ')}
      </Typography>
      {record?.why && (
        <Typography variant="body2">
          {record.planned_minutes === null ? '' : 'Why: '}
          {record.why}
        </Typography>
      )}
      {record?.visits.map((visit, k) => (
        <Typography key={k} variant="body2">
          {withFractions(visit)}
        </Typography>
      ))}
    </Box>
  );
}
