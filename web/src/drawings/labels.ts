import type { PlannedMove } from '../api/client';

/** A stretch of wire in a row: the part of a move between two ends of the row [mm]. */
export interface RowStretch {
  move: PlannedMove;
  index: number;
  left: number;
  right: number;
}

/** How wide words are at most [px], at a size of type: by their letters, for nothing has been drawn yet. */
export const wordsWidth = (words: string, size: number, bold = false) => words.length * size * (bold ? 0.58 : 0.54);

/** Where each stretch's words go: in the first of two lines where they don't run into their neighbour's, or nowhere. */
export function placeLabels(stretches: RowStretch[], x: (at: number) => number, width: number) {
  const ends = [-Infinity, -Infinity];
  const placed = [];
  for (const { move, index, left, right } of stretches) {
    const half = Math.max(move.label.length * 3.6, 16) + 3;
    const at = Math.min(width - half, Math.max(half, (x(left) + x(right)) / 2));
    // What is too short to be told from its neighbours is named when it is looked at.
    if (x(right) - x(left) < 7) continue;
    const tier = ends.findIndex((end) => at - half > end);
    if (tier < 0) continue;
    ends[tier] = at + half;
    placed.push({ move, index, at, tier });
  }
  return placed;
}
