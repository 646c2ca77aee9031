// @vitest-environment jsdom
import { cleanup, screen } from '@testing-library/react';
import { afterEach, expect, test, vi } from 'vitest';
import { drawn, serving } from '../testing/serve';
import BenchList from './BenchList';

afterEach(() => {
  cleanup();
  vi.restoreAllMocks();
});

test('an empty bench teaches the next move', async () => {
  serving({ 'GET /api/jobs': { jobs: [], total: 0 }, 'GET /api/batches': [] });
  drawn(<BenchList />);
  expect((await screen.findByRole('link', { name: 'Plan one' })).getAttribute('href')).toBe('/plan');
});

test('rings and batches lead to where they are gone on with, with fractions as fractions', async () => {
  const job = { id: 'a', title: 'Amber', sentence: 'US 6 1/2, soft copper', updated_at: '2026-03-01T10:00:00Z' };
  serving({
    'GET /api/jobs': { jobs: [job], total: 1 },
    'GET /api/batches': [
      { id: 'q', title: 'Quintet', kind: 'by_stage' },
      { id: 's', title: 'Saturday', kind: 'class' },
    ],
  });
  drawn(<BenchList />);
  expect((await screen.findByRole('link', { name: 'Amber' })).getAttribute('href')).toBe('/bench/a');
  expect(screen.getByText('US 6½, soft copper')).toBeTruthy();
  const several = await screen.findByRole('link', { name: 'Quintet: all of them' });
  expect(several.getAttribute('href')).toBe('/bench/several/q');
  expect(screen.getByRole('link', { name: 'Saturday: the class' })).toBeTruthy();
});

test('what keeps the list away is said', async () => {
  serving({ 'GET /api/batches': [] });
  drawn(<BenchList />);
  expect(await screen.findByText(/there is none/i)).toBeTruthy();
});
