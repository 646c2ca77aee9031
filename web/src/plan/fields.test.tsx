// @vitest-environment jsdom
import { cleanup, fireEvent, screen } from '@testing-library/react';
import { afterEach, beforeEach, expect, test, vi } from 'vitest';
import type { Problem } from '../api/client';
import { onDesk, turned } from '../testing/desk';
import { serving } from '../testing/serve';
import { Choice, Count, NumberEntry, Switch, TextEntry, YesNo } from './fields';

beforeEach(() => {
  localStorage.clear();
  serving({});
});

afterEach(() => {
  cleanup();
  vi.restoreAllMocks();
});

const inches = () => localStorage.setItem('pliant-coil.preferences', JSON.stringify({ units: 'in' }));
const type = (label: string, value: string) => fireEvent.change(screen.getByLabelText(label), { target: { value } });
const shown = (label: string) => screen.getByLabelText<HTMLInputElement>(label).value;

test.each([
  ['7', 7],
  ['0,8', 0.8],
  ['.5', 0.5],
  // What the server reads, or refuses in its own words.
  ['1/4 in', '1/4 in'],
  ['wide', 'wide'],
])('what is typed as millimetres, “%s”, goes on as %s', (text, value) => {
  const { changes } = onDesk(<NumberEntry path="head.beads" label="Bead" unit="mm" />);
  type('Bead', text);
  expect(changes).toEqual([['head.beads', value]]);
  expect(shown('Bead')).toBe(text);
});

test.each([
  ['0.25', 6.35],
  ['1', 25.4],
  ['1/4', '1/4 in'],
  ['1 1/8', '1 1/8 in'],
  ['6 mm', '6 mm'],
])('who reads inches types “%s”, and %s is kept', (text, value) => {
  inches();
  const { changes } = onDesk(<NumberEntry path="head.beads" label="Bead" unit="mm" />);
  type('Bead', text);
  expect(changes).toEqual([['head.beads', value]]);
});

test('a figure that nobody set is the usual one, in the maker’s unit; what is no length is not turned into inches', () => {
  inches();
  onDesk(
    <>
      <NumberEntry path="head.beads" label="Bead" unit="mm" usual={12.7} />
      <NumberEntry path="finish.wraps_each_side" label="Angle" unit="°" usual={45} />
    </>,
  );
  expect([shown('Bead'), shown('Angle')]).toEqual(['0.5', '45']);
  expect(screen.getByText('in')).toBeTruthy();
});

test('an emptied figure is taken out only where it may be missing', () => {
  const { changes } = onDesk(
    <>
      <NumberEntry path="head.beads" label="May" unit="mm" usual={3} optional />
      <NumberEntry path="finish.wraps_each_side" label="Must" usual={2} />
    </>,
  );
  type('May', '');
  type('Must', '');
  expect(changes).toEqual([
    ['head.beads', undefined],
    ['finish.wraps_each_side', ''],
  ]);
});

test('a refusal stands at its own field, and what was typed stays', () => {
  const problems: Problem[] = [{ field: 'head.beads', reason: 'too small to string', accepted: '2 mm or more' }];
  onDesk(
    <>
      <TextEntry path="head.beads" label="Beads" help="Each with its size." />
      <TextEntry path="title" label="Name" help="On its tag." />
    </>,
    { draft: { ...turned.ring, head: { style: 'bead-lock', beads: '1 mm' } }, problems },
  );
  expect(shown('Beads')).toBe('1 mm');
  expect(screen.getByLabelText('Beads').getAttribute('aria-invalid')).toBe('true');
  expect(screen.getByText(/too small to string/i)).toBeTruthy();
  expect(screen.queryByText('Each with its size.')).toBeNull();
  expect(screen.getByText('On its tag.')).toBeTruthy();
});

test('what is usual is a tap away', () => {
  const { changes } = onDesk(<TextEntry path="title" label="Program" presets={['A3 AB1', 'A2 AB2']} />);
  fireEvent.click(screen.getByRole('button', { name: 'A2 AB2' }));
  expect(changes).toEqual([['title', 'A2 AB2']]);
  expect(shown('Program')).toBe('A2 AB2');
});

test('few choices lie side by side, many in a list, and a whole number stays one', () => {
  const { changes } = onDesk(
    <>
      <Choice path="title" label="Few" choices={['half-hard', 'soft']} usual="soft" />
      <Choice path="finish.wraps_each_side" label="Many" choices={[1, 2, 3, 4, 5]} usual={2} />
    </>,
  );
  expect(screen.getByRole('button', { name: 'Soft' }).getAttribute('aria-pressed')).toBe('true');
  fireEvent.click(screen.getByRole('button', { name: 'Half hard' }));
  // Tapped again it stays chosen: there is no choice of nothing.
  fireEvent.click(screen.getByRole('button', { name: 'Half hard' }));
  fireEvent.mouseDown(screen.getByRole('combobox', { name: 'Many' }));
  fireEvent.click(screen.getByRole('option', { name: '4' }));
  expect(changes).toEqual([
    ['title', 'half-hard'],
    ['finish.wraps_each_side', 4],
  ]);
});

test('a count goes up and down, no further than it may', () => {
  const { changes } = onDesk(<Count path="finish.wraps_each_side" label="Wraps" least={1} most={3} usual={2} />);
  const more = screen.getByRole('button', { name: /more|\+/i });
  fireEvent.click(more);
  fireEvent.click(more);
  expect(changes).toEqual([['finish.wraps_each_side', 3]]);
});

test('yes and no, and what may be left out whole', () => {
  const { changes } = onDesk(
    <>
      <YesNo path="title" label="Flat ends" usual={true} />
      <Switch path="head.beads" label="Settings">
        <p>how many</p>
      </Switch>
    </>,
  );
  const [no, , , yes] = screen.getAllByRole('button');
  fireEvent.click(no as HTMLElement);
  expect(screen.queryByText('how many')).toBeNull();
  fireEvent.click(yes as HTMLElement);
  expect(changes).toEqual([
    ['title', false],
    ['head.beads: off to on', {}],
  ]);
  expect(screen.getByText('how many')).toBeTruthy();
});
