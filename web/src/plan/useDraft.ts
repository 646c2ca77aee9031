import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import type { Draft, RingTold } from '../api/client';
import {
  begin,
  edited,
  exchanged,
  FIRST_RING,
  redone,
  replaced,
  rested,
  saved,
  undone,
  type Exchange,
  type History,
} from './draft';
import { beat, forget, HEARTBEAT, keep, takeUp } from './keeping';
import type { RingPath } from './ringPaths';

/** The ring being typed, with its history. It is kept in the browser at every change, until it is saved. */
export function useDraft(ring: RingTold | undefined, laidOut: Draft | undefined) {
  const ringId = ring?.id;
  // An unsaved ring lay here when another desk laid this one out.
  const [covered] = useState(() => laidOut !== undefined && takeUp(ringId) !== null);
  const [history, setHistory] = useState<History>(() => {
    const there =
      takeUp(ringId) ??
      begin(ring ? { draft: ring.file, revision: ring.revision } : { draft: FIRST_RING, revision: 0 });
    // What another ring's desk laid out here; what stood here before can be taken back.
    return laidOut ? replaced(there, { draft: laidOut, revision: 0 }) : there;
  });
  const { present } = history;
  const original = ring ? ring.file : FIRST_RING;
  const changed = useMemo(() => JSON.stringify(present.draft) !== JSON.stringify(original), [present.draft, original]);

  // After the figures are on the screen: writing it down must not hold them up.
  useEffect(() => {
    if (changed) keep(ringId, history);
    else forget(ringId);
  }, [ringId, history, changed]);
  // A new ring that was saved from this desk leaves no draft of a new ring behind.
  const was = useRef(ringId);
  useEffect(() => {
    if (was.current !== ringId) forget(was.current);
    was.current = ringId;
  }, [ringId]);
  // Each visit of a field is an edit of its own.
  useEffect(() => {
    const onFocus = () => setHistory(rested);
    window.addEventListener('focusin', onFocus);
    return () => window.removeEventListener('focusin', onFocus);
  }, []);
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
  const exchange = useCallback((...parts: Exchange[]) => setHistory((h) => exchanged(h, parts)), []);
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
    covered,
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
