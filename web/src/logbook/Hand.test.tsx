// @vitest-environment jsdom
import { cleanup, fireEvent, screen, waitFor } from '@testing-library/react';
import { afterEach, expect, test, vi } from 'vitest';
import { drawn, serving } from '../testing/serve';
import { Hand } from './Hand';

afterEach(() => {
  cleanup();
  vi.restoreAllMocks();
  localStorage.clear();
});

const factor = (kind: string, share: number, rings = 4) => ({
  kind,
  share,
  low: share - 0.03,
  high: share + 0.03,
  rings,
  used: true,
});
const hand = (more = {}) => ({
  rings: 6,
  odd: [],
  left_out: [],
  changed: false,
  factors: [factor('wrap', 0.08), factor('arc', -0.02, 1)],
  mandrels: [],
  ...more,
});

test('a hand that nothing is known of says what would teach it', () => {
  drawn(<Hand hand={hand({ rings: 0 })} />);
  expect(screen.getByText(/Measure what is left of the wire/)).toBeTruthy();
  expect(screen.queryByRole('button')).toBeNull();
});

test('what each kind of move takes is told with how sure that is', () => {
  drawn(<Hand hand={hand()} />);
  expect(screen.getByText(/Your wraps run 8 % long/).textContent).toMatch(/\(\+5 to \+11 %\), 4 rings$/);
  expect(screen.getByText(/Your arcs on the mandrel run 2 % short/).textContent).toMatch(/\(−5 to \+1 %\), 1 ring$/);
});

test('plans reckon with it when they are asked to, and no longer when they are asked again', () => {
  drawn(<Hand hand={hand()} />);
  fireEvent.click(screen.getByRole('button', { name: 'Reckon with it in plans' }));
  const on = screen.getByRole('button', { name: 'Plans reckon with it' });
  expect(on.getAttribute('aria-pressed')).toBe('true');
  fireEvent.click(on);
  expect(screen.getByRole('button', { name: 'Reckon with it in plans' })).toBeTruthy();
});

test('a hand that changed is asked about, odd rings too, and what is left out can count again', async () => {
  const asked = serving({
    'POST /api/jobs/hand/afresh': {},
    'PUT /api/jobs/a/left-out': {},
    'PUT /api/jobs/b/left-out': {},
  });
  drawn(
    <Hand
      hand={hand({
        changed: true,
        odd: [{ id: 'a', title: 'Amber', why: '' }],
        left_out: [{ id: 'b', title: 'Tuba', why: 'the wire broke' }],
      })}
    />,
  );
  expect(screen.getByRole('status').textContent).toMatch(/came out other than those before/);
  fireEvent.click(screen.getByRole('button', { name: 'Learn afresh from here' }));
  fireEvent.click(screen.getByRole('button', { name: 'Yes, leave it out' }));
  expect(screen.getByText(/Tuba is left out: the wire broke/)).toBeTruthy();
  fireEvent.click(screen.getByRole('button', { name: 'Count it again' }));
  await waitFor(() => expect(asked.filter((a) => a.path.includes('/jobs/')).length).toBeGreaterThanOrEqual(3));
  expect(asked.map((a) => a.path)).toContain('/api/jobs/hand/afresh');
});
