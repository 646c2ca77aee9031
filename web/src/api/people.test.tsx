// @vitest-environment jsdom
import { act, cleanup, screen, waitFor } from '@testing-library/react';
import { afterEach, expect, test, vi } from 'vitest';
import { drawn, serving } from '../testing/serve';
import { useComing, useMe } from './people';

afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
  vi.restoreAllMocks();
});

function Door() {
  const me = useMe();
  const { first } = useComing();
  return (
    <>
      <p>{me.data ? `for ${me.data.name || 'nobody'}` : 'nothing is typed here'}</p>
      <button onClick={() => first.mutate({ name: 'Ada Fernhill', password: 'amber kettle north violin' })}>
        Come in
      </button>
    </>
  );
}

test('while what was kept for the one before is forgotten, nobody types for them', async () => {
  let forgotten: (done: boolean) => void = () => undefined;
  const gone = new Promise<boolean>((done) => (forgotten = done));
  vi.stubGlobal('caches', { delete: () => gone });
  let name = '';
  serving({ 'GET /api/me': () => ({ name }), 'POST /api/me': {} });
  drawn(<Door />);
  await screen.findByText('for nobody');
  name = 'Ada Fernhill';
  act(() => screen.getByRole('button').click());
  await screen.findByText('nothing is typed here');
  act(() => forgotten(true));
  await waitFor(() => expect(screen.getByText('for Ada Fernhill')).toBeTruthy());
});
