import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import type { PlannedWire } from '../api/client';
import { figures } from '../app/theme';
import { usePreferences } from '../preferences/Preferences';
import { mm, oneIn, withFractions } from '../words/figures';
import { useDesk } from './Desk';
import { alike } from './pieces';
import { valueAt } from './draft';

/** What to cut, in both units, and why it is so much. */
export function CutList() {
  const { plan } = useDesk();
  return (
    <>
      {alike(plan?.wires ?? []).map(({ wire, index, count }) => (
        <Piece key={index} wire={wire} count={count} several={(plan?.wires.length ?? 0) > 1} />
      ))}
    </>
  );
}

function Piece({ wire, count, several }: { wire: PlannedWire; count: number; several: boolean }) {
  const { draft, change } = useDesk();
  const [{ units }] = usePreferences();
  const metric = `${count > 1 && units === 'mm' ? `${count} × ` : ''}${mm(wire.cut_mm, wire.from_reel ? 0 : 1)} mm`;
  const inches = `${count > 1 && units === 'in' ? `${count} × ` : ''}${withFractions(wire.cut_in)} in`;
  const risk = valueAt(draft, 'sizing.risk_of_running_out') ?? 0.02;
  const name = several ? `the ${wire.role} wire` : '';
  return (
    <Box component="section" aria-label={`Cut ${name}`} sx={{ mb: 2 }}>
      <Typography variant="h2">
        {wire.from_reel ? 'Runs off the reel' : 'Cut'} {name}
      </Typography>
      <Typography
        component="p"
        sx={{ fontFamily: figures, fontWeight: 750, fontSize: '2.6rem', lineHeight: 1.15 }}
        data-testid="cut"
      >
        {units === 'mm' ? metric : inches}{' '}
        <Typography component="span" sx={{ fontFamily: figures, fontSize: '1.1rem', color: 'text.secondary' }}>
          {units === 'mm' ? inches : metric}
        </Typography>
      </Typography>
      <Typography variant="body2" color="text.secondary">
        {wire.arithmetic}. {mm(wire.mass_g, 2)} g.
      </Typography>
      {!wire.from_reel && (
        <Box
          role="group"
          aria-label="How often the wire may run short"
          sx={{ display: 'grid', gridTemplateColumns: 'repeat(3, 1fr)', gap: 1, mt: 1 }}
        >
          {wire.risks.map((choice) => {
            const chosen = choice.risk === risk;
            return (
              <Button
                key={choice.risk}
                variant="outlined"
                aria-pressed={chosen}
                onClick={() => change('sizing.risk_of_running_out', choice.risk)}
                sx={{
                  display: 'block',
                  lineHeight: 1.25,
                  py: 0.5,
                  px: 0.5,
                  borderColor: chosen ? 'primary.main' : 'divider',
                  color: 'text.primary',
                  bgcolor: chosen ? 'sheet' : 'transparent',
                }}
              >
                <Box component="span" sx={{ display: 'block', fontFamily: figures }}>
                  {units === 'mm' ? `${mm(choice.cut_mm)} mm` : `${withFractions(choice.cut_in)} in`}
                </Box>
                <Box component="span" sx={{ fontWeight: 400, fontSize: '0.85rem', color: 'text.secondary' }}>
                  short {oneIn(choice.risk)}
                </Box>
              </Button>
            );
          })}
        </Box>
      )}
    </Box>
  );
}
