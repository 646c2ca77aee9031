import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import MenuItem from '@mui/material/MenuItem';
import Stack from '@mui/material/Stack';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import { useRepair } from '../api/bench';
import type { JobAtBench, Progress } from '../api/client';
import { useReader } from '../preferences/Preferences';
import { withFractions } from '../words/figures';
import { wayName } from '../words/ways';
import { big } from './parts';
import { LengthField, SizeField, useLength, useTypedSize } from './fields';
import type { Say } from './useBench';

interface Props {
  at: JobAtBench;
  progress: Progress;
  say: Say;
  onEnd: () => void;
}

/** What was said when it came looks like what is typed: it stands until that changes. */
const FIELD = {
  flex: '1 1 260px',
  maxWidth: 380,
  '& input::placeholder': { color: 'text.primary', opacity: 1 },
} as const;
const LINE = {
  display: 'flex',
  flexDirection: { xs: 'column', sm: 'row' },
  alignItems: { xs: 'flex-start', sm: 'center' },
  columnGap: 2,
  rowGap: 0.5,
} as const;

/** A finished ring on the bench again: what it reads, what is wanted of it, and what each way can give here. */
export function Repair({ at, progress, say, onEnd }: Props) {
  const reader = useReader();
  const visit = progress.visit;
  const reads = useTypedSize();
  const wanted = useTypedSize();
  // What was said when it came stands until something else is typed.
  const readsMm = reads.mm || (visit?.reads_mm ?? 0);
  const wantedMm = wanted.mm || (visit?.wanted_mm ?? 0);
  const told = useRepair(at.job.id, readsMm, wantedMm, reader);
  const done = (way: string) => {
    say('mended', { way, reads_mm: readsMm || null, wanted_mm: wantedMm || null });
    reads.setText('');
  };
  return (
    <Box sx={{ py: 2, maxWidth: '80ch' }}>
      <Typography component="h2" sx={{ fontSize: { xs: '1.5rem', sm: '2rem' }, fontWeight: 700 }}>
        It is back on the bench.
      </Typography>
      {visit?.why && <Typography sx={{ fontSize: '1.15rem' }}>{visit.why}</Typography>}
      <Box sx={{ display: 'flex', gap: 2, flexWrap: 'wrap', my: 2 }}>
        <SizeField
          label="The mandrel reads now"
          typed={reads}
          stands={visit?.reads ?? ''}
          help="In the middle of the band, turned round, the mean of both."
          sx={FIELD}
        />
        <SizeField
          label="It shall be"
          typed={wanted}
          stands={visit?.wanted ?? ''}
          help="A size, as you type it elsewhere."
          sx={FIELD}
        />
      </Box>
      {told.isError && <Typography color="error">{told.error.message}</Typography>}
      <Stack component="ul" spacing={1.5} sx={{ listStyle: 'none', p: 0, m: 0 }} aria-label="What can be done">
        {told.data?.ways.map((way) => (
          <Box component="li" key={way.code} sx={{ ...LINE, color: way.reaches ? 'text.primary' : 'text.secondary' }}>
            <Typography sx={{ flex: 1 }}>
              <strong>{wayName(way)}.</strong> {withFractions(way.text)}
            </Typography>
            <Button
              variant={way.reaches ? 'outlined' : 'text'}
              onClick={() => done(way.code)}
              aria-label={`Done so: ${wayName(way)}`}
            >
              Done so
            </Button>
          </Box>
        ))}
        {readsMm > 0 && wantedMm > 0 && (
          <Box component="li" sx={LINE}>
            <Typography sx={{ flex: 1 }}>
              <strong>For another finger.</strong> It stays as it is, and its record says what it reads.
            </Typography>
            <Button variant="text" onClick={() => done('accept')} aria-label="Keep it so: for another finger">
              Keep it so
            </Button>
          </Box>
        )}
      </Stack>
      <Typography color="text.secondary" sx={{ my: 2 }}>
        More wraps at the locks hardly change a size.
      </Typography>
      <NewPiece at={at} say={say} />
      {visit && visit.done.length > 0 && (
        <Typography role="status">
          Done so far: {visit.done.map((code) => wayName({ code, reaches: true }).toLowerCase()).join(', ')}. Read it
          again before the next.
        </Typography>
      )}
      <Button variant="contained" onClick={onEnd} sx={{ ...big, mt: 2 }}>
        It leaves again
      </Button>
    </Box>
  );
}

/** A wire of it ran out or broke: a new piece of so much is on, its start where it doesn't show. */
function NewPiece({ at, say }: { at: JobAtBench; say: Say }) {
  const typed = useLength();
  const [wire, setWire] = useState(0);
  const piece = at.plan.wires[wire];
  if (!at.hides_splice)
    return (
      <Typography sx={{ my: 2 }}>A wire broke: a new piece would show everywhere here, so only a new ring.</Typography>
    );
  return (
    <Box sx={{ my: 2 }}>
      <Typography>A wire ran out or broke: a new piece goes on, its start hidden {at.hides_splice}.</Typography>
      <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 2, alignItems: 'end' }}>
        {at.plan.wires.length > 1 && (
          <TextField
            select
            label="Of which wire"
            value={wire}
            onChange={(event) => setWire(Number(event.target.value))}
            sx={{ minWidth: 160 }}
          >
            {at.plan.wires.map((each, k) => (
              <MenuItem key={each.id} value={k}>
                {each.role} {each.pieces > 1 ? each.piece : ''}
              </MenuItem>
            ))}
          </TextField>
        )}
        <LengthField label="New piece" typed={typed} />
        <Button
          variant="outlined"
          disabled={!piece || !typed.there}
          onClick={() => {
            if (!piece) return;
            say('spliced', { piece: piece.id, length_mm: typed.mm, task: 'repair' });
            say('mended', { way: 'splice', reads_mm: null, wanted_mm: null });
            typed.setText('');
          }}
        >
          It is on
        </Button>
      </Box>
    </Box>
  );
}

/** A finished ring comes back: why, what it reads, and what it shall be. */
export function CameBackSheet({ say, onDone }: { say: Say; onDone: () => void }) {
  const [why, setWhy] = useState('');
  const reads = useTypedSize();
  const wanted = useTypedSize();
  return (
    <Stack spacing={2}>
      <TextField
        label="Why it came back"
        value={why}
        onChange={(event) => setWhy(event.target.value)}
        helperText="Too small, a wire stands, for another finger …"
      />
      <SizeField label="It reads" typed={reads} help="May stay empty." />
      <SizeField label="It shall be" typed={wanted} help="May stay empty." />
      <Button
        variant="contained"
        disabled={reads.fault !== '' || wanted.fault !== ''}
        onClick={() => {
          say('came_back', { why: why.trim(), reads_mm: reads.mm || null, wanted_mm: wanted.mm || null });
          onDone();
        }}
      >
        On the bench with it
      </Button>
    </Stack>
  );
}
