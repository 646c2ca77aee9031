import type { Drawing } from '../api/client';
import { project, type Side } from './chunks';

type Place = Drawing['soldered'][number];

/** Hard solder as it shows on any metal, and the ink of a seam. */
export const SOLDER = '#5f6664';
const WIDTHS: Record<Place['what'], number> = { seam: 0.14, back: 0.3, contact: 0.75, tube: 0.28 };

/** A soldered place to be painted: its line, how thick, and whether it lies in front. */
export interface SolderMark {
  d: string;
  width: number;
  colour: string;
  front: boolean;
}

/** Solder, seams and tubes as they are seen from a side: from above, what lies at the back is covered by the tops. */
export function solderMarks(drawing: Drawing, side: Side, tube: string): SolderMark[] {
  return drawing.soldered.map(({ what, points }) => {
    const seen = points.map(project[side]);
    const depth = seen.reduce((sum, [, , z]) => sum + z, 0) / (seen.length || 1);
    const line = seen.map(([x, y], k) => `${k ? 'L' : 'M'}${x.toFixed(2)} ${y.toFixed(2)}`).join('');
    return {
      // A single point is painted as a dot: a line without length, with round ends.
      d: seen.length === 1 ? `${line}h0.001` : line,
      width: WIDTHS[what],
      colour: what === 'tube' ? tube : SOLDER,
      front: side === 'end' || depth > 0,
    };
  });
}

const SAID: Record<Place['what'], string> = {
  seam: 'ticks: seams',
  back: 'dark lines: solder at the back',
  contact: 'dots: contacts to solder',
  tube: 'circles: tubes',
};

/** What the marks mean, in the order in which they come at the bench: `Ticks: seams · dots: contacts to solder`. */
export function solderWords(drawing: Drawing | null | undefined): string {
  const said = (Object.keys(SAID) as Place['what'][])
    .filter((what) => drawing?.soldered.some((place) => place.what === what))
    .map((what) => SAID[what])
    .join(' · ');
  return said.charAt(0).toUpperCase() + said.slice(1);
}
