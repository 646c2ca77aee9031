import Button from '@mui/material/Button';
import MenuItem from '@mui/material/MenuItem';
import Popover from '@mui/material/Popover';
import Stack from '@mui/material/Stack';
import { useColorScheme } from '@mui/material/styles';
import TextField from '@mui/material/TextField';
import ToggleButton from '@mui/material/ToggleButton';
import ToggleButtonGroup from '@mui/material/ToggleButtonGroup';
import { useState } from 'react';
import { Link } from 'react-router';
import { useMe } from '../api/people';
import { useScales } from '../api/queries';
import { usePreferences } from './Preferences';

/** Units, size systems, and day or evening. */
export function PreferencesMenu() {
  const [at, setAt] = useState<HTMLElement | null>(null);
  const [preferences, change] = usePreferences();
  const { mode, setMode } = useColorScheme();
  const me = useMe().data;
  const scales = useScales().data ?? [];
  const [left, right] = preferences.systems;
  return (
    <>
      <Button onClick={(event) => setAt(event.currentTarget)} aria-haspopup="dialog" aria-expanded={at !== null}>
        {preferences.units} · {left.toUpperCase()} {right.toUpperCase()}
      </Button>
      <Popover
        open={at !== null}
        anchorEl={at}
        onClose={() => setAt(null)}
        anchorOrigin={{ vertical: 'bottom', horizontal: 'right' }}
        transformOrigin={{ vertical: 'top', horizontal: 'right' }}
        slotProps={{
          paper: { role: 'dialog', 'aria-label': 'How you read figures', sx: { p: 2.5, width: 340, maxWidth: '94vw' } },
        }}
      >
        <Stack spacing={2.5}>
          <ToggleButtonGroup
            exclusive
            fullWidth
            value={preferences.units}
            onChange={(_, units: 'mm' | 'in' | null) => units && change({ units })}
            aria-label="Unit that comes first"
          >
            <ToggleButton value="mm">Millimetres first</ToggleButton>
            <ToggleButton value="in">Inches first</ToggleButton>
          </ToggleButtonGroup>
          {(['On the left of the mandrel', 'On the right'] as const).map((label, side) => (
            <TextField
              key={label}
              select
              label={label}
              value={preferences.systems[side]}
              onChange={(event) =>
                change({ systems: side === 0 ? [event.target.value, right] : [left, event.target.value] })
              }
            >
              {scales.map((scale) => (
                <MenuItem key={scale.code} value={scale.code}>
                  {scale.name}
                </MenuItem>
              ))}
            </TextField>
          ))}
          <ToggleButtonGroup
            exclusive
            fullWidth
            value={mode ?? 'system'}
            onChange={(_, next: 'light' | 'dark' | 'system' | null) => next && setMode(next)}
            aria-label="Light"
          >
            <ToggleButton value="light">Day</ToggleButton>
            <ToggleButton value="dark">Evening</ToggleButton>
            <ToggleButton value="system">As the device</ToggleButton>
          </ToggleButtonGroup>
          <Button component={Link} to="/mandrels" onClick={() => setAt(null)} sx={{ alignSelf: 'flex-start' }}>
            {preferences.mandrel ? `Marks are told for “${preferences.mandrel.name}”` : 'Your mandrels'}
          </Button>
          <Button component={Link} to="/tools" onClick={() => setAt(null)} sx={{ alignSelf: 'flex-start' }}>
            {preferences.tools ? 'Tools are listened to' : 'Caliper and scale'}
          </Button>
          <Button component={Link} to="/people" onClick={() => setAt(null)} sx={{ alignSelf: 'flex-start' }}>
            {me && !me.alone ? `${me.name} at ${me.here.name}` : 'Who works here'}
          </Button>
        </Stack>
      </Popover>
    </>
  );
}
