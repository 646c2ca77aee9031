import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import { withFractions } from '../words/figures';
import { useDesk } from './Desk';
import { sentence } from '../words/refusal';
import { valueAt } from './draft';

/** What has to be mended before there is a plan, and what a friend at the bench would say about the one there is. */
export function Mind() {
  const { draft, plan, problems, standing } = useDesk();
  const notes = valueAt(draft, 'notes');
  return (
    <Box data-testid="mind" sx={{ py: 0.5 }}>
      {problems.map((problem) => (
        <Typography key={problem.field + problem.reason} sx={{ color: 'error.main', fontWeight: 600, my: 0.75 }}>
          {withFractions(sentence(problem))}
        </Typography>
      ))}
      {typeof notes === 'string' && notes && (
        <Typography color="text.secondary" sx={{ my: 0.5, whiteSpace: 'pre-line' }}>
          {notes}
        </Typography>
      )}
      {standing === 'fresh' &&
        plan?.warnings.map((warning) => (
          <Typography
            key={warning.code + warning.field}
            sx={{ my: 0.75, borderLeft: 4, borderColor: 'error.main', pl: 1.5 }}
          >
            {withFractions(warning.text)}
          </Typography>
        ))}
    </Box>
  );
}
