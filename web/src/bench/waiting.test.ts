// @vitest-environment jsdom
import { beforeEach, expect, test } from 'vitest';
import type { BenchEvent, Progress } from '../api/client';
import { keep, kept, waitingJobs, withWaiting } from './waiting';

const counter = { move: 'weave', label: 'weave', unit: 'repeat', step: 1, count: 24, made: 9, late: null };
const step = (task: string, counters = [] as (typeof counter)[]) => ({
  task,
  counters,
  read_mm: null,
  seconds: 0,
  brief: '',
  words: [],
});
const PROGRESS: Progress = {
  number: 12,
  state: 'open',
  place: 1,
  task: 'weave',
  form_mm: null,
  steps: [step('cut'), step('weave', [counter]), step('form')],
  made: [],
  notes: [],
  minutes: 3,
  waits: false,
  visit: null,
  set_aside: 0,
};
const base = { device: 'here', at: '2026-11-25T12:00:00Z', seen: 12 };
let n = 0;
const event = (payload: object) =>
  ({
    ...base,
    id: `00000000-0000-4000-8000-${String((n += 1)).padStart(12, '0')}`,
    ...payload,
  }) as unknown as BenchEvent;

beforeEach(() => localStorage.clear());

test('taps that are on their way show at once, within what there is to count', () => {
  const taps = [event({ kind: 'count', move: 'weave', n: 1 }), event({ kind: 'count', move: 'weave', n: 1 })];
  const made = (waiting: BenchEvent[]) => withWaiting(PROGRESS, waiting).steps[1]?.counters[0]?.made;
  expect(made(taps)).toBe(11);
  expect(made([event({ kind: 'count', move: 'weave', n: 99 })])).toBe(24);
  expect(made([event({ kind: 'count', move: 'weave', n: -99 })])).toBe(0);
  expect(made([event({ kind: 'count_set', move: 'weave', n: 5 }), ...taps])).toBe(7);
  expect(PROGRESS.steps[1]?.counters[0]?.made).toBe(9);
});

test('steps go on and back, and the last one ends all', () => {
  const on = (task: string) => event({ kind: 'step_on', task });
  expect(withWaiting(PROGRESS, [on('weave')]).task).toBe('form');
  expect(withWaiting(PROGRESS, [on('weave'), on('form')]).task).toBe('');
  expect(withWaiting(PROGRESS, [on('weave'), event({ kind: 'step_back', task: 'cut' })]).task).toBe('cut');
  expect(withWaiting(PROGRESS, [event({ kind: 'spoiled' })]).state).toBe('spoiled');
});

test('a ring that came back is on the bench at once, and gone when it leaves', () => {
  const came = event({ kind: 'came_back', why: 'too small', reads_mm: 16.2, wanted_mm: 16.9 });
  const back = withWaiting({ ...PROGRESS, state: 'finished' }, [came]);
  expect([back.state, back.visit?.why, back.visit?.reads_mm]).toEqual(['open', 'too small', 16.2]);
  expect(withWaiting(PROGRESS, [came, event({ kind: 'finished' })])).toMatchObject({ state: 'finished', visit: null });
});

test('what is on its way outlives a closed tab', () => {
  const tap = event({ kind: 'count', move: 'weave', n: 1 });
  keep('one', [tap]);
  expect(kept('one')).toEqual([tap]);
  expect(kept('other')).toEqual([]);
  expect(waitingJobs()).toEqual(['one']);
  keep('one', []);
  expect(localStorage.length).toBe(0);
});
