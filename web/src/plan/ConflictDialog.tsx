import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import Typography from '@mui/material/Typography';
import type { Conflicting, Draft } from '../api/client';
import { usePlan } from '../api/queries';
import { usePreferences, useReader } from '../preferences/Preferences';
import { withFractions } from '../words/figures';

interface Props {
  conflict: Conflicting | null;
  draft: Draft;
  onTakeTheirs: () => void;
  onKeepMine: () => void;
  onClose: () => void;
}

/** The same ring was saved at another bench: both are laid side by side in the trade's words, and none is lost. */
export function ConflictDialog({ conflict, draft, onTakeTheirs, onKeepMine, onClose }: Props) {
  const at = conflict && new Date(conflict.current.updated_at);
  const when = at?.toLocaleTimeString(undefined, { hour: 'numeric', minute: '2-digit' });
  // Where nobody is asked for a name there is none.
  const by = conflict?.current.saved_by ? ` by ${conflict.current.saved_by}` : '';
  return (
    <Dialog open={conflict !== null} onClose={onClose} maxWidth="md" fullWidth>
      <DialogTitle>This ring was also saved at another bench</DialogTitle>
      <DialogContent>
        <Typography sx={{ mb: 2 }}>Nothing was overwritten. Here are both; each can be kept.</Typography>
        {conflict && (
          <Box sx={{ display: 'grid', gap: 3, gridTemplateColumns: { xs: '1fr', sm: '1fr 1fr' } }}>
            <Laid
              heading={`Saved at ${when ?? ''}${by}: “${conflict.current.file.title}”`}
              ring={conflict.current.file}
            />
            <Laid heading={`On this desk: “${typeof draft.title === 'string' ? draft.title : ''}”`} ring={draft} />
          </Box>
        )}
      </DialogContent>
      <DialogActions sx={{ flexWrap: 'wrap' }}>
        <Button onClick={onClose}>Decide later</Button>
        <Button variant="outlined" onClick={onTakeTheirs}>
          Lay the saved one on the desk
        </Button>
        <Button variant="contained" onClick={onKeepMine}>
          Save the desk’s as another ring
        </Button>
      </DialogActions>
    </Dialog>
  );
}

/** One of the two: its sentence, and what is cut and read. */
function Laid({ heading, ring }: { heading: string; ring: Draft }) {
  const plan = usePlan(ring, useReader(), usePreferences()[0].hand).data;
  return (
    <Box>
      <Typography sx={{ fontWeight: 650, overflowWrap: 'anywhere' }}>{heading}</Typography>
      {plan && (
        <Typography>
          A {withFractions(plan.sentence.map((phrase) => phrase.text).join(', '))}. Start at{' '}
          {withFractions(plan.start.mark)}; cut {withFractions(plan.wires.map((wire) => wire.cut).join(', '))}.
        </Typography>
      )}
    </Box>
  );
}
