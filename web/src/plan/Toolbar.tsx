import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import InputBase from '@mui/material/InputBase';
import Menu from '@mui/material/Menu';
import MenuItem from '@mui/material/MenuItem';
import Typography from '@mui/material/Typography';
import { useRef, useState } from 'react';
import { useMayChange } from '../api/people';
import { useDesk } from './Desk';
import { FileChoice } from '../ui/FileChoice';
import { valueAt } from './draft';

/** How far keeping the ring has come. */
export type Keeping = 'new' | 'changed' | 'kept' | 'sending' | 'waiting';

const KEEP: Record<Keeping, string> = {
  new: 'Save',
  changed: 'Save',
  kept: 'Saved',
  sending: 'Saving …',
  waiting: 'Will be saved',
};

interface Props {
  keeping: Keeping;
  canSave: boolean;
  canUndo: boolean;
  canRedo: boolean;
  onSave: () => void;
  onUndo: () => void;
  onRedo: () => void;
  onRings: () => void;
  onNew: () => void;
  onCopy: () => void;
  onSettings: () => void;
  onExport: () => void;
  onBench: () => void;
  onSeveral: () => void;
  onImport: (file: File) => void;
}

/** The ring's tag, and what can be done with the ring as a whole. */
export function Toolbar(props: Props) {
  const { draft, change } = useDesk();
  const mayChange = useMayChange();
  const [fileAt, setFileAt] = useState<HTMLElement | null>(null);
  const file = useRef<HTMLInputElement>(null);
  const title = valueAt(draft, 'title');
  const choose = (action: () => void) => () => {
    setFileAt(null);
    action();
  };
  const chooseFile = () => {
    setFileAt(null);
    file.current?.click();
  };
  return (
    <Box
      sx={{
        display: 'flex',
        flexWrap: 'wrap',
        alignItems: 'center',
        columnGap: { xs: 0, sm: 0.5 },
        mx: { xs: -1, sm: 0 },
      }}
    >
      <Box
        component="label"
        sx={{ display: 'flex', alignItems: 'center', gap: 1, flex: '1 1 220px', minHeight: 48, px: { xs: 1, sm: 0 } }}
      >
        <Typography component="span" variant="body2" color="text.secondary" sx={{ whiteSpace: 'nowrap' }}>
          On its tag
        </Typography>
        <InputBase
          value={typeof title === 'string' ? title : ''}
          onChange={(event) => change('title', event.target.value)}
          placeholder="a name for this ring"
          inputProps={{ 'aria-label': 'Name of the ring', maxLength: 120 }}
          sx={{
            flex: 1,
            fontSize: '1.05rem',
            fontWeight: 600,
            '& input': {
              minHeight: 32,
              borderBottom: '2px dotted var(--mui-palette-divider)',
              textOverflow: 'ellipsis',
            },
            '& input::placeholder': { opacity: 1, color: 'var(--mui-palette-text-secondary)', fontWeight: 400 },
            '& input:hover, & input:focus': { borderColor: 'var(--mui-palette-primary-main)' },
          }}
        />
      </Box>
      <Button
        variant="contained"
        onClick={props.onSave}
        disabled={
          !mayChange ||
          !props.canSave ||
          props.keeping === 'kept' ||
          props.keeping === 'sending' ||
          props.keeping === 'waiting'
        }
        sx={{
          minWidth: 104,
          ml: { sm: 1 },
          '&.Mui-disabled': { color: 'text.secondary', bgcolor: 'transparent', border: 2, borderColor: 'divider' },
        }}
      >
        {mayChange ? KEEP[props.keeping] : 'You look on here'}
      </Button>
      <Button onClick={props.onUndo} disabled={!props.canUndo} sx={narrow}>
        Undo
      </Button>
      <Button onClick={props.onRedo} disabled={!props.canRedo} sx={narrow}>
        Redo
      </Button>
      <Button onClick={props.onNew} sx={narrow}>
        New
      </Button>
      <Button onClick={props.onRings} sx={narrow}>
        Rings
      </Button>
      <Button onClick={props.onSettings} sx={narrow}>
        Cutting
      </Button>
      <Button onClick={(event) => setFileAt(event.currentTarget)} aria-haspopup="menu" sx={narrow}>
        Ring file
      </Button>
      <Button onClick={() => window.print()} sx={narrow}>
        Bench card
      </Button>
      <Button onClick={props.onBench} disabled={!mayChange || !props.canSave} sx={narrow}>
        To the bench
      </Button>
      <Button onClick={props.onSeveral} disabled={!mayChange || !props.canSave} sx={narrow}>
        Several of it
      </Button>
      <Menu open={fileAt !== null} anchorEl={fileAt} onClose={() => setFileAt(null)}>
        <MenuItem onClick={chooseFile}>Open a ring file …</MenuItem>
        <MenuItem onClick={choose(props.onExport)}>Write the ring file</MenuItem>
        <MenuItem onClick={choose(props.onCopy)}>Save as another ring</MenuItem>
      </Menu>
      <FileChoice ref={file} accept=".json,application/json" testId="import" onChoose={props.onImport} />
    </Box>
  );
}

const narrow = { minWidth: 0, px: { xs: 1, sm: 1.25 } } as const;
