import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import MenuItem from '@mui/material/MenuItem';
import Stack from '@mui/material/Stack';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { useEffect, useState } from 'react';
import { useMandrelChanges, useMandrels } from '../api/mandrels';
import { Problems } from '../ui/Problems';
import { usePreferences, useReader } from '../preferences/Preferences';
import { withFractions } from '../words/figures';
import { MarksPlot } from './MarksPlot';
import { marksOf } from './marks';

const KINDS = [
  ['tapered', 'Tapered'],
  ['grooved', 'Tapered, with a groove'],
  ['stepped', 'Stepped'],
] as const;
type Kind = (typeof KINDS)[number][0];

/** The mandrels that lie here, measured at their marks: every start mark is then told for the one at hand. */
export default function MandrelsScreen() {
  const mandrels = useMandrels(useReader());
  const { forget } = useMandrelChanges();
  const [preferences, change] = usePreferences();
  useEffect(() => {
    document.title = 'Mandrels · Pliant Coil';
  }, []);
  const at = preferences.mandrel?.name;
  return (
    <Box component="main" sx={{ px: { xs: 2, sm: 3, lg: 4, xl: 7.5 }, maxWidth: 1600, mx: 'auto', pb: 6, pt: 2 }}>
      <Box
        sx={{
          display: 'grid',
          gap: 6,
          gridTemplateColumns: { xs: 'minmax(0, 1fr)', md: 'minmax(0, 7fr) minmax(300px, 4fr)' },
        }}
      >
        <Box component="section" aria-label="Your mandrels">
          <Typography variant="h2" sx={{ fontSize: '1.5rem', mb: 1 }}>
            Your mandrels
          </Typography>
          {mandrels.data?.length === 0 && (
            <Typography sx={{ maxWidth: '60ch' }}>
              None is measured yet. Marks are often off by a quarter size or more: put a caliper across two or three of
              them, far apart, and every start mark is told for your mandrel, not for the one in the tables.
            </Typography>
          )}
          {mandrels.data?.map((mandrel) => (
            <Box key={mandrel.id} sx={{ py: 1.5, borderBottom: 1, borderColor: 'divider' }}>
              <Box sx={{ display: 'flex', flexWrap: 'wrap', alignItems: 'center', gap: 1 }}>
                <Typography sx={{ fontWeight: 650, fontSize: '1.15rem', flex: 1 }}>{mandrel.name}</Typography>
                <Button
                  variant={at === mandrel.name ? 'contained' : 'outlined'}
                  aria-pressed={at === mandrel.name}
                  onClick={() =>
                    change({ mandrel: at === mandrel.name ? null : { name: mandrel.name, ...mandrel.line } })
                  }
                >
                  {at === mandrel.name ? 'Marks are told for it' : 'Tell marks for this one'}
                </Button>
                <Button
                  onClick={() => {
                    forget.mutate(mandrel.id);
                    if (at === mandrel.name) change({ mandrel: null });
                  }}
                >
                  Forget it
                </Button>
              </Box>
              <Typography>{withFractions(mandrel.text)}</Typography>
              <Typography variant="body2" color="text.secondary">
                {mandrel.marks.map((mark) => `${withFractions(mark.mark)} ${mark.measured}`).join(' · ')}
              </Typography>
              <MarksPlot marks={mandrel.marks} line={mandrel.drawn} />
            </Box>
          ))}
        </Box>
        <Measure />
      </Box>
    </Box>
  );
}

/** A mandrel is measured: a line for each mark. */
function Measure() {
  const { keep } = useMandrelChanges();
  const [{ units }] = usePreferences();
  const [name, setName] = useState('');
  const [kind, setKind] = useState<Kind>('tapered');
  const [text, setText] = useState('');
  const marks = marksOf(text, units);
  const unread = marks.findIndex((mark) => !Number.isFinite(mark.measured_mm));
  return (
    <Stack
      component="form"
      spacing={2}
      aria-label="Measure a mandrel"
      onSubmit={(event) => {
        event.preventDefault();
        keep.mutate({ name, kind, marks }, { onSuccess: () => setText('') });
      }}
    >
      <Typography variant="h2" sx={{ fontSize: '1.2rem' }}>
        Measure one
      </Typography>
      <TextField
        label="What you call it"
        value={name}
        onChange={(event) => setName(event.target.value)}
        helperText="Under the same name it is measured again."
      />
      <TextField select label="Which kind" value={kind} onChange={(event) => setKind(event.target.value as Kind)}>
        {KINDS.map(([code, words]) => (
          <MenuItem key={code} value={code}>
            {words}
          </MenuItem>
        ))}
      </TextField>
      <TextField
        label={`A line for each mark [${units}]`}
        placeholder={units === 'mm' ? 'US 5 15.6\nUS 7 17.2\nUS 10 19.7' : 'US 5 0.614\nUS 10 0.775'}
        multiline
        minRows={4}
        value={text}
        onChange={(event) => setText(event.target.value)}
        helperText="The mark, then what a caliper reads across the mandrel at that very line. Two far apart say more than ten close together."
      />
      <Problems error={keep.error} />
      <Button
        type="submit"
        variant="contained"
        disabled={!name.trim() || !marks.length || unread >= 0 || keep.isPending}
        sx={{ alignSelf: 'flex-start' }}
      >
        Keep it
      </Button>
    </Stack>
  );
}
