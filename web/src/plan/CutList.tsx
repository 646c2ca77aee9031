import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import type { PlannedWire } from '../api/client';
import { figures } from '../app/theme';
import { usePreferences } from '../preferences/Preferences';
import { length, mm, oneIn, withFractions } from '../words/figures';
import { useDesk } from './Desk';
import { valueAt } from './draft';
import { alike } from './pieces';

/** Why each wire is cut so long, and what another risk of running out would cut. */
export function CutList() {
  const { plan } = useDesk();
  const several = (plan?.wires.length ?? 0) > 1;
  return (
    <Box component="section" aria-label="Why so long">
      <Typography variant="h2">Why so long</Typography>
      {alike(plan?.wires ?? []).map(({ wire, index }) => (
        <Piece key={index} wire={wire} several={several} />
      ))}
    </Box>
  );
}

function Piece({ wire, several }: { wire: PlannedWire; several: boolean }) {
  const { draft, change } = useDesk();
  const [{ units }] = usePreferences();
  const risk = valueAt(draft, 'sizing.risk_of_running_out') ?? 0.02;
  return (
    <Box sx={{ mb: 2 }}>
      <Typography>
        {several && `${wire.role.charAt(0).toUpperCase()}${wire.role.slice(1)}: `}
        {withFractions(wire.arithmetic)}. {mm(wire.mass_g, 2)} g. {wire.hand && withFractions(wire.hand)}{' '}
        {wire.more && withFractions(wire.more)}
      </Typography>
      {!wire.from_reel && wire.risks.length > 1 && (
        <Box
          role="group"
          aria-label="How often the wire may run short"
          sx={{ display: 'flex', flexWrap: 'wrap', gap: 1, mt: 1 }}
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
                  borderColor: chosen ? 'primary.main' : 'divider',
                  color: 'text.primary',
                  bgcolor: chosen ? 'sheet' : 'transparent',
                }}
              >
                <Box component="span" sx={{ display: 'block', fontFamily: figures }}>
                  {units === 'mm' ? length(choice.cut_mm, 'mm') : `${withFractions(choice.cut_in)} in`}
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
