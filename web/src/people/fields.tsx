import TextField from '@mui/material/TextField';
import type { ReactNode } from 'react';
import { Refused } from '../api/client';
import { sentence } from '../words/refusal';

/** What a refusal says of a field. */
export function refusalOf(error: Error | null, field: string): string | undefined {
  const found = error instanceof Refused ? error.problems.find((p) => p.field === field) : undefined;
  return found && sentence(found);
}

/** What it says of no field in particular. */
export function otherRefusal(error: Error | null, fields: readonly string[]): string | undefined {
  if (!error) return undefined;
  const problem = error instanceof Refused ? error.problems.find((p) => !fields.includes(p.field)) : undefined;
  return error instanceof Refused ? problem && sentence(problem) : error.message;
}

interface Props {
  label: string;
  value: string;
  onChange: (value: string) => void;
  problem: string | undefined;
  help?: ReactNode;
  /** What a browser or a key ring fills in here. */
  fills: 'username' | 'current-password' | 'new-password' | 'organization';
}

export function TypedField({ label, value, onChange, problem, help, fills }: Props) {
  return (
    <TextField
      label={label}
      value={value}
      onChange={(event) => onChange(event.target.value)}
      type={fills.endsWith('password') ? 'password' : 'text'}
      error={problem !== undefined}
      helperText={problem ?? help}
      required
      slotProps={{ htmlInput: { autoComplete: fills, autoCapitalize: 'words', spellCheck: false } }}
    />
  );
}
