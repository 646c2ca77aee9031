// @vitest-environment jsdom
import { cleanup, fireEvent, screen } from '@testing-library/react';
import { afterEach, expect, test, vi } from 'vitest';
import type { JobAtBench, Progress } from '../api/client';
import { drawn, serving } from '../testing/serve';
import { CameBackSheet, Repair } from './Repair';

const at = {
  job: { id: 'one' },
  hides_splice: 'under the bead',
  plan: { wires: [{ id: 'band.1', role: 'band', pieces: 1 }] },
};
interface Came {
  why: string;
  reads_mm: number | null;
  wanted_mm: number;
  reads: string | null;
  wanted: string;
  done: string[];
}
const visit: Came = {
  why: 'It sits tight',
  reads_mm: 16.6,
  wanted_mm: 17,
  reads: 'US 6',
  wanted: 'US 6 1/2',
  done: [],
};
const ways = [
  { code: 'stretch', reaches: true, low: '', high: '', text: 'Press it down to US 6 1/2.' },
  { code: 'hammer', reaches: false, low: '', high: '', text: 'It gives a quarter.' },
];
const size = { on_mandrel_mm: 16.8 };

const shown = (over: Partial<Came> = {}) => {
  const say = vi.fn(() => '');
  const onEnd = vi.fn();
  const progress = { visit: { ...visit, ...over } } as unknown as Progress;
  drawn(<Repair at={at as unknown as JobAtBench} progress={progress} say={say} onEnd={onEnd} />);
  return { say, onEnd };
};

afterEach(() => {
  cleanup();
  vi.restoreAllMocks();
});

test('ways that reach stand beside those that don’t, reckoned from what was read when it came', async () => {
  const asked = serving({ 'GET /api/jobs/one/repair': { ways }, 'GET /api/sizes': size });
  const { say } = shown();
  fireEvent.click(await screen.findByRole('button', { name: 'Done so: Stretch it' }));
  expect(asked[0]?.query.get('reads_mm')).toBe('16.6');
  expect(say).toHaveBeenCalledWith('mended', { way: 'stretch', reads_mm: 16.6, wanted_mm: 17 });
  expect(screen.getByText('Hammer its back: not this far.')).toBeTruthy();
  expect(screen.getByText(/Press it down to US 6½/)).toBeTruthy();
});

test('nothing is reckoned before both sizes are known', () => {
  const asked = serving({ 'GET /api/sizes': size });
  shown({ reads_mm: null, reads: null });
  expect(asked).toEqual([]);
  expect(screen.queryByRole('button', { name: /Keep it so/ })).toBeNull();
});

test('what was done is named, and a new piece is written down with its wire', () => {
  serving({ 'GET /api/jobs/one/repair': { ways: [] } });
  const { say, onEnd } = shown({ done: ['stretch', 'back-4'] });
  expect(screen.getByText(/Done so far: stretch it, a wrap at the back/)).toBeTruthy();
  expect(screen.getByText(/its start hidden under the bead/)).toBeTruthy();
  fireEvent.change(screen.getByLabelText('New piece [mm]'), { target: { value: '85' } });
  fireEvent.click(screen.getByRole('button', { name: 'It is on' }));
  expect(say).toHaveBeenCalledWith('spliced', { piece: 'band.1', length_mm: 85, task: 'repair' });
  fireEvent.click(screen.getByRole('button', { name: 'It leaves again' }));
  expect(onEnd).toHaveBeenCalled();
});

test('a ring comes back with its reason and what may stay empty', () => {
  const say = vi.fn(() => '');
  const onDone = vi.fn();
  serving({});
  drawn(<CameBackSheet say={say} onDone={onDone} />);
  fireEvent.change(screen.getByLabelText('Why it came back'), { target: { value: ' a wire stands ' } });
  fireEvent.click(screen.getByRole('button', { name: 'On the bench with it' }));
  expect(say).toHaveBeenCalledWith('came_back', { why: 'a wire stands', reads_mm: null, wanted_mm: null });
  expect(onDone).toHaveBeenCalled();
});
