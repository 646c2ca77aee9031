import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import { sentence, useDesk } from './Desk';

/** What has to be mended before there is a plan, and what a friend at the bench would say about the one there is. */
export function Mind() {
  const { plan, problems } = useDesk();
  const stale = problems.length > 0;
  return (
    <Box aria-live="polite" data-testid="mind">
      {problems.map((problem) => (
        <Typography
          key={problem.field + problem.reason}
          role="alert"
          sx={{ color: 'error.main', fontWeight: 600, mt: 0.75 }}
        >
          {sentence(problem)}
        </Typography>
      ))}
      {stale && plan && (
        <Typography variant="body2" color="text.secondary">
          The figures below are those of the last ring that could be planned.
        </Typography>
      )}
      {!stale &&
        plan?.warnings.map((warning) => (
          <Typography
            key={warning.code + warning.field}
            sx={{ mt: 0.75, borderLeft: 4, borderColor: 'error.main', pl: 1.5 }}
          >
            {warning.text}
          </Typography>
        ))}
    </Box>
  );
}
