// @vitest-environment jsdom
import { cleanup, render, screen, within } from '@testing-library/react';
import { afterEach, expect, test } from 'vitest';
import { Plots } from './Plots';

const dot = (title: string, group: string, off_mm: number) => ({ id: title, title, group, off_mm, off: `${off_mm}` });
const wire = (title: string, share: number, counts = true) => ({
  id: title,
  title,
  planned_mm: 200,
  used_mm: 200 * share,
  share,
  said: `${200 * share} of 200 mm`,
  counts,
});
const NONE = {
  by_band: [],
  by_mandrel: [],
  wire: [],
  stages: [],
  spoiled: [],
  scrap_mm: 0,
  cut_long_mm: 0,
  saved: null,
};

afterEach(cleanup);

test('nothing is drawn of an empty logbook', () => {
  render(<Plots plots={NONE} />);
  expect(screen.queryAllByRole('region')).toEqual([]);
});

test('sizes stand in a row a group, within what is shown, and are told in words', () => {
  render(
    <Plots plots={{ ...NONE, by_band: [dot('a', 'turned', 0.1), dot('b', 'turned', -3), dot('c', 'woven', 0)] }} />,
  );
  const plot = screen.getByRole('region', { name: 'Size against plan, by band' });
  const picture = within(plot).getByRole('img');
  expect(picture.getAttribute('aria-label')).toBe('turned: 0.1, -3; woven: 0');
  const x = [...picture.querySelectorAll('circle')].map((circle) => Number(circle.getAttribute('cx')));
  const [strip] = picture.querySelectorAll('rect');
  const left = Number(strip?.getAttribute('x'));
  const right = left + Number(strip?.getAttribute('width'));
  expect(x.map((at) => at > left && at < right)).toEqual([true, false, true]);
  expect(Math.min(...x)).toBeGreaterThanOrEqual(0);
});

test('more wire than planned lies higher, and what says nothing of the hand is hollow', () => {
  render(<Plots plots={{ ...NONE, wire: [wire('a', 1.05), wire('b', 0.95), wire('c', 1.4, false)] }} />);
  const circles = [...screen.getByRole('img').querySelectorAll('circle')];
  const [a, b, c] = circles.map((circle) => Number(circle.getAttribute('cy')));
  expect(a).toBeLessThan(b ?? 0);
  expect(c).toBeGreaterThan(0);
  expect(circles.map((circle) => circle.getAttribute('fill') === 'none')).toEqual([false, false, true]);
});

test('stages are bars as long as they take, and what was thrown away stands beside cutting long', () => {
  const stage = (name: string, minutes: number) => ({
    stage: name,
    minutes,
    least: minutes / 2,
    most: minutes * 2,
    rings: 3,
  });
  const saved = '40 mm were thrown away';
  render(
    <Plots
      plots={{ ...NONE, stages: [stage('wire', 8), stage('lock', 0.4)], scrap_mm: 40, cut_long_mm: 120, saved }}
    />,
  );
  const [wireBar, lockBar] = [...screen.getByRole('region', { name: 'Time by stage' }).querySelectorAll('rect')].map(
    (bar) => Number(bar.getAttribute('width')),
  );
  expect(wireBar).toBeGreaterThan(15 * (lockBar ?? 1));
  expect(screen.getByText('<1 min')).toBeTruthy();
  const [by, long] = [...screen.getByRole('region', { name: 'Thrown away' }).querySelectorAll('rect')].map((bar) =>
    Number(bar.getAttribute('width')),
  );
  expect((long ?? 0) / (by ?? 1)).toBeCloseTo(3, 1);
  expect(screen.getByText(saved)).toBeTruthy();
});
