import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import { useCallback } from 'react';
import type { Plan } from '../api/client';
import { figures } from '../app/theme';
import type { Stretch } from '../drawings/RingView';
import { alike } from './pieces';
import { stoneOf } from '../drawings/stones';
import { WireStrip } from '../drawings/WireStrip';
import { usePreferences } from '../preferences/Preferences';
import { length, measure, withFractions } from '../words/figures';
import { meanings } from '../words/terms';

interface Props {
  plan: Plan;
  active: Stretch | null;
  onActive: (stretch: Stretch | null) => void;
}

/** Every wire as it lies on the table, one strip for pieces that are alike, with the arithmetic of the stretch that is looked at. */
export function Strips({ plan, active, onActive }: Props) {
  const words = meanings(plan.wires.flatMap((wire) => wire.moves.map((move) => move.label)));
  return (
    <>
      {alike(plan.wires).map(({ index, count }) => (
        <OneStrip
          key={index}
          plan={plan}
          index={index}
          count={count}
          active={active?.wire === index ? active.move : null}
          onActive={onActive}
        />
      ))}
      {words.length > 0 && (
        <Box component="details" sx={{ pb: 1 }}>
          <Typography
            component="summary"
            variant="body2"
            color="primary"
            sx={{ minHeight: 44, display: 'inline-flex', alignItems: 'center', cursor: 'pointer', fontWeight: 600 }}
          >
            Words on the strips
          </Typography>
          {words.map((text) => (
            <Typography key={text} variant="body2" sx={{ maxWidth: '80ch' }}>
              {text}
            </Typography>
          ))}
        </Box>
      )}
    </>
  );
}

interface OneProps {
  plan: Plan;
  index: number;
  count: number;
  active: number | null;
  onActive: Props['onActive'];
}

function OneStrip({ plan, index, count, active, onActive }: OneProps) {
  const select = useCallback(
    (move: number | null) => onActive(move === null ? null : { wire: index, move }),
    [index, onActive],
  );
  const [{ units }] = usePreferences();
  const wire = plan.wires[index];
  if (!wire) return null;
  const move = active === null ? undefined : wire.moves[active];
  return (
    <Box component="section" aria-label={`The ${wire.role} wire as it lies on the table`} sx={{ pt: 1.25, pb: 0.5 }}>
      <Typography variant="body2" sx={{ display: 'flex', justifyContent: 'space-between', gap: 2, minHeight: '1.6em' }}>
        <span>
          {wire.role.charAt(0).toUpperCase() + wire.role.slice(1)} wire as it lies on the table
          {count > 1 && `, ${count} pieces alike`}
        </span>
        <Box component="span" sx={{ fontFamily: figures, textAlign: 'right' }} data-testid="arithmetic">
          {withFractions(
            move
              ? `${move.label}, ${measure(move.from_mm, units)} to ${length(move.to_mm, units)}: ${move.arithmetic} = ${move.length}`
              : wire.marks
                  .filter((m) => m.kind === 'mark')
                  .map((m) => `${m.label} at ${m.at}`)
                  .join(', '),
          )}
        </Box>
      </Typography>
      <WireStrip wire={wire} active={active} onActive={select} units={units} stone={stoneOf(plan)} />
    </Box>
  );
}
