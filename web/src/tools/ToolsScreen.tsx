import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { useMutation, useQuery } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import { answer, api, Refused } from '../api/client';
import { keys, untilThere } from '../api/queries';
import { sentence } from '../words/refusal';
import { usePreferences } from '../preferences/Preferences';

/** The tools at the bench: whether they are listened to, and the stand-ins' keys. */
export default function ToolsScreen() {
  const devices = useQuery({
    queryKey: keys.devices,
    queryFn: () => answer(api.GET('/api/devices')),
    ...untilThere,
  });
  const [{ tools }, change] = usePreferences();
  useEffect(() => {
    document.title = 'Tools · Pliant Coil';
  }, []);
  return (
    <Box component="main" sx={{ px: { xs: 2, sm: 3, lg: 4, xl: 7.5 }, maxWidth: 1600, mx: 'auto', pb: 6, pt: 2 }}>
      <Typography variant="h2" sx={{ fontSize: '1.5rem', mb: 1 }}>
        Tools
      </Typography>
      <Typography sx={{ maxWidth: '68ch', mb: 2 }}>
        A caliper or a scale with a cable writes what it reads into the field that you have touched. No cable? These
        stand in for them: open this page in a window beside the bench and press their key.
      </Typography>
      <Button variant={tools ? 'contained' : 'outlined'} aria-pressed={tools} onClick={() => change({ tools: !tools })}>
        {tools ? 'Tools are listened to here' : 'Listen to the tools in this browser'}
      </Button>
      {devices.data?.length === 0 && <Typography sx={{ mt: 2 }}>No tool is named to this server.</Typography>}
      <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 4, mt: 3 }}>
        {devices.data?.map((device) => (
          <Tool key={device.name} name={device.name} />
        ))}
      </Box>
    </Box>
  );
}

function Tool({ name }: { name: string }) {
  const [text, setText] = useState(name === 'scale' ? '0.84 g' : '17.12 mm');
  const press = useMutation({
    mutationFn: () => answer(api.POST('/api/devices/{name}/press', { params: { path: { name } }, body: { text } })),
  });
  const problem = press.error instanceof Refused ? press.error.problems[0] : undefined;
  return (
    <Box
      component="form"
      aria-label={name}
      sx={{ bgcolor: 'sheet', p: 2, width: 280, borderTop: 6, borderColor: 'primary.main' }}
      onSubmit={(event) => {
        event.preventDefault();
        press.mutate();
      }}
    >
      <Typography sx={{ fontWeight: 650, mb: 1 }}>{name.charAt(0).toUpperCase() + name.slice(1)}</Typography>
      <TextField
        label="It shows"
        value={text}
        onChange={(event) => setText(event.target.value)}
        error={!!problem}
        helperText={problem ? sentence(problem) : 'A number with its unit'}
        slotProps={{ htmlInput: { autoComplete: 'off', style: { fontSize: '1.6rem' } } }}
      />
      <Button type="submit" variant="contained" disabled={press.isPending} sx={{ mt: 1.5 }}>
        Press its key
      </Button>
    </Box>
  );
}
