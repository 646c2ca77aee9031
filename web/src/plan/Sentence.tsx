import Box from '@mui/material/Box';
import Popover from '@mui/material/Popover';
import Typography from '@mui/material/Typography';
import { Fragment, useState, type ReactNode } from 'react';
import type { Draft } from '../api/client';
import { withFractions } from '../words/figures';
import { FingerControl, FinishControl, StyleControl, WireControl } from './controls';
import { useDesk } from './Desk';
import { valueAt } from './draft';

/** The words before a phrase. */
const JOIN: Record<string, string> = { finger: 'A ', wires: ' in ', band: ', ', head: ', ', finish: ', ' };
const NAMES: Record<string, string> = { finger: 'Finger', band: 'Band', head: 'Head', finish: 'Ends' };

const control = (part: string): ReactNode => {
  if (part.startsWith('wires.')) return <WireControl role={part.slice(6)} />;
  if (part === 'finger') return <FingerControl />;
  if (part === 'finish') return <FinishControl />;
  return <StyleControl kind={part === 'head' ? 'head' : 'band'} />;
};

/** What stands in the sentence while there is no plan to say it: what was typed, so that it can be mended. */
function phrasesOf(draft: Draft): { part: string; text: string }[] {
  const said = (path: string, otherwise: string) => {
    const value = valueAt(draft, path);
    return typeof value === 'string' && value ? value : otherwise;
  };
  return [
    { part: 'finger', text: said('finger.size', 'size') },
    { part: 'wires.band', text: said('wires.band.diameter', 'wire') },
    { part: 'band', text: said('band.style', 'band') },
    { part: 'head', text: said('head.style', 'head') },
    { part: 'finish', text: 'ends' },
  ];
}

/** The ring in one sentence; each phrase is the control for what it says. */
export function Sentence() {
  const { draft, plan, problems } = useDesk();
  const [open, setOpen] = useState<{ part: string; at: HTMLElement } | null>(null);
  const phrases = plan?.sentence ?? phrasesOf(draft);
  const wrong = (part: string) => problems.some((p) => p.field === part || p.field.startsWith(`${part}.`));
  const warned = (part: string) => plan?.warnings.some((w) => w.field.startsWith(part));
  return (
    <>
      <Typography variant="h1" component="p">
        {phrases.map(({ part, text }, k) => {
          const kind = part.split('.')[0] ?? part;
          const colour = wrong(part) ? 'error.main' : 'primary.main';
          const sameAsBefore = k > 0 && phrases[k - 1]?.part.split('.')[0] === kind;
          return (
            <Fragment key={part}>
              {sameAsBefore ? ' and ' : (JOIN[kind] ?? ', ')}
              <Box
                component="button"
                type="button"
                aria-haspopup="dialog"
                aria-expanded={open?.part === part}
                aria-label={`${NAMES[part] ?? `Wire, ${part.slice(6)}`}: ${text}${wrong(part) ? ', to be mended' : ''}`}
                onClick={(event) => setOpen({ part, at: event.currentTarget })}
                sx={{
                  font: 'inherit',
                  color: wrong(part) ? 'error.main' : 'text.primary',
                  textAlign: 'left',
                  background: 'none',
                  border: 0,
                  padding: 0,
                  minHeight: 42,
                  cursor: 'pointer',
                  borderBottom: 2.5,
                  borderBottomStyle: wrong(part) || warned(part) ? 'dashed' : 'solid',
                  borderColor: colour,
                  '&:hover, &[aria-expanded=true]': { color: colour },
                  '&:focus-visible': { outline: '3px solid', outlineColor: 'primary.main', outlineOffset: 3 },
                }}
              >
                {withFractions(text)}
              </Box>
            </Fragment>
          );
        })}
        .
      </Typography>
      <Popover
        open={open !== null}
        anchorEl={open?.at ?? null}
        onClose={() => setOpen(null)}
        anchorOrigin={{ vertical: 'bottom', horizontal: 'left' }}
        slotProps={{
          paper: {
            role: 'dialog',
            'aria-label': open ? (NAMES[open.part] ?? 'Wire') : '',
            sx: { mt: 1, p: 2.5, width: 400, maxWidth: '94vw' },
          },
        }}
      >
        {open && control(open.part)}
      </Popover>
    </>
  );
}
