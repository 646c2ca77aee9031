import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Stack from '@mui/material/Stack';
import TextField from '@mui/material/TextField';
import ToggleButton from '@mui/material/ToggleButton';
import ToggleButtonGroup from '@mui/material/ToggleButtonGroup';
import Typography from '@mui/material/Typography';
import { useDeferredValue } from 'react';
import { useSize } from '../api/queries';
import type { SizeInAll } from '../api/client';
import { figures } from '../app/theme';
import { usePreferences, useReader } from '../preferences/Preferences';
import { withFractions } from '../words/figures';
import { useDesk, useProblem } from './Desk';
import { valueAt } from './draft';
import { Choice, Count, NumberEntry, TextEntry, YesNo } from './fields';
import { useChosen } from './StyleControl';

/** The finger: a size as it is said, or measured round finger and knuckle. */
export function FingerControl() {
  const { draft, exchange, plan } = useDesk();
  const finger = (valueAt(draft, 'finger') ?? {}) as Record<string, unknown>;
  const measured = finger.around_finger_mm !== undefined || finger.around_knuckle_mm !== undefined;
  const problem = useProblem('finger');
  return (
    <Stack spacing={2}>
      {measured ? (
        <>
          <NumberEntry path="finger.around_finger_mm" label="Around the finger" unit="mm" />
          <NumberEntry path="finger.around_knuckle_mm" label="Around the knuckle" unit="mm" />
          {plan?.target_reason && <Typography variant="body2">{plan.target_reason}</Typography>}
          {plan && <SizeTable size={plan.target} />}
        </>
      ) : (
        <>
          <TextEntry path="finger.size" label="Size" help="US 6 1/2, UK M½, EU 54, JP 13, 54.4 mm …" />
          <Conversions text={typeof finger.size === 'string' ? finger.size : ''} />
        </>
      )}
      {problem && <Typography color="error">{problem}</Typography>}
      <Button
        variant="text"
        onClick={() =>
          measured
            ? exchange({ part: 'finger', kind: 'size', from: 'measured', usual: { size: 'US 7' } })
            : exchange({
                part: 'finger',
                kind: 'measured',
                from: 'size',
                usual: { around_finger_mm: 54, around_knuckle_mm: 57 },
              })
        }
        sx={{ alignSelf: 'start', paddingInline: 0 }}
      >
        {measured ? 'Give a size instead' : 'Measured finger and knuckle instead'}
      </Button>
    </Stack>
  );
}

function Conversions({ text }: { text: string }) {
  // The plan goes out first: what a size is called elsewhere can follow it.
  const size = useSize(useDeferredValue(text), useReader());
  return size.data ? <SizeTable size={size.data.size} /> : null;
}

/** A size in every system, the maker's own first. */
export function SizeTable({ size }: { size: SizeInAll }) {
  const [{ systems }] = usePreferences();
  const codes = [...new Set([...systems, ...Object.keys(size.exact)])];
  return (
    <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', columnGap: 3, rowGap: 0.5 }}>
      {codes.map((code) => (
        <Typography key={code} sx={{ fontFamily: figures, fontSize: '0.95rem' }}>
          {withFractions(size.exact[code] ?? '')}
        </Typography>
      ))}
      <Typography variant="body2" color="text.secondary" sx={{ gridColumn: '1 / -1' }}>
        {size.across} across, {size.around} around, inside
      </Typography>
    </Box>
  );
}

const METALS = [
  'copper',
  'plated-copper',
  'lacquered-copper',
  'brass',
  'bronze',
  'sterling',
  'fine-silver',
  'gold-filled',
  'stainless',
  'aluminium',
];
const METAL_WORDS: Record<string, string> = {
  'gold-filled': '14/20 gold-filled',
  sterling: 'Sterling silver',
  stainless: 'Stainless steel',
};
const USUAL_WIRES = ['24 AWG', '22 AWG', '20 AWG', '18 AWG', '0.6 mm', '0.8 mm', '1 mm'];

const metalWords = (metal: string) =>
  METAL_WORDS[metal] ?? metal.charAt(0).toUpperCase() + metal.slice(1).replace('-', ' ');

