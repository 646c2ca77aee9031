import type { Draft } from '../api/client';
import type { RingPath } from './ringPaths';

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

/** The value at a dotted path, undefined where the way ends early. */
export const valueAt = (draft: Draft, path: RingPath): unknown =>
  path
    .split('.')
    .reduce<unknown>((at, step) => (at && typeof at === 'object' ? (at as Draft)[step] : undefined), draft);

/** `draft` with another value at a dotted path; undefined takes the field out. */
export const withValue = (draft: Draft, path: RingPath, value: unknown): Draft =>
  withStep(draft, path.split('.'), value);

function withStep(draft: Draft, [step = '', ...rest]: string[], value: unknown): Draft {
  // A step may be a place in a list: a list stays one.
  const next = (Array.isArray(draft) ? [...(draft as unknown[])] : { ...draft }) as Draft;
  if (rest.length > 0) {
    const inner = next[step];
    next[step] = withStep(inner && typeof inner === 'object' ? (inner as Draft) : {}, rest, value);
  } else if (value === undefined) {
    if (Array.isArray(next)) return next.filter((_, k) => String(k) !== step) as unknown as Draft;
    return Object.fromEntries(Object.entries(next).filter(([name]) => name !== step));
  } else {
    next[step] = value;
  }
  return next;
}

/** A ring being typed, and the revision that it was made from; 0 for a new ring. */
export interface Kept {
  draft: Draft;
  revision: number;
}

/** The desk's history: every edit can be taken back, and taken back again. */
export interface History {
  present: Kept;
  past: readonly Kept[];
  future: readonly Kept[];
  /** Where the last edit was made: typing on in one field is one edit. */
  editing: string | null;
  /** What was set in each style that was chosen before, so that coming back to it finds it. */
  remembered: Readonly<Record<string, unknown>>;
}

const STEPS_MOST = 200;

export const begin = (present: Kept): History => ({ present, past: [], future: [], editing: null, remembered: {} });

function pushed(history: History, present: Kept, editing: string | null): History {
  const typingOn = editing !== null && editing === history.editing;
  const past = typingOn ? history.past : [...history.past, history.present].slice(-STEPS_MOST);
  return { ...history, present, past, future: [], editing };
}

/** Another value at a path. */
export function edited(history: History, path: RingPath, value: unknown): History {
  const { draft, revision } = history.present;
  if (JSON.stringify(valueAt(draft, path)) === JSON.stringify(value)) return history;
  return pushed(history, { draft: withValue(draft, path, value), revision }, path);
}

/** A whole part (a band's style, a kind of finger) exchanged for another kind, with what was set in that kind before. */
export function exchanged(history: History, part: RingPath, kind: string, from: string, usual: unknown): History {
  const before = valueAt(history.present.draft, part);
  const remembered = { ...history.remembered, [`${part}:${from}`]: before };
  const next = remembered[`${part}:${kind}`] ?? usual;
  const draft = withValue(history.present.draft, part, next);
  return { ...pushed(history, { ...history.present, draft }, null), remembered };
}

/** Another ring on the desk: the one before can be taken back. */
export const replaced = (history: History, present: Kept): History => pushed(history, present, null);

export function undone(history: History): History {
  const before = history.past.at(-1);
  if (!before) return history;
  const present = { ...before, revision: history.present.revision };
  return {
    ...history,
    present,
    past: history.past.slice(0, -1),
    future: [history.present, ...history.future],
    editing: null,
  };
}

export function redone(history: History): History {
  const [next, ...future] = history.future;
  if (!next) return history;
  const present = { ...next, revision: history.present.revision };
  return { ...history, present, past: [...history.past, history.present], future, editing: null };
}

/** After a save: what was typed meanwhile stays, on the new revision. */
export function saved(history: History, sent: Draft, file: Draft, revision: number): History {
  const same = JSON.stringify(sent) === JSON.stringify(history.present.draft);
  return { ...history, present: { draft: same ? file : history.present.draft, revision } };
}
