import Box from '@mui/material/Box';
import FormHelperText from '@mui/material/FormHelperText';
import Typography from '@mui/material/Typography';
import { useId, type ReactNode } from 'react';

interface Props {
  /** Where in the ring file its value stands. */
  field?: string;
  label: string;
  help?: string | undefined;
  problem?: string | undefined;
  children: ReactNode;
}

/** A control of several parts under its label; what is wrong, or what it is for, stands below. */
export function Labelled({ field, label, help, problem, children }: Props) {
  const id = useId();
  return (
    <Box role="group" aria-labelledby={id} data-field={field}>
      <Typography id={id} variant="body2" color="text.secondary" gutterBottom>
        {label}
      </Typography>
      {children}
      {(problem ?? help) && <FormHelperText error={!!problem}>{problem ?? help}</FormHelperText>}
    </Box>
  );
}
