import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { useComing, useOffer } from '../api/people';
import { Doorstep } from './Doorstep';
import { COMES_TO } from './roles';
import { WhoForm } from './WhoForm';

/** Somebody opens a link that they were given: into a workshop, or to a new password. It works once. */
export default function JoinScreen() {
  // Behind the #, where no server and no proxy writes it down.
  const [token] = useState(() => window.location.hash.slice(1));
  const offer = useOffer(token);
  const { take } = useComing();
  const navigate = useNavigate();
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
      {!forWhom && <Typography sx={{ mb: 2 }}>{COMES_TO[role]}</Typography>}
      <WhoForm
        onWho={(who) => take.mutate({ token, ...who }, { onSuccess: () => void navigate('/plan', { replace: true }) })}
        error={take.error}
        busy={take.isPending}
        button={forWhom ? 'Keep it and come in' : 'Come in'}
        makes
        known={forWhom !== ''}
        nameHelp="As the others call you; it stands beside what you make. With a name here already, give its password."
      />
    </Doorstep>
  );
}
