import { useCallback, useEffect, useState } from 'react';
import type { Draft, RingTold } from '../api/client';

/** What an untouched Plan screen shows: a ring that can be made, so that every figure has something to say. */
export const FIRST_RING: Draft = {
  format: 'pliant-coil/ring',
  version: 2,
  title: '',
  finger: { size: 'US 6 1/2' },
  wires: { band: { diameter: '20 AWG', metal: 'copper', temper: 'soft' } },
  band: { style: 'turned', winding: 'both-ways', turns: 1 },
  head: { style: 'bead-lock', bead: { shape: 'round', diameter_mm: 7, hole_mm: 1.1 } },
  finish: { wraps_each_side: 2 },
  sizing: { school: 'geometry', risk_of_running_out: 0.02, tape: '5 mm', tail: 'pliers' },
};

const key = (ringId: string | undefined) => `pliant-coil.draft.${ringId ?? 'new'}`;

interface Kept {
  draft: Draft;
  /** The revision that the draft was made from; 0 for a new ring. */
  revision: number;
}

function load(ringId: string | undefined): Kept | null {
  try {
    return JSON.parse(localStorage.getItem(key(ringId)) ?? 'null') as Kept | null;
  } catch {
    return null;
  }
}

export const forgetDraft = (ringId: string | undefined) => localStorage.removeItem(key(ringId));
export const keepDraft = (ringId: string | undefined, kept: Kept) =>
  localStorage.setItem(key(ringId), JSON.stringify(kept));

/** The value at a dotted path, undefined where the way ends early. */
export const valueAt = (draft: Draft, path: string): unknown =>
  path
    .split('.')
    .reduce<unknown>((at, step) => (at && typeof at === 'object' ? (at as Draft)[step] : undefined), draft);

/** `draft` with another value at a dotted path; undefined takes the field out. */
export function withValue(draft: Draft, path: string, value: unknown): Draft {
  const [step = '', ...rest] = path.split('.');
  const next = { ...draft };
  if (rest.length > 0) {
    const inner = next[step];
    next[step] = withValue(inner && typeof inner === 'object' ? (inner as Draft) : {}, rest.join('.'), value);
  } else if (value === undefined) {
    return Object.fromEntries(Object.entries(next).filter(([name]) => name !== step));
  } else {
    next[step] = value;
  }
  return next;
}

/** The ring being typed. It is kept in the browser at every change, until it is saved. */
export function useDraft(saved: RingTold | undefined) {
  const ringId = saved?.id;
  const [{ kept, edited }, setState] = useState<{ kept: Kept; edited: boolean }>(() => ({
    kept:
      load(ringId) ?? (saved ? { draft: saved.file, revision: saved.revision } : { draft: FIRST_RING, revision: 0 }),
    edited: false,
  }));
  // After the figures are on the screen: writing it down must not hold them up.
  useEffect(() => {
    if (edited) keepDraft(ringId, kept);
  }, [ringId, kept, edited]);
  const change = useCallback(
    (path: string, value: unknown) =>
      setState(({ kept: before }) => ({
        kept: { ...before, draft: withValue(before.draft, path, value) },
        edited: true,
      })),
    [],
  );
  const replace = useCallback(
    (draft: Draft, revision: number) => {
      forgetDraft(ringId);
      setState({ kept: { draft, revision }, edited: false });
    },
    [ringId],
  );
  const original = saved ? saved.file : FIRST_RING;
  return { ...kept, changed: JSON.stringify(kept.draft) !== JSON.stringify(original), change, replace };
}
