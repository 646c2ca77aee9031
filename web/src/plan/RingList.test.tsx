// @vitest-environment jsdom
import { cleanup, fireEvent, screen, waitFor } from '@testing-library/react';
import { afterEach, beforeEach, expect, test, vi } from 'vitest';
import { NoticesProvider } from '../app/Notices';
import { PAGE } from '../api/queries';
import { drawn, serving } from '../testing/serve';
import { RingList } from './RingList';

const ring = (n: number) => ({
  id: `r${n}`,
  title: `Ring ${n}`,
  sentence: 'A US 6 1/2 in copper.',
  updated_at: '2026-03-01T10:00:00Z',
  revision: 4,
});
const page = (from: number, many: number) => Array.from({ length: many }, (_, k) => ring(from + k));

function shown(answers: Record<string, unknown>) {
  const asked = serving(answers);
  const onClose = vi.fn();
  const onRemoved = vi.fn();
  drawn(
    <NoticesProvider>
      <RingList open onClose={onClose} onRemoved={onRemoved} />
    </NoticesProvider>,
  );
  return { asked, onClose, onRemoved };
}

beforeEach(() => vi.stubGlobal('crypto', { randomUUID: () => 'key' }));

afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
  vi.restoreAllMocks();
});

test('an empty list teaches the next move; a search that finds nothing says so', async () => {
  shown({ 'GET /api/rings': { rings: [], total: 0 } });
  expect(await screen.findByText(/No ring is saved yet/)).toBeTruthy();
  fireEvent.change(screen.getByLabelText('Search'), { target: { value: 'honey' } });
  expect(await screen.findByText(/No saved ring says “honey”/)).toBeTruthy();
});

test('a ring is opened, with its sentence in fractions, and the list closes', async () => {
  const { onClose } = shown({ 'GET /api/rings': { rings: [ring(1)], total: 1 } });
  const link = await screen.findByRole('link', { name: /^Ring 1/ });
  expect(link.getAttribute('href')).toBe('/plan/r1');
  expect(screen.getByText('A US 6½ in copper.')).toBeTruthy();
  fireEvent.click(link);
  expect(onClose).toHaveBeenCalled();
});

test('a ring is copied, which is told', async () => {
  const { asked } = shown({
    'GET /api/rings': { rings: [ring(1)], total: 1 },
    'POST /api/rings/r1/duplicate': { id: 'r2' },
  });
  fireEvent.click(await screen.findByRole('button', { name: 'Copy Ring 1' }));
  expect(await screen.findByText('“Ring 1” is copied.')).toBeTruthy();
  expect(asked.filter((a) => a.path === '/api/rings/r1/duplicate')).toHaveLength(1);
});

test('a deleted ring can be had back at once', async () => {
  const { asked, onRemoved } = shown({
    'GET /api/rings': { rings: [ring(1)], total: 1 },
    'DELETE /api/rings/r1': {},
    'POST /api/rings/r1/restore': {},
  });
  fireEvent.click(await screen.findByRole('button', { name: 'Delete Ring 1' }));
  fireEvent.click(await screen.findByRole('button', { name: 'Undo' }));
  await waitFor(() => expect(asked.some((a) => a.path === '/api/rings/r1/restore')).toBe(true));
  expect(asked.find((a) => a.path === '/api/rings/r1')?.query.get('base_revision')).toBe('4');
  expect(onRemoved).toHaveBeenCalledWith('r1');
  await waitFor(() => expect(screen.queryByText('“Ring 1” is deleted.')).toBeNull());
});

test('what can’t be deleted says why', async () => {
  shown({ 'GET /api/rings': { rings: [ring(1)], total: 1 } });
  fireEvent.click(await screen.findByRole('button', { name: 'Delete Ring 1' }));
  expect(await screen.findByText(/there is none/i)).toBeTruthy();
});

test('many rings come page by page, on from the last one and back', async () => {
  const total = PAGE + 2;
  const { asked } = shown({
    'GET /api/rings': (query: URLSearchParams) =>
      query.get('after') ? { rings: page(PAGE, 2), total } : { rings: page(0, PAGE), total },
  });
  expect(await screen.findByText(`1 to ${PAGE} of ${total}`)).toBeTruthy();
  expect(screen.getByRole('button', { name: 'Newer' }).hasAttribute('disabled')).toBe(true);
  fireEvent.click(screen.getByRole('button', { name: 'Older' }));
  expect(await screen.findByText(`${PAGE + 1} to ${total} of ${total}`)).toBeTruthy();
  expect(asked.some((a) => a.query.get('after') === `r${PAGE - 1}`)).toBe(true);
  await waitFor(() => expect(screen.getByRole('button', { name: 'Older' }).hasAttribute('disabled')).toBe(true));
  fireEvent.click(screen.getByRole('button', { name: 'Newer' }));
  expect(await screen.findByText(`1 to ${PAGE} of ${total}`)).toBeTruthy();
});

test('deleted rings are taken back, never opened', async () => {
  const { asked } = shown({
    'GET /api/rings': (query: URLSearchParams) =>
      query.get('deleted') === 'true' ? { rings: [ring(7)], total: 1 } : { rings: [], total: 0 },
    'POST /api/rings/r7/restore': {},
  });
  fireEvent.click(await screen.findByRole('button', { name: 'Show deleted rings' }));
  const back = await screen.findByRole('button', { name: 'Take Ring 7 back' });
  expect(screen.queryByRole('link', { name: /Ring 7/ })).toBeNull();
  fireEvent.click(back);
  await waitFor(() => expect(asked.some((a) => a.path === '/api/rings/r7/restore')).toBe(true));
});
