// @vitest-environment jsdom
import { cleanup, fireEvent, screen, waitFor, within } from '@testing-library/react';
import { afterEach, beforeEach, expect, test, vi } from 'vitest';
import { drawn, serving } from '../testing/serve';
import GalleryScreen from './GalleryScreen';

const went = vi.fn();
vi.mock('react-router', async (real) => ({ ...(await real<object>()), useNavigate: () => went }));

const entry = (title: string, wire: number, beads: number[], minutes: number, torch = false) => ({
  kind: 'head',
  style: title.toLowerCase(),
  title,
  ring: { head: { style: title.toLowerCase() } },
  sentence: `A US 6 1/2 with ${title}.`,
  wires: [{ role: 'band', label: '', diameter_mm: wire, cut: '240 mm', cut_mm: 240 }],
  beads_mm: beads,
  mass_g: 1,
  height: '5 mm',
  height_mm: 5,
  minutes,
  torch,
  steps: 10,
  picture: { box: [0, 0, 1, 1], lines: [] },
});
const ENTRIES = [
  entry('Nest', 0.8, [7], 42),
  entry('Wave', 1.5, [], 200, true),
  entry('Cage', 1, [], 50),
  entry('Rows', 0.8, [3], 61),
  entry('Sign', 1, [], 20),
];
const gallery = { 'GET /api/gallery': { entries: ENTRIES } };

const titles = () => screen.getAllByRole('heading', { level: 3 }).map((h) => h.textContent);
const tile = (title: string) =>
  within(screen.getByRole('heading', { level: 3, name: title }).closest('li') as HTMLElement);

beforeEach(() => {
  localStorage.clear();
  sessionStorage.clear();
  went.mockClear();
});

afterEach(() => {
  cleanup();
  vi.restoreAllMocks();
});

test('all are there, the quickest first, each with its wire, height and time', async () => {
  serving(gallery);
  drawn(<GalleryScreen />);
  expect(await screen.findByRole('heading', { level: 2, name: 'All of them' })).toBeTruthy();
  expect(titles()).toEqual(['Sign', 'Nest', 'Cage', 'Rows', 'Wave']);
  expect(tile('Nest').getByText('240 mm · 5 mm high · about 40 min')).toBeTruthy();
  expect(tile('Wave').getByText(/about 3.25 h/)).toBeTruthy();
  expect(tile('Nest').getByText('A US 6½ with Nest.')).toBeTruthy();
});

test('what lies on the bench parts them, and each says what it lacks', async () => {
  serving(gallery);
  drawn(<GalleryScreen />);
  await screen.findByText('All of them');
  fireEvent.change(screen.getByLabelText('Wire at hand, mm'), { target: { value: '0,8' } });
  fireEvent.click(screen.getByRole('button', { name: 'An hour' }));
  fireEvent.click(screen.getByRole('button', { name: 'No torch' }));
  expect(screen.getByRole('heading', { level: 2, name: 'Enough for these' })).toBeTruthy();
  expect(titles()[0]).toBe('Nest');
  expect(tile('Nest').queryByText(/^Needs/)).toBeNull();
  expect(tile('Rows').getByText('Needs more time')).toBeTruthy();
  expect(tile('Wave').getByText('Needs other wire, more time, a torch')).toBeTruthy();
  fireEvent.change(screen.getByLabelText('Bead at hand, mm'), { target: { value: '3' } });
  expect(tile('Nest').getByText('Needs another bead')).toBeTruthy();
  expect(tile('Sign').getByText('Needs other wire, no bead')).toBeTruthy();
});

test('who reads inches says wire in inches', async () => {
  localStorage.setItem('pliant-coil.preferences', JSON.stringify({ units: 'in', systems: ['uk', 'us'] }));
  const asked = serving(gallery);
  drawn(<GalleryScreen />);
  await screen.findByText('All of them');
  expect(screen.getByLabelText<HTMLInputElement>('Ring size').value).toBe('UK N');
  expect(asked[0]?.query.get('size')).toBe('UK N');
  fireEvent.change(screen.getByLabelText('Wire at hand, in'), { target: { value: '0.0315' } });
  expect(tile('Nest').queryByText(/^Needs/)).toBeNull();
  expect(tile('Cage').getByText('Needs other wire')).toBeTruthy();
});

test('a ring is started from at the size that stands there', async () => {
  const asked = serving(gallery);
  drawn(<GalleryScreen />);
  await screen.findByText('All of them');
  fireEvent.change(screen.getByLabelText('Ring size'), { target: { value: 'US 9' } });
  await waitFor(() => expect(asked.some((a) => a.query.get('size') === 'US 9')).toBe(true));
  fireEvent.click(tile('Cage').getByRole('button', { name: 'Start from this' }));
  const laidOut = { head: { style: 'cage' }, finger: { size: 'US 9' } };
  expect(went).toHaveBeenCalledWith('/plan', { state: { laidOut } });
});

test('two to four are laid side by side', async () => {
  serving(gallery);
  drawn(<GalleryScreen />);
  await screen.findByText('All of them');
  const lay = (title: string) => tile(title).getByRole('button', { name: /Lay beside|Laid out/ });
  fireEvent.click(lay('Nest'));
  expect(screen.getByRole('button', { name: 'Lay two side by side' }).hasAttribute('disabled')).toBe(true);
  for (const title of ['Wave', 'Cage', 'Sign']) fireEvent.click(lay(title));
  expect(lay('Rows').hasAttribute('disabled')).toBe(true);
  fireEvent.click(lay('Wave'));
  expect(lay('Rows').hasAttribute('disabled')).toBe(false);
  fireEvent.click(screen.getByRole('button', { name: 'Lay 3 side by side' }));
  expect(went).toHaveBeenCalledWith('/compare');
  fireEvent.click(screen.getByRole('button', { name: 'Put away' }));
  expect(screen.queryByRole('button', { name: /side by side/ })).toBeNull();
});

test('a size that can’t be read is said where it is typed; what stood there stays', async () => {
  let known = true;
  serving({ 'GET /api/gallery': () => (known ? { entries: ENTRIES } : undefined) });
  drawn(<GalleryScreen />);
  await screen.findByText('All of them');
  known = false;
  fireEvent.change(screen.getByLabelText('Ring size'), { target: { value: 'huge' } });
  expect(await screen.findByText(/there is none/i)).toBeTruthy();
  expect(titles()).toHaveLength(5);
});
