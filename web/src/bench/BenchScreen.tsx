import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { useCallback, useEffect, useMemo, useState, type MouseEvent } from 'react';
import { useNavigate, useParams } from 'react-router';
import { useBegin } from '../api/bench';
import type { JobAtBench, Progress } from '../api/client';
import { usePreferences, useReader } from '../preferences/Preferences';
import { Sheet } from '../ui/Sheet';
import { withFractions } from '../words/figures';
import { callOf, groupsOf } from '../words/program';
import { Beside, big, Keys, Over } from './parts';
import { OfSeveral } from './OfSeveral';
import { Groups } from './Groups';
import { CounterRing } from './CounterRing';
import { HammerSheet } from './HammerSheet';
import { NextAndMind } from './NextAndMind';
import { Photos } from './Photos';
import { CameBackSheet, Repair } from './Repair';
import { EndSheet, NoteSheet, ReadingSheet, RowSheet, TailSheet } from './sheets';
import { useAwake } from './useAwake';
import { useBench, type Say } from './useBench';
import { useSpoken } from './useSpoken';

const SHEETS = {
  reading: 'Reading',
  row: 'Length so far',
  tail: 'Tail left',
  note: 'Note',
  end: 'How it ended',
  back: 'It came back',
  hammer: 'Hammered so far',
  keys: 'Keys',
} as const;
type Open = keyof typeof SHEETS | null;
const gutter = { xs: 2, sm: 3, lg: 4, xl: 7.5 };

/** One ring at the bench: one step, huge, with what is counted, what comes next, and what to mind. */
export default function BenchScreen() {
  const { jobId = '' } = useParams();
  const reader = useReader();
  const { job, progress, say, waiting, away } = useBench(jobId, reader);
  const at = job.data;
  useEffect(() => {
    document.title = `${at?.job.title ?? 'Bench'} · Bench · Pliant Coil`;
  }, [at?.job.title]);
  if (!at || !progress)
    return (
      <Typography component="main" sx={{ p: 4 }}>
        {job.isError ? job.error.message : 'The ring is being fetched.'}
      </Typography>
    );
  return <AtBench at={at} progress={progress} say={say} waiting={waiting} away={away} />;
}

interface Props {
  at: JobAtBench;
  progress: Progress;
  say: Say;
  waiting: number;
  away: boolean;
}

