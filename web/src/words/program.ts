/** The groups of a weave program as they are typed: `A3 AB1` → A3, AB1. What can't be read is the server's to refuse. */
export const groupsOf = (program: string) =>
  [...program.matchAll(/([A-Za-z]+)\s*(\d+)/g)].map(([, letters = '', wraps = '1']) => ({
    letters: letters.toUpperCase(),
    wraps: Number(wraps),
  }));

export const programOf = (groups: { letters: string; wraps: number }[]) =>
  groups.map((g) => `${g.letters}${g.wraps}`).join(' ');

/** The program with so many wraps more (or fewer) in one group; a group without wraps is left out. */
export const withWraps = (program: string, group: number, more: number) =>
  programOf(
    groupsOf(program)
      .map((g, k) => (k === group ? { ...g, wraps: g.wraps + more } : g))
      .filter((g) => g.wraps > 0),
  );

/** Which group a repeat's n-th wrap belongs to. */
export function groupOfWrap(program: string, wrap: number): number {
  let passed = 0;
  return groupsOf(program).findIndex((g) => (passed += g.wraps) > wrap);
}

/** The runs of a bound band from the middle outwards: `5 inner, 3 all`. */
const runsOf = (runs: string) =>
  runs.split(',').map((run) => {
    const [, coils = '0', where = ''] = /(\d+)\s*(\w*)/.exec(run) ?? [];
    return { coils: Number(coils), where };
  });

/** The runs with one coil more in the run that the n-th coil from the middle lies in; runs repeat towards the ends. */
export function withCoil(runs: string, fromMiddle: number): string {
  const typed = runsOf(runs);
  const once = typed.reduce((sum, run) => sum + run.coils, 0);
  let left = once > 0 ? fromMiddle % once : 0;
  const at = typed.findIndex((run) => (left -= run.coils) < 0);
  return typed.map((run, k) => `${run.coils + (k === at ? 1 : 0)} ${run.where}`).join(', ');
}
