import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Drawer from '@mui/material/Drawer';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import { Link } from 'react-router';
import { PAGE, useRingChanges, useRings } from '../api/queries';
import type { RingListed } from '../api/client';
import { useTell } from '../app/Notices';
import { withFractions } from '../words/figures';
import { WholeWorkshop } from './WholeWorkshop';

/** Beyond it the server doesn’t count on. */
const COUNTED = 1000;

interface Props {
  open: boolean;
  onClose: () => void;
  /** The ring on the desk is deleted: what stands there is a new ring now. */
  onRemoved: (id: string) => void;
}

/** The list was opened to look for a ring: that is where typing goes. */
const typeHere = (field: HTMLInputElement | null) => field?.focus();

/** Saved rings: to open, copy, search and delete; and the deleted ones, to be taken back. */
export function RingList({ open, onClose, onRemoved }: Props) {
  const [search, setSearch] = useState('');
  // The last ring of each page before: where the next one goes on.
  const [before, setBefore] = useState<readonly string[]>([]);
  const page = before.length;
  const [deleted, setDeleted] = useState(false);
  const rings = useRings(search, before.at(-1), deleted, open);
  const total = rings.data?.total ?? 0;
  const tell = useTell();
  const { restore } = useRingChanges();
  // Told inside the list: whoever deleted a ring has the keyboard there.
  const [away, setAway] = useState<RingListed | null>(null);
  const putBack = (ring: RingListed) =>
    restore.mutate(ring.id, { onSuccess: () => setAway(null), onError: (error) => tell({ text: error.message }) });
  const removed = (ring: RingListed) => {
    setAway(ring);
    onRemoved(ring.id);
  };
  return (
    <Drawer
      anchor="right"
      open={open}
      onClose={onClose}
      slotProps={{ paper: { sx: { width: 460, maxWidth: '100vw', p: 2.5 }, 'aria-label': 'Saved rings' } }}
    >
      <Box sx={{ display: 'flex', alignItems: 'center', justifyContent: 'space-between', mb: 1 }}>
        <Typography variant="h2" sx={{ fontSize: '1.25rem' }}>
          Saved rings
        </Typography>
        <Button variant="text" onClick={onClose}>
          Close
        </Button>
      </Box>
      <TextField
        label="Search"
        placeholder="title, wire, size, bead"
        value={search}
        inputRef={typeHere}
        onChange={(event) => {
          setSearch(event.target.value);
          setBefore([]);
        }}
      />
      <Button
        variant="text"
        aria-pressed={deleted}
        onClick={() => {
          setDeleted(!deleted);
          setBefore([]);
        }}
        sx={{ px: 0 }}
      >
        {deleted ? 'Back to the saved rings' : 'Show deleted rings'}
      </Button>
      {away && (
        <Box role="status" sx={{ display: 'flex', alignItems: 'center', gap: 2, mt: 1 }}>
          <Typography sx={{ flex: 1 }}>“{away.title}” is deleted.</Typography>
          <Button variant="outlined" onClick={() => putBack(away)}>
            Undo
          </Button>
        </Box>
      )}
      {rings.isError && (
        <Typography color="error" sx={{ mt: 2 }}>
          {rings.error.message} Close this list and open it again to retry.
        </Typography>
      )}
      {rings.isSuccess && total === 0 && (
        <Typography color="text.secondary" sx={{ mt: 2 }}>
          {deleted
            ? 'No deleted ring is here.'
            : search
              ? `No saved ring says “${search}”. Fewer words find more.`
              : 'No ring is saved yet. Plan one, give it a name and press Save.'}
        </Typography>
      )}
      <Box component="ul" sx={{ listStyle: 'none', p: 0, m: 0, mt: 1 }}>
        {rings.data?.rings.map((ring) => (
          <Row
            key={ring.id}
            ring={ring}
            deleted={deleted}
            onClose={onClose}
            onRemoved={removed}
            onTakenBack={() => putBack(ring)}
          />
        ))}
      </Box>
      {total > PAGE && (
        <Box sx={{ display: 'flex', alignItems: 'center', justifyContent: 'space-between', mt: 1 }}>
          <Button disabled={page === 0} onClick={() => setBefore(before.slice(0, -1))}>
            Newer
          </Button>
          <Typography variant="body2">
            {page * PAGE + 1} to {Math.min(total, (page + 1) * PAGE)} of{' '}
            {total > COUNTED ? `more than ${COUNTED}` : total}
          </Typography>
          <Button
            disabled={(rings.data?.rings.length ?? 0) < PAGE || (page + 1) * PAGE === total}
            onClick={() => setBefore([...before, rings.data?.rings.at(-1)?.id ?? ''])}
          >
            Older
          </Button>
        </Box>
      )}
      <WholeWorkshop />
    </Drawer>
  );
}

interface RowProps {
  ring: RingListed;
  deleted: boolean;
  onTakenBack: () => void;
  onClose: () => void;
  onRemoved: (ring: RingListed) => void;
}

function Row({ ring, deleted, onClose, onRemoved, onTakenBack }: RowProps) {
  const tell = useTell();
  const { duplicate, remove } = useRingChanges();
  const failed = (error: Error) => tell({ text: error.message });
  const toBin = () => remove.mutate(ring, { onSuccess: () => onRemoved(ring), onError: failed });
  return (
    <Box component="li" sx={{ borderTop: 1, borderColor: 'divider', py: 1.25 }}>
      <Box
        {...(deleted ? {} : { component: Link, to: `/plan/${ring.id}`, onClick: onClose })}
        sx={{
          display: 'block',
          color: 'text.primary',
          textDecoration: 'none',
          '&:hover, &:focus-visible': { color: 'primary.main' },
        }}
      >
        <Typography sx={{ fontWeight: 650, overflowWrap: 'anywhere' }}>{ring.title}</Typography>
        <Typography variant="body2" color="text.secondary">
          {withFractions(ring.sentence)}
        </Typography>
      </Box>
      <Box sx={{ display: 'flex', alignItems: 'center', gap: 1 }}>
        <Typography variant="body2" color="text.secondary" sx={{ flex: 1 }}>
          {new Date(ring.updated_at).toLocaleDateString(undefined, { day: 'numeric', month: 'long' })}
        </Typography>
        {!deleted && (
          <Button
            aria-label={`Copy ${ring.title}`}
            onClick={() =>
              duplicate.mutate(
                { id: ring.id, key: crypto.randomUUID() },
                {
                  onSuccess: () => tell({ text: `“${ring.title}” is copied.` }),
                  onError: failed,
                },
              )
            }
          >
            Copy
          </Button>
        )}
        {!deleted && (
          <Button aria-label={`Delete ${ring.title}`} onClick={toBin}>
            Delete
          </Button>
        )}
        {deleted && (
          <Button aria-label={`Take ${ring.title} back`} onClick={onTakenBack}>
            Take back
          </Button>
        )}
      </Box>
    </Box>
  );
}
