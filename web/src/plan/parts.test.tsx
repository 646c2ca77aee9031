// @vitest-environment jsdom
import { cleanup, fireEvent, screen, waitFor, within } from '@testing-library/react';
import { afterEach, beforeEach, expect, test, vi } from 'vitest';
import { onDesk, turned, woven } from '../testing/desk';
import { drawn, serving } from '../testing/serve';
import { ConflictDialog } from './ConflictDialog';
import { CutList } from './CutList';
import { Several } from './Several';
import { Steps } from './Steps';
import { Weave } from './Weave';
import { Contributions } from './Why';

beforeEach(() => {
  serving({ 'GET /api/weave-programs': [] });
});
afterEach(() => {
  cleanup();
  vi.restoreAllMocks();
});

test('why a wire is cut so long is told in its figures, and another risk is a tap away', () => {
  const { changes } = onDesk(<CutList />, { plan: turned.plan });
  const wire = turned.plan.wires[0];
  expect(screen.getByText(/that stays .* in case/)).toBeTruthy();
  const choices = within(screen.getByRole('group', { name: /How often/ })).getAllByRole('button');
  expect(choices.map((c) => c.getAttribute('aria-pressed'))).toEqual(wire?.risks.map((r) => String(r.risk === 0.02)));
  fireEvent.click(choices[0] as HTMLElement);
  expect(changes).toEqual([['sizing.risk_of_running_out', wire?.risks[0]?.risk]]);
  expect(choices[0]?.getAttribute('aria-pressed')).toBe('true');
});

test('several wires are told apart by what they are for, alike ones once', () => {
  onDesk(<CutList />, { draft: woven.ring, plan: woven.plan });
  expect(screen.getAllByText(/^Base: /)).toHaveLength(1);
  expect(screen.getAllByText(/^Weave: /)).toHaveLength(1);
});

test('the steps stand in the order of the plan, each with its check and its cautions', () => {
  drawn(<Steps plan={turned.plan} />);
  const items = screen.getAllByRole('listitem');
  expect(items).toHaveLength(turned.plan.steps.length);
  turned.plan.steps.forEach((step, k) => {
    const item = items[k] as HTMLElement;
    if (step.check) expect(within(item).getByText(/^Check: /)).toBeTruthy();
    for (const caution of step.cautions) expect(within(item).getByText(caution)).toBeTruthy();
  });
});

test('the causes of another size are named, and a ring that keeps its size says so', () => {
  drawn(<Contributions plan={turned.plan} />);
  for (const cause of turned.plan.contributions) expect(screen.getByText(cause.said)).toBeTruthy();
  cleanup();
  drawn(<Contributions plan={{ ...turned.plan, contributions: [] }} />);
  expect(screen.getByText('It comes off as it was formed')).toBeTruthy();
});

test('a weave is changed by its counts; a group that is emptied stays to be filled again', () => {
  const { changes } = onDesk(<Weave plan={woven.plan} />, { draft: woven.ring, plan: woven.plan });
  fireEvent.click(screen.getByRole('button', { name: 'A: one more' }));
  fireEvent.click(screen.getByRole('button', { name: 'AB: one less' }));
  expect(changes).toEqual([
    ['band.program', 'A4 AB1'],
    ['band.program', 'A4'],
  ]);
  fireEvent.click(screen.getByRole('button', { name: 'AB: one more' }));
  expect(changes.at(-1)).toEqual(['band.program', 'A4 AB1']);
});

test('a program that nobody has yet can be kept', async () => {
  const asked = serving({
    'GET /api/weave-programs': [{ program: 'A3 AB1', base_wires: 2, name: 'usual', own: false }],
    'POST /api/weave-programs': { program: 'A4 AB1', base_wires: 2, name: '', own: true },
  });
  onDesk(<Weave plan={woven.plan} />, { draft: woven.ring, plan: woven.plan });
  await screen.findByRole('button', { name: 'A3 AB1' });
  expect(screen.queryByRole('button', { name: /^Keep/ })).toBeNull();
  fireEvent.click(screen.getByRole('button', { name: 'A: one more' }));
  fireEvent.click(screen.getByRole('button', { name: 'Keep A4 AB1' }));
  await waitFor(() => expect(asked.find((a) => a.body)?.body).toEqual({ program: 'A4 AB1', base_wires: 2 }));
});

test('several rings are a line each, and go to the bench in the order that is chosen', async () => {
  const asked = serving({ 'POST /api/batches': { id: 'b1' } });
  onDesk(<Several />);
  const go = () => screen.getByRole('button', { name: /bench$/ });
  expect(go()).toHaveProperty('disabled', true);
  fireEvent.change(screen.getByRole('textbox'), { target: { value: 'US 7, horn\n\nUK Q½, tuba\n' } });
  expect(go().textContent).toBe('Take 2 rings to the bench');
  fireEvent.click(screen.getByRole('button', { name: /^A class/ }));
  fireEvent.click(go());
  await waitFor(() => expect(asked.some((a) => a.path === '/api/batches')).toBe(true));
  const body = asked.find((a) => a.path === '/api/batches')?.body as { kind: string; rings: unknown[] };
  expect(body.kind).toBe('class');
  expect(body.rings).toHaveLength(2);
});

test('two benches that saved one ring are laid side by side, and each can be kept', async () => {
  serving({ 'POST /api/plan': turned.plan });
  const [theirs, mine, later] = [vi.fn(), vi.fn(), vi.fn()];
  const conflict = {
    current: { file: { ...turned.ring, title: 'Theirs' }, updated_at: '2026-05-04T10:30:00Z', saved_by: 'Ada' },
  };
  onDesk(
    <ConflictDialog
      conflict={conflict as never}
      draft={{ ...turned.ring, title: 'Mine' }}
      onTakeTheirs={theirs}
      onKeepMine={mine}
      onClose={later}
    />,
  );
  expect(screen.getByText(/by Ada: “Theirs”/)).toBeTruthy();
  expect(screen.getByText('On this desk: “Mine”')).toBeTruthy();
  await waitFor(() => expect(screen.getAllByText(/A US 7, soft copper.*Start at/).length).toBe(2));
  fireEvent.click(screen.getByRole('button', { name: 'Lay the saved one on the desk' }));
  fireEvent.click(screen.getByRole('button', { name: /as another ring/ }));
  fireEvent.click(screen.getByRole('button', { name: 'Decide later' }));
  expect([theirs, mine, later].map((f) => f.mock.calls.length)).toEqual([1, 1, 1]);
});
