import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import { useQueryClient } from '@tanstack/react-query';
import { useCallback, useDeferredValue, useEffect, useMemo, useState } from 'react';
import { useNavigate } from 'react-router';
import { Conflicting, Refused, type Draft, type Plan, type RingTold } from '../api/client';
import { usePlan, useRingChanges, useScales } from '../api/queries';
import { useTell } from '../app/Notices';
import { MandrelRule } from '../drawings/MandrelRule';
import type { Stretch } from '../drawings/RingView';
import { usePreferences } from '../preferences/Preferences';
import { ConflictDialog } from './ConflictDialog';
import { CutList } from './CutList';
import { DeskProvider } from './Desk';
import { FIRST_RING, forgetDraft, keepDraft, useDraft } from './draft';
import { Strips } from './Drawings';
import { Mind } from './Mind';
import { PrintSheet } from './PrintSheet';
import { RingList } from './RingList';
import { RingPictures } from './RingPictures';
import { Sentence } from './Sentence';
import { Steps } from './Steps';
import { TitleBar } from './TitleBar';
import { usePrinting } from './usePrinting';
import { Weave } from './Weave';
import { Contributions, Schools } from './Why';

const gutter = { xs: 2, sm: 3, lg: 7.5 };

/** One ring on the desk: its sentence, its wires, where to start, what it looks like, what to cut. */
export function PlanDesk({ saved }: { saved: RingTold | undefined }) {
  const { draft, revision, changed, change, replace } = useDraft(saved);
  const [{ units, systems }] = usePreferences();
  const planned = usePlan(draft, { units, sizes: systems.join(',') });
  const [plan, setPlan] = useState<Plan>();
  // While something can't be planned, the last plan stays in sight.
  if (planned.data && planned.data !== plan) setPlan(planned.data);
  const problems = useMemo(() => (planned.error instanceof Refused ? planned.error.problems : []), [planned.error]);
  const desk = useMemo(() => ({ draft, change, plan, problems }), [draft, change, plan, problems]);
  const [active, setActive] = useState<Stretch | null>(null);
  const [listOpen, setListOpen] = useState(false);
  const actions = useDeskActions(saved, draft, revision, replace);
  const { save } = actions;
  const printing = usePrinting();

  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if ((event.ctrlKey || event.metaKey) && event.key.toLowerCase() === 's') {
        event.preventDefault();
        save();
      }
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, [save]);

  return (
    <DeskProvider value={desk}>
      <Box sx={{ px: gutter, maxWidth: 1600, mx: 'auto', '@media print': { display: 'none' } }}>
        <TitleBar
          canSave={problems.length === 0 && (changed || !saved)}
          saved={saved !== undefined && !changed}
          saving={actions.saving}
          onSave={save}
          onRings={() => setListOpen(true)}
          onNew={actions.startNew}
          onCopy={actions.keepAsCopy}
          onExport={actions.writeFile}
          onImport={actions.openFile}
        />
      </Box>
      {plan && printing && <PrintSheet plan={plan} />}
      <Box component="main" sx={{ '@media print': { display: 'none' } }}>
        <Box sx={{ px: gutter, pb: 1.5, maxWidth: 1600, mx: 'auto' }}>
          <Sentence />
          <Mind />
        </Box>
        {plan ? (
          <Box sx={{ opacity: problems.length > 0 ? 0.45 : 1, transition: 'opacity 120ms' }}>
            <Box sx={{ bgcolor: 'sheet', px: gutter }}>
              <Box sx={{ maxWidth: 1600 - 120, mx: 'auto' }}>
                <Weave plan={plan} />
                <Strips plan={plan} active={active} onActive={setActive} />
              </Box>
            </Box>
            <Lower plan={plan} active={active} onActive={setActive} />
          </Box>
        ) : (
          <Typography role="status" sx={{ px: gutter, py: 4 }}>
            {planned.isError ? planned.error.message : 'Working it out …'}
          </Typography>
        )}
      </Box>
      <RingList open={listOpen} onClose={() => setListOpen(false)} onRemoved={actions.removed} />
      <ConflictDialog
        conflict={actions.conflict}
        onTakeTheirs={actions.takeTheirs}
        onKeepMine={actions.keepAsCopy}
        onClose={actions.closeConflict}
      />
    </DeskProvider>
  );
}

