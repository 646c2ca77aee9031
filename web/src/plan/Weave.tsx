import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { useCallback, useState } from 'react';
import type { Plan } from '../api/client';
import { useProgramChanges, useWeavePrograms } from '../api/queries';
import { useTell } from '../app/Notices';
import { WeaveChart } from '../drawings/WeaveChart';
import { usePreferences } from '../preferences/Preferences';
import { Stepper } from '../ui/Stepper';
import { withFractions } from '../words/figures';
import { groupOfWrap, groupsOf, programOf, runsOf, withCoils, withWraps, woven } from '../words/program';
import { useDesk } from './Desk';
import { valueAt } from './draft';

/** What a bound row is planned with when no runs are given. */
const USUAL_RUNS = '9 middle, 4 all, 7 inner';
const WRAPS_MOST = 60;

/** The chart of a band that is made of repeats: how they fill the length, and a row of counts to change them. */
export function Weave({ plan }: { plan: Plan }) {
  const { draft, change } = useDesk();
  const [{ units }] = usePreferences();
  const fit = plan.fit;
  const typed = valueAt(draft, 'band.program');
  // A group without wraps isn't woven, but it stays to be filled again.
  const [emptied, setEmptied] = useState<string | null>(null);
  const sent = typeof typed === 'string' ? typed : (fit?.program ?? '');
  const program = emptied !== null && woven(emptied) === woven(sent) ? emptied : sent;
  const [chosen, setChosen] = useState<number | null>(null);
  const select = useCallback((wrap: number) => setChosen(groupOfWrap(program, wrap)), [program]);
  if (!fit) return null;
  const typedRuns = valueAt(draft, 'band.runs');
  const runs = typeof typedRuns === 'string' ? typedRuns : USUAL_RUNS;
  const metal = (role: string) => plan.wires.find((w) => w.role === role)?.metal ?? plan.wires[0]?.metal ?? 'copper';
  const isWoven = fit.kind === 'weave';
  const steps = isWoven
    ? groupsOf(program).map((g, k) => ({
        name: g.letters,
        value: g.wraps,
        set: (wraps: number) => {
          const next = withWraps(program, k, wraps);
          setEmptied(next);
          change('band.program', woven(next));
        },
      }))
    : fit.kind === 'bind'
      ? runsOf(runs).map((r, k) => ({
          name: r.where || 'coils',
          value: r.coils,
          set: (coils: number) => change('band.runs', withCoils(runs, k, coils)),
        }))
      : [];
  return (
    <Box component="section" aria-label="The weave chart" sx={{ pt: 1.5, pb: 2 }}>
      <Typography sx={{ mb: 1 }}>{withFractions(fit.words)}</Typography>
      <WeaveChart
        fit={fit}
        baseMetal={metal('base')}
        weaveMetal={metal(isWoven ? 'weave' : 'bind')}
        units={units}
        onWrap={isWoven ? select : undefined}
      />
      {steps.length > 0 && (
        <Box
          role="group"
          aria-label={isWoven ? 'Wraps in a repeat' : 'Coils in a run'}
          sx={{ display: 'flex', flexWrap: 'wrap', columnGap: 4, rowGap: 1, mt: 1 }}
        >
          {steps.map((step, k) => (
            <Box
              key={k}
              sx={{
                display: 'flex',
                alignItems: 'center',
                gap: 1.5,
                borderBottom: 3,
                borderColor: chosen === k ? 'primary.main' : 'transparent',
              }}
            >
              <Typography sx={{ fontWeight: 700, minWidth: 28 }}>{step.name}</Typography>
              <Stepper
                name={step.name}
                value={step.value}
                least={isWoven ? 0 : 1}
                most={WRAPS_MOST}
                onChange={(value) => {
                  setChosen(k);
                  step.set(value);
                }}
              />
            </Box>
          ))}
        </Box>
      )}
      {isWoven && <Programs program={woven(program)} baseWires={fit.base.length} />}
    </Box>
  );
}

/** Programs for as many base wires as the band has: the usual ones, and the workshop's own, kept from here. */
function Programs({ program, baseWires }: { program: string; baseWires: number }) {
  const { change } = useDesk();
  const tell = useTell();
  const programs = (useWeavePrograms().data ?? []).filter((p) => p.base_wires === baseWires);
  const { keep, forget } = useProgramChanges();
  const plain = programOf(groupsOf(program));
  const known = programs.find((p) => p.program === plain);
  const body = { program: plain, base_wires: baseWires };
  const failed = { onError: (error: Error) => tell({ text: error.message }) };
  return (
    <Box role="group" aria-label="Weave programs" sx={{ display: 'flex', flexWrap: 'wrap', gap: 1, mt: 1.5 }}>
      {programs.map((p) => (
        <Button
          key={p.program}
          title={p.name}
          variant={p.program === plain ? 'contained' : 'outlined'}
          onClick={() => change('band.program', p.program)}
          sx={{ paddingInline: 1.25, minWidth: 0 }}
        >
          {p.program}
        </Button>
      ))}
      {!known && <Button onClick={() => keep.mutate(body, failed)}>Keep {plain}</Button>}
      {known?.own && <Button onClick={() => forget.mutate(body, failed)}>Forget {plain}</Button>}
    </Box>
  );
}
