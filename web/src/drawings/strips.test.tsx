// @vitest-environment jsdom
import { cleanup, fireEvent, render, screen } from '@testing-library/react';
import { afterEach, beforeAll, expect, test, vi } from 'vitest';
import type { PlannedWire } from '../api/client';
import { turned, woven } from '../testing/desk';
import { MM_PER_INCH, length } from '../words/figures';
import { MandrelRule } from './MandrelRule';
import { WeaveChart } from './WeaveChart';
import { WireStrip } from './WireStrip';

beforeAll(() => {
  vi.spyOn(Element.prototype, 'getBoundingClientRect').mockReturnValue({ width: 1160 } as DOMRect);
});
afterEach(cleanup);

const wire = turned.plan.wires[0] as PlannedWire;
const texts = (of: Element) => [...of.querySelectorAll('text')].map((t) => t.textContent);
const strip = (more = {}) => {
  const looked = vi.fn();
  const { container } = render(
    <WireStrip wire={wire} active={null} onActive={looked} units="mm" stone="honey" {...more} />,
  );
  return { looked, container, group: screen.getByRole('group') };
};

test('the wire lies on the table from end to end: every stretch to scale, held ones hatched, in the order of the moves', () => {
  const { container } = strip();
  const filled = [...container.querySelectorAll('rect[fill^="url("]')];
  const scale = Number(filled.at(-1)?.getAttribute('width')) / (wire.moves.at(-1)?.length_mm ?? 0);
  const shown = filled.map((rect) => ({
    mm: Number((Number(rect.getAttribute('width')) / scale).toFixed(1)),
    held: /held/.test(rect.getAttribute('fill') ?? ''),
  }));
  expect(shown).toEqual(wire.moves.map((m) => ({ mm: Number(m.length_mm.toFixed(1)), held: !m.in_ring })));
});

test('its ruler is in the unit that comes first, and the other lies below', () => {
  const { container } = strip();
  expect(texts(container)).toContain('20');
  const last = Math.floor(wire.cut_mm / MM_PER_INCH);
  expect(texts(container)).toContain(`${last}″`);
  cleanup();
  const inches = strip({ units: 'in' }).container;
  expect(texts(inches)[0]).toBe('0″');
});

test('marks stand where the plan says, and the bead where it will sit', () => {
  const { container } = strip();
  const told = [...container.querySelectorAll('title')].map((t) => t.textContent);
  const bead = wire.marks.find((mark) => mark.label === 'bead');
  expect(bead).toBeDefined();
  expect(told).toEqual(wire.marks.map((m) => `${m.label}, ${length(m.at_mm, 'mm')} from the end`));
  expect(container.querySelectorAll('ellipse')).toHaveLength(1);
});

test('arrow keys go from stretch to stretch and stay on the wire; Escape lets go', () => {
  const { group, looked } = strip({ active: 0 });
  fireEvent.keyDown(group, { key: 'ArrowRight' });
  fireEvent.keyDown(group, { key: 'ArrowLeft' });
  fireEvent.keyDown(group, { key: 'Escape' });
  expect(looked.mock.calls).toEqual([[1], [0], [null]]);
  cleanup();
  const end = strip({ active: wire.moves.length - 1 });
  fireEvent.keyDown(end.group, { key: 'ArrowRight' });
  expect(end.looked).toHaveBeenCalledWith(wire.moves.length - 1);
});

test('on paper it is 1:1, in rows that fit across a sheet', () => {
  const pxPerMm = 96 / MM_PER_INCH;
  const { container } = strip({ pxPerMm });
  const rows = [...container.querySelectorAll('svg')];
  expect(rows).toHaveLength(Math.ceil(wire.cut_mm / 170));
  const drawn = [...container.querySelectorAll('rect[fill^="url("]')];
  const whole = drawn.reduce((sum, rect) => sum + Number(rect.getAttribute('width')), 0);
  expect(whole / pxPerMm).toBeCloseTo(wire.cut_mm, 0);
});

test('the mandrel says where to start, what comes off, and what lies between', () => {
  const { container } = render(<MandrelRule plan={turned.plan} scales={[]} systems={['us', 'uk']} />);
  const start = turned.plan.start.mark.replace(' 1/4', '¼').replace(' 1/2', '½').replace(' 3/4', '¾');
  expect(screen.getByRole('img').getAttribute('aria-label')).toBe(`Start at ${start}, comes off at US 7`);
  const said = texts(container).join(' | ');
  expect(said).toContain('start here');
  expect(said).toContain('comes off');
  for (const cause of turned.plan.contributions) expect(said).toContain(cause.said);
});

test('a mandrel whose marks are off says what it reads there', () => {
  const finished = { ...turned.plan.finished, mark: 'just past US 7' };
  const { container } = render(<MandrelRule plan={{ ...turned.plan, finished }} scales={[]} systems={['us', 'uk']} />);
  expect(texts(container).join(' ')).toContain('comes off, just past US 7 here');
});

test('the weave is drawn repeat by repeat over its base wires, and a tapped wrap is told', () => {
  const fit = woven.plan.fit;
  if (!fit) throw new Error('a weave has repeats');
  const tapped = vi.fn();
  const { container } = render(
    <WeaveChart fit={fit} baseMetal="copper" weaveMetal="copper" units="mm" onWrap={tapped} />,
  );
  const named = screen.getAllByRole('img').map((svg) => svg.getAttribute('aria-label'));
  expect(named[0]).toMatch(new RegExp(`^${fit.repeats} repeats, ${Math.round(fit.made_mm)}`));
  const whole = container.querySelector('svg');
  const moved = [...(whole?.querySelectorAll('g[transform^="translate("]') ?? [])];
  expect(moved.length).toBeGreaterThanOrEqual(fit.repeats);
});
