import { whose } from '../people/person';
import { begin, type History, type Kept } from './draft';

/**
 * Drafts in the browser: one a tab and ring, written at every change. A tab that was closed or that died leaves its
 * draft; the next tab that opens the same ring takes it up. Two open tabs never share one.
 */
interface Entry extends Kept {
  tab: string;
  /** When its tab last said that it is there [ms since 1970]. */
  seen: number;
  /** What can be taken back and made again, after a reload too. */
  past?: readonly Kept[];
  future?: readonly Kept[];
  remembered?: History['remembered'];
}

/** Steps that outlive a reload: all two hundred at every letter would be felt. */
const STEPS_KEPT = 40;

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

const historyOf = ({ draft, revision, past = [], future = [], remembered = {} }: Entry): History => ({
  ...begin({ draft, revision }),
  past,
  future,
  remembered,
});

/** This tab's draft of a ring with its history, or one that a tab which is gone left behind. */
export function takeUp(ringId: string | undefined, now = Date.now()): History | null {
  const mine = read(keyOf(ringId, thisTab()));
  if (mine) return historyOf(mine);
  const left = Object.keys(localStorage)
    .filter((key) => key.startsWith(`${prefix()}${ringId ?? 'new'}.`))
    .map((key) => ({ key, entry: read(key) }))
    .filter(({ entry }) => entry && now - entry.seen > GONE)
    .sort((a, b) => (b.entry?.seen ?? 0) - (a.entry?.seen ?? 0))[0];
  if (!left?.entry) return null;
  localStorage.removeItem(left.key);
  const history = historyOf(left.entry);
  keep(ringId, history);
  return history;
}

export function keep(ringId: string | undefined, history: History, seen = Date.now()): void {
  const tab = thisTab();
  const { present, past, future, remembered } = history;
  const entry: Entry = {
    ...present,
    tab,
    seen,
    past: past.slice(-STEPS_KEPT),
    future: future.slice(0, STEPS_KEPT),
    remembered,
  };
  localStorage.setItem(keyOf(ringId, tab), JSON.stringify(entry));
}

export const forget = (ringId: string | undefined) => localStorage.removeItem(keyOf(ringId, thisTab()));

/** Says that this tab is still there, or (when it closes) that its draft may be taken up. */
export function beat(ringId: string | undefined, seen = Date.now()): void {
  const key = keyOf(ringId, thisTab());
  const entry = read(key);
  if (entry) localStorage.setItem(key, JSON.stringify({ ...entry, seen }));
}
