import { useEffect } from 'react';

/** Hears of every change that the server tells at an address, and whether it can be heard at all. */
export function useChanges(
  address: string | null,
  onChange: (number: number) => void,
  onAway?: (away: boolean) => void,
) {
  useEffect(() => {
    if (!address) return undefined;
    const changes = new EventSource(address);
    changes.onmessage = ({ data }) => {
      onAway?.(false);
      onChange(Number(data));
    };
    changes.onerror = () => onAway?.(true);
    return () => changes.close();
  }, [address, onChange, onAway]);
}
