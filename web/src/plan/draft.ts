import type { Draft } from '../api/client';
import type { RingPath } from './ringPaths';

/** What an untouched Plan screen shows: a ring that can be made, so that every figure has something to say. Nothing else of it was asked. */
export const FIRST_RING: Draft = {
  format: 'pliant-coil/ring',
  version: 3,
  title: '',
  finger: { size: 'US 6 1/2' },
  band: { style: 'turned' },
  head: { style: 'bead-lock' },
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

/** A whole part (a band's style, a kind of finger) exchanged for another kind. */
export interface Exchange {
  part: RingPath;
  kind: string;
  from: string;
  /** What stands there when that kind was never set before. */
  usual: unknown;
  /** What it has to be set to, whatever it was set to before. */
  settings?: Readonly<Record<string, unknown>>;
}

/** Parts exchanged for other kinds in one edit, with what was set in those kinds before. */
export function exchanged(history: History, exchanges: readonly Exchange[]): History {
  let { draft } = history.present;
  let { remembered } = history;
  for (const { part, kind, from, usual, settings } of exchanges) {
    remembered = { ...remembered, [`${part}:${from}`]: valueAt(draft, part) };
    const known = remembered[`${part}:${kind}`] ?? usual;
    draft = withValue(draft, part, settings ? { ...(known as Draft), ...settings } : known);
  }
  return { ...pushed(history, { ...history.present, draft }, null), remembered };
}

/** The hand went elsewhere: what is typed next is another edit, in the same field too. */
export const rested = (history: History): History =>
  history.editing === null ? history : { ...history, editing: null };

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
