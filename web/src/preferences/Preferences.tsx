import { createContext, useContext, useMemo, useState, type ReactNode } from 'react';
import { keepPreferences, useMe } from '../api/people';
import { isHere, whose } from '../people/person';

/** A mandrel whose marks are off: by so much at an inside diameter of 17 mm, and more for each millimetre. */
export interface Line {
  name: string;
  off_mm: number;
  slope: number;
}

/** How this maker reads figures; kept in the browser, and with their name where they have one. */
export interface Preferences {
  /** The unit that comes first; the other always stands beside it. */
  units: 'mm' | 'in';
  /** Codes of the two size systems on the mandrel, left and right. */
  systems: [string, string];
  /** Whether plans reckon with what this maker's hand has shown. */
  hand: boolean;
  /** The mandrel at hand, for whose marks everything is told; null for one whose marks stand where they should. */
  mandrel: Line | null;
  /** Whether what tools say lands in this browser's fields. */
  tools: boolean;
  /** How much a bench says: with the trade's words explained, as it is done, or the figures only. */
  words: 'many' | 'usual' | 'few';
}

const key = () => `${whose()}preferences`;
const USUAL: Preferences = {
  units: 'mm',
  systems: ['us', 'uk'],
  hand: false,
  mandrel: null,
  tools: false,
  words: 'usual',
};

const load = (): Preferences => {
  try {
    return { ...USUAL, ...(JSON.parse(localStorage.getItem(key()) ?? '{}') as Partial<Preferences>) };
  } catch {
    return USUAL;
  }
};

const Context = createContext<[Preferences, (change: Partial<Preferences>) => void]>([USUAL, () => undefined]);

export function PreferencesProvider({ children }: { children: ReactNode }) {
  const me = useMe().data;
  // Before anything is taken up that belongs to somebody.
  if (me) isHere(me.person_id);
  const [preferences, setPreferences] = useState(load);
  const person = me?.person_id ?? null;
  const [of, setOf] = useState(person);
  if (person !== of) {
    setOf(person);
    setPreferences({ ...load(), ...(me?.preferences as Partial<Preferences> | undefined) });
  }
  const value = useMemo<[Preferences, (change: Partial<Preferences>) => void]>(
    () => [
      preferences,
      (change) => {
        const next = { ...preferences, ...change };
        localStorage.setItem(key(), JSON.stringify(next));
        setPreferences(next);
        // What lies at this bench (mandrel, tools) stays in this browser; the rest goes with the person.
        // Without the server they are kept here, and sent with the next change.
        if (person) keepPreferences({ ...next }).catch(() => undefined);
      },
    ],
    [preferences, person],
  );
  return <Context value={value}>{children}</Context>;
}

export const usePreferences = () => useContext(Context);

/** For whom the server writes: what this maker reads first. */
export function useReader() {
  const [{ units, systems, mandrel }] = usePreferences();
  return useMemo(
    () => ({
      units,
      sizes: systems.join(','),
      ...(mandrel ? { mandrel_off: mandrel.off_mm, mandrel_slope: mandrel.slope } : {}),
    }),
    [units, systems, mandrel],
  );
}
