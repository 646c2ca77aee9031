import Button from '@mui/material/Button';
import MenuItem from '@mui/material/MenuItem';
import Stack from '@mui/material/Stack';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import { useRow, useSizeReading, useTail } from '../api/bench';
import type { JobAtBench } from '../api/client';
import { usePreferences, useReader } from '../preferences/Preferences';
import { length, lengthIn, withFractions } from '../words/figures';
import { hasSize } from '../words/sized';
import { Answer, lengthFault, LengthField, SizeField, useLength, useTypedSize } from './fields';
import type { Say } from './useBench';
import { useKeptText } from './useKeptText';

export interface SheetProps {
  at: JobAtBench;
  task: string;
  say: Say;
  onDone: () => void;
}

/** What the mandrel says, what that means for this ring, and what can be done. */
export function ReadingSheet({ at, task, say, onDone }: SheetProps) {
  const reader = useReader();
  const step = at.plan.steps.find((s) => s.id === task);
  const typed = useTypedSize();
  const told = useSizeReading(at.job.id, task, typed.mm, reader);
  const answer = typed.mm ? told.data : undefined;
  const choose = (choice: string, form: number | null) => {
    const reading = say('reading', {
      what: 'size',
      task,
      side: '',
      piece: '',
      value_mm: typed.mm,
      typed: typed.text,
      by: 'hand',
    });
    say('chosen', { reading, choice, form_mm: form });
    onDone();
  };
  return (
    <Stack spacing={2}>
      <SizeField
        label="The mandrel reads"
        typed={typed}
        stands={step?.expected_mm ? 'as it says there' : ''}
        help="A size as you read it: US 7 1/2 or UK N. Read it in the middle of the band, turn it round, take the mean."
        large
      />
      {told.isError && typed.mm > 0 && <Typography color="error">{told.error.message}</Typography>}
      {answer && (
        <>
          <Answer text={answer.text} />
          <Typography variant="body2" color="text.secondary">
            Planned here: {withFractions(answer.expected)}
          </Typography>
        </>
      )}
      {answer?.choices.map((choice, k) => (
        <Button
          key={choice.code}
          variant={k === 0 ? 'contained' : 'outlined'}
          onClick={() => choose(choice.code, choice.form_mm)}
          sx={{ justifyContent: 'flex-start', textAlign: 'left', py: 1 }}
        >
          {withFractions(choice.text)}
        </Button>
      ))}
    </Stack>
  );
}

/** How long a row of repeats is so far, and what that means for the rest of it. */
export function RowSheet({ at, task, say, onDone }: SheetProps) {
  const reader = useReader();
  const typed = useLength();
  const { text, mm, there } = typed;
  const told = useRow(at.job.id, task, there ? mm : 0, at.progress.number, reader);
  return (
    <Stack spacing={2}>
      <Typography>Count first, then lay the rule along what is made.</Typography>
      <LengthField label="Length so far" typed={typed} large />
      {told.isError && there && <Typography color="error">{told.error.message}</Typography>}
      {told.data && there && <Answer text={told.data.text} />}
      <Button
        variant="contained"
        disabled={!told.data}
        onClick={() => {
          say('reading', { what: 'length', task, side: '', piece: '', value_mm: mm, typed: text, by: 'hand' });
          onDone();
        }}
      >
        Write it down
      </Button>
    </Stack>
  );
}

/** Whether a tail reaches for all that is still to come. */
export function TailSheet({ at, task, say, onDone }: SheetProps) {
  const reader = useReader();
  const typed = useLength();
  const { text, mm, units, there } = typed;
  const [chosen, setChosen] = useState(0);
  const tail = at.tails[chosen];
  const [{ hand }] = usePreferences();
  const told = useTail(at.job.id, tail, there ? mm : 0, at.progress.number, hand, reader);
  const splice = there ? told.data?.splice_mm : null;
  if (!tail)
    return <Typography>No tail has anything left to do: nothing is formed yet, or all of it is made.</Typography>;
  return (
    <Stack spacing={2}>
      {at.tails.length > 1 && (
        <TextField select label="Which" value={chosen} onChange={(event) => setChosen(Number(event.target.value))}>
          {at.tails.map((end, k) => (
            <MenuItem key={`${end.piece} ${end.end}`} value={k}>
              {end.label}
            </MenuItem>
          ))}
        </TextField>
      )}
      <Typography>All that is still to come needs {withFractions(tail.needs)} of it.</Typography>
      <LengthField label="Tail left" typed={typed} large />
      {told.data && there && <Answer text={told.data.text} bad={!told.data.reaches} />}
      <Button
        variant="contained"
        disabled={!there}
        onClick={() => {
          const side = tail.end === 'first' ? 'left' : 'right';
          say('reading', { what: 'tail', task, side, piece: tail.piece, value_mm: mm, typed: text, by: 'hand' });
          onDone();
        }}
      >
        Write it down
      </Button>
      {splice && (
        <Button
          variant="outlined"
          onClick={() => {
            say('spliced', { piece: tail.piece, length_mm: splice, task });
            onDone();
          }}
        >
          A new piece is on: {length(splice, units)}
        </Button>
      )}
    </Stack>
  );
}

