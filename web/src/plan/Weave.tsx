import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { useCallback } from 'react';
import type { Plan } from '../api/client';
import { useProgramChanges, useWeavePrograms } from '../api/queries';
import { useTell } from '../app/Notices';
import { WeaveChart } from '../drawings/WeaveChart';
import { groupOfWrap, groupsOf, programOf, withCoil, withWraps } from '../words/program';
import { useDesk } from './Desk';
import { valueAt } from './draft';

/** What a bound row is planned with when no runs are given. */
const USUAL_RUNS = '9 middle, 4 all, 7 inner';

/** The chart of a band that is made of repeats: how they fill the length, and the program under one's fingers. */
export function Weave({ plan }: { plan: Plan }) {
  const { draft, change } = useDesk();
  const fit = plan.fit;
  const typed = valueAt(draft, 'band.program');
  const program = typeof typed === 'string' ? typed : (fit?.program ?? '');
  const typedRuns = valueAt(draft, 'band.runs');
  const runs = typeof typedRuns === 'string' ? typedRuns : USUAL_RUNS;
  const kind = fit?.kind;
  const coils = fit?.passes.length ?? 0;
  const addWrap = useCallback(
    (wrap: number) => {
      if (kind === 'weave') change('band.program', withWraps(program, groupOfWrap(program, wrap), 1));
      // A bound row mirrors its runs: coils are counted from the middle, whichever side is tapped.
      else change('band.runs', withCoil(runs, wrap >= coils / 2 ? wrap - coils / 2 : coils / 2 - 1 - wrap));
    },
    [change, kind, program, runs, coils],
  );
  if (!fit) return null;
  const metal = (role: string) => plan.wires.find((w) => w.role === role)?.metal ?? plan.wires[0]?.metal ?? 'copper';
  const woven = fit.kind === 'weave';
  return (
    <Box component="section" aria-label="The weave chart" sx={{ pt: 1.5, pb: 2 }}>
      <Typography variant="body2" sx={{ mb: 1 }}>
        {fit.words}
      </Typography>
      <WeaveChart
        fit={fit}
        baseMetal={metal('base')}
        weaveMetal={metal(woven ? 'weave' : 'bind')}
        onWrap={fit.kind === 'braid' ? undefined : addWrap}
      />
      {woven && <Wraps program={program} />}
      {woven && <Programs program={program} baseWires={fit.base.length} />}
    </Box>
  );
}

function Wraps({ program }: { program: string }) {
  const { change } = useDesk();
  return (
    <Box
      role="group"
      aria-label="Wraps in a repeat"
      sx={{ display: 'flex', flexWrap: 'wrap', gap: 2, alignItems: 'center' }}
    >
      <Typography variant="body2">Tap a wrap of the enlarged repeat for one more, or here:</Typography>
      {groupsOf(program).map((group, k) => (
        <Box key={k} sx={{ display: 'flex', alignItems: 'center' }}>
          <Button
            aria-label={`${group.letters}: one wrap less`}
            onClick={() => change('band.program', withWraps(program, k, -1))}
            sx={{ minWidth: 48, px: 0 }}
          >
            −
          </Button>
          <Typography sx={{ fontWeight: 700, minWidth: 44, textAlign: 'center' }}>
            {group.letters} {group.wraps}
          </Typography>
          <Button
            aria-label={`${group.letters}: one wrap more`}
            onClick={() => change('band.program', withWraps(program, k, 1))}
            sx={{ minWidth: 48, px: 0 }}
          >
            +
          </Button>
        </Box>
      ))}
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
    <Box role="group" aria-label="Weave programs" sx={{ display: 'flex', flexWrap: 'wrap', gap: 1, mt: 1 }}>
      {programs.map((p) => (
        <Button
          key={p.program}
          size="small"
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
