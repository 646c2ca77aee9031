import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import type { JobAtBench, Progress, Step } from '../api/client';
import { usePreferences } from '../preferences/Preferences';
import { withFractions } from '../words/figures';
import type { Say } from './useBench';

const NEXT = 3;
/** How much a bench says: all of it with the trade's words explained, all of it, or the figures. */
const WORDS = {
  many: { label: 'Says more', next: 'usual' },
  usual: { label: 'Says what is done', next: 'few' },
  few: { label: 'Says the figures', next: 'many' },
} as const;

interface Props {
  at: JobAtBench;
  progress: Progress;
  step: Step;
  say: Say;
  onOpen: (sheet: 'note' | 'end' | 'keys') => void;
  spoken: boolean;
  onSpoken: (spoken: boolean) => void;
}

/** What comes next, what to mind at this step, and what is seldom wanted. */
export function NextAndMind({ at, progress, step, say, onOpen, spoken, onSpoken }: Props) {
  const { plan, job } = at;
  const [{ words }, change] = usePreferences();
  return (
    <Box
      sx={{
        display: 'grid',
        gap: 3,
        mt: 3,
        pt: 2,
        borderTop: 1,
        borderColor: 'divider',
        gridTemplateColumns: { xs: '1fr', sm: '1fr 1fr' },
      }}
    >
      <Box component="section" aria-label="Next">
        <Typography variant="h2">Next</Typography>
        {plan.steps.slice(progress.place + 1, progress.place + 1 + NEXT).map((next) => (
          <Typography key={next.id} color="text.secondary" sx={{ mt: 0.5 }}>
            {withFractions(next.text)}
          </Typography>
        ))}
        {progress.place + 1 >= plan.steps.length && (
          <Typography color="text.secondary">Nothing: this is the last step.</Typography>
        )}
      </Box>
      <Box component="section" aria-label="Mind">
        <Typography variant="h2">Mind</Typography>
        {step.cautions.map((caution) => (
          <Typography key={caution} sx={{ borderLeft: 3, borderColor: 'error.main', pl: 1.25, mt: 0.75 }}>
            {caution}
          </Typography>
        ))}
        {step.cautions.length === 0 && (
          <Typography color="text.secondary">Nothing more than usual at this step.</Typography>
        )}
        {progress.notes.map((note, k) => (
          <Typography key={k} variant="body2" sx={{ mt: 1 }}>
            Noted: {note}
          </Typography>
        ))}
        <Box sx={{ display: 'flex', flexWrap: 'wrap', mt: 1 }}>
          <Button variant="text" onClick={() => onOpen('note')}>
            Note
          </Button>
          {job.batch_id && (
            <Button
              variant="text"
              aria-pressed={progress.waits}
              onClick={() => say(progress.waits ? 'helped' : 'help', { task: step.id })}
            >
              {progress.waits ? 'Help has come' : 'Ask for help'}
            </Button>
          )}
          <Button variant="text" onClick={() => onOpen('end')}>
            End it here
          </Button>
          <Button variant="text" onClick={() => change({ words: WORDS[words].next })}>
            {WORDS[words].label}
          </Button>
          <Button variant="text" aria-pressed={spoken} onClick={() => onSpoken(!spoken)}>
            {spoken ? 'Speaks' : 'Silent'}
          </Button>
          <Button variant="text" onClick={() => onOpen('keys')}>
            Keys
          </Button>
        </Box>
      </Box>
    </Box>
  );
}
