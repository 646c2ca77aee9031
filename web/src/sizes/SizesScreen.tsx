import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { useEffect, useState } from 'react';
import { useNavigate } from 'react-router';
import { Refused, type SizeInAll } from '../api/client';
import { useBetween, useScales, useSize } from '../api/queries';
import { figures } from '../app/theme';
import { sentence } from '../words/refusal';
import { FIRST_RING } from '../plan/draft';
import { usePreferences, useReader } from '../preferences/Preferences';
import { MM_PER_INCH, withFractions } from '../words/figures';
import { Scales } from './Scales';
import { SizePaper } from './SizePaper';

/** Any ring size in every system, finger and knuckle, and what to print to measure with. */
export default function SizesScreen() {
  const [text, setText] = useState('UK M 1/2');
  const size = useSize(text, useReader());
  const [last, setLast] = useState<SizeInAll>();
  if (size.data && size.data.size !== last) setLast(size.data.size);
  const problem = size.error instanceof Refused ? size.error.problems[0] : undefined;
  const navigate = useNavigate();
  useEffect(() => {
    document.title = 'Sizes · Pliant Coil';
  }, []);
  const plan = () => {
    void navigate('/plan', { state: { laidOut: { ...FIRST_RING, finger: { size: text } } } });
  };
  return (
    <>
      <Box
        component="main"
        sx={{
          px: { xs: 2, sm: 3, lg: 4, xl: 7.5 },
          maxWidth: 1600,
          mx: 'auto',
          pb: 6,
          '@media print': { display: 'none' },
        }}
      >
        <Box
          sx={{
            display: 'grid',
            gap: { xs: 3, md: 6 },
            gridTemplateColumns: { xs: 'minmax(0, 1fr)', md: 'minmax(300px, 5fr) minmax(0, 7fr)' },
            mt: 1,
          }}
        >
          <Box>
            <TextField
              label="A ring size, as you say it"
              value={text}
              onChange={(event) => setText(event.target.value)}
              error={!!problem}
              helperText={
                problem
                  ? withFractions(sentence(problem))
                  : 'US 7¼, UK M½, EU 54, JP 13, CH 14, DE 17.3, 54.4 mm, 2 1/8 in'
              }
              slotProps={{ htmlInput: { autoComplete: 'off', spellCheck: false, style: { fontSize: '1.6rem' } } }}
            />
            {last && <InEvery size={last} stale={!!problem || size.isPlaceholderData} />}
            <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 1, mt: 2 }}>
              <Button variant="contained" disabled={!!problem || !last} onClick={plan}>
                Plan a ring of this size
              </Button>
              <Button variant="outlined" onClick={() => window.print()}>
                Print strip and gauges
              </Button>
            </Box>
            <Between onTake={setText} />
          </Box>
          <Box component="section" aria-label="The systems side by side">
            <Typography variant="h2">Where the systems’ marks fall</Typography>
            {last && <Scales at={last.inside_diameter_mm} />}
          </Box>
        </Box>
      </Box>
      <SizePaper />
    </>
  );
}

const NAMES: Record<string, string> = {
  us: 'US, Canada',
  uk: 'UK, Ireland, Australia',
  eu: 'Metric',
  jp: 'Japan',
  ch: 'Switzerland, Italy, Spain',
  de: 'Germany',
};

/** The nearest mark of every system, with what is left over as a hand finds it; the maker's own systems first. */
function InEvery({ size, stale }: { size: SizeInAll; stale: boolean }) {
  const [{ systems }] = usePreferences();
  const scales = useScales().data ?? [];
  const codes = [...new Set([...systems, ...scales.map((scale) => scale.code)])];
  return (
    <Box
      sx={{ mt: 2, textDecoration: stale ? 'line-through' : 'none', color: stale ? 'text.secondary' : 'text.primary' }}
    >
      <Box
        component="dl"
        sx={{
          display: 'grid',
          gridTemplateColumns: { xs: 'minmax(0, 2fr) minmax(0, 3fr)', sm: 'auto 1fr' },
          columnGap: { xs: 1.5, sm: 3 },
          rowGap: 0.5,
          m: 0,
        }}
      >
        {codes.map((code, k) => (
          <Box key={code} sx={{ display: 'contents' }}>
            <Typography component="dt" color="text.secondary" sx={{ alignSelf: 'center' }}>
              {NAMES[code] ?? code}
            </Typography>
            <Typography
              component="dd"
              data-testid={`size-${code}`}
              sx={{
                m: 0,
                fontFamily: figures,
                fontWeight: k === 0 ? 750 : 550,
                fontSize: k === 0 ? { xs: '1.25rem', sm: '1.5rem' } : { xs: '0.95rem', sm: '1.1rem' },
              }}
            >
              {withFractions(size.exact[code] ?? '')}
            </Typography>
          </Box>
        ))}
      </Box>
      <Typography sx={{ mt: 1 }}>
        {size.across} across, {size.around} around, inside.
      </Typography>
    </Box>
  );
}

/** Measured round the finger and round the knuckle: a size that passes one and sits on the other. */
function Between({ onTake }: { onTake: (text: string) => void }) {
  const [{ units }] = usePreferences();
  const [finger, setFinger] = useState('');
  const [knuckle, setKnuckle] = useState('');
  const inMm = (typed: string) => Number(typed.replace(',', '.')) * (units === 'in' ? MM_PER_INCH : 1);
  const found = useBetween(inMm(finger) || 0, inMm(knuckle) || 0, useReader());
  const problem = found.error instanceof Refused ? found.error.problems[0] : undefined;
  return (
    <Box component="section" aria-label="Finger and knuckle" sx={{ mt: 4 }}>
      <Typography variant="h2" sx={{ mb: 1 }}>
        Finger and knuckle
      </Typography>
      <Box sx={{ display: 'grid', gap: 3, gridTemplateColumns: 'minmax(0, 1fr) minmax(0, 1fr)' }}>
        <TextField
          label={`Around the finger, ${units}`}
          value={finger}
          onChange={(event) => setFinger(event.target.value)}
          slotProps={{ htmlInput: { inputMode: 'decimal' } }}
        />
        <TextField
          label={`Around the knuckle, ${units}`}
          value={knuckle}
          onChange={(event) => setKnuckle(event.target.value)}
          slotProps={{ htmlInput: { inputMode: 'decimal' } }}
        />
      </Box>
      {problem && (
        <Typography color="error" sx={{ mt: 1 }}>
          {withFractions(sentence(problem))}
        </Typography>
      )}
      {found.data && (
        <Box sx={{ mt: 1 }}>
          <Typography>
            <strong>{withFractions(found.data.size.said)}</strong>. {withFractions(found.data.reason)}
          </Typography>
          <Button sx={{ px: 0 }} onClick={() => onTake(`US ${found.data.size.us ?? ''}`)}>
            Look at this size
          </Button>
        </Box>
      )}
    </Box>
  );
}
