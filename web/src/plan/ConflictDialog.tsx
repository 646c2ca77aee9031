import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import Typography from '@mui/material/Typography';
import type { Conflicting } from '../api/client';

interface Props {
  conflict: Conflicting | null;
  onTakeTheirs: () => void;
  onKeepMine: () => void;
  onClose: () => void;
}

/** Two people saved the same ring: the second decides, and neither ring is lost before that. */
export function ConflictDialog({ conflict, onTakeTheirs, onKeepMine, onClose }: Props) {
  const when =
    conflict &&
    new Date(conflict.current.updated_at).toLocaleTimeString(undefined, { hour: 'numeric', minute: '2-digit' });
  return (
    <Dialog open={conflict !== null} onClose={onClose}>
      <DialogTitle>Saved from somewhere else meanwhile</DialogTitle>
      <DialogContent>
        <Typography>
          “{conflict?.current.file.title}” was saved at {when}, after you opened it. Nothing was overwritten, and what
          you typed is still here.
        </Typography>
      </DialogContent>
      <DialogActions>
        <Button onClick={onClose}>Not now</Button>
        <Button variant="outlined" onClick={onTakeTheirs}>
          Take theirs
        </Button>
        <Button variant="contained" onClick={onKeepMine}>
          Keep mine as a copy
        </Button>
      </DialogActions>
    </Dialog>
  );
}
