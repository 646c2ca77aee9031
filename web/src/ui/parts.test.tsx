// @vitest-environment jsdom
import { cleanup, fireEvent, render, screen } from '@testing-library/react';
import { afterEach, expect, test, vi } from 'vitest';
import { CounterRing } from '../bench/CounterRing';
import { Sheet } from './Sheet';
import { Stepper } from './Stepper';

afterEach(cleanup);

test('a stepper goes by one, and neither below nor above what can be made', () => {
  const told = vi.fn();
  const { rerender } = render(<Stepper name="Turns" value={2} least={1} most={3} onChange={told} />);
  fireEvent.click(screen.getByRole('button', { name: 'Turns: one less' }));
  fireEvent.click(screen.getByRole('button', { name: 'Turns: one more' }));
  expect(told.mock.calls).toEqual([[1], [3]]);
  rerender(<Stepper name="Turns" value={3} least={1} most={3} onChange={told} />);
  expect(screen.getByRole('button', { name: 'Turns: one more' })).toHaveProperty('disabled', true);
  // A count from elsewhere that is too high comes back into the range.
  rerender(<Stepper name="Turns" value={9} least={1} most={3} onChange={told} />);
  fireEvent.click(screen.getByRole('button', { name: 'Turns: one less' }));
  expect(told).toHaveBeenLastCalledWith(3);
});

test('a sheet takes the keys to its first field, and Escape closes it unless something in it wanted that', () => {
  const closed = vi.fn();
  render(
    <Sheet title="Band" onClose={closed}>
      <input aria-label="Turns" />
      <button type="button" onKeyDown={(event) => event.preventDefault()}>
        A list
      </button>
    </Sheet>,
  );
  expect(document.activeElement).toBe(screen.getByRole('textbox'));
  fireEvent.keyDown(screen.getByRole('button', { name: 'A list' }), { key: 'Escape' });
  expect(closed).not.toHaveBeenCalled();
  fireEvent.keyDown(screen.getByRole('textbox'), { key: 'Escape' });
  fireEvent.click(screen.getByRole('button', { name: 'Done' }));
  expect(closed).toHaveBeenCalledTimes(2);
});

const counter = (made: number, count: number, step = 1, unit = 'wrap') =>
  ({ label: 'lock', made, count, step, unit }) as never;
const filled = (metal: string) =>
  [...document.querySelectorAll('path')].filter((path) => path.getAttribute('stroke') === metal).length;

test('a ring of ticks fills as it is counted, half turns by half ticks, and says how far it is', () => {
  const counted = vi.fn();
  const { rerender, container } = render(<CounterRing counter={counter(2, 3)} metal="copper" onCount={counted} />);
  const ticks = [...container.querySelectorAll('path')];
  const metal = ticks[0]?.getAttribute('stroke') ?? '';
  expect(ticks).toHaveLength(3);
  expect(filled(metal)).toBe(2);
  fireEvent.click(screen.getByRole('button', { name: 'lock 2 of 3 wraps: one more' }));
  expect(counted).toHaveBeenCalledOnce();
  rerender(<CounterRing counter={counter(1.5, 2.5, 0.5, 'turn')} metal="copper" onCount={counted} />);
  expect(container.querySelectorAll('path')).toHaveLength(5);
  expect(filled(metal)).toBe(3);
  // A long weave has more repeats than there is room for ticks.
  rerender(<CounterRing counter={counter(100, 200, 1, 'repeat')} metal="copper" onCount={counted} />);
  expect(container.querySelectorAll('path')).toHaveLength(72);
  expect(filled(metal)).toBe(36);
  rerender(<CounterRing counter={counter(0, 1)} metal="copper" onCount={counted} />);
  expect(screen.getByRole('button', { name: 'lock 0 of 1 wrap: one more' })).toBeTruthy();
});
