import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import { useEffect, useRef, useState } from 'react';
import type { Plan } from '../api/client';
import { figures } from '../app/theme';
import { usePreferences } from '../preferences/Preferences';
import { firstAndOther, mm, withFractions } from '../words/figures';
import { hasSize } from '../words/sized';
import { useDesk, type Standing } from './Desk';
import { alike } from './pieces';

const SAYS: Record<Standing, string> = {
  fresh: '',
  working: 'Working it out …',
  refused: 'Not these: the sentence asks for something that can’t be made. Mend what is marked.',
  unreachable: 'The server doesn’t answer. What you type is kept here; the figures come back with it.',
};
/** Typing rests for so long before the answer is read out [ms]. */
const RESTS = 900;

interface Answer {
  name: string;
  value: string;
  beside: string;
  strong?: boolean;
}

/** What a maker acts on, in their own units and systems: where to start, what to cut and mark, what comes off. */
function answersOf(plan: Plan, second: string, mandrel: string): Answer[] {
  const overlap = plan.band.sized_by === 'overlap';
  const found: Answer[] = [];
  if (hasSize(plan))
    found.push({
      name: `${overlap ? 'Form it at' : 'Start, form it at'}${mandrel && `, on “${mandrel}”`}`,
      value: withFractions(plan.start.mark),
      beside: plan.guide ? `guide bent at ${withFractions(plan.guide.mark)}` : withFractions(plan.start.mark_too),
      strong: true,
    });
  for (const { wire, count } of alike(plan.wires)) {
    const [value, other] = firstAndOther(wire.cut);
    const mark = wire.marks.find((m) => m.kind === 'mark');
    const several = plan.wires.length > count ? `, ${wire.role}` : '';
    found.push({
      name: wire.from_reel ? `Off the reel${several}` : `Cut${several}`,
      value: `${count > 1 ? `${count} × ` : ''}${value}`,
      beside: [other, mark && !wire.from_reel ? `${mark.label} at ${withFractions(mark.at)}` : '']
        .filter(Boolean)
        .join(' · '),
    });
  }
  const weighs = `${mm(plan.band.mass_g, 1)} g`;
  found.push(
    hasSize(plan)
      ? {
          name: 'Comes off',
          value: withFractions(plan.finished.said),
          beside: [withFractions(plan.finished.exact[second] ?? ''), weighs].filter(Boolean).join(' · '),
        }
      : { name: 'Weighs', value: weighs, beside: `${withFractions(plan.band.height)} high` },
  );
  return found;
}

/** The answer, always in view: no figure in it ever looks current that isn't. */
export function AnswerBar() {
  const { plan, standing } = useDesk();
  const [{ systems, mandrel }] = usePreferences();
  const bar = useRef<HTMLDivElement>(null);
  useEffect(() => {
    const element = bar.current;
    if (!element) return undefined;
    // What lies above it (the sheet where parts are set, the page's end) keeps clear of it.
    const measure = () => document.documentElement.style.setProperty('--answer', `${element.offsetHeight}px`);
    const observer = new ResizeObserver(measure);
    observer.observe(element);
    measure();
    return () => observer.disconnect();
  }, []);
  const answers = plan ? answersOf(plan, systems[1], mandrel?.name ?? '') : [];
  const stale = standing !== 'fresh';
  const told = stale ? SAYS[standing] : answers.map((a) => `${a.name} ${a.value}`).join(', ');
  return (
    <Box
      ref={bar}
      component="section"
      aria-label="The answer"
      data-testid="answer"
      data-standing={standing}
      sx={{
        bgcolor: 'sheet',
        borderTop: 2,
        borderColor: standing === 'refused' || standing === 'unreachable' ? 'error.main' : 'primary.main',
        position: { xs: 'fixed', lg: 'sticky' },
        bottom: { xs: 0, lg: 'auto' },
        top: { lg: 0 },
        left: 0,
        right: 0,
        zIndex: 6,
        px: { xs: 2, sm: 3, lg: 4, xl: 7.5 },
        py: { xs: 0.75, sm: 1, lg: 1.25 },
        minHeight: { lg: 92 },
      }}
    >
      <Box
        sx={{
          display: 'grid',
          columnGap: { xs: 2, sm: 4 },
          rowGap: 0.5,
          gridTemplateColumns: { xs: 'repeat(2, minmax(0, 1fr))', sm: `repeat(${Math.max(2, answers.length)}, auto)` },
          justifyContent: { sm: 'start' },
        }}
      >
        {answers.map((answer, k) => (
          <Box key={k} sx={{ minWidth: 0 }}>
            <Typography
              variant="body2"
              color="text.secondary"
              sx={{ fontSize: { xs: '0.8rem', sm: '0.9rem' }, lineHeight: 1.3 }}
            >
              {answer.name}
            </Typography>
            <Typography
              component="p"
              data-testid={
                answer.name.startsWith('Cut') || answer.name.startsWith('Off')
                  ? 'cut'
                  : answer.strong
                    ? 'start'
                    : 'finish'
              }
              sx={{
                fontFamily: answer.strong ? undefined : figures,
                fontWeight: 750,
                fontSize: answer.strong ? { xs: '1.35rem', sm: '1.75rem' } : { xs: '1.1rem', sm: '1.35rem' },
                lineHeight: 1.2,
                color: stale ? 'text.secondary' : answer.strong ? 'primary.main' : 'text.primary',
                textDecoration: stale ? 'line-through' : 'none',
                // A plan that is there within a blink isn't struck through first.
                transition: standing === 'working' ? 'color 0s 120ms, text-decoration-color 0s 120ms' : 'none',
              }}
            >
              {answer.value}
            </Typography>
            <Typography
              variant="body2"
              color="text.secondary"
              sx={{
                fontSize: { xs: '0.8rem', sm: '0.9rem' },
                lineHeight: 1.3,
                textDecoration: stale ? 'line-through' : 'none',
              }}
            >
              {answer.beside}
            </Typography>
          </Box>
        ))}
      </Box>
      {(standing === 'refused' || standing === 'unreachable' || !plan) && (
        <Typography
          sx={{
            fontWeight: 650,
            color: standing === 'working' ? 'text.primary' : 'error.main',
            mt: 0.25,
            fontSize: { xs: '0.9rem', sm: '1rem' },
          }}
        >
          {SAYS[standing === 'fresh' ? 'working' : standing]}
        </Typography>
      )}
      <Rested text={told} />
    </Box>
  );
}

/** The page's one live region: it speaks when typing rests. */
function Rested({ text }: { text: string }) {
  const [said, setSaid] = useState('');
  useEffect(() => {
    const timer = setTimeout(() => setSaid(text), RESTS);
    return () => clearTimeout(timer);
  }, [text]);
  return (
    <Box
      aria-live="polite"
      role="status"
      sx={{
        position: 'absolute',
        width: 1,
        height: '1px',
        maxWidth: '1px',
        overflow: 'hidden',
        clipPath: 'inset(50%)',
        whiteSpace: 'nowrap',
      }}
    >
      {said}
    </Box>
  );
}
