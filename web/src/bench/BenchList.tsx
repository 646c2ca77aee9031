import Box from '@mui/material/Box';
import Link from '@mui/material/Link';
import Typography from '@mui/material/Typography';
import { useEffect } from 'react';
import { Link as RouterLink } from 'react-router';
import { useBatches, useJobs } from '../api/bench';
import { useReader } from '../preferences/Preferences';
import { withFractions } from '../words/figures';

/** The rings that lie on the bench: to go on with. */
export default function BenchList() {
  const jobs = useJobs(useReader(), false);
  const batches = useBatches().data ?? [];
  useEffect(() => {
    document.title = 'Bench · Pliant Coil';
  }, []);
  return (
    <Box component="main" sx={{ px: { xs: 2, sm: 3, lg: 4, xl: 7.5 }, maxWidth: 1600, mx: 'auto', pb: 6, pt: 2 }}>
      <Typography variant="h2" sx={{ fontSize: '1.5rem', mb: 1 }}>
        On the bench
      </Typography>
      {jobs.isError && <Typography color="error">{jobs.error.message}</Typography>}
      {jobs.data?.total === 0 && (
        <Typography sx={{ maxWidth: '60ch' }}>
          No ring lies here.{' '}
          <Link component={RouterLink} to="/plan">
            Plan one
          </Link>{' '}
          and press “To the bench”: it goes through its steps with you, counts, and asks for a reading while it can
          still change something.
        </Typography>
      )}
      {batches.length > 0 && (
        <Box component="section" aria-label="Several at once" sx={{ mb: 2 }}>
          {batches.map((batch) => (
            <Link
              key={batch.id}
              component={RouterLink}
              to={`/bench/several/${batch.id}`}
              sx={{ display: 'block', fontSize: '1.1rem', fontWeight: 650, lineHeight: '48px' }}
            >
              {batch.title}: {batch.kind === 'class' ? 'the class' : 'all of them'}
            </Link>
          ))}
        </Box>
      )}
      <Box component="ul" sx={{ listStyle: 'none', p: 0, m: 0 }}>
        {jobs.data?.jobs.map((job) => (
          <Box component="li" key={job.id} sx={{ py: 2, borderBottom: 1, borderColor: 'divider' }}>
            <Link
              component={RouterLink}
              to={`/bench/${job.id}`}
              sx={{ fontSize: '1.25rem', fontWeight: 650, minHeight: 48, display: 'inline-flex', alignItems: 'center' }}
            >
              {job.title}
            </Link>
            <Typography color="text.secondary">{withFractions(job.sentence)}</Typography>
            <Typography variant="body2" color="text.secondary">
              last touched{' '}
              {new Date(job.updated_at).toLocaleString(undefined, { dateStyle: 'medium', timeStyle: 'short' })}
            </Typography>
          </Box>
        ))}
      </Box>
    </Box>
  );
}
