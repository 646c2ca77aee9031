import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Stack from '@mui/material/Stack';
import Typography from '@mui/material/Typography';
import { useRef, useState } from 'react';
import { useNotebook } from '../api/notebook';
import type { components } from '../api/schema.generated';
import { useReader } from '../preferences/Preferences';
import { FileChoice } from '../ui/FileChoice';
import { Problems } from '../ui/Problems';
import { Sheet } from '../ui/Sheet';
import { withFractions } from '../words/figures';
import { minutesOf } from './records';

type NotebookLine = components['schemas']['NotebookLine'];

/** An old notebook as a table: shown line by line, and nothing kept until that is confirmed. */
export function Notebook({ onClose }: { onClose: () => void }) {
  const { show, take } = useNotebook(useReader());
  const [table, setTable] = useState<File | null>(null);
  const chooser = useRef<HTMLInputElement>(null);
  const choose = (file: File) => {
    setTable(file);
    take.reset();
    show.mutate(file);
  };
  const told = show.data;
  return (
    <Sheet title="An old notebook" onClose={onClose} closes="Close">
      <Stack spacing={2}>
        <Typography>
          A CSV file with a line a ring, as a spreadsheet saves it. Its first line says what stands below: date, title,
          size, wire, cut, left, minutes, mandrel, state, note; in any order, what is missing stays empty.
        </Typography>
        <Button variant="outlined" onClick={() => chooser.current?.click()} disabled={show.isPending}>
          {table ? 'Choose another table' : 'Choose the table'}
        </Button>
        <FileChoice ref={chooser} accept=".csv,text/csv" testId="notebook" onChoose={choose} />
        <Problems error={show.error ?? take.error} />
        {told && !take.isSuccess && (
          <>
            <Typography role="status" sx={{ fontWeight: 650 }}>
              {[
                `${told.fresh} ${told.fresh === 1 ? 'ring' : 'rings'} can come in`,
                told.known ? `${told.known} are in the logbook already` : '',
                told.wrong ? `${told.wrong} can’t be read` : '',
              ]
                .filter(Boolean)
                .join(', ')}
              .
            </Typography>
            {told.unread.length > 0 && (
              <Typography variant="body2" color="text.secondary">
                Nothing is read from: {told.unread.join(', ')}.
              </Typography>
            )}
            <Button
              variant="contained"
              disabled={told.fresh === 0 || take.isPending}
              onClick={() => table && take.mutate(table)}
            >
              {told.fresh === 0
                ? 'Nothing to take in'
                : `Take ${told.fresh} ${told.fresh === 1 ? 'ring' : 'rings'} into the logbook`}
            </Button>
            <Box component="ul" aria-label="Lines of the notebook" sx={{ listStyle: 'none', p: 0, m: 0 }}>
              {told.lines.map((line) => (
                <Line key={line.line} line={line} />
              ))}
            </Box>
          </>
        )}
        {take.isSuccess && (
          <Typography role="status" sx={{ fontWeight: 650 }}>
            {take.data.rings === 1 ? 'One ring has come in.' : `${take.data.rings} rings have come in.`}
          </Typography>
        )}
      </Stack>
    </Sheet>
  );
}

function Line({ line }: { line: NotebookLine }) {
  const wrong = line.faults.length > 0;
  return (
    <Box
      component="li"
      sx={{
        py: 1,
        borderTop: 1,
        borderColor: 'divider',
        borderLeft: wrong ? 4 : 0,
        borderLeftColor: 'error.main',
        pl: wrong ? 1.25 : 0,
      }}
    >
      <Typography variant="body2" sx={{ fontWeight: 650 }}>
        Line {line.line}
        {line.title && `: ${line.title}`}
      </Typography>
      {line.faults.map((fault) => (
        <Typography key={fault.column} variant="body2" color="error">
          {fault.column}: {fault.reason}
          {fault.accepted && `. Use ${withFractions(fault.accepted)}.`}
        </Typography>
      ))}
      <Typography variant="body2" color="text.secondary">
        {[
          line.ended ? new Date(`${line.ended}T12:00`).toLocaleDateString(undefined, { dateStyle: 'medium' }) : '',
          withFractions(line.size ?? ''),
          line.used ? `used ${withFractions(line.used)}` : '',
          minutesOf(line.minutes, null),
          line.note,
          line.known ? 'in the logbook already' : '',
        ]
          .filter(Boolean)
          .join(' · ')}
      </Typography>
    </Box>
  );
}