/** The wire in one role. */
export function WireControl({ role }: { role: string }) {
  const { draft, change } = useDesk();
  const path = `wires.${role}` as const;
  // What it is when nothing is asked of it.
  const usual = useChosen().data?.taken.wires?.[role as 'band'];
  const profile = valueAt(draft, `${path}.profile`) ?? usual?.profile ?? 'round';
  return (
    <Stack spacing={2.5}>
      <TextEntry
        path={`${path}.diameter`}
        label={profile === 'flat' ? 'Thickness' : 'Wire'}
        help="20 AWG, 21 SWG, 0.8 mm, 1/32 in"
        usual={usual?.diameter}
        presets={USUAL_WIRES}
      />
      <Choice
        path={`${path}.metal`}
        label="Metal"
        choices={METALS}
        usual={usual?.metal ?? 'copper'}
        words={metalWords}
      />
      <Choice
        path={`${path}.temper`}
        label="Temper"
        choices={['soft', 'half-hard', 'hard']}
        usual={usual?.temper ?? 'soft'}
      />
      <Choice
        path={`${path}.profile`}
        label="Section"
        choices={['round', 'half-round', 'square', 'flat']}
        usual={usual?.profile ?? 'round'}
      />
      {profile === 'flat' && (
        <NumberEntry
          path={`${path}.strip_width_mm`}
          label="Strip width"
          unit="mm"
          usual={usual?.strip_width_mm}
          optional
        />
      )}
      <ToggleButtonGroup
        exclusive
        data-field={`${path}.from_reel`}
        value={(valueAt(draft, `${path}.from_reel`) ?? usual?.from_reel ?? false) === true}
        onChange={(_, fromReel: boolean | null) => fromReel !== null && change(`${path}.from_reel`, fromReel)}
        aria-label="Cut first, or worked from the reel"
      >
        <ToggleButton value={false}>Cut a piece</ToggleButton>
        <ToggleButton value={true}>Work from the reel</ToggleButton>
      </ToggleButtonGroup>
      {valueAt(draft, path) !== undefined && (
        <Button variant="text" onClick={() => change(path, undefined)} sx={{ alignSelf: 'start', px: 0 }}>
          Take the usual wire
        </Button>
      )}
    </Stack>
  );
}

/** How the tails end. */
export function FinishControl() {
  const { draft } = useDesk();
  const usual = useChosen().data?.wraps_each_side;
  return (
    <Stack spacing={2.5}>
      <Count
        path="finish.wraps_each_side"
        label="Wraps each side"
        help="None leaves the band free: it springs open. Left out, as many as the head usually has."
        least={0}
        most={8}
        usual={usual ?? 2}
      />
      <Choice path="finish.ends" label="Ends" choices={['hidden', 'loop', 'scroll']} usual="hidden" />
      {valueAt(draft, 'finish.ends') === 'loop' && (
        <NumberEntry path="finish.loop_mm" label="Loop, inside" unit="mm" usual={2} />
      )}
      <Surface />
    </Stack>
  );
}

/** How the ring is darkened and polished: asked with its ends, and for rings without ends too. */
function Surface() {
  return (
    <>
      <Choice
        path="finish.polish"
        label="Polished"
        choices={['none', 'cloth', 'rubber', 'tumbler']}
        usual="none"
        help="Coats and soft stones take a cloth only."
      />
      <YesNo path="finish.patina" label="Darkened" help="With patina, rubbed back where it is high." usual={false} />
    </>
  );
}

const ROOM: Record<string, string> = { none: 'None', quarter: 'A quarter size', half: 'Half a size' };

const RISK: Record<string, string> = { '0.05': '1 in 20', '0.02': '1 in 50', '0.01': '1 in 100', '0.002': '1 in 500' };

/** How it is cut, and what the maker allows for. */
export function CuttingControl() {
  const { draft, change } = useDesk();
  return (
    <Stack spacing={2.5}>
      <Choice
        path="sizing.tape"
        label="Tape, cut to the next"
        choices={['1 mm', '5 mm', '1/8 in', '1/4 in']}
        usual="5 mm"
        words={(step) => withFractions(step)}
      />
      <Choice
        path="sizing.tail"
        label="Last wraps drawn tight by"
        help="A tail to hold stays at each end until then: pliers need less of it than fingers."
        choices={['pliers', 'fingers']}
        usual="pliers"
      />
      <NumberEntry path="sizing.tail.mm" label="Tail to hold, as a length" unit="mm" optional />
      <Choice
        path="sizing.room_for_width"
        label="Room for a wide band"
        help="Wide bands wear tighter. What you choose is added to the finger’s size."
        choices={Object.keys(ROOM)}
        usual="none"
        words={(room) => ROOM[room] ?? room}
      />
      <NumberEntry path="sizing.room_for_width.us_sizes" label="Room, in US sizes" optional />
      <Choice
        path="sizing.risk_of_running_out"
        label="Risk that a wire runs out"
        help="Less risk is more wire cut and thrown away."
        choices={Object.keys(RISK).map(Number)}
        usual={0.02}
        words={(risk) => RISK[risk] ?? risk}
      />
      <NumberEntry path="sizing.risk_of_running_out" label="Risk, as a share of 1" usual={0.02} />
      <Surface />
      <TextField
        label="Notes"
        multiline
        minRows={2}
        value={typeof valueAt(draft, 'notes') === 'string' ? valueAt(draft, 'notes') : ''}
        onChange={(event) => change('notes', event.target.value)}
        helperText="For whom, by when, what to remember: it stands on the bench card."
      />
    </Stack>
  );
}
