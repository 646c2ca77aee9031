// @vitest-environment jsdom
import { cleanup, fireEvent, screen, waitFor, within } from '@testing-library/react';
import { afterEach, beforeEach, expect, test, vi } from 'vitest';
import type { BenchEvent } from '../api/client';
import { woven } from '../testing/desk';
import { drawn, serving, type Asked } from '../testing/serve';
import BenchScreen from './BenchScreen';

const { plan, ring } = woven;
const WEAVE = plan.steps.findIndex((step) => step.id === 'weave');

vi.mock('react-router', async (real) => ({ ...(await real<object>()), useParams: () => ({ jobId: 'one' }) }));

/** What the server knows of a ring at the bench: its place, and what is made. */
function bench(over: { place?: number; made?: number; late?: number | null; state?: string } = {}) {
  const { place = WEAVE, made = 0, late = null, state = 'open' } = over;
  const steps = plan.steps.map((step, k) => ({
    task: step.id,
    brief: `${step.id}, short`,
    words: [`What ${step.id} means.`],
    counters:
      k === WEAVE
        ? [
            {
              move: 'weave.weave',
              label: 'weave',
              unit: 'cycle',
              step: 1,
              count: 12,
              made,
              late,
            },
          ]
        : [],
  }));
  const progress = { number: 1, state, place, steps, notes: [], minutes: 0, waits: false, visit: null, set_aside: 0 };
  const job = { id: 'one', title: 'A row', batch_id: null };
  const beside = { tails: [], asks_tails: false, left_over: '', hides_splice: '', hammered_at: '', first_plan: null };
  return { job, file: ring, plan, progress: { ...progress, task: '', form_mm: null, made: [] }, ...beside };
}

const told = (asked: Asked[]) =>
  asked.filter((a) => a.path.endsWith('/events')).flatMap((a) => (a.body as { events: BenchEvent[] }).events);

function shown(at: ReturnType<typeof bench>) {
  const asked = serving({
    'GET /api/jobs/one': () => structuredClone(at),
    'POST /api/jobs/one/events': { number: 1 },
    'GET /api/jobs/one/photos': [],
  });
  drawn(<BenchScreen />);
  return asked;
}

beforeEach(() => {
  localStorage.clear();
});

afterEach(() => {
  cleanup();
  vi.restoreAllMocks();
});

test('a tap, five more and one less are counted at once and told in their order', async () => {
  const asked = shown(bench());
  fireEvent.click(await screen.findByRole('button', { name: /weave 0 of 12 cycles: one more/ }));
  fireEvent.click(screen.getByRole('button', { name: /five more/ }));
  fireEvent.click(screen.getByRole('button', { name: /one less/ }));
  await waitFor(() => expect(told(asked).map((e) => e.kind === 'count' && e.n)).toEqual([1, 5, -1]));
  expect(new Set(told(asked).map((e) => e.id)).size).toBe(3);
});

test('a bench that is opened is asked for once, and again when the server tells of more', async () => {
  const streams: EventSource[] = [];
  vi.spyOn(globalThis, 'EventSource').mockImplementation(function (this: EventSource) {
    this.close = () => undefined;
    streams.push(this);
    return this;
  });
  const at = bench();
  const asked = shown(at);
  const questions = () => asked.filter((a) => a.path === '/api/jobs/one').length;
  const says = (data: string) => void streams.at(-1)?.onmessage?.(new MessageEvent('message', { data }));
  await waitFor(() => expect(streams).not.toEqual([]));
  says('1');
  await screen.findByRole('button', { name: /0 of 12/ });
  says('1');
  expect(questions()).toBe(1);
  Object.assign(at.progress, { number: 2 });
  says('2');
  says('2');
  await waitFor(() => expect(questions()).toBe(2));
});

