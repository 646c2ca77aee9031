// @vitest-environment jsdom
import { cleanup, fireEvent, screen, waitFor } from '@testing-library/react';
import type { ComponentType } from 'react';
import { afterEach, beforeEach, expect, test, vi } from 'vitest';
import type { JobAtBench } from '../api/client';
import { woven } from '../testing/desk';
import { drawn, serving } from '../testing/serve';
import { HammerSheet } from './HammerSheet';
import { EndSheet, ReadingSheet, RowSheet, TailSheet, type SheetProps } from './sheets';

const { plan } = woven;
const tails = [
  { piece: 'band.1', end: 'first', label: 'Left tail', needs: '62 1/2 mm', needs_mm: 62.5 },
  { piece: 'band.1', end: 'last', label: 'Right tail', needs: '70 mm', needs_mm: 70 },
];
const SIZE = { system: 'us', size: 'US 7', on_mandrel_mm: 17.3, reason: '' };
const sizes = (query: URLSearchParams) => (query.get('text') === 'huge' ? undefined : SIZE);

function shown(Sheet: ComponentType<SheetProps>, answers: Record<string, unknown>, over: object = {}) {
  const asked = serving({ 'GET /api/sizes': sizes, ...answers });
  const say = vi.fn(() => 'reading-id');
  const onDone = vi.fn();
  const at = { job: { id: 'one' }, plan, tails, progress: { number: 3, visit: null }, ...over };
  drawn(<Sheet at={at as unknown as JobAtBench} task="form" say={say} onDone={onDone} />);
  return { asked, say, onDone };
}
const type = (label: RegExp | string, value: string) =>
  fireEvent.change(screen.getByLabelText(label), { target: { value } });
const press = (name: RegExp | string) => fireEvent.click(screen.getByRole('button', { name }));
const off = (name: string) => screen.getByRole('button', { name }).hasAttribute('disabled');

beforeEach(() => localStorage.clear());

afterEach(() => {
  cleanup();
  vi.restoreAllMocks();
});

test('a reading brings choices; the one that is taken is written down with what was read', async () => {
  const choices = [
    { code: 'form-again', text: 'Form it again at US 6 1/2.', form_mm: 16.9 },
    { code: 'accept', text: 'Leave it.', form_mm: null },
  ];
  const answer = { text: 'It is 1/2 size large.', expected: 'US 7 1/4', choices };
  const { asked, say, onDone } = shown(ReadingSheet, { 'GET /api/jobs/one/reading': answer });
  type('The mandrel reads', 'US 7');
  expect(await screen.findByText('It is ½ size large.')).toBeTruthy();
  expect(screen.getByText('Planned here: US 7¼')).toBeTruthy();
  expect(asked.find((a) => a.path.endsWith('/reading'))?.query.get('value_mm')).toBe('17.3');
  press('Form it again at US 6½.');
  const reading = { what: 'size', task: 'form', side: '', piece: '', value_mm: 17.3, typed: 'US 7', by: 'hand' };
  expect(say.mock.calls).toEqual([
    ['reading', reading],
    ['chosen', { reading: 'reading-id', choice: 'form-again', form_mm: 16.9 }],
  ]);
  expect(onDone).toHaveBeenCalled();
});

test('a reading that is no size says so where it is typed, and nothing is asked of it', async () => {
  const { asked } = shown(ReadingSheet, {});
  type('The mandrel reads', 'huge');
  expect(await screen.findByText(/there is none/i)).toBeTruthy();
  expect(asked.some((a) => a.path.endsWith('/reading'))).toBe(false);
});

test('a row’s length says what it means before it is written down', async () => {
  const { say } = shown(RowSheet, { 'GET /api/jobs/one/row': { text: 'It runs 1/2 mm long.' } });
  expect(off('Write it down')).toBe(true);
  type('Length so far [mm]', '12,5');
  expect(await screen.findByText('It runs ½ mm long.')).toBeTruthy();
  press('Write it down');
  expect(say).toHaveBeenCalledWith('reading', expect.objectContaining({ what: 'length', value_mm: 12.5 }));
});

test.each([
  ['mm', '35 or 35.5'],
  ['in', '1.4 or 1 3/8'],
])('what is no length is told at its field, in %s', (units, like) => {
  localStorage.setItem('pliant-coil.preferences', JSON.stringify({ units }));
  const { asked } = shown(RowSheet, {});
  const field = screen.getByLabelText(`Length so far [${units}]`);
  expect(field.getAttribute('aria-invalid')).toBe('false');
  fireEvent.change(field, { target: { value: 'a thumb' } });
  expect(screen.getByText(`That is no length: ${like}`)).toBeTruthy();
  expect(field.getAttribute('aria-invalid')).toBe('true');
  expect(asked).toEqual([]);
});

