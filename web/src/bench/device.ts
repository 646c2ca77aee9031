/** What this browser calls itself at the bench. */
export function thisDevice(): string {
  const known = localStorage.getItem('pliant-coil.device');
  if (known) return known;
  const made = `bench ${crypto.randomUUID().slice(0, 8)}`;
  localStorage.setItem('pliant-coil.device', made);
  return made;
}
