// @vitest-environment jsdom
import { cleanup, fireEvent, screen, waitFor, within } from '@testing-library/react';
import { afterEach, expect, test, vi } from 'vitest';
import { drawn, serving } from '../testing/serve';
import { Members } from './Members';

afterEach(() => {
  cleanup();
  vi.restoreAllMocks();
});

const member = (id: string, name: string, role: string) => ({ id, name, role, since: '2026-03-01T10:00:00Z' });
const link = (more = {}) => ({
  id: 'l1',
  role: 'maker',
  for_whom: '',
  ends_at: '2026-03-08T10:00:00Z',
  token: null,
  ...more,
});
const people = (links: object[] = []) => ({
  members: [member('me', 'Ada', 'owner'), member('b', 'Bo', 'maker')],
  links,
});

test('whoever works here is named, and nobody lets themselves go', async () => {
  serving({ 'GET /api/people': people() });
  drawn(<Members mine="me" />);
  const [ada, bo] = await screen.findAllByRole('listitem');
  expect(within(ada as HTMLElement).getByText('Ada, you')).toBeTruthy();
  expect(within(ada as HTMLElement).queryByRole('button')).toBeNull();
  expect(
    within(bo as HTMLElement)
      .getAllByRole('button')
      .map((b) => b.textContent),
  ).toEqual(['New password', 'Works here no longer']);
});

test('somebody is let go only when it is said twice', async () => {
  const asked = serving({ 'GET /api/people': people(), 'DELETE /api/people/b': {} });
  drawn(<Members mine="me" />);
  fireEvent.click(await screen.findByRole('button', { name: 'Works here no longer' }));
  expect(asked.some((a) => a.path === '/api/people/b')).toBe(false);
  fireEvent.click(screen.getByRole('button', { name: /^Really/ }));
  await waitFor(() => expect(asked.some((a) => a.path === '/api/people/b')).toBe(true));
});

test('a link is shown once, with its token behind the hash where no server sees it', async () => {
  const asked = serving({ 'GET /api/people': people(), 'POST /api/links': link({ token: 'abc' }) });
  drawn(<Members mine="me" />);
  await screen.findByText('Bo');
  fireEvent.click(screen.getByRole('button', { name: 'Make a link' }));
  expect((await screen.findByTestId('link')).textContent).toBe(`${window.location.origin}/join#abc`);
  expect(asked.find((a) => a.path === '/api/links')?.body).toEqual({ role: 'maker' });
  expect(screen.getByText(/works once, until .* and is shown only now/)).toBeTruthy();
});

test('links that nobody used are listed with what they are for, and can be taken back', async () => {
  const links = [link(), link({ id: 'l2', for_whom: 'Bo' })];
  const asked = serving({ 'GET /api/people': people(links), 'DELETE /api/links/l2': {} });
  drawn(<Members mine="me" />);
  const open = within(await screen.findByRole('region', { name: 'Links that nobody has used yet' }));
  expect(open.getByText(/^To come in: /)).toBeTruthy();
  expect(open.getByText(/^New password for Bo, until/)).toBeTruthy();
  fireEvent.click(open.getAllByRole('button', { name: 'Take it back' })[1] as HTMLElement);
  await waitFor(() => expect(asked.some((a) => a.path === '/api/links/l2')).toBe(true));
});
