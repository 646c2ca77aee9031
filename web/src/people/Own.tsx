import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Stack from '@mui/material/Stack';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import type { Me } from '../api/client';
import { useComing, usePeopleChanges } from '../api/people';
import { useTell } from '../app/Notices';
import { otherRefusal, refusalOf, TypedField } from './fields';
import { CALLED } from './roles';
import { WhoForm } from './WhoForm';

/** Whoever works alone takes a name: the first step to letting others in. */
export function FirstName({ workshop }: { workshop: string }) {
  const { first } = useComing();
  return (
    <Box sx={{ maxWidth: 560, mt: 2 }}>
      <Typography variant="h1" component="h2">
        You work alone here
      </Typography>
      <Typography sx={{ my: 1.5 }}>
        Nobody is asked for a name at {workshop}: it is served on this machine only. To let others in (somebody who
        makes rings too, a class that looks on), take a name and a password first. From then on everybody says who they
        are, and every ring says who saved it.
      </Typography>
      <WhoForm onWho={first.mutate} error={first.error} busy={first.isPending} button="Take this name" makes />
    </Box>
  );
}

/** Another password; other browsers are signed out by it. */
export function NewPassword({ name }: { name: string }) {
  const { password: change } = usePeopleChanges();
  const tell = useTell();
  const [open, setOpen] = useState(false);
  const [current, setCurrent] = useState('');
  const [password, setPassword] = useState('');
  if (!open) return <Button onClick={() => setOpen(true)}>Another password …</Button>;
  return (
    <Stack
      component="form"
      spacing={2}
      aria-label="Another password"
      onSubmit={(event) => {
        event.preventDefault();
        change.mutate(
          { current, password },
          {
            onSuccess: () => {
              tell({ text: 'It is changed; your other browsers are signed out.' });
              setOpen(false);
              setCurrent('');
              setPassword('');
            },
          },
        );
      }}
    >
      {/* For the browser's key ring: whose password this is. */}
      <input type="text" autoComplete="username" value={name} readOnly hidden />
      <TypedField
        label="The one of now"
        value={current}
        onChange={setCurrent}
        fills="current-password"
        problem={refusalOf(change.error, 'current')}
      />
      <TypedField
        label="The new one"
        value={password}
        onChange={setPassword}
        fills="new-password"
        problem={refusalOf(change.error, 'password') ?? otherRefusal(change.error, ['current', 'password'])}
      />
      <Box sx={{ display: 'flex', gap: 1 }}>
        <Button type="submit" variant="contained" disabled={change.isPending}>
          Change it
        </Button>
        <Button onClick={() => setOpen(false)}>Leave it</Button>
      </Box>
    </Stack>
  );
}

/** The workshops that somebody works in, and opening another. */
export function Workshops({ me }: { me: Me }) {
  const { go } = useComing();
  const { open } = usePeopleChanges();
  const [name, setName] = useState('');
  const elsewhere = me.places.filter((place) => place.workshop_id !== me.here.workshop_id);
  return (
    <Box component="section" aria-label="Workshops" sx={{ mt: 4 }}>
      <Typography variant="h2">
        {elsewhere.length ? 'Your other workshops' : 'Another workshop in this server'}
      </Typography>
      {elsewhere.map((place) => (
        <Box key={place.workshop_id} sx={{ display: 'flex', alignItems: 'center', gap: 1, minHeight: 48 }}>
          <Typography sx={{ flex: 1 }}>
            {place.name}, {CALLED[place.role].toLowerCase()}
          </Typography>
          <Button variant="outlined" onClick={() => go.mutate(place.workshop_id)}>
            Go there
          </Button>
        </Box>
      ))}
      {me.here.role === 'owner' && (
        <Stack
          component="form"
          direction="row"
          spacing={1}
          sx={{ mt: 1.5, alignItems: 'flex-start' }}
          onSubmit={(event) => {
            event.preventDefault();
            open.mutate(name, { onSuccess: () => setName('') });
          }}
        >
          <TypedField
            label="Name of a new workshop"
            value={name}
            onChange={setName}
            fills="organization"
            problem={refusalOf(open.error, 'name') ?? otherRefusal(open.error, ['name'])}
            help="With rings, records and people of its own."
          />
          <Button type="submit" variant="outlined" sx={{ minHeight: 56 }}>
            Open
          </Button>
        </Stack>
      )}
    </Box>
  );
}
