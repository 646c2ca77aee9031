import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { useEffect } from 'react';
import { useComing, useMe } from '../api/people';
import { Members } from './Members';
import { FirstName, NewPassword, Workshops } from './Own';
import { CALLED } from './roles';

/** Who works here; and what everybody settles for themselves. */
export default function PeopleScreen() {
  const me = useMe().data;
  const { signOut } = useComing();
  useEffect(() => {
    document.title = 'People · Pliant Coil';
  }, []);
  if (!me) return <Typography sx={{ p: 4 }}>Asking who is here.</Typography>;
  return (
    <Box component="main" sx={{ px: { xs: 2, sm: 3, lg: 4, xl: 7.5 }, maxWidth: 1600, mx: 'auto', pb: 6 }}>
      {me.alone ? (
        <FirstName workshop={me.here.name} />
      ) : (
        <Box
          sx={{
            display: 'grid',
            gap: { xs: 4, md: 8 },
            gridTemplateColumns: { xs: 'minmax(0, 1fr)', md: 'minmax(0, 7fr) minmax(280px, 4fr)' },
            mt: 2,
          }}
        >
          <Box>
            <Typography variant="h1" component="h2">
              {me.here.name}
            </Typography>
            {me.here.role === 'owner' ? (
              <Members mine={me.person_id ?? ''} />
            ) : (
              <Typography sx={{ mt: 1 }}>
                {CALLED[me.here.role]}. The workshop’s owner says who comes in, and as what.
              </Typography>
            )}
          </Box>
          <Box>
            <Typography variant="h1" component="h2">
              {me.name}
            </Typography>
            <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 1, my: 1.5 }}>
              <Button variant="outlined" onClick={() => signOut.mutate(false)}>
                Sign out
              </Button>
              <Button onClick={() => signOut.mutate(true)}>Sign out everywhere</Button>
            </Box>
            <NewPassword name={me.name} />
            <Workshops me={me} />
          </Box>
        </Box>
      )}
    </Box>
  );
}
