/** Whose drafts, taps and preferences this browser keeps: each person's apart, and those of whoever works here alone. */
const KEY = 'pliant-coil.person';

/** What stands in front of the names of what is kept. */
export const whose = () => {
  const person = localStorage.getItem(KEY);
  return person ? `pliant-coil.${person}.` : 'pliant-coil.';
};

/** Somebody is here, or (null) whoever works alone. */
export function isHere(person: string | null): void {
  if (localStorage.getItem(KEY) === person) return;
  if (person) localStorage.setItem(KEY, person);
  else localStorage.removeItem(KEY);
}