function AtBench({ at, progress, say, waiting, away }: Props) {
  const [open, setOpen] = useState<Open>(null);
  const [chosen, setChosen] = useState(0);
  const { plan, job } = at;
  const step = plan.steps[progress.place];
  const now = progress.steps[progress.place];
  const counters = useMemo(() => now?.counters ?? [], [now]);
  // The one that isn't full is at hand, unless another was tapped.
  const unfinished = counters.findIndex((c) => c.made < c.count);
  const counter = counters[Math.min(chosen || Math.max(0, unfinished), counters.length - 1)];
  const late = progress.steps.flatMap((s) => s.counters).find((c) => c.late);
  const ended = progress.state !== 'open';
  const [{ words }] = usePreferences();
  const { spoken, setSpoken, speak } = useSpoken();
  useAwake(!ended);

  const count = useCallback(
    (n: number) => {
      if (!counter) return;
      const next = Math.max(0, Math.min(counter.count, counter.made + n * counter.step));
      if (next === counter.made) return;
      say('count', { move: counter.move, n: next - counter.made });
      speak(String(next), next === counter.count || next % 10 === 0 || counter.count - next < 3);
    },
    [counter, say, speak],
  );
  const program = counter?.unit === 'cycle' && plan.fit?.kind === 'weave' ? plan.fit.program : '';
  const [group, setGroup] = useState<number | null>(null);
  // Group by group a repeat counts once its last group is done.
  const tap = useCallback(() => {
    const groups = groupsOf(program);
    if (group === null || groups.length < 2) {
      count(1);
      return;
    }
    const next = (group + 1) % groups.length;
    const called = groups[next];
    setGroup(next);
    if (next === 0) count(1);
    else if (called) speak(callOf(called), true);
  }, [program, group, count, speak]);
  const on = useCallback(() => {
    if (!step) return;
    say('step_on', { task: step.id });
    setChosen(0);
    const next = plan.steps[progress.place + 1];
    if (next) speak(next.text, true);
    else setOpen('end');
  }, [step, say, plan.steps, progress.place, speak]);
  const back = () => {
    const before = plan.steps[progress.place - 1];
    if (before) say('step_back', { task: before.id });
  };
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      const at = event.target instanceof HTMLElement ? event.target : document.body;
      // What has the focus keeps its keys: a button is pressed, a link is followed.
      const keeps = pressedBy(event.key)
        ? 'button, a[href], input, textarea, [role=dialog]'
        : 'input, textarea, [role=dialog]';
      if (at.closest(keeps) || event.ctrlKey || event.metaKey || event.altKey || ended) return;
      const act = {
        ' ': tap,
        Backspace: () => count(-1),
        Enter: on,
        r: () => setOpen('reading'),
        t: () => setOpen('tail'),
        n: () => setOpen('note'),
        '?': () => setOpen('keys'),
      }[event.key.length === 1 ? event.key.toLowerCase() : event.key];
      if (!act) return;
      event.preventDefault();
      // A key held down on a step goes on one step.
      if (event.key !== 'Enter' || !event.repeat) act();
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, [count, tap, on, ended]);

  // What is counted is at hand; else the first thing that the step makes.
  const hand = plan.wires.some((w) => w.moves.some((m) => m.id === counter?.move)) ? counter?.move : step?.makes[0];
  const wire = plan.wires.findIndex((w) => w.moves.some((move) => move.id === hand));
  const active = plan.wires[wire]?.moves.findIndex((move) => move.id === hand) ?? -1;
  const close = useCallback(() => setOpen(null), []);
  const begin = useBegin();
  const navigate = useNavigate();
  const again = () =>
    begin.mutate(
      { draft: at.file, key: crypto.randomUUID() },
      { onSuccess: ({ id }) => void navigate(`/bench/${id}`) },
    );
  return (
    <Box sx={{ display: 'flex', alignItems: 'flex-start', bgcolor: 'sheet', minHeight: 'calc(100dvh - 56px)' }}>
      <Box component="main" onClick={letGo} sx={{ flex: 1, minWidth: 0, pb: { xs: open ? '50dvh' : 4, lg: 4 } }}>
        <Box sx={{ px: gutter, maxWidth: 1600, mx: 'auto', pt: 2 }}>
          <Typography color="text.secondary" role="status">
            {job.title} ·{' '}
            {progress.visit
              ? 'back on the bench'
              : ended
                ? ENDED[progress.state]
                : step
                  ? `${phaseName(step.stage)} · step ${progress.place + 1} of ${plan.steps.length}`
                  : 'all steps are done'}
            {progress.minutes >= 1 && ` · ${Math.round(progress.minutes)} min`}
            {away ? ` · the server doesn’t answer${waiting ? `: ${waiting} kept here` : ''}` : ''}
          </Typography>
          {job.batch_id && <OfSeveral batch={job.batch_id} job={job.id} phase={ended ? '' : (step?.phase ?? '')} />}
          {late?.late && (
            <Box sx={{ my: 1, display: 'flex', gap: 1.5, alignItems: 'center', flexWrap: 'wrap' }}>
              <Typography sx={{ fontWeight: 650 }}>
                {late.late} more were counted on another device that had not seen this count. Add them?
              </Typography>
              <Button variant="outlined" onClick={() => say('late', { move: late.move, add: true })}>
                Add
              </Button>
              <Button variant="text" onClick={() => say('late', { move: late.move, add: false })}>
                Leave
              </Button>
            </Box>
          )}
          {progress.set_aside > 0 && (
            <Typography sx={{ my: 1 }}>
              {progress.set_aside === 1 ? 'One thing' : `${progress.set_aside} things`} told of this ring can’t be read
              or done any more. The rest stands without it.
            </Typography>
          )}
          {progress.visit ? (
            <Repair at={at} progress={progress} say={say} onEnd={() => setOpen('end')} />
          ) : ended || !step ? (
            <Over
              progress={progress}
              onEnd={() => setOpen('end')}
              onReopen={() => say('reopened', {})}
              onBack={() => setOpen('back')}
              onAgain={again}
              leftOver={at.left_over}
            />
          ) : (
            <>
              <Box
                sx={{
                  display: 'grid',
                  columnGap: 6,
                  rowGap: 2,
                  alignItems: 'start',
                  gridTemplateColumns: { xs: '1fr', md: counter ? 'minmax(0, 1fr) minmax(260px, 360px)' : '1fr' },
                }}
              >
                <Box>
                  <Typography
                    component="h2"
                    sx={{
                      fontSize: { xs: '1.5rem', sm: '2rem' },
                      fontWeight: 700,
                      lineHeight: 1.28,
                      mt: 1,
                      textWrap: 'balance',
                    }}
                  >
                    {withFractions(words === 'few' ? now?.brief || firstSentence(step.text) : step.text)}
                  </Typography>
                  {words !== 'few' && step.check && (
                    <Typography sx={{ fontSize: { xs: '1.05rem', sm: '1.2rem' }, mt: 1.5, maxWidth: '60ch' }}>
                      {withFractions(step.check)}
                    </Typography>
                  )}
                  {words === 'many' &&
                    now?.words.map((meaning) => (
                      <Typography key={meaning} color="text.secondary" sx={{ mt: 1, maxWidth: '60ch' }}>
                        {meaning}
                      </Typography>
                    ))}
                  {at.asks_tails && (
                    <Typography sx={{ mt: 1.5, maxWidth: '60ch' }}>
                      Measure both tails before you lock it (T): that tells your arcs from your wraps.
                    </Typography>
                  )}
                  {at.first_plan && (
                    <Typography color="text.secondary" sx={{ mt: 1 }}>
                      Formed anew at {withFractions(plan.start.mark)}: steps and readings go by that. Planned first:{' '}
                      {withFractions(at.first_plan.start)}, to come off {withFractions(at.first_plan.finished)}.
                    </Typography>
                  )}
                  <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 1.5, mt: 2.5 }}>
                    <Button variant="contained" onClick={on} sx={{ minHeight: 64, px: 4, fontSize: '1.2rem' }}>
                      Done, on
                    </Button>
                    {step.expected_mm !== null && (
                      <Button variant="outlined" onClick={() => setOpen('reading')} sx={big}>
                        Reading
                      </Button>
                    )}
                    {counter?.unit === 'cycle' && (
                      <Button variant="outlined" onClick={() => setOpen('row')} sx={big}>
                        Length so far
                      </Button>
                    )}
                    {at.hammered_at === step.id && (
                      <Button variant="outlined" onClick={() => setOpen('hammer')} sx={big}>
                        Hammered so far
                      </Button>
                    )}
                    <Button variant="outlined" onClick={() => setOpen('tail')} sx={big}>
                      Tail left
                    </Button>
                    <Button variant="text" onClick={back} disabled={progress.place === 0} sx={{ minHeight: 64 }}>
                      Back
                    </Button>
                  </Box>
                </Box>
                {counter && (
                  <Box sx={{ display: 'grid', justifyItems: 'center', gap: 1 }}>
                    <CounterRing counter={counter} metal={plan.wires[wire]?.metal ?? 'copper'} onCount={tap} />
                    {program && (
                      <Groups
                        program={program}
                        counter={counter}
                        at={group}
                        onEach={(each) => setGroup(each ? 0 : null)}
                      />
                    )}
                    <Box sx={{ display: 'flex', gap: 1.5 }}>
                      <Button
                        variant="outlined"
                        onClick={() => count(-1)}
                        aria-label={`${counter.label}: one less`}
                        sx={big}
                      >
                        −
                      </Button>
                      {counter.count > 6 * counter.step && (
                        <Button
                          variant="outlined"
                          onClick={() => count(5)}
                          aria-label={`+5: five more, ${counter.label}`}
                          sx={big}
                        >
                          +5
                        </Button>
                      )}
                      <Button
                        variant="contained"
                        onClick={() => count(1)}
                        aria-label={`+1: one more, ${counter.label}`}
                        sx={big}
                      >
                        +1
                      </Button>
                    </Box>
                    {counters.length > 1 && (
                      <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 1, justifyContent: 'center' }}>
                        {counters.map((c, k) => (
                          <Button
                            key={c.move}
                            variant="text"
                            aria-pressed={c === counter}
                            onClick={() => setChosen(k)}
                            sx={{ fontWeight: c === counter ? 700 : 450 }}
                          >
                            {c.label} {k + 1}: {c.made}/{c.count}
                          </Button>
                        ))}
                      </Box>
                    )}
                  </Box>
                )}
              </Box>
              <Beside plan={plan} progress={progress} wire={wire} active={active} />
              <NextAndMind
                at={at}
                progress={progress}
                step={step}
                say={say}
                onOpen={setOpen}
                spoken={spoken}
                onSpoken={setSpoken}
              />
            </>
          )}
          <Photos job={job.id} task={step?.id ?? ''} />
        </Box>
      </Box>
      {open && (
        <Sheet title={SHEETS[open]} onClose={close} closes="Close">
          {open === 'reading' && step && <ReadingSheet at={at} task={step.id} say={say} onDone={close} />}
          {open === 'row' && step && <RowSheet at={at} task={step.id} say={say} onDone={close} />}
          {open === 'tail' && <TailSheet at={at} task={step?.id ?? ''} say={say} onDone={close} />}
          {open === 'note' && <NoteSheet at={at} task={step?.id ?? 'record'} say={say} onDone={close} />}
          {open === 'end' && <EndSheet at={at} task={step?.id ?? ''} say={say} onDone={close} />}
          {open === 'back' && <CameBackSheet say={say} onDone={close} />}
          {open === 'hammer' && step && <HammerSheet at={at} task={step.id} say={say} onDone={close} />}
          {open === 'keys' && <Keys />}
        </Sheet>
      )}
    </Box>
  );
}

/** Whether a key works whatever has the focus. */
const pressedBy = (key: string) => key === ' ' || key === 'Enter';

/** A button that was tapped lets go of the keys: the next blank counts, the next Enter goes on, as a pedal's do. */
const letGo = (event: MouseEvent) => {
  const focused = document.activeElement;
  if (event.detail > 0 && focused instanceof HTMLElement && focused.matches('button, a')) focused.blur();
};

/** What stands for a step that has no figure of its own. */
const firstSentence = (text: string) => text.split(/(?<=[.:])\s/)[0] ?? text;
const ENDED: Record<string, string> = { finished: 'finished', spoiled: 'spoiled', set_aside: 'set aside' };
const phaseName = (stage: string) => stage.charAt(0).toUpperCase() + stage.slice(1).replace(/[-_]/g, ' ');
