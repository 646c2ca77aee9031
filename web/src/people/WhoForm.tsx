import Button from '@mui/material/Button';
import Stack from '@mui/material/Stack';
import { useState, type ReactNode } from 'react';
import { otherRefusal, refusalOf, TypedField } from './fields';

export const GOOD_PASSWORD = '12 characters or more; four words that have nothing to do with each other do well.';

interface Props {
  /** What is done with who it is. */
  onWho: (who: { name: string; password: string }) => void;
  error: Error | null;
  busy: boolean;
  button: string;
  /** Whether a password is made here, or told. */
  makes: boolean;
  /** Who it is is known already: only a password is asked for. */
  known?: boolean;
  nameHelp?: string;
  children?: ReactNode;
}

/** A name and a password: to sign in, to come in by a link, or to take the first name here. */
export function WhoForm({ onWho, error, busy, button, makes, known = false, nameHelp, children }: Props) {
  const [name, setName] = useState('');
  const [password, setPassword] = useState('');
  return (
    <Stack
      component="form"
      spacing={2}
      sx={{ maxWidth: 460 }}
      onSubmit={(event) => {
        event.preventDefault();
        onWho({ name, password });
      }}
    >
      {!known && (
        <TypedField
          label="Your name"
          value={name}
          onChange={setName}
          fills="username"
          problem={refusalOf(error, 'name')}
          help={nameHelp}
        />
      )}
      <TypedField
        label={known ? 'New password' : 'Password'}
        value={password}
        onChange={setPassword}
        fills={makes ? 'new-password' : 'current-password'}
        problem={refusalOf(error, 'password') ?? otherRefusal(error, ['name', 'password'])}
        help={makes ? GOOD_PASSWORD : undefined}
      />
      <Button type="submit" variant="contained" disabled={busy} sx={{ alignSelf: 'flex-start' }}>
        {button}
      </Button>
      {children}
    </Stack>
  );
}
