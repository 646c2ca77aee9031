// @vitest-environment jsdom
import { cleanup, fireEvent, screen } from '@testing-library/react';
import { afterEach, beforeEach, expect, test, vi } from 'vitest';
import { turned } from '../testing/desk';
import { drawn, serving } from '../testing/serve';
import SizesScreen from './SizesScreen';

const size = turned.plan.target;
const scales = ['us', 'uk', 'eu', 'jp', 'ch', 'de'].map((code) => ({
  code,
  name: code,
  rule: '',
  source: '',
  marks: [],
}));
const known = (query: URLSearchParams) =>
  query.get('text') === 'US 99' ? undefined : { system: 'us', size, on_mandrel_mm: 17.32, reason: '' };

beforeEach(() => {
  localStorage.setItem('pliant-coil.preferences', JSON.stringify({ units: 'mm', systems: ['uk', 'us'] }));
});
afterEach(() => {
  cleanup();
  vi.restoreAllMocks();
  localStorage.clear();
});

test('a size stands in every system, the maker’s own first', async () => {
  serving({ 'GET /api/sizes': known, 'GET /api/sizes/scales': scales });
  drawn(<SizesScreen />);
  await screen.findByTestId('size-jp');
  const codes = screen.getAllByTestId(/^size-/).map((dd) => dd.dataset.testid);
  expect(codes).toEqual(['size-uk', 'size-us', 'size-eu', 'size-jp', 'size-ch', 'size-de']);
  expect(screen.getByTestId('size-us').textContent).toBe('US 7');
  expect(screen.getByText(/^17\.32 mm across, 54\.41 mm around, inside\.$/)).toBeTruthy();
});

test('what isn’t a size is told at its field, and the last one no longer looks current', async () => {
  serving({ 'GET /api/sizes': known, 'GET /api/sizes/scales': scales });
  drawn(<SizesScreen />);
  await screen.findByTestId('size-us');
  const field = screen.getByRole('textbox', { name: 'A ring size, as you say it' });
  fireEvent.change(field, { target: { value: 'US 99' } });
  await vi.waitFor(() => expect(field.getAttribute('aria-invalid')).toBe('true'));
  const stands = screen.getByTestId('size-us').closest('dl')?.parentElement as HTMLElement;
  expect(getComputedStyle(stands).textDecoration).toContain('line-through');
  expect(screen.getByRole('button', { name: 'Plan a ring of this size' })).toHaveProperty('disabled', true);
});

test('between a finger and its knuckle a size is proposed, with why, in the maker’s own unit', async () => {
  localStorage.setItem('pliant-coil.preferences', JSON.stringify({ units: 'in', systems: ['us', 'uk'] }));
  const asked = serving({
    'GET /api/sizes': known,
    'GET /api/sizes/scales': scales,
    'GET /api/sizes/between': { system: 'us', size, on_mandrel_mm: 17.32, reason: 'Half-way between both.' },
  });
  drawn(<SizesScreen />);
  fireEvent.change(screen.getByRole('textbox', { name: 'Around the finger, in' }), { target: { value: '2' } });
  fireEvent.change(screen.getByRole('textbox', { name: 'Around the knuckle, in' }), { target: { value: '2,25' } });
  expect(await screen.findByText(/Half-way between both\./)).toBeTruthy();
  const query = asked.filter((a) => a.path === '/api/sizes/between').at(-1)?.query;
  expect(Number(query?.get('around_finger_mm'))).toBeCloseTo(50.8);
  expect(Number(query?.get('around_knuckle_mm'))).toBeCloseTo(57.15);
  fireEvent.click(screen.getByRole('button', { name: 'Look at this size' }));
  expect(screen.getByRole('textbox', { name: 'A ring size, as you say it' })).toHaveProperty('value', 'US 7');
});
