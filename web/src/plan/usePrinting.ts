import { useSyncExternalStore } from 'react';

const paper = typeof window === 'undefined' ? null : window.matchMedia('print');

const subscribe = (tell: () => void) => {
  paper?.addEventListener('change', tell);
  return () => paper?.removeEventListener('change', tell);
};

/** Whether the page is being laid out for a printer: what is only for paper need not be drawn before. */
export const usePrinting = () => useSyncExternalStore(subscribe, () => paper?.matches ?? false);
