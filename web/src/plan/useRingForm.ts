import { useDesk, useProblem } from './Desk';
import { valueAt } from './draft';
import type { RingPath } from './ringPaths';

/** One field of the ring on the desk: what is typed in it, how to change it, and what is wrong with it. */
export function useRingForm(path: RingPath) {
  const { draft, change, exchange } = useDesk();
  return {
    value: valueAt(draft, path),
    problem: useProblem(path),
    set: (value: unknown) => change(path, value),
    /** Another kind of this part; what was set in it before comes back. */
    exchange: (kind: string, from: string, usual: unknown) => exchange({ part: path, kind, from, usual }),
  };
}
