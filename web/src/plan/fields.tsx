import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import FormHelperText from '@mui/material/FormHelperText';
import InputAdornment from '@mui/material/InputAdornment';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import ToggleButton from '@mui/material/ToggleButton';
import ToggleButtonGroup from '@mui/material/ToggleButtonGroup';
import Typography from '@mui/material/Typography';
import { useId, useState } from 'react';
import { figures } from '../app/theme';
import { useDesk, useProblem } from './Desk';
import { valueAt } from './draft';

interface FieldProps {
  /** Where in the ring file the value stands. */
  path: string;
  label: string;
  help?: string | undefined;
  autoFocus?: boolean;
}

const say = (value: unknown) => (typeof value === 'string' || typeof value === 'number' ? String(value) : '');

interface TextProps extends FieldProps {
  usual?: string | undefined;
  presets?: readonly string[] | undefined;
}

/** Text as it is typed; what is wrong with it stands below, and what is usual is a tap away. */
export function TextEntry({ path, label, help, autoFocus = false, usual, presets = [] }: TextProps) {
  const { draft, change } = useDesk();
  const problem = useProblem(path);
  const value = valueAt(draft, path) ?? usual;
  return (
    <Box>
      <TextField
        label={label}
        value={say(value)}
        onChange={(event) => change(path, event.target.value)}
        error={problem !== undefined}
        helperText={problem ?? help}
        autoFocus={autoFocus}
        onFocus={(event) => event.target.select()}
        slotProps={{ htmlInput: { autoComplete: 'off', spellCheck: false } }}
      />
      {presets.length > 0 && (
        <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 1, mt: 1.5 }}>
          {presets.map((preset) => (
            <Button
              key={preset}
              size="small"
              variant={value === preset ? 'contained' : 'outlined'}
              onClick={() => change(path, preset)}
              sx={{ paddingInline: 1.25, minWidth: 0 }}
            >
              {preset}
            </Button>
          ))}
        </Box>
      )}
    </Box>
  );
}

interface NumberProps extends FieldProps {
  usual?: number | undefined;
  unit?: string | undefined;
  /** An empty field takes the value out. */
  optional?: boolean;
}

/** A measure. What can't be read as a number goes to the server as it is, which says so at this field. */
export function NumberEntry({ path, label, help, usual, unit, optional = false, autoFocus = false }: NumberProps) {
  const { draft, change } = useDesk();
  const problem = useProblem(path);
  const value = valueAt(draft, path) ?? usual;
  const [typed, setTyped] = useState(say(value));
  const readTyped = (text: string) => (optional && text.trim() === '' ? undefined : read(text));
  const shown = readTyped(typed) === value ? typed : say(value);
  return (
    <TextField
      label={label}
      value={shown}
      onChange={(event) => {
        setTyped(event.target.value);
        change(path, readTyped(event.target.value));
      }}
      error={problem !== undefined}
      helperText={problem ?? help}
      autoFocus={autoFocus}
      onFocus={(event) => event.target.select()}
      slotProps={{
        htmlInput: { inputMode: 'decimal', autoComplete: 'off', style: { fontFamily: figures } },
        ...(unit ? { input: { endAdornment: <InputAdornment position="end">{unit}</InputAdornment> } } : {}),
      }}
    />
  );
}

const read = (text: string): number | string => {
  const plain = text.trim().replace(',', '.');
  return /^[+-]?(\d+\.?\d*|\.\d+)$/.test(plain) ? Number(plain) : text;
};

interface ChoiceProps extends FieldProps {
  choices: readonly string[];
  usual?: string | undefined;
  words?: (choice: string) => string;
}

const plainWords = (choice: string) => choice.charAt(0).toUpperCase() + choice.slice(1).replace(/-/g, ' ');

/** One of a few: side by side up to four, a list beyond. */
export function Choice({ path, label, help, choices, usual, words = plainWords }: ChoiceProps) {
  const { draft, change } = useDesk();
  const problem = useProblem(path);
  const id = useId();
  const given = valueAt(draft, path);
  const value = typeof given === 'string' ? given : (usual ?? '');
  if (choices.length > 4) {
    return (
      <TextField
        select
        label={label}
        value={value}
        onChange={(event) => change(path, event.target.value)}
        error={!!problem}
        helperText={problem ?? help}
      >
        {choices.map((choice) => (
          <MenuItem key={choice} value={choice}>
            {words(choice)}
          </MenuItem>
        ))}
      </TextField>
    );
  }
  return (
    <Box>
      <Typography id={id} variant="body2" color="text.secondary" gutterBottom>
        {label}
      </Typography>
      <ToggleButtonGroup
        exclusive
        value={value}
        onChange={(_, choice: string | null) => choice !== null && change(path, choice)}
        aria-labelledby={id}
      >
        {choices.map((choice) => (
          <ToggleButton key={choice} value={choice}>
            {words(choice)}
          </ToggleButton>
        ))}
      </ToggleButtonGroup>
      {(problem ?? help) && <FormHelperText error={!!problem}>{problem ?? help}</FormHelperText>}
    </Box>
  );
}

interface CountProps extends FieldProps {
  least: number;
  most: number;
  usual?: number | undefined;
}

/** A count, one up or down at a tap. */
export function Count({ path, label, help, least, most, usual }: CountProps) {
  const { draft, change } = useDesk();
  const problem = useProblem(path);
  const id = useId();
  const given = valueAt(draft, path);
  const value = typeof given === 'number' ? given : (usual ?? least);
  const step = (by: number) => change(path, Math.min(most, Math.max(least, value + by)));
  return (
    <Box role="group" aria-labelledby={id}>
      <Typography id={id} variant="body2" color="text.secondary" gutterBottom>
        {label}
      </Typography>
      <Box sx={{ display: 'flex', alignItems: 'center', gap: 2 }}>
        <Button variant="outlined" onClick={() => step(-1)} disabled={value <= least} aria-label={`${label}: one less`}>
          −
        </Button>
        <Typography
          component="output"
          sx={{ fontFamily: figures, fontSize: '1.6rem', fontWeight: 700, minWidth: '1.4em', textAlign: 'center' }}
        >
          {value}
        </Typography>
        <Button variant="outlined" onClick={() => step(1)} disabled={value >= most} aria-label={`${label}: one more`}>
          +
        </Button>
      </Box>
      {(problem ?? help) && <FormHelperText error={!!problem}>{problem ?? help}</FormHelperText>}
    </Box>
  );
}
