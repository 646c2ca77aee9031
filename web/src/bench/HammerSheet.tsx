import Button from '@mui/material/Button';
import Stack from '@mui/material/Stack';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import { useHammered } from '../api/bench';
import { useSize } from '../api/queries';
import { useReader } from '../preferences/Preferences';
import { withFractions } from '../words/figures';
import { useLength, type SheetProps } from './sheets';

/** Rings that are hammered flat, read on the way: how they grow, and what is still to be done. */
export function HammerSheet({ at, task, say, onDone }: SheetProps) {
  const reader = useReader();
  const { text, setText, mm, units } = useLength();
  const [sizeText, setSize] = useState('');
  const size = useSize(sizeText, reader);
  const read = sizeText !== '' && size.data ? size.data.on_mandrel_mm : 0;
  const told = useHammered(at.job.id, Number.isFinite(mm) ? mm : 0, read, reader);
  return (
    <Stack spacing={2}>
      <Typography>Stop half way, measure one ring at four places, and read it.</Typography>
      <TextField
        label={`Its thickness now [${units}]`}
        value={text}
        onChange={(event) => setText(event.target.value)}
        slotProps={{ htmlInput: { inputMode: 'decimal', autoComplete: 'off' } }}
      />
      <TextField
        label="The mandrel reads"
        value={sizeText}
        onChange={(event) => setSize(event.target.value)}
        error={sizeText !== '' && size.isError}
        helperText={sizeText !== '' && size.isError ? size.error.message : ' '}
      />
      {told.isError && read > 0 && <Typography color="error">{told.error.message}</Typography>}
      {told.data && read > 0 && (
        <Typography role="status" sx={{ fontSize: '1.15rem', fontWeight: 650 }}>
          {withFractions(told.data.text)}
        </Typography>
      )}
      <Button
        variant="contained"
        disabled={!told.data}
        onClick={() => {
          say('reading', { what: 'wire', task, side: '', piece: '', value_mm: mm, typed: text, by: 'hand' });
          say('reading', { what: 'size', task, side: '', piece: '', value_mm: read, typed: sizeText, by: 'hand' });
          onDone();
        }}
      >
        Write it down
      </Button>
    </Stack>
  );
}
