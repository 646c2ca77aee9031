import { lazy, type ComponentType } from 'react';

const FIRST_WAIT_MS = 1_000;
const LONGEST_WAIT_MS = 30_000;
const SCREENS_TRIES = 4;

const later = (ms: number) =>
  new Promise<void>((go) => {
    const woken = () => {
      clearTimeout(timer);
      removeEventListener('online', woken);
      go();
    };
    const timer = setTimeout(woken, ms);
    addEventListener('online', woken);
  });

/** A part of the page, asked for again until it comes: after a while, and as soon as there is a network again. */
export async function fetched<T>(load: () => Promise<T>, tries = Infinity): Promise<T> {
  let failed = 0;
  for (let wait = FIRST_WAIT_MS; ; wait = Math.min(2 * wait, LONGEST_WAIT_MS)) {
    try {
      return await load();
    } catch (error) {
      // Without a network nothing can come, and that says nothing about the part.
      if (navigator.onLine) failed += 1;
      if (failed >= tries) throw error;
      await later(wait);
    }
  }
}

/** Something on a screen that comes when it is needed: what it stands in may not fall with it. */
export const laterPart = <P extends object>(load: () => Promise<{ default: ComponentType<P> }>) =>
  lazy(() => fetched(load));

/** A screen, which comes when it is opened. One that a newer version replaced never comes: then the page has to be loaded anew. */
export const laterScreen = <P extends object>(load: () => Promise<{ default: ComponentType<P> }>) =>
  lazy(() => fetched(load, SCREENS_TRIES));
