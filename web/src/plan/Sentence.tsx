import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import { Fragment } from 'react';
import type { Draft } from '../api/client';
import { withFractions } from '../words/figures';
import { useDesk } from './Desk';
import { valueAt } from './draft';
import type { RingPath } from './ringPaths';

export const NAMES: Record<string, string> = {
  finger: 'Finger',
  band: 'Band',
  head: 'Head',
  finish: 'Ends and surface',
  sizing: 'Cutting, room, surface and notes',
  several: 'The same ring for several fingers',
};
export const nameOf = (part: string) => NAMES[part] ?? `Wire, ${part.slice(6)}`;

/** What stands in the sentence while there is no plan to say it: what was typed, so that it can be mended. */
function phrasesOf(draft: Draft): { part: string; text: string }[] {
  const said = (path: RingPath, otherwise: string) => {
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

const kindOf = (part: string) => part.split('.')[0] ?? part;

/** The words before the first phrase; an ornament without a finger begins with its wire. */
function opening(part: string, words: string): string {
  if (part !== 'finger') return 'In ';
  return words.startsWith('just') ? 'A ring ' : 'A ';
}

/** The words between two phrases that no comma parts. */
function joined(part: string, next: string): string | null {
  if (kindOf(part) === kindOf(next)) return ' and ';
  return kindOf(next) === 'wires' ? ' in ' : null;
}

interface Props {
  open: string | null;
  onOpen: (part: string) => void;
}

/** The ring in one sentence; each phrase opens beside it what sets it. */
export function Sentence({ open, onOpen }: Props) {
  const { draft, plan, problems } = useDesk();
  const phrases = plan?.sentence ?? phrasesOf(draft);
  const wrong = (part: string) => problems.some((p) => p.field === part || p.field.startsWith(`${part}.`));
  const warned = (part: string) => plan?.warnings.some((w) => w.field.startsWith(part));
  // While the finger can't be read the sentence says what was typed.
  const typed = valueAt(draft, 'finger.size');
  return (
    <Typography
      variant="h1"
      component="p"
      sx={{ fontSize: { xs: '1.2rem', sm: '1.75rem' }, lineHeight: { xs: 1.6, sm: 1.5 } }}
    >
      {phrases.map(({ part, text }, k) => {
        const isWrong = wrong(part);
        const colour = isWrong ? 'error.main' : 'primary.main';
        const after = phrases[k + 1]?.part;
        const words = part === 'finger' && isWrong && typeof typed === 'string' ? typed : text;
        return (
          <Fragment key={part}>
            {k === 0 && opening(part, words)}
            {/* No line begins with a comma. */}
            <Box component="span" sx={{ whiteSpace: 'nowrap' }}>
              <Box
                component="button"
                type="button"
                id={`phrase-${part}`}
                aria-haspopup="dialog"
                aria-expanded={open === part}
                aria-label={`${nameOf(part)}: ${withFractions(words)}${isWrong ? ', to be mended' : ''}`}
                onClick={() => onOpen(part)}
                sx={{
                  font: 'inherit',
                  whiteSpace: 'normal',
                  maxWidth: 'calc(100% - 0.4em)',
                  color: isWrong ? 'error.main' : 'text.primary',
                  textAlign: 'left',
                  background: 'none',
                  border: 0,
                  padding: 0,
                  minHeight: 44,
                  cursor: 'pointer',
                  scrollMarginTop: '12px',
                  borderBottom: open === part ? 4 : 2.5,
                  borderBottomStyle: isWrong || warned(part) ? 'dashed' : 'solid',
                  borderColor: colour,
                  '&:hover, &[aria-expanded=true]': { color: colour },
                  '&:focus-visible': { outline: '3px solid', outlineColor: 'primary.main', outlineOffset: 3 },
                }}
              >
                {withFractions(words)}
              </Box>
              {after ? !joined(part, after) && ',' : '.'}
            </Box>
            {after && (joined(part, after) ?? ' ')}
          </Fragment>
        );
      })}
    </Typography>
  );
}