test('each tail says what it still needs; one that is short gets a new piece', async () => {
  const told = { text: 'It is 12 mm short.', reaches: false, splice_mm: 40 };
  const { asked, say } = shown(TailSheet, { 'GET /api/jobs/one/tail': told });
  expect(screen.getByText(/needs 62½ mm of it/)).toBeTruthy();
  fireEvent.mouseDown(screen.getByRole('combobox', { name: 'Which' }));
  fireEvent.click(screen.getByRole('option', { name: 'Right tail' }));
  expect(screen.getByText(/needs 70 mm of it/)).toBeTruthy();
  type('Tail left [mm]', '58');
  expect(await screen.findByText('It is 12 mm short.')).toBeTruthy();
  expect(asked.find((a) => a.path.endsWith('/tail'))?.query.get('end')).toBe('last');
  press(/^A new piece is on/);
  expect(say).toHaveBeenCalledWith('spliced', { piece: 'band.1', length_mm: 40, task: 'form' });
  press('Write it down');
  expect(say).toHaveBeenLastCalledWith('reading', expect.objectContaining({ side: 'right', value_mm: 58 }));
});

test('with no tail left to do anything there is nothing to measure', () => {
  shown(TailSheet, {}, { tails: [] });
  expect(screen.getByText(/^No tail has anything left to do/)).toBeTruthy();
  expect(screen.queryByRole('textbox')).toBeNull();
});

test('half hammered, thickness and size are written down together', async () => {
  const { say } = shown(HammerSheet, { 'GET /api/jobs/one/hammered': { text: 'Two blows more.' } });
  type('Its thickness now [mm]', '1.4');
  type('The mandrel reads', 'US 7');
  expect(await screen.findByText('Two blows more.')).toBeTruthy();
  press('Write it down');
  expect(say).toHaveBeenNthCalledWith(1, 'reading', expect.objectContaining({ what: 'wire', value_mm: 1.4 }));
  expect(say).toHaveBeenNthCalledWith(2, 'reading', expect.objectContaining({ what: 'size', value_mm: 17.3 }));
});

test('a finished ring goes into the logbook with its size, its mandrel and what was left', async () => {
  const { say } = shown(EndSheet, {});
  type('Its size', 'US 7');
  type('On which mandrel', 'Long steel one');
  const [wire] = plan.wires;
  const left = screen.getAllByLabelText(new RegExp(`^Left of the ${wire?.role ?? ''} wire`))[0] as HTMLElement;
  fireEvent.change(left, { target: { value: '35' } });
  await waitFor(() => expect(off('Into the logbook')).toBe(false));
  await waitFor(() => expect(screen.getByLabelText<HTMLInputElement>('Its size').value).toBe('US 7'));
  press('Into the logbook');
  const told = { why: '', mandrel: 'Long steel one', left_mm: { [wire?.id ?? '']: 35 } };
  expect(say).toHaveBeenCalledWith('finished', expect.objectContaining(told));
  cleanup();
  // The next one was likely read on the same mandrel.
  shown(EndSheet, {});
  expect(screen.getByLabelText<HTMLInputElement>('On which mandrel').value).toBe('Long steel one');
});

test('a rest that is no length isn’t dropped without a word', () => {
  const { say } = shown(EndSheet, {});
  const left = screen.getAllByLabelText(/^Left of the/)[0] as HTMLElement;
  fireEvent.change(left, { target: { value: '3 cm' } });
  expect(screen.getByText(/^That is no length/)).toBeTruthy();
  expect(off('Into the logbook')).toBe(true);
  fireEvent.change(left, { target: { value: '' } });
  press('Into the logbook');
  expect(say).toHaveBeenCalledWith('finished', expect.objectContaining({ left_mm: {} }));
});

test('a ring that was spoiled says why, and is asked for no size', () => {
  const { say } = shown(EndSheet, {});
  fireEvent.mouseDown(screen.getByRole('combobox', { name: 'The ring is' }));
  fireEvent.click(screen.getByRole('option', { name: 'Spoiled' }));
  expect(screen.queryByLabelText('Its size')).toBeNull();
  type('Why', 'kinked');
  press('Into the logbook');
  expect(say).toHaveBeenCalledWith('spoiled', expect.objectContaining({ why: 'kinked', mandrel: '', size_mm: null }));
});
