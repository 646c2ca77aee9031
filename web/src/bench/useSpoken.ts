import { useCallback, useState } from 'react';

const KEPT = 'pliant-coil.spoken';

/** Steps and counts in the browser's own voice: off until asked for. */
export function useSpoken() {
  const [spoken, set] = useState(() => localStorage.getItem(KEPT) === 'yes');
  const setSpoken = (next: boolean) => {
    localStorage.setItem(KEPT, next ? 'yes' : 'no');
    set(next);
  };
  const speak = useCallback(
    (words: string, worthIt: boolean) => {
      if (!spoken || !worthIt || !('speechSynthesis' in window)) return;
      speechSynthesis.cancel();
      speechSynthesis.speak(new SpeechSynthesisUtterance(words));
    },
    [spoken],
  );
  return { spoken, setSpoken, speak };
}
