import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import type { CounterTold } from '../api/client';
import { callOf, groupsOf } from '../words/program';

interface Props {
  program: string;
  counter: CounterTold;
  /** The group that is called now; null where whole repeats are tapped. */
  at: number | null;
  onEach: (each: boolean) => void;
}

/** What a repeat of the weave is made of, the group at hand called, and how far it is to the middle. */
export function Groups({ program, counter, at, onEach }: Props) {
  const toMiddle = Math.ceil(counter.count / 2) - counter.made;
  return (
    <Box sx={{ textAlign: 'center' }} role="group" aria-label="The repeat">
      <Typography role="status" aria-live={at === null ? 'off' : 'polite'}>
        {groupsOf(program).map((group, k) => (
          <Box
            component="span"
            key={k}
            sx={{
              px: 0.75,
              py: 0.25,
              fontWeight: at === k ? 750 : 450,
              fontSize: at === k ? '1.3rem' : '1rem',
              borderBottom: at === k ? 3 : 0,
              borderColor: 'primary.main',
            }}
          >
            {callOf(group)}
          </Box>
        ))}
      </Typography>
      <Typography variant="body2" color="text.secondary">
        {toMiddle > 0 && `${toMiddle} to the middle`}
        {toMiddle === 0 && 'This is the middle: lay the guide here.'}
      </Typography>
      <Button variant="text" aria-pressed={at !== null} onClick={() => onEach(at === null)}>
        {at === null ? 'Tap each group' : 'Tap whole repeats'}
      </Button>
    </Box>
  );
}
