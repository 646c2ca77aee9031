// @vitest-environment jsdom
import { cleanup, screen, within } from '@testing-library/react';
import { afterEach, expect, test, vi } from 'vitest';
import { drawn, serving } from '../testing/serve';
import BoardScreen from './BoardScreen';

vi.mock('react-router', async (real) => ({ ...(await real<object>()), useParams: () => ({ batchId: 'q' }) }));

const bench = (name: string, more: object = {}) => ({
  job_id: name,
  for_whom: name,
  size: 'US 6 1/2',
  state: 'open',
  phase: 'flat',
  step: 'Weave 3 1/2 rows.',
  place: 2,
  steps: 10,
  made: 0,
  whole: 0,
  minutes: 0,
  usual_minutes: 0,
  waits_since: null,
  ...more,
});
const board = (benches: object[], more: object = {}) => ({
  id: 'q',
  title: 'Quintet',
  kind: 'by_stage',
  stage: 'flat',
  repeats_left: 0,
  minutes_left: 0,
  set_up: ['Lay the guide to 8 1/2 mm.'],
  benches,
  ...more,
});
const row = (name: string) =>
  within(screen.getByRole('link', { name: new RegExp(`^${name}`) }).closest('li') as HTMLElement);

afterEach(() => {
  cleanup();
  vi.restoreAllMocks();
});

test('what is due now leads, with what is left of it', async () => {
  serving({ 'GET /api/batches/q': board([bench('horn'), bench('tuba')], { repeats_left: 90.4, minutes_left: 41.6 }) });
  drawn(<BoardScreen />);
  expect((await screen.findByRole('heading', { level: 2 })).textContent).toBe(
    'Now: Flat work, 90 repeats left, about 42 min',
  );
  expect(screen.getByText('Lay the guide to 8½ mm.')).toBeTruthy();
  expect(document.title).toBe('Quintet · Bench · Pliant Coil');
});

test('each ring leads to its bench and says how far it is', async () => {
  const half = bench('tuba', { made: 5, whole: 10, minutes: 12.4 });
  serving({ 'GET /api/batches/q': board([bench('horn'), half]) });
  drawn(<BoardScreen />);
  const link = await screen.findByRole('link', { name: 'tuba, US 6½' });
  expect(link.getAttribute('href')).toBe('/bench/tuba');
  expect(row('tuba').getByText('Weave 3½ rows.')).toBeTruthy();
  expect(row('tuba').getByText('5 of 10 · 12 min here')).toBeTruthy();
  // Half of a step is half of it on the bar, too.
  const bar = row('tuba').getByRole('img', { name: 'step 2 of 10 done' }).firstElementChild;
  expect(getComputedStyle(bar as Element).width).toBe('25%');
});

test('who waits for help is called by name', async () => {
  const since = { waits_since: '2026-03-01T10:00:00Z' };
  serving({ 'GET /api/batches/q': board([bench('Ada', since), bench('Bo', since), bench('Cy')], { kind: 'class' }) });
  drawn(<BoardScreen />);
  expect((await screen.findByRole('status')).textContent).toBe('Ada, Bo wait for help.');
});

test('who takes more than twice as long as the others is seen', async () => {
  const benches = [bench('Ada', { minutes: 21, usual_minutes: 10 }), bench('Bo', { minutes: 19, usual_minutes: 10 })];
  serving({ 'GET /api/batches/q': board(benches, { kind: 'class' }) });
  drawn(<BoardScreen />);
  await screen.findByRole('link', { name: /^Ada/ });
  expect(row('Ada').getByText('21 min here · the others took 10')).toBeTruthy();
  expect(row('Bo').queryByText(/the others/)).toBeNull();
});

test('rings that have ended say how; when all have, so does the board', async () => {
  const ended = [bench('a', { state: 'finished' }), bench('b', { state: 'spoiled' }), bench('c', { step: '' })];
  serving({ 'GET /api/batches/q': board(ended, { stage: '', set_up: [] }) });
  drawn(<BoardScreen />);
  expect((await screen.findByRole('heading', { level: 2 })).textContent).toBe('Every step of every ring is done.');
  expect(row('a').getByText('Finished.')).toBeTruthy();
  expect(row('b').getByText('Spoiled.')).toBeTruthy();
  expect(row('c').getByText('All its steps are done.')).toBeTruthy();
});

test('a board that isn’t there says so', async () => {
  serving({});
  drawn(<BoardScreen />);
  expect(await screen.findByText(/there is none/i)).toBeTruthy();
});
