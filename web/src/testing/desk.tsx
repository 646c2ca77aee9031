import { useState, type ReactNode } from 'react';
import type { Draft, Plan, Problem } from '../api/client';
import { DeskProvider, type Standing } from '../plan/Desk';
import { withValue, type Exchange } from '../plan/draft';
import { drawn } from './serve';
import plans from './plans.generated.json';

/** Plans as they are, and the rings that they are of. */
export const turned = plans.turned as unknown as { ring: Draft; plan: Plan };
export const woven = plans.woven as unknown as { ring: Draft; plan: Plan };

interface Laid {
  draft?: Draft;
  plan?: Plan | undefined;
  problems?: Problem[];
  standing?: Standing;
}

/** A part of the Plan screen on a desk where what is changed stays changed; and every change, in its order. */
export function onDesk(part: ReactNode, { draft = turned.ring, plan, problems = [], standing = 'fresh' }: Laid = {}) {
  const changes: [string, unknown][] = [];
  function Desk() {
    const [ring, setRing] = useState(draft);
    const change = (path: string, value: unknown) => {
      changes.push([path, value]);
      setRing((before) => withValue(before, path as never, value));
    };
    const exchange = (...parts: Exchange[]) => {
      for (const { part: at, kind, from, usual, settings } of parts) {
        changes.push([`${at}: ${from} to ${kind}`, usual]);
        setRing((before) => withValue(before, at, settings ? { ...(usual as Draft), ...settings } : usual));
      }
    };
    const undo = () => setRing(draft);
    return (
      <DeskProvider value={{ draft: ring, change, exchange, undo, plan, problems, standing }}>{part}</DeskProvider>
    );
  }
  return { ...drawn(<Desk />), changes };
}
