import type { Drawing, Plan } from '../api/client';
import { metalColours, type MetalColours } from './metals';

type Point = readonly [number, number];

/** A line of the unrolled top [mm]: along the band from the middle of the top, and along the finger. */
export interface Lane {
  points: Point[];
  width: number;
  colours: MetalColours;
}

export interface Unrolled {
  lanes: Lane[];
  /** Solder between the lanes, seams, contacts, tubes. */
  marks: { what: Drawing['soldered'][number]['what']; points: Point[] }[];
  /** How far it reaches to either side of the middle. */
  reach: number;
  /** From its lower edge to its upper one. */
  high: number;
}

/** Beside the free top, so that the solder's ends are seen. */
const BESIDE_MM = 5;

/** Whether its tops are waved and soldered to each other. */
export const waved = (plan: Plan) => plan.drawing?.soldered.some((place) => place.what === 'contact') ?? false;

/**
 * The free tops of a stack as they lie when the band is rolled out flat, as long as the lanes themselves: what is levered after it fits.
 * Null for what has no tops that are waved and soldered.
 */
export function unrolledTop(plan: Plan): Unrolled | null {
  const { drawing } = plan;
  if (!drawing || !waved(plan)) return null;
  const radius = drawing.inside_radius_mm + (drawing.strands[0]?.height_mm ?? 0) / 2;
  const flat = (points: readonly (readonly number[])[]): Point[] =>
    points.map(([x = 0, y = 0, z = 0]) => [Math.atan2(x, y) * radius, z] as const);
  const free = Math.max(
    ...drawing.soldered.filter((p) => p.what === 'back').flatMap((p) => flat(p.points.slice(0, 1)).map(([u]) => u)),
  );
  const reach = free + BESIDE_MM;
  const lanes = drawing.strands.flatMap((strand) => {
    const told = plan.wires.find((w) => w.role === strand.role && w.piece === strand.piece);
    return told
      ? pieces(flat(strand.points), reach).map((points) => ({
          points,
          width: strand.width_mm,
          colours: metalColours(told.metal),
        }))
      : [];
  });
  const marks = drawing.soldered.flatMap(({ what, points }) =>
    // Of a tube its outer rim: both lie one on the other.
    pieces(flat(what === 'tube' ? points.slice(0, points.length / 2) : points), reach).map((line) => ({
      what,
      points: line,
    })),
  );
  const edges = lanes.flatMap((lane) => lane.points.map(([, z]) => Math.abs(z) + lane.width / 2));
  return { lanes, marks, reach, high: 2 * Math.max(...edges) };
}

/** A line cut where it leaves the picture, or comes round the back to its other side. */
function pieces(line: Point[], reach: number): Point[][] {
  const found: Point[][] = [];
  let open: Point[] = [];
  const close = () => {
    if (open.length > 0) found.push(open);
    open = [];
  };
  line.forEach((point, k) => {
    const before = line[k - 1];
    const inside = Math.abs(point[0]) <= reach;
    if (before && Math.abs(point[0] - before[0]) > reach) close();
    else if (before && inside !== Math.abs(before[0]) <= reach) {
      // It goes on to the picture's edge.
      const edge = Math.sign(inside ? before[0] : point[0]) * reach;
      const share = (edge - before[0]) / (point[0] - before[0]);
      open.push([edge, before[1] + (point[1] - before[1]) * share]);
    }
    if (inside) open.push(point);
    else close();
  });
  close();
  return found.filter((points) => points.length > 1 || line.length === 1);
}
