import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import ToggleButton from '@mui/material/ToggleButton';
import ToggleButtonGroup from '@mui/material/ToggleButtonGroup';
import Typography from '@mui/material/Typography';
import { useEffect, useId, useMemo, useState } from 'react';
import { useNavigate } from 'react-router';
import { Refused, type Draft } from '../api/client';
import { useGallery } from '../api/queries';
import { figures } from '../app/theme';
import { kept, laid, MOST, type Beside } from '../compare/beside';
import { RingPicture } from '../drawings/RingPicture';
import { sentence } from '../words/refusal';
import { usePreferences, useReader } from '../preferences/Preferences';
import { MM_PER_INCH, withFractions } from '../words/figures';
import { missing, sorted, type AtHand, type Entry } from './atHand';

const TIMES = [
  { minutes: 30, words: 'Half an hour' },
  { minutes: 60, words: 'An hour' },
  { minutes: null, words: 'Any time' },
] as const;
const RESTS_MS = 350;

/** Every band and head, planned at the maker's own size: what can be made of what is at hand, and where to start. */
export default function GalleryScreen() {
  const reader = useReader();
  const [{ units, systems }] = usePreferences();
  const [typed, setTyped] = useState(() => (systems[0] === 'uk' ? 'UK N' : 'US 7'));
  // All of them are planned anew once typing rests.
  const [size, setSize] = useState(typed);
  useEffect(() => {
    const timer = setTimeout(() => setSize(typed), RESTS_MS);
    return () => clearTimeout(timer);
  }, [typed]);
  const [wire, setWire] = useState('');
  const [bead, setBead] = useState('');
  const [minutes, setMinutes] = useState<number | null>(null);
  const [torch, setTorch] = useState(true);
  const [beside, setBeside] = useState<readonly Beside[]>(kept);
  const gallery = useGallery(size, reader);
  const navigate = useNavigate();
  useEffect(() => {
    document.title = 'Gallery · Pliant Coil';
  }, []);
  const at: AtHand = useMemo(
    () => ({ wire: inMm(wire, units), bead: inMm(bead, units), minutes, torch }),
    [wire, bead, units, minutes, torch],
  );
  // What stood there stays while another size is on its way, or can't be read.
  const [shown, setShown] = useState(gallery.data);
  if (gallery.data && gallery.data !== shown) setShown(gallery.data);
  const entries = useMemo(() => sorted(shown?.entries ?? [], at), [shown, at]);
  const problem = gallery.error instanceof Refused ? gallery.error.problems[0] : undefined;
  const ready = entries.filter((entry) => missing(entry, at).length === 0);
  const rest = entries.slice(ready.length);
  const ringOf = (entry: Entry): Draft => ({ ...entry.ring, finger: { size: typed } });
  const start = (entry: Entry) => void navigate('/plan', { state: { laidOut: ringOf(entry) } });
  const toggle = (entry: Entry) => setBeside(laid(beside, { name: entry.title, draft: ringOf(entry) }));
  const chosen = (entry: Entry) => beside.some((b) => b.name === entry.title);
  const tiles = (list: readonly Entry[]) => (
    <Box
      component="ul"
      sx={{
        listStyle: 'none',
        p: 0,
        m: 0,
        display: 'grid',
        gap: { xs: 3, md: 4 },
        gridTemplateColumns: 'repeat(auto-fill, minmax(min(100%, 230px), 1fr))',
      }}
    >
      {list.map((entry) => (
        <Tile
          key={`${entry.kind} ${entry.style}`}
          entry={entry}
          lacks={missing(entry, at)}
          chosen={chosen(entry)}
          full={beside.length >= MOST}
          onStart={() => start(entry)}
          onBeside={() => toggle(entry)}
        />
      ))}
    </Box>
  );
  const unit = units === 'in' ? 'in' : 'mm';
  return (
    <Box
      component="main"
      sx={{ px: { xs: 2, sm: 3, lg: 4, xl: 7.5 }, maxWidth: 1600, mx: 'auto', pb: beside.length ? 12 : 6 }}
    >
      <Typography sx={{ mt: 1, mb: 2, maxWidth: '62ch' }}>
        Every ring here is planned at your size with its usual wire, and drawn from its own moves. Say what lies on the
        bench, and what it is enough for comes first.
      </Typography>
      <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 2, alignItems: 'flex-start', mb: 4 }}>
        <TextField
          label="Ring size"
          value={typed}
          onChange={(event) => setTyped(event.target.value)}
          error={!!problem}
          helperText={problem && withFractions(sentence(problem))}
          sx={{ width: 150 }}
        />
        <TextField
          label={`Wire at hand, ${unit}`}
          value={wire}
          onChange={(event) => setWire(event.target.value)}
          slotProps={{ htmlInput: { inputMode: 'decimal' } }}
          sx={{ width: 150 }}
        />
        <TextField
          label={`Bead at hand, ${unit}`}
          value={bead}
          onChange={(event) => setBead(event.target.value)}
          slotProps={{ htmlInput: { inputMode: 'decimal' } }}
          sx={{ width: 150 }}
        />
        <ToggleButtonGroup
          exclusive
          value={String(minutes)}
          onChange={(_, next: string | null) => next !== null && setMinutes(next === 'null' ? null : Number(next))}
          aria-label="Time at hand"
          sx={{ flexWrap: 'wrap' }}
        >
          {TIMES.map((t) => (
            <ToggleButton key={t.words} value={String(t.minutes)}>
              {t.words}
            </ToggleButton>
          ))}
        </ToggleButtonGroup>
        <ToggleButton value="torch" selected={!torch} onChange={() => setTorch(!torch)}>
          No torch
        </ToggleButton>
      </Box>
      {!shown && <Typography>{gallery.isError ? 'They can’t be had just now.' : 'Planning them all.'}</Typography>}
      {ready.length > 0 && (
        <>
          <Typography variant="h2" sx={{ mb: 2 }}>
            {rest.length > 0 ? 'Enough for these' : 'All of them'}
          </Typography>
          {tiles(ready)}
        </>
      )}
      {rest.length > 0 && (
        <>
          <Typography variant="h2" sx={{ mt: 5, mb: 2 }}>
            With something else
          </Typography>
          {tiles(rest)}
        </>
      )}
      {beside.length > 0 && (
        <Box
          sx={{
            position: 'fixed',
            insetInline: 0,
            bottom: 0,
            zIndex: 2,
            bgcolor: 'background.paper',
            borderTop: 1,
            borderColor: 'divider',
            display: 'flex',
            flexWrap: 'wrap',
            gap: 2,
            alignItems: 'center',
            px: { xs: 2, sm: 3, lg: 4, xl: 7.5 },
            py: 1,
          }}
        >
          <Typography sx={{ flex: 1, minWidth: '14ch' }}>{beside.map((b) => b.name).join(', ')}</Typography>
          <Button variant="text" onClick={() => setBeside(laid([], null))}>
            Put away
          </Button>
          <Button variant="contained" disabled={beside.length < 2} onClick={() => void navigate('/compare')}>
            Lay {beside.length < 2 ? 'two' : beside.length} side by side
          </Button>
        </Box>
      )}
    </Box>
  );
}

