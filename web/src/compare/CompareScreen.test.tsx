// @vitest-environment jsdom
import { cleanup, fireEvent, screen, within } from '@testing-library/react';
import { afterEach, beforeEach, expect, test, vi } from 'vitest';
import { turned, woven } from '../testing/desk';
import { drawn, serving } from '../testing/serve';
import { withFractions } from '../words/figures';
import CompareScreen from './CompareScreen';

const went = vi.fn();
vi.mock('react-router', async (real) => ({ ...(await real<object>()), useNavigate: () => went }));

const lay = (...names: string[]) =>
  sessionStorage.setItem('pliant-coil.beside', JSON.stringify(names.map((name) => ({ name, draft: turned.ring }))));

beforeEach(() => {
  sessionStorage.clear();
  went.mockClear();
});

afterEach(() => {
  cleanup();
  vi.restoreAllMocks();
});

test('with nothing laid out it says where rings come from', () => {
  serving({ 'GET /api/rings': { rings: [], total: 0 } });
  drawn(<CompareScreen />);
  expect(screen.getByRole('link', { name: 'gallery' }).getAttribute('href')).toBe('/gallery');
  expect(screen.queryByRole('combobox')).toBeNull();
});

test('each ring tells what it takes, weighs and needs', async () => {
  lay('One', 'Other');
  serving({ 'POST /api/plan': turned.plan });
  drawn(<CompareScreen />);
  const one = within(screen.getByRole('region', { name: 'One' }));
  const text = (await one.findByText('Weighs')).closest('dl')?.textContent ?? '';
  expect(text).toContain(`${turned.plan.band.mass_g.toFixed(2)} g`);
  expect(text).toContain(`${turned.plan.steps.length} steps`);
  expect(text).toMatch(/bead with a hole of \d/);
  for (const wire of turned.plan.wires) expect(text).toContain(withFractions(wire.cut));
});

test('a ring without a bead needs the usual tools only', async () => {
  lay('Row');
  serving({ 'POST /api/plan': woven.plan });
  drawn(<CompareScreen />);
  expect(await screen.findByText('pliers, cutter, mandrel')).toBeTruthy();
});

test('what can’t be planned says why, in its own column', async () => {
  lay('One');
  serving({});
  drawn(<CompareScreen />);
  const one = within(screen.getByRole('region', { name: 'One' }));
  expect(await one.findByText(/there is none/i)).toBeTruthy();
});

test('a ring is put away for good, or gone on with', async () => {
  lay('One', 'Other');
  serving({ 'POST /api/plan': turned.plan });
  drawn(<CompareScreen />);
  const one = screen.getByRole('region', { name: 'One' });
  fireEvent.click(within(one).getByRole('button', { name: 'Plan this one' }));
  expect(went).toHaveBeenCalledWith('/plan', { state: { laidOut: turned.ring } });
  fireEvent.click(within(one).getByRole('button', { name: 'Put away' }));
  expect(screen.queryByRole('region', { name: 'One' })).toBeNull();
  expect(await screen.findByText(/Lay two to four rings here/)).toBeTruthy();
  expect(JSON.parse(sessionStorage.getItem('pliant-coil.beside') ?? '[]')).toHaveLength(1);
});

test('a saved ring is laid beside the others under its own name; four are enough', async () => {
  lay('One', 'Other', 'Third');
  serving({
    'GET /api/rings': { rings: [{ id: 'a', title: '' }], total: 1 },
    'GET /api/rings/a': { file: { ...turned.ring, title: 'Amber' } },
    'POST /api/plan': turned.plan,
  });
  drawn(<CompareScreen />);
  fireEvent.mouseDown(await screen.findByRole('combobox', { name: 'Add one that you saved' }));
  fireEvent.click(screen.getByRole('option', { name: 'Without a title' }));
  expect(await screen.findByRole('region', { name: 'Amber' })).toBeTruthy();
  expect(screen.queryByRole('combobox')).toBeNull();
});
