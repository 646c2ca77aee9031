import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { figures } from '../app/theme';

interface Props {
  /** What is counted, for those who can't see where it stands. */
  name: string;
  value: number;
  least: number;
  most: number;
  onChange: (value: number) => void;
}

/** One less, the count, one more: each big enough for a knuckle. */
export function Stepper({ name, value, least, most, onChange }: Props) {
  const to = (next: number) => onChange(Math.min(most, Math.max(least, next)));
  return (
    <Box sx={{ display: 'flex', alignItems: 'center', gap: 1 }}>
      <Button
        variant="outlined"
        onClick={() => to(value - 1)}
        disabled={value <= least}
        aria-label={`${name}: one less`}
        sx={{ minWidth: 48, px: 0 }}
      >
        −
      </Button>
      <Typography
        component="output"
        aria-label={name}
        sx={{ fontFamily: figures, fontSize: '1.4rem', fontWeight: 700, minWidth: '1.6em', textAlign: 'center' }}
      >
        {value}
      </Typography>
      <Button
        variant="outlined"
        onClick={() => to(value + 1)}
        disabled={value >= most}
        aria-label={`${name}: one more`}
        sx={{ minWidth: 48, px: 0 }}
      >
        +
      </Button>
    </Box>
  );
}
