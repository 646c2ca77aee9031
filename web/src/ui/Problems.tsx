import Typography from '@mui/material/Typography';
import { Refused, type Problem } from '../api/client';
import { withFractions } from '../words/figures';
import { sentence } from '../words/refusal';

/** What the server refused, a line each; what went wrong otherwise, as it is. */
export function Problems({ error, before }: { error: Error | null; before?: (problem: Problem) => string }) {
  if (!error) return null;
  if (!(error instanceof Refused)) return <Typography color="error">{error.message}</Typography>;
  return (
    <>
      {error.problems.map((problem) => (
        <Typography key={problem.field + problem.reason} color="error">
          {before?.(problem)}
          {withFractions(sentence(problem))}
        </Typography>
      ))}
    </>
  );
}
