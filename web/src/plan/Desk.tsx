import { createContext, useContext } from 'react';
import type { Draft, Plan, Problem } from '../api/client';
import { sentence } from '../words/refusal';
import type { Exchange } from './draft';
import type { RingPath } from './ringPaths';

/** What the figures on the screen are: those of the ring in the sentence, or of an earlier one, and why. */
export type Standing = 'fresh' | 'working' | 'refused' | 'unreachable';

/** What the parts of the Plan screen share: the ring being typed, how to change it, and what the server said. */
export interface Desk {
  draft: Draft;
  change: (path: RingPath, value: unknown) => void;
  /** Another style of a part, or another way to give it; what was set in it before comes back. Several in one edit. */
  exchange: (...parts: Exchange[]) => void;
  undo: () => void;
  /** The newest plan that could be made; undefined until there is one. */
  plan: Plan | undefined;
  problems: readonly Problem[];
  standing: Standing;
}

const Context = createContext<Desk | null>(null);
export const DeskProvider = Context.Provider;

export function useDesk(): Desk {
  const desk = useContext(Context);
  if (!desk) throw new Error('outside the Plan screen');
  return desk;
}

/** What is wrong with a field, in one sentence; undefined when nothing is. */
export function useProblem(field: RingPath): string | undefined {
  const found = useDesk().problems.find((p) => p.field === field);
  return found && sentence(found);
}