test('keys do what buttons do, but not while something is typed', async () => {
  const asked = shown(bench({ made: 11 }));
  await screen.findByRole('button', { name: /11 of 12/ });
  fireEvent.keyDown(document.body, { key: ' ' });
  await waitFor(() => expect(told(asked)).toHaveLength(1));
  fireEvent.keyDown(document.body, { key: 'n' });
  const sheet = within(screen.getByRole('dialog', { name: 'Note' }));
  fireEvent.keyDown(sheet.getByLabelText('Note'), { key: ' ' });
  fireEvent.change(sheet.getByLabelText('Note'), { target: { value: ' a kink ' } });
  fireEvent.click(sheet.getByRole('button', { name: 'Write it down' }));
  await waitFor(() => expect(told(asked)).toHaveLength(2));
  expect(told(asked)[1]).toMatchObject({ kind: 'note', text: 'a kink' });
});

test('nothing counts beyond what is planned, nor below nothing', async () => {
  const asked = shown(bench({ made: 12 }));
  fireEvent.click(await screen.findByRole('button', { name: /12 of 12/ }));
  cleanup();
  const again = shown(bench({ made: 0 }));
  fireEvent.click(await screen.findByRole('button', { name: /one less/ }));
  expect([...told(asked), ...told(again)]).toEqual([]);
});

test('a step is done, and the one before is gone back to', async () => {
  const asked = shown(bench());
  fireEvent.click(await screen.findByRole('button', { name: 'Done, on' }));
  await waitFor(() => expect(told(asked)[0]).toMatchObject({ kind: 'step_on', task: plan.steps[WEAVE]?.id }));
  cleanup();
  const back = shown(bench({ place: 1 }));
  fireEvent.click(await screen.findByRole('button', { name: 'Back' }));
  await waitFor(() => expect(told(back)[0]).toMatchObject({ kind: 'step_back', task: plan.steps[0]?.id }));
});

test('at the first step there is nothing to go back to', async () => {
  shown(bench({ place: 0 }));
  expect((await screen.findByRole('button', { name: 'Back' })).hasAttribute('disabled')).toBe(true);
  expect(screen.getByRole('status').textContent).toContain(`step 1 of ${plan.steps.length}`);
});

test('what another device counted unseen is added only when it is wanted', async () => {
  const asked = shown(bench({ made: 4, late: 3 }));
  expect(await screen.findByText(/^3 more were counted on another device/)).toBeTruthy();
  fireEvent.click(screen.getByRole('button', { name: 'Leave' }));
  await waitFor(() => expect(told(asked)[0]).toMatchObject({ kind: 'late', add: false }));
});

test('who has made many reads few words; who begins reads what they mean', async () => {
  localStorage.setItem('pliant-coil.preferences', JSON.stringify({ words: 'few' }));
  shown(bench());
  const id = plan.steps[WEAVE]?.id ?? '';
  expect((await screen.findByRole('heading', { level: 2, name: `${id}, short` })).textContent).toBe(`${id}, short`);
  cleanup();
  localStorage.setItem('pliant-coil.preferences', JSON.stringify({ words: 'many' }));
  shown(bench());
  expect(await screen.findByText(`What ${id} means.`)).toBeTruthy();
});

test('after the last step it goes into the logbook; once there, it can be taken up again', async () => {
  shown(bench({ place: plan.steps.length }));
  fireEvent.click(await screen.findByRole('button', { name: 'Into the logbook' }));
  expect(screen.getByRole('dialog', { name: 'How it ended' })).toBeTruthy();
  cleanup();
  const asked = shown(bench({ place: plan.steps.length, state: 'finished' }));
  fireEvent.click(await screen.findByRole('button', { name: 'Take it up again' }));
  await waitFor(() => expect(told(asked)[0]).toMatchObject({ kind: 'reopened' }));
});

test('what can’t be fetched is said', async () => {
  serving({});
  drawn(<BenchScreen />);
  expect(await screen.findByText(/there is none/i)).toBeTruthy();
});
