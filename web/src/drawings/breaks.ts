import type { PlannedMove } from '../api/client';

/** An even stretch longer than this is drawn broken [mm]: its ends, and a mark where the rest is left out. */
const LONGEST = 150;
const END = 34;
const GAP = 10;

export interface Layout {
  /** Where a place along the wire is drawn, in drawn millimetres. */
  shown: (at: number) => number;
  /** How long the drawing is [drawn mm]. */
  length: number;
  /** What is left out: from and to along the wire [mm]. */
  breaks: readonly { from: number; to: number }[];
}

/** A wire laid out with its long even stretches broken; with `whole`, as it is. */
export function layOut(moves: readonly PlannedMove[], cut: number, whole: boolean): Layout {
  const breaks = whole
    ? []
    : moves
        .filter((move) => move.length_mm > LONGEST)
        .map((move) => ({ from: move.from_mm + END, to: move.to_mm - END }));
  const shown = (at: number) =>
    breaks.reduce((drawn, gap) => {
      if (at <= gap.from) return drawn;
      const through = Math.min(1, (at - gap.from) / (gap.to - gap.from));
      return drawn - through * (gap.to - gap.from - GAP);
    }, at);
  return { shown, length: shown(cut), breaks };
}
