// @vitest-environment jsdom
import { cleanup, fireEvent, screen } from '@testing-library/react';
import { afterEach, expect, test } from 'vitest';
import { onDesk } from '../testing/desk';
import { StyleForm } from './StyleForm';

afterEach(() => {
  cleanup();
  localStorage.clear();
});

const number = { type: 'number', title: 'Rod', minimum: 1, maximum: 6, unit: 'mm', default: 4 };
const fields = {
  style: { const: 'made-up', type: 'string' },
  rod_mm: number,
  turns: { type: 'integer', title: 'Turns', minimum: 1, maximum: 3, default: 2 },
  lies: { type: 'string', enum: ['flat', 'bowed'], title: 'Lies', default: 'flat' },
  shown: { type: 'boolean', title: 'Shown', default: false },
  cover: {
    anyOf: [{ enum: ['hole', 'low'], type: 'string' }, { type: 'number' }],
    title: 'Climbs to',
    unit: 'mm',
    default: 'hole',
  },
  loops: { anyOf: [{ const: 'fill', type: 'string' }, { type: 'integer' }], title: 'Loops', default: 6 },
  bend_mm: { anyOf: [{ type: 'number' }, { type: 'null' }], title: 'Bend', unit: 'mm', default: null },
  stone: { $ref: '#/$defs/Stone' },
};
const stone = { properties: { height_mm: { ...number, title: 'Height' } } };
const form = (draft = {}, problems: { field: string; reason: string; accepted: string }[] = []) =>
  onDesk(<StyleForm path={'head'} schema={{ properties: fields }} definitions={{ Stone: stone }} />, {
    draft: { head: draft },
    problems,
  });
const typed = (label: string, text: string) =>
  fireEvent.change(screen.getByRole('textbox', { name: label }), { target: { value: text } });
const pressed = (name: string) => screen.getByRole('button', { name }).getAttribute('aria-pressed');

test('a measure is sent as a number, and one with its unit as it was typed', () => {
  const { changes } = form();
  expect(screen.getByRole('textbox', { name: 'Rod' })).toHaveProperty('value', '4');
  typed('Rod', '3.5');
  typed('Rod', '1/8 in');
  typed('Rod', '3,25');
  expect(changes).toEqual([
    ['head.rod_mm', 3.5],
    ['head.rod_mm', '1/8 in'],
    ['head.rod_mm', 3.25],
  ]);
});

test('in inches what is typed is turned to millimetres, once', () => {
  localStorage.setItem('pliant-coil.preferences', JSON.stringify({ units: 'in', systems: ['us', 'uk'] }));
  const { changes } = form({ rod_mm: 2.54 });
  expect(screen.getByRole('textbox', { name: 'Rod' })).toHaveProperty('value', '0.1');
  typed('Rod', '0.2');
  expect(changes).toEqual([['head.rod_mm', 5.08]]);
});

test('an emptied field that has a usual of its own is taken out again', () => {
  const { changes } = form({ bend_mm: 2 });
  typed('Bend', '');
  expect(changes).toEqual([['head.bend_mm', undefined]]);
});

test('counts stay between what can be made', () => {
  const { changes } = form({ turns: 3 });
  expect(screen.getByRole('button', { name: 'Turns: one more' })).toHaveProperty('disabled', true);
  fireEvent.click(screen.getByRole('button', { name: 'Turns: one less' }));
  fireEvent.click(screen.getByRole('button', { name: 'Turns: one less' }));
  expect(changes.map(([, value]) => value)).toEqual([2, 1]);
  expect(screen.getByRole('button', { name: 'Turns: one less' })).toHaveProperty('disabled', true);
});

test('a choice shows what is usual until something is chosen', () => {
  const { changes } = form();
  expect(pressed('Flat')).toBe('true');
  fireEvent.click(screen.getByRole('button', { name: 'Bowed' }));
  expect(pressed('Bowed')).toBe('true');
  // Pressed again it stays chosen.
  fireEvent.click(screen.getByRole('button', { name: 'Bowed' }));
  expect(changes).toEqual([['head.lies', 'bowed']]);
});

test('what has words and a figure is asked as both, and only one of them holds', () => {
  const { changes } = form();
  expect(pressed('Hole')).toBe('true');
  const figure = screen.getByRole('textbox', { name: 'Climbs to, as a figure' });
  expect(figure).toHaveProperty('value', '');
  typed('Climbs to, as a figure', '1.5');
  expect([pressed('Hole'), pressed('Low')]).toEqual(['false', 'false']);
  fireEvent.click(screen.getByRole('button', { name: 'Low' }));
  expect(figure).toHaveProperty('value', '');
  fireEvent.click(screen.getByRole('button', { name: 'Fill' }));
  expect(changes).toEqual([
    ['head.cover', 1.5],
    ['head.cover', 'low'],
    ['head.loops', 'fill'],
  ]);
});

test('a part of a style is asked with it, and what is wrong stands at its field', () => {
  const wrong = { field: 'head.stone.height_mm', reason: 'is out of range', accepted: '1 to 6 mm' };
  const { changes } = form({ stone: { height_mm: 9 } }, [wrong]);
  expect(screen.getByText(/out of range/)).toBeTruthy();
  expect(screen.getByRole('textbox', { name: 'Height' }).getAttribute('aria-invalid')).toBe('true');
  typed('Height', '5');
  expect(changes).toEqual([['head.stone.height_mm', 5]]);
});
