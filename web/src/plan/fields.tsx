import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import InputAdornment from '@mui/material/InputAdornment';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import ToggleButton from '@mui/material/ToggleButton';
import ToggleButtonGroup from '@mui/material/ToggleButtonGroup';
import { useState, type ReactNode } from 'react';
import { figures } from '../app/theme';
import { usePreferences } from '../preferences/Preferences';
import { Labelled } from '../ui/Labelled';
import { Stepper } from '../ui/Stepper';
import type { RingPath } from './ringPaths';
import { useRingForm } from './useRingForm';
import { MM_PER_INCH } from '../words/figures';

interface FieldProps {
  /** Where in the ring file the value stands. */
  path: RingPath;
  label: string;
  help?: string | undefined;
}

const say = (value: unknown) => (typeof value === 'string' || typeof value === 'number' ? String(value) : '');

interface TextProps extends FieldProps {
  usual?: string | undefined;
  presets?: readonly string[] | undefined;
}

/** Text as it is typed; what is wrong with it stands below, and what is usual is a tap away. */
export function TextEntry({ path, label, help, usual, presets = [] }: TextProps) {
  const { value: given, set, problem } = useRingForm(path);
  const value = given ?? usual;
  return (
    <Box data-field={path}>
      <TextField
        label={label}
        value={say(value)}
        onChange={(event) => set(event.target.value)}
        error={problem !== undefined}
        helperText={problem ?? help}
        onFocus={(event) => event.target.select()}
        slotProps={{ htmlInput: { autoComplete: 'off', spellCheck: false } }}
      />
      {presets.length > 0 && (
        <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 1, mt: 1.5 }}>
          {presets.map((preset) => (
            <Button
              key={preset}
              variant={value === preset ? 'contained' : 'outlined'}
              onClick={() => set(preset)}
              sx={{ paddingInline: 1.25, minWidth: 48 }}
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
  /** What may be chosen instead of a figure, elsewhere. */
  words?: readonly (string | number)[];
}

const PLAIN = /^[+-]?(\d+\.?\d*|\.\d+)$/;

/** A number, or text as it stands: `1/4 in` and `7 mm` are lengths too, and what can't be read the server says at this field. */
function read(text: string, inches: boolean): number | string {
  const plain = text.trim().replace(',', '.');
  if (!PLAIN.test(plain)) return inches && /^[\d\s./-]+$/.test(plain) ? `${plain} in` : text;
  return inches ? Number((Number(plain) * MM_PER_INCH).toFixed(4)) : Number(plain);
}

/** A measure, in the maker's own unit. */
export function NumberEntry({ path, label, help, usual, unit, optional = false, words }: NumberProps) {
  const { value: chosen, set, problem } = useRingForm(path);
  const given = typeof chosen === 'string' && words?.includes(chosen) ? undefined : chosen;
  const [{ units }] = usePreferences();
  const inches = unit === 'mm' && units === 'in';
  const value = given ?? usual;
  const shownOf = (at: unknown) =>
    inches && typeof at === 'number' ? String(Number((at / MM_PER_INCH).toFixed(4))) : say(at);
  const [typed, setTyped] = useState(shownOf(value));
  const readTyped = (text: string) => (optional && text.trim() === '' ? undefined : read(text, inches));
  const shown = readTyped(typed) === value ? typed : shownOf(value);
  return (
    <TextField
      data-field={path}
      label={label}
      value={shown}
      onChange={(event) => {
        setTyped(event.target.value);
        set(readTyped(event.target.value));
      }}
      error={problem !== undefined}
      helperText={problem ?? help}
      onFocus={(event) => event.target.select()}
      slotProps={{
        htmlInput: { inputMode: 'decimal', autoComplete: 'off', style: { fontFamily: figures } },
        ...(unit
          ? { input: { endAdornment: <InputAdornment position="end">{inches ? 'in' : unit}</InputAdornment> } }
          : {}),
      }}
    />
  );
}

interface ChoiceProps extends FieldProps {
  choices: readonly (string | number)[];
  usual?: string | number | undefined;
  words?: (choice: string) => string;
}

const plainWords = (choice: string) => choice.charAt(0).toUpperCase() + choice.slice(1).replace(/-/g, ' ');

/** One of a few words or whole numbers: side by side up to four, a list beyond. */
export function Choice({ path, label, help, choices, usual, words = plainWords }: ChoiceProps) {
  const { value: given, set, problem } = useRingForm(path);
  const value = typeof given === 'string' || typeof given === 'number' ? given : (usual ?? '');
  if (choices.length > 4) {
    return (
      <TextField
        select
        data-field={path}
        label={label}
        value={choices.includes(value) ? String(value) : ''}
        onChange={(event) => set(choices.find((choice) => String(choice) === event.target.value))}
        error={!!problem}
        helperText={problem ?? help}
      >
        {choices.map((choice) => (
          <MenuItem key={choice} value={String(choice)}>
            {words(String(choice))}
          </MenuItem>
        ))}
      </TextField>
    );
  }
  return (
    <Labelled field={path} label={label} help={help} problem={problem}>
      <ToggleButtonGroup
        exclusive
        value={value}
        onChange={(_, choice: string | number | null) => choice !== null && set(choice)}
        sx={{ flexWrap: 'wrap' }}
      >
        {choices.map((choice) => (
          <ToggleButton key={choice} value={choice}>
            {words(String(choice))}
          </ToggleButton>
        ))}
      </ToggleButtonGroup>
    </Labelled>
  );
}

interface CountProps extends FieldProps {
  least: number;
  most: number;
  usual?: number | undefined;
}

/** A count, one up or down at a tap. */
export function Count({ path, label, help, least, most, usual }: CountProps) {
  const { value: given, set, problem } = useRingForm(path);
  const value = typeof given === 'number' ? given : (usual ?? least);
  return (
    <Labelled field={path} label={label} help={help} problem={problem}>
      <Stepper name={label} value={value} least={least} most={most} onChange={(next) => set(next)} />
    </Labelled>
  );
}

function NoYes({ value, onChange }: { value: boolean; onChange: (next: boolean) => void }) {
  return (
    <ToggleButtonGroup
      exclusive
      value={value}
      onChange={(_, next: boolean | null) => next !== null && next !== value && onChange(next)}
    >
      <ToggleButton value={false}>No</ToggleButton>
      <ToggleButton value={true}>Yes</ToggleButton>
    </ToggleButtonGroup>
  );
}

/** Yes or no. */
export function YesNo({ path, label, help, usual }: FieldProps & { usual: boolean }) {
  const { value, set, problem } = useRingForm(path);
  return (
    <Labelled field={path} label={label} help={help} problem={problem}>
      <NoYes value={typeof value === 'boolean' ? value : usual} onChange={set} />
    </Labelled>
  );
}

/** Part of a ring that may be left out, on or off. */
export function Switch({ path, label, help, children }: FieldProps & { children: ReactNode }) {
  const { value, exchange } = useRingForm(path);
  const on = value !== undefined && value !== null;
  return (
    <>
      <Labelled field={path} label={label} help={help}>
        <NoYes
          value={on}
          onChange={(next) => exchange(next ? 'on' : 'off', next ? 'off' : 'on', next ? {} : undefined)}
        />
      </Labelled>
      {on && <Box sx={{ pl: 2, borderLeft: 2, borderColor: 'divider' }}>{children}</Box>}
    </>
  );
}
