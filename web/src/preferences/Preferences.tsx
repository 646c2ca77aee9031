import { createContext, useContext, useMemo, useState, type ReactNode } from 'react';

/** How this maker reads figures; kept in the browser. */
export interface Preferences {
  /** The unit that comes first; the other always stands beside it. */
  units: 'mm' | 'in';
  /** Codes of the two size systems on the mandrel, left and right. */
  systems: [string, string];
  /** Whether plans reckon with what this maker's hand has shown. */
  hand: boolean;
}

const KEY = 'pliant-coil.preferences';
const USUAL: Preferences = { units: 'mm', systems: ['us', 'uk'], hand: false };

const load = (): Preferences => {
  try {
    return { ...USUAL, ...(JSON.parse(localStorage.getItem(KEY) ?? '{}') as Partial<Preferences>) };
  } catch {
    return USUAL;
  }
};

const Context = createContext<[Preferences, (change: Partial<Preferences>) => void]>([USUAL, () => undefined]);

export function PreferencesProvider({ children }: { children: ReactNode }) {
  const [preferences, setPreferences] = useState(load);
  const value = useMemo<[Preferences, (change: Partial<Preferences>) => void]>(
    () => [
      preferences,
      (change) => {
        const next = { ...preferences, ...change };
        localStorage.setItem(KEY, JSON.stringify(next));
        setPreferences(next);
      },
    ],
    [preferences],
  );
  return <Context value={value}>{children}</Context>;
}

export const usePreferences = () => useContext(Context);

/** For whom the server writes: what this maker reads first. */
export function useReader() {
  const [{ units, systems }] = usePreferences();
  return useMemo(() => ({ units, sizes: systems.join(',') }), [units, systems]);
}
