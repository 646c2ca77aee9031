import type { BenchEvent, Progress } from '../api/client';
import { whose } from '../people/person';

/** Events that the server hasn't acknowledged yet: kept in the browser, sent in order, as often as needed. */
const keyOf = (job: string) => `${whose()}bench.${job}`;

export function kept(job: string): BenchEvent[] {
  try {
    return JSON.parse(localStorage.getItem(keyOf(job)) ?? '[]') as BenchEvent[];
  } catch {
    return [];
  }
}

export function keep(job: string, events: readonly BenchEvent[]): void {
  if (events.length) localStorage.setItem(keyOf(job), JSON.stringify(events));
  else localStorage.removeItem(keyOf(job));
}

/** Jobs of which something waits to be told. */
export const waitingJobs = (): string[] =>
  Object.keys(localStorage)
    .filter((key) => key.startsWith(keyOf('')))
    .map((key) => key.slice(keyOf('').length));

/** Where a ring stands once the server has heard what is still on its way. */
export function withWaiting(progress: Progress, waiting: readonly BenchEvent[]): Progress {
  if (!waiting.length) return progress;
  const steps = progress.steps.map((step) => ({ ...step, counters: step.counters.map((counter) => ({ ...counter })) }));
  let { place, waits, state, visit } = progress;
  for (const event of waiting) {
    if (event.kind === 'count' || event.kind === 'count_set') {
      for (const counter of steps.flatMap((step) => step.counters).filter((c) => c.move === event.move)) {
        const next = event.kind === 'count' ? counter.made + event.n : event.n;
        counter.made = Math.max(0, Math.min(counter.count, next));
      }
    } else if (event.kind === 'help' || event.kind === 'helped') {
      waits = event.kind === 'help';
    } else if (event.kind === 'step_on') {
      place = Math.max(place, steps.findIndex((step) => step.task === event.task) + 1);
    } else if (event.kind === 'step_back') {
      place = Math.min(
        place,
        steps.findIndex((step) => step.task === event.task),
      );
    } else if (event.kind === 'finished' || event.kind === 'spoiled' || event.kind === 'set_aside') {
      state = event.kind;
      visit = null;
    } else if (event.kind === 'came_back') {
      // What it reads in words comes from the server.
      const { why, reads_mm = null, wanted_mm = null } = event;
      state = 'open';
      visit = { why, reads_mm, wanted_mm, reads: null, wanted: null, done: [] };
    }
  }
  return { ...progress, steps, place, waits, state, visit, task: steps[place]?.task ?? '' };
}
