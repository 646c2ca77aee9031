// @vitest-environment jsdom
import { cleanup, fireEvent, screen, waitFor } from '@testing-library/react';
import { afterEach, beforeEach, expect, test, vi } from 'vitest';
import { PAGE } from '../api/queries';
import { drawn, serving } from '../testing/serve';
import LogbookScreen from './LogbookScreen';

beforeEach(() => {
  localStorage.clear();
});
afterEach(() => {
  cleanup();
  vi.restoreAllMocks();
});

const job = (n: number) => ({
  id: `ring-${n}`,
  title: `Ring ${n}`,
  sentence: 'US 7, soft copper, 20 AWG',
  state: 'finished',
  number: 9,
  created_at: '2026-03-01T10:00:00Z',
  updated_at: '2026-03-01T11:00:00Z',
  ended_at: '2026-03-01T11:00:00Z',
  begun_by: '',
  batch_id: null,
  for_whom: '',
  record: null,
  photo: null,
});
const rings = (from: number, to: number) => Array.from({ length: to - from }, (_, k) => job(from + k));

test('an empty logbook says what would fill it, and an empty search what was looked for', async () => {
  serving({ 'GET /api/jobs': { jobs: [], total: 0 } });
  drawn(<LogbookScreen />);
  expect(await screen.findByText(/^No ring is finished yet/)).toBeTruthy();
  fireEvent.change(screen.getByRole('textbox', { name: 'Search' }), { target: { value: 'tuba' } });
  expect(await screen.findByText('No ring here says “tuba”.')).toBeTruthy();
});

test('older pages are asked for from the last ring on, and a new search begins with the newest', async () => {
  const page = (query: URLSearchParams) => {
    const after = query.get('after');
    const from = after ? Number(after.slice(5)) + 1 : 0;
    return { jobs: rings(from, Math.min(from + PAGE, PAGE + 2)), total: PAGE + 2 };
  };
  const asked = serving({ 'GET /api/jobs': page });
  drawn(<LogbookScreen />);
  await screen.findByText('Ring 0');
  expect(screen.getByRole('button', { name: 'Newer' })).toHaveProperty('disabled', true);
  fireEvent.click(screen.getByRole('button', { name: 'Older' }));
  await screen.findByText(`Ring ${PAGE + 1}`);
  expect(asked.at(-1)?.query.get('after') ?? asked.find((a) => a.query.get('after'))?.query.get('after')).toBe(
    `ring-${PAGE - 1}`,
  );
  expect(screen.getByRole('button', { name: 'Older' })).toHaveProperty('disabled', true);
  fireEvent.click(screen.getByRole('button', { name: 'Newer' }));
  await screen.findByText('Ring 0');
  fireEvent.click(screen.getByRole('button', { name: 'Older' }));
  await screen.findByText(`Ring ${PAGE + 1}`);
  fireEvent.change(screen.getByRole('textbox', { name: 'Search' }), { target: { value: 'amber' } });
  await waitFor(() => {
    const last = asked.filter((a) => a.path === '/api/jobs').at(-1);
    expect([last?.query.get('q'), last?.query.get('after')]).toEqual(['amber', null]);
  });
});
