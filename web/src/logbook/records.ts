import type { components } from '../api/schema.generated';

type SizeDot = components['schemas']['SizeDot'];

/** `31 of 40 min`, `31 min`, or nothing. */
export const minutesOf = (minutes: number | null, planned: number | null) =>
  minutes === null ? '' : `${Math.round(minutes)}${planned === null ? '' : ` of ${Math.round(planned)}`} min`;

/** Dots by their group, the largest group first; within one the oldest first. */
export function grouped(dots: readonly SizeDot[]): { group: string; dots: SizeDot[]; mean: number }[] {
  const found = new Map<string, SizeDot[]>();
  for (const dot of dots) found.set(dot.group, [...(found.get(dot.group) ?? []), dot]);
  return [...found]
    .map(([group, those]) => ({
      group,
      dots: those,
      mean: those.reduce((sum, dot) => sum + dot.off_mm, 0) / those.length,
    }))
    .sort((a, b) => b.dots.length - a.dots.length || a.group.localeCompare(b.group));
}
