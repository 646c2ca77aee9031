import { useQueryClient } from '@tanstack/react-query';
import { useCallback, useEffect, useRef, useState } from 'react';
import { useNavigate } from 'react-router';
import { nowIs } from '../api/changed';
import { Conflicting, unreachable, type Draft, type RingTold } from '../api/client';
import { keys, useRingChanges } from '../api/queries';
import { useTell } from '../app/Notices';
import { begin } from './draft';
import { forget, keep } from './keeping';
import type { PlanState } from './PlanScreen';
import type { Keeping } from './Toolbar';

interface Desk {
  ring: RingTold | undefined;
  draft: Draft;
  revision: number;
  changed: boolean;
  replace: (draft: Draft, revision: number) => void;
  settle: (sent: Draft, told: RingTold) => void;
}

const carry = (told: RingTold, draft: Draft) => keep(told.id, begin({ draft, revision: told.revision }));

/** Saving: once, however often it is asked for; as soon as the server answers again, when it doesn't. */
export function useKeeping({ ring, draft, revision, changed, replace, settle }: Desk) {
  const queries = useQueryClient();
  const navigate = useNavigate();
  const tell = useTell();
  const { create, save: saveRevision } = useRingChanges();
  const [conflict, setConflict] = useState<Conflicting | null>(null);
  // A new ring goes out under one key until it is there: sent twice, it is saved once.
  const key = useRef<string | null>(null);
  const busy = useRef(false);
  const newest = useRef(draft);
  useEffect(() => {
    newest.current = draft;
  }, [draft]);
  const { mutate: createRing } = create;
  const { mutate: saveRing } = saveRevision;

  const failed = useCallback(
    (error: Error) => {
      busy.current = false;
      if (error instanceof Conflicting) setConflict(error);
      else tell({ text: `Not saved: ${error.message}` });
    },
    [tell],
  );
  const stored = useCallback(
    (told: RingTold) => {
      busy.current = false;
      nowIs(queries, keys.ring(told.id), told);
      tell({ text: `“${told.file.title}” is saved.` });
    },
    [queries, tell],
  );
  const createFrom = useCallback(
    (sent: Draft) => {
      if (busy.current) return;
      busy.current = true;
      key.current ??= crypto.randomUUID();
      createRing(
        { draft: sent, key: key.current },
        {
          onSuccess: (told) => {
            stored(told);
            setConflict(null);
            if (ring) {
              // A copy has a desk of its own; what was typed since goes on there.
              if (newest.current !== draft) carry(told, { ...newest.current, title: sent.title });
              forget(ring.id);
            } else {
              // This desk goes on at the ring's own address: nothing is sent from here until it stands there.
              busy.current = true;
              settle(sent, told);
            }
            void navigate(`/plan/${told.id}`, { state: { savedHere: !ring } satisfies PlanState });
          },
          onError: failed,
        },
      );
    },
    [createRing, stored, settle, ring, draft, navigate, failed],
  );
  const ringId = ring?.id;
  useEffect(() => {
    busy.current = false;
    key.current = null;
  }, [ringId]);
  const save = useCallback(() => {
    if (!ring) createFrom(draft);
    else if (!busy.current) {
      busy.current = true;
      saveRing(
        { id: ring.id, draft, revision, key: crypto.randomUUID() },
        {
          onSuccess: (told) => {
            stored(told);
            settle(draft, told);
          },
          onError: failed,
        },
      );
    }
  }, [ring, draft, revision, createFrom, saveRing, stored, settle, failed]);

  const pending = create.isPending || saveRevision.isPending;
  const waiting = pending && (unreachable(create.failureReason) || unreachable(saveRevision.failureReason));
  const keeping: Keeping = waiting ? 'waiting' : pending ? 'sending' : !ring ? 'new' : changed ? 'changed' : 'kept';

  /** Another ring on the desk, at the address of a new one; the one before can be taken back there. */
  const layOut = (next: Draft) => {
    if (ring) {
      void navigate('/plan', { state: { laidOut: next } });
    } else replace(next, 0);
  };
  return {
    save,
    keeping,
    layOut,
    conflict,
    closeConflict: () => setConflict(null),
    takeTheirs: () => {
      if (conflict) {
        nowIs(queries, keys.ring(conflict.current.id), conflict.current);
        replace(conflict.current.file, conflict.current.revision);
      }
      setConflict(null);
    },
    keepAsCopy: () => {
      const title = typeof draft.title === 'string' && draft.title ? draft.title.slice(0, 113) : 'Ring';
      createFrom({ ...draft, title: `${title} (copy)` });
    },
  };
}
