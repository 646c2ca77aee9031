// @vitest-environment jsdom
import { act, cleanup, render, screen } from '@testing-library/react';
import { afterEach, expect, test, vi } from 'vitest';
import type { Plan } from '../api/client';
import { AnswerBar } from './AnswerBar';
import { DeskProvider, type Standing } from './Desk';

const size = (said: string) => ({
  said,
  mark: said,
  mark_too: `UK of ${said}`,
  exact: { us: said, uk: `UK of ${said}` },
});
const wire = (role: string, cut: string, from_reel = false) => ({
  role,
  label: 'soft copper, 0.8 mm',
  cut,
  cut_mm: cut.length,
  from_reel,
  marks: [{ kind: 'mark', label: 'middle', at: '70 mm', at_mm: 70 }],
});
const plan = {
  start: size('US 7 1/2'),
  finished: size('US 7'),
  guide: size('US 8 1/2'),
  band: { sized_by: 'mark', mass_g: 1.52 },
  wires: [wire('base', '140 mm (5 5/8 in)'), wire('base', '140 mm (5 5/8 in)'), wire('weave', '836 mm (33 in)', true)],
} as unknown as Plan;

const bar = (of: Plan, standing: Standing = 'fresh') => (
  <DeskProvider
    value={{ draft: {}, change: vi.fn(), exchange: vi.fn(), undo: vi.fn(), plan: of, problems: [], standing }}
  >
    <AnswerBar />
  </DeskProvider>
);
const shown = (standing: Standing) => render(bar(plan, standing));

afterEach(() => {
  cleanup();
  vi.useRealTimers();
});

test('pieces alike are one figure, with the mark and the other unit beside it', () => {
  shown('fresh');
  expect(screen.getByTestId('start').textContent).toBe('US 7½');
  expect(screen.getAllByTestId('cut').map((e) => e.textContent)).toEqual(['2 × 140 mm', '836 mm']);
  expect(screen.getByText('5⅝ in · middle at 70 mm')).toBeTruthy();
  expect(screen.getByText('guide bent at US 8½')).toBeTruthy();
});

test('pieces of one role that are cut to different lengths stand side by side, and go with their plan', () => {
  const of = (...cuts: string[]) => ({ ...plan, wires: cuts.map((cut) => wire('coil', cut)) }) as unknown as Plan;
  const { rerender } = render(bar(of('110 mm (4 3/8 in)', '150 mm (6 in)', '150 mm (6 in)')));
  expect(screen.getAllByTestId('cut').map((e) => e.textContent)).toEqual(['110 mm', '2 × 150 mm']);
  rerender(bar(of('90 mm (3 5/8 in)')));
  expect(screen.getAllByTestId('cut').map((e) => e.textContent)).toEqual(['90 mm']);
});

test('an ornament without a band has no start and no size', () => {
  render(bar({ ...plan, band: { sized_by: 'nothing', mass_g: 0.39, height: '4.2 mm' } as Plan['band'] }));
  expect(screen.queryByTestId('start')).toBeNull();
  expect(screen.getByTestId('finish').textContent).toBe('0.4 g');
});

test.each<[Standing, RegExp]>([
  ['refused', /can’t be made/],
  ['unreachable', /server doesn’t answer/],
])('while it is %s the bar says so', (standing, said) => {
  shown(standing);
  expect(screen.getByText(said)).toBeTruthy();
  expect(screen.getByTestId('answer').dataset.standing).toBe(standing);
});

test('it is read out once typing rests, and not before', () => {
  vi.useFakeTimers();
  shown('fresh');
  const region = screen.getByRole('status');
  expect(region.textContent).toBe('');
  act(() => {
    vi.advanceTimersByTime(1_000);
  });
  expect(region.textContent).toContain('Start, form it at US 7½');
});
