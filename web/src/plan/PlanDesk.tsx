import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import { useQueryClient } from '@tanstack/react-query';
import { memo, Suspense, useCallback, useDeferredValue, useEffect, useMemo, useState, type ReactNode } from 'react';
import { useNavigate } from 'react-router';
import { Refused, unreachable, type Draft, type Plan, type RingTold } from '../api/client';
import { useBegin } from '../api/bench';
import { choicesOf, usePlan, useScales } from '../api/queries';
import { laterPart } from '../app/fetched';
import { useTell } from '../app/Notices';
import { MandrelRule } from '../drawings/MandrelRule';
import type { Stretch } from '../drawings/RingView';
import { hasSize } from '../words/sized';
import { usePreferences, useReader } from '../preferences/Preferences';
import { Sheet } from '../ui/Sheet';
import { AnswerBar } from './AnswerBar';
import { ConflictDialog } from './ConflictDialog';
import { CuttingControl, FingerControl, FinishControl, WireControl } from './controls';
import { CutList } from './CutList';
import { DeskProvider, type Standing } from './Desk';
import { FIRST_RING } from './draft';
import { Strips } from './Drawings';
import { Mind } from './Mind';
import { Resize } from './Resize';
import { RingList } from './RingList';
import { RingPictures } from './RingPictures';
import { readRingText, writeRingFile } from './ringFile';
import { nameOf, Sentence } from './Sentence';
import { Several } from './Several';
import { Steps } from './Steps';
import { decisive, StyleControl } from './StyleControl';
import { Toolbar } from './Toolbar';
import { useDraft } from './useDraft';
import { useKeeping } from './useKeeping';
import { Tops } from './Tops';
import { Weave } from './Weave';
import { Contributions, Habit } from './Why';

// Paper is looked at last: it comes when everything else stands, and is there before anybody prints.
const BenchCard = laterPart(() => import('./BenchCard'));

const gutter = { xs: 2, sm: 3, lg: 4, xl: 7.5 };

/** What sets a phrase of the sentence. */
const control = (part: string): ReactNode => {
  if (part.startsWith('wires.')) return <WireControl role={part.slice(6)} />;
  if (part === 'several') return <Several />;
  if (part === 'finger') return <FingerControl />;
  if (part === 'finish') return <FinishControl />;
  if (part === 'sizing') return <CuttingControl />;
  return <StyleControl kind={part === 'head' ? 'head' : 'band'} />;
};

interface Props {
  saved: RingTold | undefined;
  /** A ring that another desk laid out here: a new one, or one from a file. */
  laidOut: Draft | undefined;
}

