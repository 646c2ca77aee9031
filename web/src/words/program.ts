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
