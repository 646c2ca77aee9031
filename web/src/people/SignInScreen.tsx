import Button from '@mui/material/Button';
import Stack from '@mui/material/Stack';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import { useComing } from '../api/people';
import { Doorstep } from './Doorstep';
import { otherRefusal, refusalOf, TypedField } from './fields';

/** Who is at the bench? What was being typed is kept until they say. */
export function SignInScreen() {
  const { signIn } = useComing();
  const [name, setName] = useState('');
  const [password, setPassword] = useState('');
  return (
    <Doorstep title="Who is at the bench?">
      <Stack
        component="form"
        spacing={2}
        onSubmit={(event) => {
          event.preventDefault();
          signIn.mutate({ name, password });
        }}
      >
        <TypedField
          label="Your name"
          value={name}
          onChange={setName}
          fills="username"
          problem={refusalOf(signIn.error, 'name')}
        />
        <TypedField
          label="Password"
          value={password}
          onChange={setPassword}
          fills="current-password"
          problem={refusalOf(signIn.error, 'password') ?? otherRefusal(signIn.error, ['name', 'password'])}
        />
        <Button type="submit" variant="contained" disabled={signIn.isPending} sx={{ alignSelf: 'flex-start' }}>
          Come in
        </Button>
        <Typography variant="body2" color="text.secondary">
          Lost your password? A workshop’s owner can make you a link to a new one. Nobody here yet, or no owner left:
          whoever looks after this machine makes a link with <code>./people owner</code>.
        </Typography>
      </Stack>
    </Doorstep>
  );
}
