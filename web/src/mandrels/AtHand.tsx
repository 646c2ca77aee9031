import { useEffect } from 'react';
import { useMandrels } from '../api/mandrels';
import { usePreferences, useReader } from '../preferences/Preferences';

/** Keeps the line of the mandrel at hand as it was measured last, wherever that was done. */
export function AtHand() {
  const [{ mandrel }, change] = usePreferences();
  const known = useMandrels(useReader(), mandrel !== null).data;
  useEffect(() => {
    if (!mandrel || !known) return;
    const line = known.find(({ name }) => name === mandrel.name)?.line;
    if (!line) change({ mandrel: null });
    else if (line.off_mm !== mandrel.off_mm || line.slope !== mandrel.slope)
      change({ mandrel: { name: mandrel.name, ...line } });
  }, [mandrel, known, change]);
  return null;
}
