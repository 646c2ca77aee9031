import { expect, test } from 'vitest';
import type { PlannedMove } from '../api/client';
import { layOut } from './breaks';

const move = (from_mm: number, to_mm: number) => ({ from_mm, to_mm, length_mm: to_mm - from_mm }) as PlannedMove;
const moves = [move(0, 20), move(20, 700), move(700, 730)];

test('what is short is laid out as it is', () => {
  const laid = layOut([move(0, 20), move(20, 120)], 120, false);
  expect(laid.length).toBe(120);
  expect([0, 20, 77.5, 120].map(laid.shown)).toEqual([0, 20, 77.5, 120]);
});

test('a long even stretch is broken: its ends true to scale, the rest left out', () => {
  const laid = layOut(moves, 730, false);
  expect(laid.breaks).toHaveLength(1);
  expect(laid.shown(50)).toBe(50);
  expect(laid.shown(730) - laid.shown(670)).toBeCloseTo(60);
  expect(laid.length).toBeLessThan(160);
});

test('the layout never runs backwards', () => {
  const laid = layOut(moves, 730, false);
  const at = Array.from({ length: 731 }, (_, k) => laid.shown(k));
  expect(at.every((place, k) => k === 0 || place >= (at[k - 1] ?? 0))).toBe(true);
});

test('on paper nothing is left out', () => {
  const laid = layOut(moves, 730, true);
  expect(laid.length).toBe(730);
  expect(laid.breaks).toEqual([]);
});
