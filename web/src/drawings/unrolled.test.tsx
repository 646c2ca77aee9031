// @vitest-environment jsdom
import { cleanup, render, screen } from '@testing-library/react';
import { afterEach, expect, test } from 'vitest';
import type { Plan } from '../api/client';
import BenchCard from '../plan/BenchCard';
import { turned } from '../testing/desk';
import { drawn } from '../testing/serve';
import { bounds } from './chunks';
import { solderMarks, solderWords } from './solder';
import { UnrolledTop } from './UnrolledTop';
import { unrolledTop } from './unrolled';

afterEach(cleanup);

const R = 9;
const at = (angle: number, z: number) => [R * Math.sin(angle), R * Math.cos(angle), z];
const round = (from: number, to: number, z: number) =>
  Array.from({ length: 41 }, (_, k) => at(from + ((to - from) * k) / 40, z));

/** Two rings side by side, soldered at the back, touching once at the top. */
const stack = {
  ...turned.plan,
  drawing: {
    inside_x_mm: 0,
    inside_y_mm: 0,
    inside_radius_mm: R - 0.75,
    beads: [],
    strands: [-0.6, 0.6].map((z, move) => ({
      ...{ role: 'band', piece: 1, move, id: `ring.${move}`, kind: 'arc', width_mm: 1.2, height_mm: 1.5, hidden: [] },
      points: round(0, 2 * Math.PI, z),
    })),
    soldered: [
      { what: 'seam', points: [at(0.1, 0), at(0.1, 1.2)] },
      { what: 'back', points: round(2, 2 * Math.PI - 2, 0) },
      { what: 'contact', points: [at(0, 0)] },
    ],
  },
} as Plan;

test('lanes lie as long as they are, cut at both sides, with the solder beginning where it does', () => {
  const top = unrolledTop(stack);
  const free = 2 * R;
  expect(top?.reach).toBeCloseTo(free + 5, 1);
  // Each ring comes in two pieces: it was begun in the middle of the top.
  expect(top?.lanes.map((lane) => lane.points[0]?.[1])).toEqual([-0.6, -0.6, 0.6, 0.6]);
  for (const lane of top?.lanes ?? []) {
    const along = lane.points.map(([u]) => u);
    expect(Math.max(...along) - Math.min(...along)).toBeCloseTo(top?.reach ?? 0, 5);
    expect(lane.width).toBe(1.2);
  }
  const ends = top?.marks.filter((m) => m.what === 'back').map((m) => m.points.map(([u]) => Math.abs(u)));
  expect(ends?.map((us) => [Math.min(...us), Math.max(...us)])).toEqual([
    [expect.closeTo(free, 1), expect.closeTo(free + 5, 5)],
    [expect.closeTo(free, 1), expect.closeTo(free + 5, 5)],
  ]);
  expect(top?.high).toBeCloseTo(2.4, 5);
});

test('it is counted from its middle in the unit that comes first, and at 1:1 on paper', () => {
  const { container } = render(<UnrolledTop plan={stack} units="in" pxPerMm={96 / 25.4} />);
  expect(screen.getByRole('img').getAttribute('width')).toBe(String(2 * (2 * R + 5) * (96 / 25.4) + 4));
  const texts = [...container.querySelectorAll('text')].map((t) => t.textContent);
  expect(texts).toEqual(['½', '0', '½']);
});

test('what has no waved tops is not rolled out', () => {
  expect(unrolledTop(turned.plan)).toBeNull();
  expect(render(<UnrolledTop plan={turned.plan} units="mm" />).container.innerHTML).toBe('');
});

test('solder is named by what is there, and what lies at the back is covered from above', () => {
  expect(solderWords(stack.drawing)).toBe('Ticks: seams · dark lines: solder at the back · dots: contacts to solder');
  expect(solderWords(turned.plan.drawing)).toBe('');
  const drawing = stack.drawing;
  if (!drawing) throw new Error('no drawing');
  expect(solderMarks(drawing, 'top', '#000').map((m) => m.front)).toEqual([true, false, true]);
  expect(solderMarks(drawing, 'end', '#000').every((m) => m.front)).toBe(true);
  // A point is a dot: a line without length, with round ends.
  expect(solderMarks(drawing, 'top', '#000')[2]?.d).toMatch(/^M0.00 0.00h/);
});

test('the bench card has every step to tick, a place for each reading, and at 1:1 the wires and what is seen from above', () => {
  const { container } = drawn(<BenchCard plan={stack} stands />);
  const steps = [...container.querySelectorAll('ol li')].map((li) => li.textContent);
  expect(steps).toHaveLength(stack.steps.length);
  stack.steps.forEach((step, k) => {
    expect(steps[k]?.includes('Read: __')).toBe(step.expected_mm !== null);
    for (const caution of step.cautions) expect(steps[k]).toContain(caution);
  });
  const drawing = stack.drawing;
  if (!drawing) throw new Error('no drawing');
  const [, , wide, high] = bounds(drawing, stack, 'top');
  const shown = screen.getByTestId('from-above');
  // An inch is 96 pixels on paper.
  expect(parseFloat(getComputedStyle(shown).width)).toBeCloseTo((wide / 25.4) * 96, 1);
  expect(parseFloat(getComputedStyle(shown).height)).toBeCloseTo((high / 25.4) * 96, 1);
  expect(screen.getByRole('img', { name: 'The tops rolled out flat', hidden: true })).toBeTruthy();
});
