import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import ToggleButton from '@mui/material/ToggleButton';
import ToggleButtonGroup from '@mui/material/ToggleButtonGroup';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { useBeginSeveral } from '../api/bench';
import { useDesk } from './Desk';
import { Problems } from '../ui/Problems';
import { ringsOf } from './several';

const KINDS = [
  ['by_stage', 'Stage by stage', 'Cut all, form all, lock all: what is set up once serves every ring.'],
  ['by_ring', 'Ring by ring', 'Each is finished before the next.'],
  ['class', 'A class', 'Each at a bench of their own; you see who stands where and who waits.'],
] as const;
type Kind = (typeof KINDS)[number][0];

/** The ring on the desk for several fingers: a line each. */
export function Several() {
  const { draft } = useDesk();
  const [text, setText] = useState('');
  const [kind, setKind] = useState<Kind>('by_stage');
  const [key] = useState(() => crypto.randomUUID());
  const begin = useBeginSeveral();
  const navigate = useNavigate();
  const rings = ringsOf(text);
  return (
    <Box
      component="form"
      onSubmit={(event) => {
        event.preventDefault();
        begin.mutate(
          { draft, kind, rings, key },
          { onSuccess: (batch) => void navigate(`/bench/several/${batch.id}`) },
        );
      }}
    >
      <TextField
        label="A line for each ring: its size, and whose it is"
        placeholder={'US 7, horn\nUK Q½, tuba'}
        multiline
        minRows={5}
        value={text}
        onChange={(event) => setText(event.target.value)}
      />
      <Problems error={begin.error} before={(problem) => lineOf(problem.field)} />
      <ToggleButtonGroup
        exclusive
        fullWidth
        orientation="vertical"
        value={kind}
        onChange={(_, next: Kind | null) => next && setKind(next)}
        aria-label="In which order"
        sx={{ my: 2 }}
      >
        {KINDS.map(([code, name, why]) => (
          <ToggleButton key={code} value={code} sx={{ textAlign: 'left', justifyContent: 'flex-start' }}>
            <span>
              <Box component="span" sx={{ display: 'block', fontWeight: 650 }}>
                {name}
              </Box>
              <Box component="span" sx={{ fontWeight: 400, fontSize: '0.9rem' }}>
                {why}
              </Box>
            </span>
          </ToggleButton>
        ))}
      </ToggleButtonGroup>
      <Button type="submit" variant="contained" disabled={!rings.length || begin.isPending}>
        {rings.length > 1 ? `Take ${rings.length} rings to the bench` : 'To the bench'}
      </Button>
    </Box>
  );
}

/** `Line 2: ` of `rings.1.finger.size`. */
const lineOf = (field: string) => {
  const line = /^rings\.(\d+)/.exec(field)?.[1];
  return line === undefined ? '' : `Line ${Number(line) + 1}: `;
};
