import { expect, test } from 'vitest';
import { answer, Conflicting, Refused } from './client';

const reply = (status: number, body: unknown) =>
  Promise.resolve({ ...(status < 300 ? { data: body } : { error: body }), response: new Response(null, { status }) });

test('an answer is its data', async () => {
  await expect(answer(reply(200, { us: '7' }))).resolves.toEqual({ us: '7' });
});

test('a refusal carries the fields and the reasons', async () => {
  const errors = [{ field: 'finger.size', reason: 'isn’t a size', accepted: 'US 7' }];
  const refused = await answer(reply(422, { errors })).catch((error: unknown) => error);
  expect(refused).toBeInstanceOf(Refused);
  expect((refused as Refused).problems).toEqual(errors);
  expect((refused as Refused).status).toBe(422);
});

test('a conflict carries what stands there', async () => {
  const current = { id: '1', revision: 3, file: { title: 'Theirs' } };
  const conflict = await answer(reply(409, { reason: 'saved meanwhile', current })).catch((error: unknown) => error);
  expect(conflict).toBeInstanceOf(Conflicting);
  expect((conflict as Conflicting).current).toEqual(current);
});

test('a server that can’t be reached, or talks nonsense, says that what was typed is kept', async () => {
  for (const call of [Promise.reject(new TypeError('failed to fetch')), reply(502, '<html>')]) {
    const refused = await answer(call).catch((error: unknown) => error);
    expect((refused as Refused).problems[0]?.reason).toContain('is kept here');
  }
});

test('a request that was given up is nobody’s fault', async () => {
  const stopped = new DOMException('stopped', 'AbortError');
  await expect(answer(Promise.reject(stopped))).rejects.toBe(stopped);
});
