// @vitest-environment jsdom
import { cleanup, fireEvent, screen, waitFor } from '@testing-library/react';
import { afterEach, beforeEach, expect, test, vi } from 'vitest';
import { drawn, serving } from '../testing/serve';
import { AtHand } from './AtHand';
import MandrelsScreen from './MandrelsScreen';

const steel = {
  id: 'm1',
  name: 'Long steel one',
  kind: 'tapered',
  text: 'Its marks read 1/4 size high.',
  line: { off_mm: -0.2, slope: 0.01 },
  drawn: [],
  marks: [
    { mark: 'US 5', named_mm: 15.7, measured_mm: 15.6, measured: '15.6 mm' },
    { mark: 'US 7 1/2', named_mm: 17.7, measured_mm: 17.5, measured: '17.5 mm' },
  ],
};
const kept = () =>
  (JSON.parse(localStorage.getItem('pliant-coil.preferences') ?? '{}') as { mandrel?: object | null }).mandrel;

beforeEach(() => localStorage.clear());

afterEach(() => {
  cleanup();
  vi.restoreAllMocks();
});

test('with none measured it says what measuring brings', async () => {
  serving({ 'GET /api/mandrels': [] });
  drawn(<MandrelsScreen />);
  expect(await screen.findByText(/put a caliper across two or three of them/)).toBeTruthy();
});

test('marks are told for one mandrel at a time, and forgetting it ends that', async () => {
  const asked = serving({ 'GET /api/mandrels': [steel], 'DELETE /api/mandrels/m1': {} });
  drawn(<MandrelsScreen />);
  expect(await screen.findByText('US 5 15.6 mm · US 7½ 17.5 mm')).toBeTruthy();
  fireEvent.click(screen.getByRole('button', { name: 'Tell marks for this one' }));
  expect(kept()).toEqual({ name: 'Long steel one', off_mm: -0.2, slope: 0.01 });
  expect(screen.getByRole('button', { name: 'Marks are told for it' }).getAttribute('aria-pressed')).toBe('true');
  // From now on everything is asked for with its marks.
  await waitFor(() => expect(asked.some((a) => a.query.get('mandrel_off') === '-0.2')).toBe(true));
  fireEvent.click(await screen.findByRole('button', { name: 'Forget it' }));
  await waitFor(() => expect(asked.some((a) => a.path === '/api/mandrels/m1')).toBe(true));
  expect(kept()).toBeNull();
});

test('marks are kept as they are typed, a line each, in mm whatever the maker reads', async () => {
  localStorage.setItem('pliant-coil.preferences', JSON.stringify({ units: 'in' }));
  const asked = serving({ 'GET /api/mandrels': [], 'POST /api/mandrels': steel });
  drawn(<MandrelsScreen />);
  const keep = screen.getByRole('button', { name: 'Keep it' });
  expect(keep.hasAttribute('disabled')).toBe(true);
  fireEvent.change(screen.getByLabelText('What you call it'), { target: { value: 'Short one' } });
  fireEvent.mouseDown(screen.getByRole('combobox', { name: 'Which kind' }));
  fireEvent.click(screen.getByRole('option', { name: 'Stepped' }));
  const lines = screen.getByLabelText('A line for each mark [in]');
  fireEvent.change(lines, { target: { value: 'US 5' } });
  expect(keep.hasAttribute('disabled')).toBe(true);
  fireEvent.change(lines, { target: { value: 'US 5 0.5\nUS 10 1' } });
  fireEvent.click(keep);
  await waitFor(() => expect(asked.find((a) => a.body)?.body).toMatchObject({ name: 'Short one', kind: 'stepped' }));
  const { marks } = asked.find((a) => a.body)?.body as { marks: { mark: string; measured_mm: number }[] };
  expect(marks.map((m) => [m.mark, Number(m.measured_mm.toFixed(3))])).toEqual([
    ['US 5', 12.7],
    ['US 10', 25.4],
  ]);
});

test('what is refused is said, and the lines stay', async () => {
  serving({ 'GET /api/mandrels': [] });
  drawn(<MandrelsScreen />);
  fireEvent.change(screen.getByLabelText('What you call it'), { target: { value: 'Short one' } });
  const lines = screen.getByLabelText<HTMLTextAreaElement>('A line for each mark [mm]');
  fireEvent.change(lines, { target: { value: 'US 5 99' } });
  fireEvent.click(screen.getByRole('button', { name: 'Keep it' }));
  expect(await screen.findByText(/there is none/i)).toBeTruthy();
  expect(lines.value).toBe('US 5 99');
});

test('a mandrel that was measured anew elsewhere is told by its new marks; one that is gone no more', async () => {
  const old = { name: 'Long steel one', off_mm: 0.3, slope: 0 };
  localStorage.setItem('pliant-coil.preferences', JSON.stringify({ mandrel: old }));
  serving({ 'GET /api/mandrels': [steel] });
  drawn(<AtHand />);
  await waitFor(() => expect(kept()).toEqual({ name: 'Long steel one', off_mm: -0.2, slope: 0.01 }));
  cleanup();
  serving({ 'GET /api/mandrels': [] });
  drawn(<AtHand />);
  await waitFor(() => expect(kept()).toBeNull());
});
