import { describe, expect, it } from 'vitest';
import { missing, sorted, type AtHand, type Entry } from './atHand';

const entry = (style: string, wire: number, beads: number[], minutes: number, torch = false): Entry => ({
  kind: 'head',
  style,
  title: style,
  ring: {},
  sentence: '',
  wires: [{ role: 'band', label: '', diameter_mm: wire, cut: '', cut_mm: 200 }],
  beads_mm: beads,
  mass_g: 1,
  height: '',
  height_mm: 5,
  minutes,
  torch,
  steps: 10,
  picture: { box: [0, 0, 1, 1], lines: [] },
});
const anything: AtHand = { wire: null, bead: null, minutes: null, torch: true };

describe('what is at hand', () => {
  it('lacks nothing where anything will do', () => {
    expect(missing(entry('a', 0.8, [7], 40), anything)).toEqual([]);
  });
  it('names the wire, the bead, the time and the torch that are missing', () => {
    const at = { wire: 1.2, bead: 3, minutes: 30, torch: false };
    expect(missing(entry('a', 0.8, [7], 40, true), at)).toHaveLength(4);
    expect(missing(entry('b', 0.8, [], 20), { ...anything, bead: 3 })).toEqual(['no bead']);
  });
  it('takes a wire that is a little off, and a bead within a millimetre', () => {
    expect(missing(entry('a', 0.81, [6.5], 40), { ...anything, wire: 0.8, bead: 7 })).toEqual([]);
  });
  it('puts what can be made first, and the quicker one before the slower', () => {
    const rings = [entry('slow', 0.8, [], 90), entry('thick', 1.6, [], 10), entry('quick', 0.8, [], 20)];
    const order = sorted(rings, { ...anything, wire: 0.8 }).map((e) => e.style);
    expect(order).toEqual(['quick', 'slow', 'thick']);
  });
});
