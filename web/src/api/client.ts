import createClient from 'openapi-fetch';
import type { components, paths } from './schema.generated';

type Schemas = components['schemas'];
export type Plan = Schemas['Plan'];
export type PlannedWire = Schemas['Wire'];
export type PlannedMove = Schemas['Move'];
export type SizeInAll = Schemas['Size'];
export type Step = Schemas['Step'];
export type Drawing = Schemas['Drawing'];
export type SizeScale = Schemas['SizeScale'];
export type ImportTold = Schemas['ImportTold'];
export type StyleTold = Schemas['StyleTold'];
export type StyleChoice = Schemas['StyleChoice'];
export type RingTold = Schemas['RingTold'];
export type RingListed = Schemas['RingListed'];
export type RingFile = Schemas['RingFile'];
export type Problem = Schemas['Problem'];
export type JobAtBench = Schemas['JobAtBench'];
export type JobListed = Schemas['JobListed'];
export type Progress = Schemas['ProgressTold'];
export type CounterTold = Schemas['CounterTold'];
export type SizeReading = Schemas['SizeReadingTold'];
export type Me = Schemas['MeTold'];
export type Role = Schemas['Role'];
export type Member = Schemas['MemberTold'];
export type LinkTold = Schemas['LinkTold'];
export type Board = Schemas['BoardTold'];
export type BenchTold = Schemas['BenchTold'];
export type TailEnd = Schemas['TailEndTold'];
/** What happens at a bench, as it is told. */
export type BenchEvent = Schemas['Events']['events'][number];

/** What the maker is typing: a ring file whose values may still be half a number. The server says what is wrong. */
export type Draft = Record<string, unknown>;

/** The server refused, with the fields and the reasons. */
export class Refused extends Error {
  readonly problems: readonly Problem[];
  readonly status: number;

  constructor(problems: readonly Problem[], status: number) {
    super(problems.map((p) => p.reason).join('; '));
    this.problems = problems;
    this.status = status;
  }
}

/** Whether the server couldn't be had at all, or says that it can't just now: worth asking again. */
export const unreachable = (error: unknown) => error instanceof Refused && [0, 502, 503, 504].includes(error.status);

/** The ring was saved from somewhere else meanwhile. */
export class Conflicting extends Error {
  readonly current: RingTold;

  constructor(reason: string, current: RingTold) {
    super(reason);
    this.current = current;
  }
}

export const api = createClient<paths>({ baseUrl: '/' });

const UNREACHABLE: Problem = {
  field: '',
  reason: 'The server doesn’t answer. What you typed is kept here.',
  accepted: '',
};

/** A file as the body of a request, as it is. */
export const asItIs = (file: File, type: string) => ({
  body: file as unknown as string,
  bodySerializer: (body: string) => body,
  headers: { 'content-type': type },
});

/** The data of an answer; throws `Refused` or `Conflicting` for anything else. */
export async function answer<T>(call: Promise<{ data?: T; error?: unknown; response: Response }>): Promise<T> {
  let result;
  try {
    result = await call;
  } catch (error) {
    if (error instanceof DOMException && error.name === 'AbortError') throw error;
    throw new Refused([UNREACHABLE], 0);
  }
  if (result.response.ok) return result.data as T;
  const body = (result.error ?? {}) as { errors?: Problem[]; reason?: string; current?: RingTold };
  if (result.response.status === 409 && body.current) throw new Conflicting(body.reason ?? '', body.current);
  if (result.response.status === 401) window.dispatchEvent(new Event(SIGNED_OUT));
  throw new Refused(body.errors ?? [UNREACHABLE], result.response.status);
}

/** Said to the window when the server doesn't know any more who is here. */
export const SIGNED_OUT = 'pliant-coil:signed-out';
