import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import InputBase from '@mui/material/InputBase';
import Menu from '@mui/material/Menu';
import MenuItem from '@mui/material/MenuItem';
import Typography from '@mui/material/Typography';
import { useRef, useState } from 'react';
import { useWorkshop } from '../api/queries';
import { PreferencesMenu } from '../preferences/PreferencesMenu';
import { useDesk } from './Desk';
import { valueAt } from './draft';

interface Props {
  canSave: boolean;
  saved: boolean;
  saving: boolean;
  onSave: () => void;
  onRings: () => void;
  onNew: () => void;
  onCopy: () => void;
  onExport: () => void;
  onImport: (file: File) => void;
}

/** The top of the page: whose bench, which ring, and what can be done with it as a whole. */
export function TitleBar({ canSave, saved, saving, onSave, onRings, onNew, onCopy, onExport, onImport }: Props) {
  const { draft, change } = useDesk();
  const workshop = useWorkshop().data?.name;
  const [menuAt, setMenuAt] = useState<HTMLElement | null>(null);
  const file = useRef<HTMLInputElement>(null);
  const title = valueAt(draft, 'title');
  const choose = (action: () => void) => () => {
    setMenuAt(null);
    action();
  };
  const chooseFile = () => {
    setMenuAt(null);
    file.current?.click();
  };
  return (
    <Box
      component="header"
      sx={{ display: 'flex', flexWrap: 'wrap', alignItems: 'center', columnGap: 1, minHeight: 60, pt: 0.5 }}
    >
      <Typography component="h1" sx={{ fontWeight: 750, fontSize: '1.1rem', mr: 1.5 }}>
        Pliant Coil
      </Typography>
      <Typography variant="body2" color="text.secondary" sx={{ display: { xs: 'none', md: 'block' } }}>
        {workshop}
      </Typography>
      <InputBase
        value={typeof title === 'string' ? title : ''}
        onChange={(event) => change('title', event.target.value)}
        placeholder="Name this ring"
        inputProps={{ 'aria-label': 'Name of the ring', maxLength: 120 }}
        sx={{
          order: { xs: 3, md: 0 },
          flex: { xs: '1 0 100%', md: 1 },
          ml: { md: 3 },
          fontSize: '1.1rem',
          fontWeight: 600,
          '& input': { borderBottom: '2px solid transparent', textOverflow: 'ellipsis' },
          '& input:hover, & input:focus': { borderColor: 'var(--mui-palette-primary-main)' },
        }}
      />
      <Box sx={{ flex: { xs: 1, md: 'none' } }} />
      <PreferencesMenu />
      <Button onClick={onRings}>Rings</Button>
      <Button onClick={(event) => setMenuAt(event.currentTarget)} aria-haspopup="menu">
        More
      </Button>
      <Button variant="contained" onClick={onSave} disabled={!canSave || saving} sx={{ minWidth: 92 }}>
        {saved ? 'Saved' : 'Save'}
      </Button>
      <Menu open={menuAt !== null} anchorEl={menuAt} onClose={() => setMenuAt(null)}>
        <MenuItem onClick={choose(onNew)}>New ring</MenuItem>
        <MenuItem onClick={choose(onCopy)}>Keep as a copy</MenuItem>
        <MenuItem onClick={chooseFile}>Open a ring file …</MenuItem>
        <MenuItem onClick={choose(onExport)}>Write the ring file</MenuItem>
        <MenuItem onClick={choose(() => window.print())}>Print 1:1</MenuItem>
      </Menu>
      <input
        ref={file}
        type="file"
        accept=".json,application/json"
        hidden
        data-testid="import"
        onChange={(event) => {
          const [chosen] = event.target.files ?? [];
          if (chosen) onImport(chosen);
          event.target.value = '';
        }}
      />
    </Box>
  );
}