/** Something to remember with this ring. */
export function NoteSheet({ at, task, say, onDone }: SheetProps) {
  const [text, setText] = useKeptText(`note.${at.job.id}`);
  return (
    <Stack spacing={2}>
      <TextField
        label="Note"
        multiline
        minRows={3}
        value={text}
        onChange={(event) => setText(event.target.value)}
        helperText="It stands in the logbook with this ring."
      />
      <Button
        variant="contained"
        disabled={!text.trim()}
        onClick={() => {
          say('note', { task, text: text.trim() });
          setText('');
          onDone();
        }}
      >
        Write it down
      </Button>
    </Stack>
  );
}

/** The mandrel of last time is likely that of this time. */
const MANDREL = 'pliant-coil.mandrel';

const ENDINGS = [
  { kind: 'finished', words: 'Finished' },
  { kind: 'spoiled', words: 'Spoiled' },
  { kind: 'set_aside', words: 'Set aside' },
] as const;

/** How the ring ended: its size, and what was left of each wire, from which the next one is cut closer. */
export function EndSheet({ at, say, onDone }: SheetProps) {
  // A ring that came back keeps what its making left of its wires.
  const wires = at.progress.visit ? [] : at.plan.wires;
  const [{ units, mandrel: atHand }] = usePreferences();
  const [kind, setKind] = useState<(typeof ENDINGS)[number]['kind']>('finished');
  const size = useTypedSize();
  const [why, setWhy] = useKeptText(`why.${at.job.id}`);
  const [mandrel, setMandrel] = useState(() => atHand?.name ?? localStorage.getItem(MANDREL) ?? '');
  const [left, setLeft] = useState<Record<string, string>>({});
  const read = kind === 'finished' && hasSize(at.plan);
  const lengths = Object.entries(left)
    .map(([piece, text]) => [piece, lengthIn(text, units)] as const)
    .filter(([, value]) => Number.isFinite(value));
  const leftOf = (piece: string) => {
    const text = left[piece] ?? '';
    const setText = (next: string) => setLeft({ ...left, [piece]: next });
    return { text, setText, units, fault: lengthFault(text, units) };
  };
  return (
    <Stack spacing={2}>
      <TextField
        select
        label="The ring is"
        value={kind}
        onChange={(event) => setKind(event.target.value as typeof kind)}
      >
        {ENDINGS.map((ending) => (
          <MenuItem key={ending.kind} value={ending.kind}>
            {ending.words}
          </MenuItem>
        ))}
      </TextField>
      {read && <SizeField label="Its size" typed={size} help="As the mandrel reads it; may stay empty." />}
      {kind !== 'finished' && (
        <TextField
          label="Why"
          value={why}
          onChange={(event) => setWhy(event.target.value)}
          helperText="Kinked, ran out, wrong size, stone, broke, uneven …"
        />
      )}
      {read && (
        <TextField
          label="On which mandrel"
          value={mandrel}
          onChange={(event) => setMandrel(event.target.value)}
          helperText="As you call it: what comes off each is learned apart."
        />
      )}
      {wires.map((wire) => (
        <LengthField
          key={wire.id}
          label={`Left of the ${wire.role} wire${wire.pieces > 1 ? ` ${wire.piece}` : ''}`}
          help="All ends together. Your hand is learned from it."
          typed={leftOf(wire.id)}
        />
      ))}
      <Button
        variant="contained"
        // What was typed and can't be a size or a length isn't dropped without a word.
        disabled={(read && size.fault !== '') || wires.some((wire) => leftOf(wire.id).fault !== '')}
        onClick={() => {
          localStorage.setItem(MANDREL, mandrel);
          say(kind, {
            why,
            mandrel: read ? mandrel : '',
            left_mm: Object.fromEntries(lengths),
            size_mm: read && size.mm ? size.mm : null,
          });
          setWhy('');
          onDone();
        }}
      >
        Into the logbook
      </Button>
    </Stack>
  );
}