interface TileProps {
  entry: Entry;
  lacks: readonly string[];
  chosen: boolean;
  full: boolean;
  onStart: () => void;
  onBeside: () => void;
}

function Tile({ entry, lacks, chosen, full, onStart, onBeside }: TileProps) {
  const name = useId();
  return (
    <Box component="li" sx={{ display: 'flex', flexDirection: 'column' }}>
      <Box sx={{ height: 170, mb: 1 }}>
        <RingPicture picture={entry.picture} label={`${entry.title}, from above`} />
      </Box>
      <Typography component="h3" id={name} sx={{ fontWeight: 700, fontSize: '1.1rem' }}>
        {entry.title}
      </Typography>
      <Typography variant="body2" color="text.secondary">
        {withFractions(entry.sentence)}
      </Typography>
      <Typography variant="body2" sx={{ fontFamily: figures, mt: 0.5 }}>
        {[
          entry.wires.length === 1 ? withFractions(entry.wires[0]?.cut ?? '') : `${entry.wires.length} pieces of wire`,
          ...(entry.height_mm > 0 ? [`${withFractions(entry.height)} high`] : []),
          spoken(entry.minutes),
        ].join(' · ')}
      </Typography>
      {lacks.length > 0 && (
        <Typography variant="body2" sx={{ fontWeight: 600 }}>
          Needs {lacks.join(', ')}
        </Typography>
      )}
      <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 1, mt: 1 }}>
        <Button variant="outlined" onClick={onStart} aria-describedby={name}>
          Start from this
        </Button>
        <Button
          variant={chosen ? 'contained' : 'text'}
          aria-pressed={chosen}
          disabled={!chosen && full}
          onClick={onBeside}
          aria-describedby={name}
        >
          {chosen ? 'Laid out' : 'Lay beside'}
        </Button>
      </Box>
    </Box>
  );
}

const spoken = (minutes: number) =>
  minutes < 120 ? `about ${Math.max(5, 5 * Math.round(minutes / 5))} min` : `about ${Math.round(minutes / 15) / 4} h`;

/** What was typed, in mm; null where nothing is typed yet. */
function inMm(text: string, units: 'mm' | 'in'): number | null {
  const value = Number(text.trim().replace(',', '.'));
  if (!text.trim() || !Number.isFinite(value) || value <= 0) return null;
  return units === 'in' ? value * MM_PER_INCH : value;
}
