import type { components } from '../api/schema.generated';

export type Entry = components['schemas']['GalleryEntry'];

/** What a maker has there: wire and bead [mm] and minutes; null where anything will do. */
export interface AtHand {
  wire: number | null;
  bead: number | null;
  minutes: number | null;
  torch: boolean;
}

const WIRE_WITHIN = 0.12;
const BEAD_WITHIN_MM = 1.01;

/** Why a ring can't be made of what is there, in a few words; empty when it can. */
export function missing(entry: Entry, at: AtHand): string[] {
  const found: string[] = [];
  const { wire } = at;
  if (wire !== null && !entry.wires.some((w) => Math.abs(w.diameter_mm - wire) <= WIRE_WITHIN * wire))
    found.push('other wire');
  const { bead } = at;
  if (bead !== null && !entry.beads_mm.some((b) => Math.abs(b - bead) <= BEAD_WITHIN_MM))
    found.push(entry.beads_mm.length ? 'another bead' : 'no bead');
  if (at.minutes !== null && entry.minutes > at.minutes) found.push('more time');
  if (!at.torch && entry.torch) found.push('a torch');
  return found;
}

/** What can be made of what is there first, then what lacks least; the quicker one first among equals. */
export const sorted = (entries: readonly Entry[], at: AtHand): Entry[] =>
  [...entries].sort((a, b) => missing(a, at).length - missing(b, at).length || a.minutes - b.minutes);
