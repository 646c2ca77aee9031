import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import type { Plan } from '../api/client';
import { WeaveChart } from '../drawings/WeaveChart';
import { WireStrip } from '../drawings/WireStrip';
import { mm, withFractions } from '../words/figures';
import { alike } from './pieces';

/** CSS fixes an inch at 96 px; a printer that doesn't scale makes it an inch. */
const PX_PER_MM = 96 / 25.4;
const CHECK_MM = 50;
const nothing = () => undefined;

/** The wires at 1:1, to lay the work on the paper. */
export function PrintSheet({ plan }: { plan: Plan }) {
  return (
    <Box data-testid="paper">
      <Typography variant="h2">{plan.title}</Typography>
      <Typography>{withFractions(plan.sentence.map((p) => p.text).join(', '))}.</Typography>
      <svg width={CHECK_MM * PX_PER_MM + 2} height="22" data-testid="scale-check" style={{ display: 'block' }}>
        <path d={`M 1 4 v 12 m 0 -6 h ${CHECK_MM * PX_PER_MM} m 0 -6 v 12`} stroke="currentColor" fill="none" />
      </svg>
      <Typography variant="body2" sx={{ mb: 2 }}>
        Lay a ruler on this line: it is {CHECK_MM} mm. If it isn’t, print at 100 %, without fitting to the page.
      </Typography>
      {plan.fit && (
        <Box sx={{ mb: 3 }}>
          <Typography variant="body2">
            {plan.fit.repeats > 1 ? `${plan.fit.repeats} × ` : ''}
            {plan.fit.program}
          </Typography>
          <WeaveChart
            fit={plan.fit}
            baseMetal={plan.wires[0]?.metal ?? 'copper'}
            weaveMetal={plan.wires.at(-1)?.metal ?? 'copper'}
            pxPerMm={PX_PER_MM}
          />
        </Box>
      )}
      {alike(plan.wires).map(({ wire, index, count }) => (
        <Box key={index} sx={{ breakInside: 'avoid', mb: 2 }}>
          <Typography variant="body2">
            {count > 1 ? `${count} pieces of ` : ''}
            {wire.role} wire, {wire.label}: {mm(wire.cut_mm)} mm
          </Typography>
          <WireStrip wire={wire} active={null} onActive={nothing} pxPerMm={PX_PER_MM} />
        </Box>
      ))}
    </Box>
  );
}
