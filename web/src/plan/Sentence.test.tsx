// @vitest-environment jsdom
import { cleanup, fireEvent, screen } from '@testing-library/react';
import { afterEach, expect, test, vi } from 'vitest';
import type { Plan } from '../api/client';
import { onDesk, turned, woven } from '../testing/desk';
import { Sentence } from './Sentence';

afterEach(cleanup);

const said = () => document.querySelector('p')?.textContent.replace(/\s+/g, ' ').trim();
const sentence = (plan?: Plan, more = {}) => onDesk(<Sentence open={null} onOpen={vi.fn()} />, { plan, ...more });

test('the sentence reads as one: a wire in, several joined by and, commas between the rest, a full stop', () => {
  sentence(turned.plan);
  expect(said()).toBe('A US 7 in soft copper, 20 AWG, turned once each way, a 7 mm bead, locked twice each side.');
  cleanup();
  sentence(woven.plan);
  expect(said()).toBe('A US 7 in soft copper, 0.8 mm and soft copper, 0.4 mm, two wires woven A3 AB1, no head.');
});

test('an ornament begins with its wire, and a measured finger with a ring', () => {
  const phrases = turned.plan.sentence.filter((phrase) => phrase.part !== 'finger');
  sentence({ ...turned.plan, sentence: phrases });
  expect(said()).toMatch(/^In soft copper/);
  cleanup();
  const between = turned.plan.sentence.map((p) => (p.part === 'finger' ? { ...p, text: 'just past US 7' } : p));
  sentence({ ...turned.plan, sentence: between });
  expect(said()).toMatch(/^A ring just past US 7 in /);
});

test('a comma can never stand at the beginning of a line', () => {
  sentence(woven.plan);
  for (const phrase of screen.getAllByRole('button')) {
    const held = phrase.parentElement as HTMLElement;
    expect(getComputedStyle(held).whiteSpace).toBe('nowrap');
    expect(held.nextSibling?.textContent ?? '').not.toMatch(/^\s*[,.]/);
  }
});

test('each phrase opens what sets it, and says so', () => {
  const opened = vi.fn();
  onDesk(<Sentence open="band" onOpen={opened} />, { plan: turned.plan });
  const band = screen.getByRole('button', { name: 'Band: turned once each way' });
  expect(band.getAttribute('aria-expanded')).toBe('true');
  fireEvent.click(screen.getByRole('button', { name: /^Finger/ }));
  expect(opened).toHaveBeenCalledWith('finger');
});

test('without a plan it says what was typed, so that it can be mended', () => {
  const draft = { finger: { size: 'US 99' }, band: { style: 'turned' }, head: { style: 'none' } };
  const problems = [{ field: 'finger.size', reason: '“US 99” is outside the sizes', accepted: 'US 0 to US 16' }];
  sentence(undefined, { draft, problems, standing: 'refused' });
  expect(screen.getByRole('button', { name: 'Finger: US 99, to be mended' })).toBeTruthy();
  expect(said()).toBe('A US 99 in wire, turned, none, ends.');
});