/** One ring on the desk: its sentence, the answer, its wires, where to start, how it is made, and why. */
export function PlanDesk({ saved, laidOut }: Props) {
  const desk = useDraft(saved, laidOut);
  const { draft, revision, changed, change, exchange, replace, settle, undo, redo } = desk;
  const [{ hand }] = usePreferences();
  const planned = usePlan(draft, useReader(), hand);
  const [plan, setPlan] = useState<Plan>();
  // While something can't be planned, the last plan stays in sight.
  if (planned.data && planned.data !== plan) setPlan(planned.data);
  const card = useDeferredValue(plan, undefined);
  const away = unreachable(planned.failureReason);
  const problems = useMemo(
    () => (!away && planned.error instanceof Refused ? planned.error.problems : []),
    [planned.error, away],
  );
  const waiting = planned.isPlaceholderData || !planned.data;
  const standing: Standing = problems.length > 0 ? 'refused' : away ? 'unreachable' : waiting ? 'working' : 'fresh';
  const shared = useMemo(
    () => ({ draft, change, exchange, undo, plan, problems, standing }),
    [draft, change, exchange, undo, plan, problems, standing],
  );
  const [active, setActive] = useState<Stretch | null>(null);
  const [listOpen, setListOpen] = useState(false);
  const [part, setPart] = useState<string | null>(null);
  const keeping = useKeeping({ ring: saved, draft, revision, changed, replace, settle });
  const { save } = keeping;
  const tell = useTell();
  const { covered } = desk;
  useEffect(() => {
    if (covered) tell({ text: 'What lay here before wasn’t saved. Undo brings it back.', undo });
  }, [covered, tell, undo]);
  const queries = useQueryClient();
  const reader = useReader();
  // With what was taken beside what was asked; without the server, as it was typed.
  const exportFile = async () => {
    const choices = await queries
      .query({ ...choicesOf(decisive(draft), reader), staleTime: 'static' })
      .catch(() => undefined);
    writeRingFile(choices ? { ...draft, taken: choices.taken } : draft);
  };
  const navigate = useNavigate();

  const close = useCallback(() => {
    // Focus goes on where the maker was.
    document.getElementById(`phrase-${part}`)?.focus();
    setPart(null);
  }, [part]);
  const open = (next: string) => {
    if (next === part) close();
    else {
      setPart(next);
      requestAnimationFrame(() => document.getElementById(`phrase-${next}`)?.scrollIntoView({ block: 'nearest' }));
    }
  };
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (!(event.ctrlKey || event.metaKey)) return;
      const key = event.key.toLowerCase();
      const act = key === 's' ? save : key === 'z' ? (event.shiftKey ? redo : undo) : key === 'y' ? redo : null;
      if (!act) return;
      event.preventDefault();
      // A key held down saves once.
      if (key !== 's' || !event.repeat) act();
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, [save, undo, redo]);
  const title = typeof draft.title === 'string' && draft.title ? draft.title : 'A ring';
  useEffect(() => {
    document.title = `${title} · Plan · Pliant Coil`;
  }, [title]);

  const { mutate: begin, isPending: beginning } = useBegin();
  const toBench = () => {
    if (beginning) return;
    begin(
      { draft, key: crypto.randomUUID() },
      {
        onSuccess: (job) => void navigate(`/bench/${job.id}`),
        onError: (error) => tell({ text: `Not on the bench: ${error.message}` }),
      },
    );
  };
  const openFile = async (file: File) => {
    try {
      keeping.layOut(readRingText(await file.text()));
      tell({ text: `“${file.name}” is on the desk; Undo takes back what was there. Save keeps it.` });
    } catch (error) {
      tell({
        text: `“${file.name}” isn’t a ring file: ${error instanceof Error ? error.message : 'it can’t be read'}`,
      });
    }
  };

  return (
    <DeskProvider value={shared}>
      <Box sx={{ display: 'flex', alignItems: 'flex-start', '@media print': { display: 'none' } }}>
        <Box component="main" sx={{ flex: 1, minWidth: 0, pb: { xs: part ? '50dvh' : 'var(--answer, 0px)', lg: 0 } }}>
          <Box sx={{ px: gutter, maxWidth: 1600, mx: 'auto' }}>
            <Sentence open={part} onOpen={open} />
            <Toolbar
              keeping={keeping.keeping}
              canSave={problems.length === 0}
              canUndo={desk.canUndo}
              canRedo={desk.canRedo}
              onSave={save}
              onUndo={undo}
              onRedo={redo}
              onRings={() => setListOpen(true)}
              onNew={() => {
                keeping.layOut(FIRST_RING);
                if (changed && !saved) tell({ text: 'What lay here wasn’t saved. Undo brings it back.', undo });
              }}
              onCopy={keeping.keepAsCopy}
              onSettings={() => open('sizing')}
              onBench={toBench}
              onSeveral={() => open('several')}
              onExport={() => void exportFile()}
              onImport={(file) => void openFile(file)}
            />
          </Box>
          <AnswerBar />
          <Box sx={{ px: gutter, maxWidth: 1600, mx: 'auto' }}>
            <Mind />
          </Box>
          {plan ? (
            <Page
              plan={plan}
              stale={standing === 'refused' || standing === 'unreachable'}
              active={active}
              onActive={setActive}
            />
          ) : (
            <Typography sx={{ px: gutter, py: 4 }}>
              {planned.isError && !away ? planned.error.message : 'The ring is being worked out.'}
            </Typography>
          )}
        </Box>
        {part && (
          <Sheet title={nameOf(part)} onClose={close}>
            {control(part)}
          </Sheet>
        )}
      </Box>
      {card && (
        <Suspense fallback={null}>
          <BenchCard plan={card} stands={card === plan && standing === 'fresh'} />
        </Suspense>
      )}
      <RingList
        open={listOpen}
        onClose={() => setListOpen(false)}
        onRemoved={(id) => {
          // The ring stays on the desk, as a new one that isn't saved.
          if (id === saved?.id) keeping.layOut(draft);
        }}
      />
      <ConflictDialog
        conflict={keeping.conflict}
        draft={draft}
        onTakeTheirs={keeping.takeTheirs}
        onKeepMine={keeping.keepAsCopy}
        onClose={keeping.closeConflict}
      />
    </DeskProvider>
  );
}

interface PageProps {
  plan: Plan;
  /** The figures are those of an earlier ring. */
  stale: boolean;
  active: Stretch | null;
  onActive: (stretch: Stretch | null) => void;
}

/** The order of the bench: cut and mark, start, how; why and what-if after that. A letter typed draws it anew only with its plan. */
const Page = memo(function Page({ plan, stale, active, onActive }: PageProps) {
  const scales = useScales(useReader()).data ?? [];
  const [{ systems }] = usePreferences();
  // The figures come first; what takes longer to draw follows a moment later.
  const later = useDeferredValue(plan);
  return (
    // Nothing of an earlier ring looks current: its figures are struck through, its metal is grey.
    <Box
      sx={stale ? { filter: 'grayscale(1)', '& text, & p, & span, & strong': { textDecoration: 'line-through' } } : {}}
    >
      <Box sx={{ bgcolor: 'sheet', px: gutter, borderTop: 1, borderColor: 'divider' }}>
        <Box sx={{ maxWidth: 1480, mx: 'auto' }}>
          <Strips plan={plan} active={active} onActive={onActive} />
          <Weave plan={plan} />
          <Tops plan={plan} />
        </Box>
      </Box>
      <Box sx={{ px: gutter, py: 2.5, maxWidth: 1600, mx: 'auto' }}>
        <Box
          sx={{
            display: 'grid',
            gap: 3,
            alignItems: 'start',
            gridTemplateColumns: { xs: '1fr', sm: hasSize(later) ? '1fr 1fr' : '1fr' },
          }}
        >
          {hasSize(later) && <MandrelRule plan={later} scales={scales} systems={systems} />}
          <RingPictures plan={later} active={active} onActive={onActive} />
        </Box>
        <Steps plan={later} />
        <Box
          sx={{ display: 'grid', columnGap: 6, rowGap: 2, mt: 3, gridTemplateColumns: { xs: '1fr', sm: '1fr 1fr' } }}
        >
          <Box>
            <Contributions plan={later} />
            <Habit />
            <Resize />
          </Box>
          <CutList />
        </Box>
      </Box>
    </Box>
  );
});
