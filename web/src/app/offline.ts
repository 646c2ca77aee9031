/** What the service worker keeps of the server's answers; see sw.ts. */
const RECORDS = 'records';

/** From now on the pages open without the server too. What can't be registered (an old browser) is no loss while it is there. */
export function keepForOffline(): void {
  if (import.meta.env.PROD && 'serviceWorker' in navigator)
    window.addEventListener('load', () => void navigator.serviceWorker.register('/sw.js').catch(() => undefined));
}

/** Whoever comes next sees nothing of what was kept for the one before. */
export async function forgetKept(): Promise<void> {
  if ('caches' in window) await caches.delete(RECORDS);
}
