import type { Plan } from '../api/client';

/** Where the shades of a stone lie, from its light to its edge. */
export const SHADES = [0, 0.3, 0.8, 1] as const;

type Shades = readonly [string, string, string, string];

const HONEY: Shades = ['#ffe9b0', '#e2a02c', '#a8690f', '#75480a'];

const STONES: Record<string, Shades> = {
  honey: HONEY,
  amber: ['#ffd9a0', '#d9701c', '#98410b', '#642a07'],
  garnet: ['#f3a9ae', '#a41f35', '#6b0f22', '#430815'],
  rose: ['#fff0f2', '#eaa6b4', '#bd6d80', '#8a475a'],
  leaf: ['#dcf2cc', '#5f9a4b', '#356528', '#1f4217'],
  sky: ['#e6f5ff', '#7fb4da', '#477ea8', '#2b577a'],
  violet: ['#efe2fb', '#8f68b8', '#5d3c85', '#3c2459'],
  milk: ['#ffffff', '#f1ece2', '#cbc3b4', '#9a9283'],
  smoke: ['#f0efed', '#a5a09a', '#69645f', '#43403c'],
  jet: ['#9aa0a6', '#3c4146', '#1c1f22', '#0b0c0e'],
};

/** A drop seen from above, its tip to the right: a circle as wide as it is, and the lines that touch it from the tip. */
export function dropOutline(cx: number, cy: number, long: number, wide: number): string {
  const r = wide / 2;
  const middle = cx - long / 2 + r;
  const [tip, lean] = [cx + long / 2, r / (long - r)];
  const [x, y] = [middle + r * lean, r * Math.sqrt(1 - lean * lean)];
  return `M${tip} ${cy}L${x} ${cy - y}A${r} ${r} 0 1 0 ${x} ${cy + y}Z`;
}

/** The shades of a stone's colour: its light, its body, its shade and its edge. */
export const stoneColours = (name: string | null | undefined): Shades => STONES[name ?? ''] ?? HONEY;

/** The colour of what a plan's wire carries: that of its first stone. */
export const stoneOf = (plan: Plan): string | null | undefined => plan.drawing?.beads[0]?.colour;
