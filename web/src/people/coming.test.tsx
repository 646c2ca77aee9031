// @vitest-environment jsdom
import { cleanup, fireEvent, screen, waitFor, within } from '@testing-library/react';
import { afterEach, expect, test, vi } from 'vitest';
import { api, type Me } from '../api/client';
import { NoticesProvider } from '../app/Notices';
import { drawn, serving } from '../testing/serve';
import JoinScreen from './JoinScreen';
import { FirstName, NewPassword, Workshops } from './Own';
import { SignInScreen } from './SignInScreen';

const went = vi.fn();
vi.mock('react-router', async (real) => ({ ...(await real<object>()), useNavigate: () => went }));

const type = (label: RegExp | string, value: string) =>
  fireEvent.change(screen.getByLabelText(label), { target: { value } });
const NAME = /^Your name|^Name/;
const PASSWORD = /password/i;

afterEach(() => {
  cleanup();
  window.location.hash = '';
  went.mockClear();
  vi.restoreAllMocks();
});

test('whoever knows a name and its password comes in', async () => {
  const asked = serving({ 'POST /api/sign-in': {} });
  drawn(<SignInScreen />);
  type(NAME, 'Ada');
  type(PASSWORD, 'three blue mandrels');
  fireEvent.click(screen.getByRole('button', { name: 'Come in' }));
  const who = { name: 'Ada', password: 'three blue mandrels' };
  await waitFor(() => expect(asked.find((a) => a.path === '/api/sign-in')?.body).toEqual(who));
  expect(screen.getByText('./people owner')).toBeTruthy();
});

test('a wrong one is said, and the name stays', async () => {
  serving({});
  drawn(<SignInScreen />);
  type(NAME, 'Ada');
  type(PASSWORD, 'wrong');
  fireEvent.click(screen.getByRole('button', { name: 'Come in' }));
  expect(await screen.findByText(/there is none/i)).toBeTruthy();
  expect(screen.getByLabelText<HTMLInputElement>(NAME).value).toBe('Ada');
});

test('who works alone takes a name of their own first', async () => {
  serving({ 'POST /api/me': {} });
  drawn(<FirstName workshop="Fernhill Bench" />);
  expect(screen.getByText(/Nobody is asked for a name at Fernhill Bench/)).toBeTruthy();
  type(NAME, 'Ada');
  type(PASSWORD, 'three blue mandrels');
  fireEvent.click(screen.getByRole('button', { name: 'Take this name' }));
  const body = { name: 'Ada', password: 'three blue mandrels' };
  await waitFor(() => expect(api.POST).toHaveBeenCalledWith('/api/me', { body }));
});

test('a link says what it opens before anything is typed', async () => {
  window.location.hash = '#abc';
  const offer = { workshop: 'Fernhill Bench', role: 'viewer', for_whom: '' };
  const asked = serving({ 'POST /api/links/look': offer, 'POST /api/links/take': {} });
  drawn(<JoinScreen />);
  expect(await screen.findByRole('heading', { name: 'Welcome to Fernhill Bench' })).toBeTruthy();
  expect(asked[0]?.body).toEqual({ token: 'abc' });
  type(NAME, 'Bo');
  type(PASSWORD, 'four green anvils');
  fireEvent.click(screen.getByRole('button', { name: 'Come in' }));
  await waitFor(() => expect(went).toHaveBeenCalledWith('/plan', { replace: true }));
  const who = { token: 'abc', name: 'Bo', password: 'four green anvils' };
  expect(asked.find((a) => a.path === '/api/links/take')?.body).toEqual(who);
});

test('a link to a new password is for one person', async () => {
  window.location.hash = '#abc';
  serving({ 'POST /api/links/look': { workshop: 'Fernhill Bench', role: 'maker', for_whom: 'Bo' } });
  drawn(<JoinScreen />);
  expect(await screen.findByRole('heading', { name: 'A new password for Bo' })).toBeTruthy();
  expect(screen.getByRole('button', { name: 'Keep it and come in' })).toBeTruthy();
});

test('a dead link and none at all open nothing', async () => {
  window.location.hash = '#old';
  serving({});
  drawn(<JoinScreen />);
  expect(await screen.findByRole('heading', { name: 'This link opens nothing' })).toBeTruthy();
  cleanup();
  window.location.hash = '';
  const asked = serving({});
  drawn(<JoinScreen />);
  expect(screen.getByRole('heading', { name: 'This link opens nothing' })).toBeTruthy();
  expect(asked).toEqual([]);
});

test('a password is changed with the one of now, and that others are signed out is told', async () => {
  const asked = serving({ 'PUT /api/me/password': {} });
  drawn(
    <NoticesProvider>
      <NewPassword name="Ada" />
    </NoticesProvider>,
  );
  fireEvent.click(screen.getByRole('button', { name: 'Another password …' }));
  type(/^The one of now/, 'old words here');
  type(/^The new one/, 'new words here');
  fireEvent.click(screen.getByRole('button', { name: 'Change it' }));
  expect(await screen.findByText(/your other browsers are signed out/)).toBeTruthy();
  expect(asked.find((a) => a.body)?.body).toEqual({ current: 'old words here', password: 'new words here' });
  expect(screen.queryByLabelText(/^The one of now/)).toBeNull();
});

test('workshops elsewhere are gone to, and an owner opens another', async () => {
  const here = { workshop_id: 'a', name: 'Fernhill Bench', role: 'owner' };
  const there = { workshop_id: 'b', name: 'Saturday class', role: 'viewer' };
  const asked = serving({ 'PUT /api/me/workshop': {}, 'POST /api/workshops': {} });
  const me = { here, places: [here, there], name: 'Ada' } as unknown as Me;
  drawn(<Workshops me={me} />);
  const section = within(screen.getByRole('region', { name: 'Workshops' }));
  expect(section.getByText(/^Saturday class, /)).toBeTruthy();
  expect(section.queryByText(/^Fernhill Bench/)).toBeNull();
  fireEvent.click(section.getByRole('button', { name: 'Go there' }));
  await waitFor(() =>
    expect(asked.some((a) => (a.body as { workshop_id?: string } | undefined)?.workshop_id === 'b')).toBe(true),
  );
  cleanup();
  drawn(<Workshops me={{ ...me, here: { ...here, role: 'maker' } } as unknown as Me} />);
  expect(screen.queryByLabelText('Name of a new workshop')).toBeNull();
});
