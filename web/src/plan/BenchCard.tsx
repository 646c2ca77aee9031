import Box from '@mui/material/Box';
import { memo } from 'react';
import type { Drawing, Plan } from '../api/client';
import { bounds } from '../drawings/chunks';
import { RingView } from '../drawings/RingView';
import { solderWords } from '../drawings/solder';
import { UnrolledTop } from '../drawings/UnrolledTop';
import { waved } from '../drawings/unrolled';
import { WeaveChart } from '../drawings/WeaveChart';
import { WireStrip } from '../drawings/WireStrip';
import { usePreferences } from '../preferences/Preferences';
import { MM_PER_INCH, withFractions } from '../words/figures';
import { hasSize } from '../words/sized';
import { alike } from './pieces';

/** CSS fixes an inch at 96 px; a printer that doesn't scale makes it an inch. */
const PX_PER_MM = 96 / MM_PER_INCH;
const CHECK_MM = 50;
const nothing = () => undefined;

interface Props {
  plan: Plan;
  /** The plan is the one of the ring on the desk: no other is printed. */
  stands: boolean;
}

/** The ring on paper, always there to print: the answer, the marks, every step with a box to tick, and the wires at 1:1. */
const BenchCard = memo(function BenchCard({ plan, stands }: Props) {
  const [{ units, systems }] = usePreferences();
  const mark = (size: Plan['start']) => [size.mark, size.mark_too].filter(Boolean).map(withFractions).join(' · ');
  const said = (size: Plan['start']) => systems.map((code) => withFractions(size.exact[code] ?? '')).join(' · ');
  return (
    <Box
      data-testid="paper"
      sx={{
        display: 'none',
        '@media print': { display: stands ? 'block' : 'none' },
        color: '#000',
        fontSize: '10.5pt',
        lineHeight: 1.3,
        '& h2': { fontSize: '11.5pt', margin: '8pt 0 2pt' },
        '& p': { margin: '2pt 0' },
        '& dl': { display: 'grid', gridTemplateColumns: 'max-content 1fr', columnGap: '10pt', margin: '4pt 0' },
        '& dt': { fontWeight: 700 },
        '& dd': { margin: 0 },
        '& ol': { listStyle: 'none', margin: 0, padding: 0, columns: 2, columnGap: '18pt' },
        '& li': { breakInside: 'avoid', padding: '2pt 0 3pt 20pt', position: 'relative' },
        '& li::before': {
          content: '""',
          position: 'absolute',
          left: 0,
          top: '4pt',
          width: '10pt',
          height: '10pt',
          border: '1pt solid #000',
        },
      }}
    >
      <Box component="p" sx={{ fontSize: '15pt', fontWeight: 700 }}>
        {plan.title || (hasSize(plan) ? 'A ring' : 'An ornament')}
      </Box>
      <p>
        {hasSize(plan) ? 'A' : 'In'} {withFractions(plan.sentence.map((p) => p.text).join(', '))}.
      </p>
      {plan.notes && <p>{plan.notes}</p>}
      <dl>
        {hasSize(plan) && (
          <>
            <dt>Start, form it at</dt>
            <dd>
              {mark(plan.start)}, {plan.start.across} across
            </dd>
          </>
        )}
        {plan.guide && (
          <>
            <dt>Guide bent at</dt>
            <dd>{mark(plan.guide)}</dd>
          </>
        )}
        {alike(plan.wires).map(({ wire, index, count }) => (
          <FragmentOfCut key={index} wire={wire} count={count} />
        ))}
        {hasSize(plan) && (
          <>
            <dt>Comes off</dt>
            <dd>{said(plan.finished)}</dd>
          </>
        )}
      </dl>
      {plan.fit && <p>{withFractions(plan.fit.words)}</p>}
      {plan.warnings.map((w) => (
        <p key={w.code + w.field}>Mind: {withFractions(w.text)}</p>
      ))}
      <h2>At the bench</h2>
      <ol>
        {plan.steps.map((step, k) => (
          <li key={step.id}>
            {k + 1}. {withFractions(step.text)}
            {step.check && (
              <>
                {' '}
                <em>Check: {withFractions(step.check)}</em>
              </>
            )}
            {step.expected_mm !== null && ' Read: __________'}
            {step.cautions.map((caution) => (
              <p key={caution}>
                <strong>⚠</strong> {caution}
              </p>
            ))}
          </li>
        ))}
      </ol>
      <h2>The wires at 1:1</h2>
      <svg width={CHECK_MM * PX_PER_MM + 2} height="22" data-testid="scale-check" style={{ display: 'block' }}>
        <path d={`M 1 4 v 12 m 0 -6 h ${CHECK_MM * PX_PER_MM} m 0 -6 v 12`} stroke="#000" fill="none" />
      </svg>
      <p>
        Lay a ruler on this line: it is {CHECK_MM} mm (1 31/32 in). If it isn’t, print at 100 %, without fitting to the
        page.
      </p>
      {plan.fit && (
        <Box sx={{ breakInside: 'avoid', mb: 1 }}>
          <WeaveChart
            fit={plan.fit}
            baseMetal={plan.wires[0]?.metal ?? 'copper'}
            weaveMetal={plan.wires.at(-1)?.metal ?? 'copper'}
            units={units}
            pxPerMm={PX_PER_MM}
          />
        </Box>
      )}
      {plan.drawing && plan.wires.length > 0 && <FromAbove plan={plan} drawing={plan.drawing} />}
      {waved(plan) && (
        <Box sx={{ breakInside: 'avoid', mb: 1 }}>
          <p>The tops rolled out flat, to lever after; counted from their middle. {solderWords(plan.drawing)}.</p>
          <UnrolledTop plan={plan} units={units} pxPerMm={PX_PER_MM} />
        </Box>
      )}
      {alike(plan.wires).map(({ wire, index, count }) =>
        wire.from_reel ? null : (
          <Box key={index} sx={{ breakInside: 'avoid', mb: 1 }}>
            <p>
              {count > 1 ? `${count} pieces of ` : ''}
              {wire.role} wire, {wire.label}: {withFractions(wire.cut)}
            </p>
            <WireStrip wire={wire} active={null} onActive={nothing} units={units} pxPerMm={PX_PER_MM} />
          </Box>
        ),
      )}
    </Box>
  );
});
export default BenchCard;

/** The head as it lies, to lay the work on: of a ring what is seen from above, of an ornament all of it. */
function FromAbove({ plan, drawing }: { plan: Plan; drawing: Drawing }) {
  const [, , width, height] = bounds(drawing, plan, 'top');
  return (
    <Box sx={{ breakInside: 'avoid', mb: 1 }}>
      <p>From above, at 1:1:</p>
      <Box sx={{ width: `${width * PX_PER_MM}px`, height: `${height * PX_PER_MM}px` }} data-testid="from-above">
        <RingView plan={plan} side="top" />
      </Box>
    </Box>
  );
}

function FragmentOfCut({ wire, count }: { wire: Plan['wires'][number]; count: number }) {
  const marks = wire.marks.filter((m) => m.kind === 'mark').map((m) => `${m.label} at ${withFractions(m.at)}`);
  return (
    <>
      <dt>
        {wire.from_reel ? 'Off the reel' : 'Cut'}, {wire.role}
      </dt>
      <dd>
        {count > 1 ? `${count} × ` : ''}
        {withFractions(wire.cut)} of {wire.label}
        {marks.length > 0 && `; mark ${marks.join(', ')}`}
      </dd>
    </>
  );
}
