import { whose } from '../people/person';
import type { Kept } from './draft';

/**
 * Drafts in the browser: one a tab and ring, written at every change. A tab that was closed or that died leaves its
 * draft; the next tab that opens the same ring takes it up. Two open tabs never share one.
 */
interface Entry extends Kept {
  tab: string;
  /** When its tab last said that it is there [ms since 1970]. */
  seen: number;
}

const prefix = () => `${whose()}draft.`;
/** A tab that hasn't said anything for so long is gone [ms]. */
const GONE = 12_000;
export const HEARTBEAT = 4_000;

function thisTab(): string {
  const known = sessionStorage.getItem('pliant-coil.tab');
  if (known) return known;
  const made = crypto.randomUUID();
  sessionStorage.setItem('pliant-coil.tab', made);
  return made;
}

const keyOf = (ringId: string | undefined, tab: string) => `${prefix()}${ringId ?? 'new'}.${tab}`;

function read(key: string): Entry | null {
  try {
    return JSON.parse(localStorage.getItem(key) ?? 'null') as Entry | null;
  } catch {
    return null;
  }
}

/** This tab's draft of a ring, or one that a tab which is gone left behind. */
export function takeUp(ringId: string | undefined, now = Date.now()): Kept | null {
  const mine = read(keyOf(ringId, thisTab()));
  if (mine) return { draft: mine.draft, revision: mine.revision };
  const left = Object.keys(localStorage)
    .filter((key) => key.startsWith(`${prefix()}${ringId ?? 'new'}.`))
    .map((key) => ({ key, entry: read(key) }))
    .filter(({ entry }) => entry && now - entry.seen > GONE)
    .sort((a, b) => (b.entry?.seen ?? 0) - (a.entry?.seen ?? 0))[0];
  if (!left?.entry) return null;
  localStorage.removeItem(left.key);
  keep(ringId, left.entry);
  return { draft: left.entry.draft, revision: left.entry.revision };
}

export function keep(ringId: string | undefined, kept: Kept, seen = Date.now()): void {
  const tab = thisTab();
  localStorage.setItem(keyOf(ringId, tab), JSON.stringify({ draft: kept.draft, revision: kept.revision, tab, seen }));
}

export const forget = (ringId: string | undefined) => localStorage.removeItem(keyOf(ringId, thisTab()));

/** Says that this tab is still there, or (when it closes) that its draft may be taken up. */
export function beat(ringId: string | undefined, seen = Date.now()): void {
  const key = keyOf(ringId, thisTab());
  const entry = read(key);
  if (entry) localStorage.setItem(key, JSON.stringify({ ...entry, seen }));
}
