import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { useCallback } from 'react';
import type { Plan } from '../api/client';
import { WeaveChart } from '../drawings/WeaveChart';
import { mm, signed } from '../words/figures';
import { groupOfWrap, groupsOf, withWraps } from '../words/program';
import { useDesk } from './Desk';
import { valueAt } from './draft';

/** The weave chart of a band that is made of repeats: how they fill the length, and the program under one's fingers. */
export function Weave({ plan }: { plan: Plan }) {
  const { draft, change } = useDesk();
  const fit = plan.fit;
  const typed = valueAt(draft, 'band.program');
  const program = typeof typed === 'string' ? typed : (fit?.program ?? '');
  const addWrap = useCallback(
    (wrap: number) => change('band.program', withWraps(program, groupOfWrap(program, wrap), 1)),
    [change, program],
  );
  if (!fit) return null;
  const metal = (role: string) => plan.wires.find((w) => w.role === role)?.metal ?? 'copper';
  const woven = fit.repeats > 1;
  const rest = fit.left_each_end_mm;
  return (
    <Box component="section" aria-label="The weave chart" sx={{ pt: 1.5, pb: 2 }}>
      <Typography variant="body2" sx={{ mb: 1 }}>
        {woven ? `${fit.repeats} repeats of ${fit.program}` : `Bound ${fit.program}, from the middle outwards`}:{' '}
        {mm(fit.made_mm)} of {mm(fit.target_mm)} mm,{' '}
        {rest >= 0 ? `${mm(rest)} mm bare at each end` : `${mm(-rest)} mm over at each end`}.{' '}
        {woven && `A repeat more or less: ${signed(fit.repeat_changes_us, 2)} US. `}
        {fit.guide_words}
      </Typography>
      <WeaveChart
        fit={fit}
        baseMetal={metal('base')}
        weaveMetal={metal(woven ? 'weave' : 'bind')}
        onWrap={woven ? addWrap : undefined}
      />
      {woven && (
        <Box
          role="group"
          aria-label="Wraps in a repeat"
          sx={{ display: 'flex', flexWrap: 'wrap', gap: 2, mt: 1, alignItems: 'center' }}
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
      )}
    </Box>
  );
}
