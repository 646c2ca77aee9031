import type { BenchTold } from '../api/client';
import { withFractions } from '../words/figures';

/** The stages of the bench, as they are called. */
export const PHASES: Record<string, string> = {
  wire: 'Wire',
  work: 'Hammer and twist',
  flat: 'Flat work',
  form: 'Form',
  gather: 'Bind the band',
  head: 'Head',
  read: 'Read',
  lock: 'Lock',
  trim: 'Trim',
  round: 'Round',
  note: 'Note down',
};

/** Whose ring it is, or its size. */
export const nameOf = (bench: BenchTold) => bench.for_whom || withFractions(bench.size);
