import Button from '@mui/material/Button';
import Stack from '@mui/material/Stack';
import Typography from '@mui/material/Typography';
import { useHammered } from '../api/bench';
import { useReader } from '../preferences/Preferences';
import { Answer, LengthField, SizeField, useLength, useTypedSize } from './fields';
import type { SheetProps } from './sheets';

/** Rings that are hammered flat, read on the way: how they grow, and what is still to be done. */
export function HammerSheet({ at, task, say, onDone }: SheetProps) {
  const thickness = useLength();
  const size = useTypedSize();
  const told = useHammered(at.job.id, thickness.there ? thickness.mm : 0, size.mm, useReader());
  const tell = (what: 'wire' | 'size', value_mm: number, typed: string) =>
    say('reading', { what, task, side: '', piece: '', value_mm, typed, by: 'hand' });
  return (
    <Stack spacing={2}>
      <Typography>Stop half way, measure one ring at four places, and read it.</Typography>
      <LengthField label="Its thickness now" typed={thickness} />
      <SizeField label="The mandrel reads" typed={size} help=" " />
      {told.isError && size.mm > 0 && <Typography color="error">{told.error.message}</Typography>}
      {told.data && size.mm > 0 && <Answer text={told.data.text} />}
      <Button
        variant="contained"
        disabled={!told.data}
        onClick={() => {
          tell('wire', thickness.mm, thickness.text);
          tell('size', size.mm, size.text);
          onDone();
        }}
      >
        Write it down
      </Button>
    </Stack>
  );
}
