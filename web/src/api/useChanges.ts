import { useEffect } from 'react';

const AGAIN_MS = 5_000;

/** Hears of every change that the server tells at an address, and whether it can be heard at all. */
export function useChanges(
  address: string | null,
  onChange: (number: number) => void,
  onAway?: (away: boolean) => void,
) {
  useEffect(() => {
    if (!address) return undefined;
    let changes: EventSource;
    let again: ReturnType<typeof setTimeout>;
    const listen = () => {
      changes = new EventSource(address);
      changes.onmessage = ({ data }) => {
        onAway?.(false);
        onChange(Number(data));
      };
      changes.onerror = () => {
        onAway?.(true);
        // Where nobody answers the browser tries again by itself; not where it was told to wait.
        if (changes.readyState === EventSource.CLOSED) again = setTimeout(listen, AGAIN_MS);
      };
    };
    listen();
    return () => {
      clearTimeout(again);
      changes.close();
    };
  }, [address, onChange, onAway]);
}
