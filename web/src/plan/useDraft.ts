import { useCallback, useEffect, useMemo, useState } from 'react';
import type { Draft, RingTold } from '../api/client';
import { begin, edited, exchanged, FIRST_RING, redone, replaced, saved, undone, type History } from './draft';
import { beat, forget, HEARTBEAT, keep, takeUp } from './keeping';
import type { RingPath } from './ringPaths';

/** The ring being typed, with its history. It is kept in the browser at every change, until it is saved. */
export function useDraft(ring: RingTold | undefined, laidOut: Draft | undefined) {
  const ringId = ring?.id;
  const [history, setHistory] = useState<History>(() => {
    const there = begin(
      takeUp(ringId) ?? (ring ? { draft: ring.file, revision: ring.revision } : { draft: FIRST_RING, revision: 0 }),
    );
    // What another ring's desk laid out here; what stood here before can be taken back.
    return laidOut ? replaced(there, { draft: laidOut, revision: 0 }) : there;
  });
  const { present } = history;
  const original = ring ? ring.file : FIRST_RING;
  const changed = useMemo(() => JSON.stringify(present.draft) !== JSON.stringify(original), [present.draft, original]);

  // After the figures are on the screen: writing it down must not hold them up.
  useEffect(() => {
    if (changed) keep(ringId, present);
    else forget(ringId);
  }, [ringId, present, changed]);
  useEffect(() => {
    const timer = setInterval(() => beat(ringId), HEARTBEAT);
    const release = () => beat(ringId, 0);
    window.addEventListener('pagehide', release);
    return () => {
      clearInterval(timer);
      window.removeEventListener('pagehide', release);
    };
  }, [ringId]);
  // Saved from somewhere else, and nothing typed here: the newest stands on the desk.
  const behind = ring !== undefined && !changed && ring.revision > present.revision;
  if (behind) setHistory(begin({ draft: ring.file, revision: ring.revision }));

  const change = useCallback((path: RingPath, value: unknown) => setHistory((h) => edited(h, path, value)), []);
  const exchange = useCallback(
    (part: RingPath, kind: string, from: string, usual: unknown) =>
      setHistory((h) => exchanged(h, part, kind, from, usual)),
    [],
  );
  const replace = useCallback(
    (draft: Draft, revision: number) => setHistory((h) => replaced(h, { draft, revision })),
    [],
  );
  const settle = useCallback(
    (sent: Draft, told: RingTold) => setHistory((h) => saved(h, sent, told.file, told.revision)),
    [],
  );
  return {
    ...present,
    changed,
    change,
    exchange,
    replace,
    settle,
    undo: useCallback(() => setHistory(undone), []),
    redo: useCallback(() => setHistory(redone), []),
    canUndo: history.past.length > 0,
    canRedo: history.future.length > 0,
  };
}
