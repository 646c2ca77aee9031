import type { Draft } from '../api/client';

/** A ring laid beside others. */
export interface Beside {
  name: string;
  draft: Draft;
}

export const MOST = 4;
const KEY = 'pliant-coil.beside';

/** The rings that lie side by side in this tab. */
export function kept(): readonly Beside[] {
  try {
    const found = JSON.parse(sessionStorage.getItem(KEY) ?? '[]') as unknown;
    return Array.isArray(found) ? (found as Beside[]).slice(0, MOST) : [];
  } catch {
    return [];
  }
}

/** `one` laid beside the others, or taken away again where it lies there; null puts all away. */
export function laid(beside: readonly Beside[], one: Beside | null): readonly Beside[] {
  const there = one !== null && beside.some((b) => b.name === one.name);
  const next = one === null ? [] : there ? beside.filter((b) => b.name !== one.name) : [...beside, one].slice(0, MOST);
  sessionStorage.setItem(KEY, JSON.stringify(next));
  return next;
}
