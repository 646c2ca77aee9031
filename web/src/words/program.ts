/** The groups of a weave program as they are typed: `A3 AB1` → A3, AB1. What can't be read is the server's to refuse. */
export const groupsOf = (program: string) =>
  [...program.matchAll(/([A-Za-z]+)\s*(\d+)/g)].map(([, letters = '', wraps = '1']) => ({
    letters: letters.toUpperCase(),
    wraps: Number(wraps),
  }));

export const programOf = (groups: { letters: string; wraps: number }[]) =>
  groups.map((g) => `${g.letters}${g.wraps}`).join(' ');

/** The program with another number of wraps in one group; a group of none stays, to be filled again, until it is taken out. */
export const withWraps = (program: string, group: number, wraps: number) =>
  programOf(groupsOf(program).map((g, k) => (k === group ? { ...g, wraps } : g)));

/** The program without its empty groups: what is woven. */
export const woven = (program: string) => programOf(groupsOf(program).filter((g) => g.wraps > 0));

/** Which group a repeat's n-th wrap belongs to. */
export function groupOfWrap(program: string, wrap: number): number {
  let passed = 0;
  return groupsOf(program).findIndex((g) => (passed += g.wraps) > wrap);
}

/** The runs of a bound band from the middle outwards: `9 middle, 4 all, 7 inner`. */
export const runsOf = (runs: string) =>
  runs.split(',').map((run) => {
    const [, coils = '0', where = ''] = /(\d+)\s*(\w*)/.exec(run) ?? [];
    return { coils: Number(coils), where };
  });

/** The runs with another number of coils in one of them. */
export const withCoils = (runs: string, run: number, coils: number) =>
  runsOf(runs)
    .map((r, k) => `${k === run ? coils : r.coils} ${r.where}`.trim())
    .join(', ');

const NUMBERS = [
  'none',
  'one',
  'two',
  'three',
  'four',
  'five',
  'six',
  'seven',
  'eight',
  'nine',
  'ten',
  'eleven',
  'twelve',
];

/** How a group is called while it is woven: `three on A`, `one round A and B`. */
export function callOf({ letters, wraps }: { letters: string; wraps: number }): string {
  const number = NUMBERS[wraps] ?? String(wraps);
  if (letters.length === 1) return `${number} on ${letters}`;
  return `${number} round ${letters.replace(/(?<=.)(?=.)/g, ' and ')}`;
}
