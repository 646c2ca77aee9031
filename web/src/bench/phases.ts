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
