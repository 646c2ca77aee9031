import { createContext, useContext } from 'react';
import type { Draft, Plan, Problem } from '../api/client';

/** What the parts of the Plan screen share: the ring being typed, how to change it, and what the server said. */
export interface Desk {
  draft: Draft;
  change: (path: string, value: unknown) => void;
  /** The newest plan that could be made; undefined until there is one. */
  plan: Plan | undefined;
  problems: readonly Problem[];
}

const Context = createContext<Desk | null>(null);
export const DeskProvider = Context.Provider;

export function useDesk(): Desk {
  const desk = useContext(Context);
  if (!desk) throw new Error('outside the Plan screen');
  return desk;
}

/** What is wrong with a field, in one sentence; undefined when nothing is. */
export function useProblem(field: string): string | undefined {
  const found = useDesk().problems.find((p) => p.field === field);
  return found && sentence(found);
}

export const sentence = (problem: Problem) => {
  const said = problem.reason.charAt(0).toUpperCase() + problem.reason.slice(1);
  return problem.accepted ? `${said}. What would do: ${problem.accepted}.` : `${said}.`;
};