function Lower({
  plan,
  active,
  onActive,
}: {
  plan: Plan;
  active: Stretch | null;
  onActive: (stretch: Stretch | null) => void;
}) {
  const scales = useScales().data ?? [];
  const [{ systems }] = usePreferences();
  // The figures come first; what takes longer to draw follows a moment later.
  const later = useDeferredValue(plan);
  return (
    <Box sx={{ px: gutter, py: 2.5, maxWidth: 1600, mx: 'auto' }}>
      <Box
        sx={{
          display: 'grid',
          gap: 3,
          alignItems: 'start',
          gridTemplateColumns: { xs: '1fr', sm: '1fr 1fr', lg: '372px minmax(280px, 1fr) 370px' },
        }}
      >
        <MandrelRule plan={plan} scales={scales} systems={systems} />
        <RingPictures plan={later} active={active} onActive={onActive} />
        <Box
          sx={{
            gridColumn: { sm: '1 / -1', lg: 'auto' },
            display: 'grid',
            columnGap: 6,
            gridTemplateColumns: { sm: '1fr 1fr', lg: '1fr' },
          }}
        >
          <CutList />
          <Box>
            <Contributions plan={plan} />
            <Schools />
          </Box>
        </Box>
      </Box>
      <Steps plan={later} />
    </Box>
  );
}

/** Everything that is done with the ring as a whole. */
function useDeskActions(
  saved: RingTold | undefined,
  draft: Draft,
  revision: number,
  replace: (draft: Draft, revision: number) => void,
) {
  const queries = useQueryClient();
  const navigate = useNavigate();
  const tell = useTell();
  const { create, save: saveRevision } = useRingChanges();
  const [conflict, setConflict] = useState<Conflicting | null>(null);
  const { mutate: createRing } = create;
  const { mutate: saveRing } = saveRevision;

  const stored = useCallback(
    (ring: RingTold) => {
      queries.setQueryData(['ring', ring.id], ring);
      forgetDraft(saved?.id);
      tell({ text: `“${ring.file.title}” is saved.` });
    },
    [queries, saved?.id, tell],
  );
  const failed = useCallback(
    (error: Error) => {
      if (error instanceof Conflicting) setConflict(error);
      else tell({ text: `Not saved: ${error.message}` });
    },
    [tell],
  );
  const createFrom = useCallback(
    (from: Draft) =>
      createRing(from, {
        onSuccess: (ring) => {
          stored(ring);
          setConflict(null);
          void navigate(`/plan/${ring.id}`);
        },
        onError: failed,
      }),
    [createRing, stored, navigate, failed],
  );
  const show = (ring: RingTold) => {
    queries.setQueryData(['ring', ring.id], ring);
    replace(ring.file, ring.revision);
  };
  const save = useCallback(() => {
    if (!saved) createFrom(draft);
    else
      saveRing(
        { id: saved.id, draft, revision },
        {
          onSuccess: (ring) => {
            stored(ring);
            replace(ring.file, ring.revision);
          },
          onError: failed,
        },
      );
  }, [saved, draft, revision, createFrom, saveRing, stored, replace, failed]);

  const deskWith = (next: Draft) => {
    if (saved) {
      keepDraft(undefined, { draft: next, revision: 0 });
      void navigate('/plan');
    } else {
      replace(next, 0);
      keepDraft(undefined, { draft: next, revision: 0 });
    }
  };
  const openFile = async (file: File) => {
    try {
      const read: unknown = JSON.parse(await file.text());
      if (typeof read !== 'object' || read === null || Array.isArray(read))
        throw new SyntaxError('a ring file is one JSON object');
      deskWith(read as Draft);
      tell({ text: `“${file.name}” is on the desk. Save keeps it.` });
    } catch (error) {
      tell({
        text: `“${file.name}” isn’t a ring file: ${error instanceof Error ? error.message : 'it can’t be read'}`,
      });
    }
  };
  return {
    save,
    saving: create.isPending || saveRevision.isPending,
    conflict,
    closeConflict: () => setConflict(null),
    takeTheirs: () => {
      if (conflict) show(conflict.current);
      setConflict(null);
    },
    keepAsCopy: () =>
      createFrom({ ...draft, title: `${typeof draft.title === 'string' ? draft.title.slice(0, 113) : 'Ring'} (copy)` }),
    startNew: () => deskWith(FIRST_RING),
    removed: (id: string) => {
      if (id === saved?.id) void navigate('/plan');
    },
    writeFile: () => {
      const name = (typeof draft.title === 'string' ? draft.title : '').toLowerCase().replace(/[^a-z0-9]+/g, '-');
      const link = document.createElement('a');
      link.href = URL.createObjectURL(new Blob([JSON.stringify(draft, null, 2)], { type: 'application/json' }));
      link.download = `${name.replace(/^-|-$/g, '') || 'ring'}.ring.json`;
      link.click();
      URL.revokeObjectURL(link.href);
    },
    openFile: (file: File) => void openFile(file),
  };
}
