import Button from '@mui/material/Button';
import Stack from '@mui/material/Stack';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { useComing, useOffer } from '../api/people';
import { Doorstep } from './Doorstep';
import { otherRefusal, refusalOf, TypedField } from './fields';
import { COMES_TO } from './roles';

/** Somebody opens a link that they were given: into a workshop, or to a new password. It works once. */
export default function JoinScreen() {
  // Behind the #, where no server and no proxy writes it down.
  const [token] = useState(() => window.location.hash.slice(1));
  const offer = useOffer(token);
  const { take } = useComing();
  const navigate = useNavigate();
  const [name, setName] = useState('');
  const [password, setPassword] = useState('');
  if (!token || offer.isError)
    return (
      <Doorstep title="This link opens nothing">
        <Typography sx={{ mb: 2 }}>
          It was used already, taken back, or it is too old. Whoever gave it to you can make a new one.
        </Typography>
        <Button component={Link} to="/plan" variant="outlined">
          To the door
        </Button>
      </Doorstep>
    );
  if (!offer.data) return <Doorstep title="Looking at your link">{null}</Doorstep>;
  const { workshop, role, for_whom: forWhom } = offer.data;
  return (
    <Doorstep title={forWhom ? `A new password for ${forWhom}` : `Welcome to ${workshop}`}>
      <Stack
        component="form"
        spacing={2}
        onSubmit={(event) => {
          event.preventDefault();
          take.mutate({ token, name, password }, { onSuccess: () => void navigate('/plan', { replace: true }) });
        }}
      >
        {!forWhom && <Typography>{COMES_TO[role]}</Typography>}
        {!forWhom && (
          <TypedField
            label="Your name"
            value={name}
            onChange={setName}
            fills="username"
            problem={refusalOf(take.error, 'name')}
            help="As the others call you; it stands beside what you make. With a name here already, give its password."
          />
        )}
        <TypedField
          label={forWhom ? 'New password' : 'Password'}
          value={password}
          onChange={setPassword}
          fills="new-password"
          problem={refusalOf(take.error, 'password') ?? otherRefusal(take.error, ['name', 'password'])}
          help="12 characters or more; four words that have nothing to do with each other do well."
        />
        <Button type="submit" variant="contained" disabled={take.isPending} sx={{ alignSelf: 'flex-start' }}>
          {forWhom ? 'Keep it and come in' : 'Come in'}
        </Button>
      </Stack>
    </Doorstep>
  );
}
