import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import type { SxProps } from '@mui/material/styles';
import { useState } from 'react';
import { useSize } from '../api/queries';
import { figures } from '../app/theme';
import { usePreferences, useReader } from '../preferences/Preferences';
import { lengthIn, withFractions } from '../words/figures';

/** Why what was typed is no length; empty where it is one, or nothing is typed yet. */
export const lengthFault = (text: string, units: 'mm' | 'in') =>
  text.trim() === '' || Number.isFinite(lengthIn(text, units))
    ? ''
    : `That is no length: ${units === 'in' ? '1.4 or 1 3/8' : '35 or 35.5'}`;

/** A length as it is typed, in the maker's own unit [mm]; NaN for none. */
export function useLength() {
  const [{ units }] = usePreferences();
  const [text, setText] = useState('');
  const mm = lengthIn(text, units);
  return { text, setText, mm, units, there: Number.isFinite(mm), fault: lengthFault(text, units) };
}

/** A size as somebody types it, and what it is on the mandrel at hand [mm]; 0 for none. */
export function useTypedSize() {
  const [text, setText] = useState('');
  const size = useSize(text, useReader());
  const fault = size.isError && text !== '' ? size.error.message : '';
  return { text, setText, mm: text !== '' && size.data ? size.data.on_mandrel_mm : 0, fault };
}

const LARGE = { style: { fontFamily: figures, fontSize: '1.6rem' } };

interface LengthProps {
  label: string;
  typed: { text: string; setText: (text: string) => void; units: 'mm' | 'in'; fault: string };
  help?: string;
  /** Read from where the pliers lie. */
  large?: boolean;
}

/** Where a length is typed, in the maker's unit. */
export const LengthField = ({ label, typed, help = '', large = false }: LengthProps) => (
  <TextField
    label={`${label} [${typed.units}]`}
    value={typed.text}
    onChange={(event) => typed.setText(event.target.value)}
    error={typed.fault !== ''}
    helperText={typed.fault || help}
    slotProps={{
      htmlInput: {
        inputMode: 'decimal',
        autoComplete: 'off',
        ...(large ? LARGE : {}),
      },
    }}
    sx={large || help ? {} : { maxWidth: 220 }}
  />
);

interface SizeProps {
  label: string;
  typed: ReturnType<typeof useTypedSize>;
  help: string;
  /** What stands until something is typed. */
  stands?: string;
  /** Read from where the pliers lie. */
  large?: boolean;
  sx?: SxProps;
}

/** Where a size is typed, and why it can't be one. */
export const SizeField = ({ label, typed, help, stands, large = false, sx = {} }: SizeProps) => (
  <TextField
    label={label}
    value={typed.text}
    placeholder={stands ? withFractions(stands) : ''}
    onChange={(event) => typed.setText(event.target.value)}
    error={typed.fault !== ''}
    helperText={typed.fault || help}
    slotProps={{
      inputLabel: stands ? { shrink: true } : {},
      htmlInput: { autoComplete: 'off', spellCheck: false, ...(large ? LARGE : {}) },
    }}
    sx={sx}
  />
);

/** What the server says of what was typed. */
export const Answer = ({ text, bad = false }: { text: string; bad?: boolean }) => (
  <Typography role="status" sx={{ fontSize: '1.15rem', fontWeight: 650, color: bad ? 'error.main' : 'text.primary' }}>
    {withFractions(text)}
  </Typography>
);
