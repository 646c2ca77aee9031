import { useState } from 'react';
import { whose } from '../people/person';

/** Text that is being typed: it is still there when its sheet was closed, or the page loaded again, before it was written down. */
export function useKeptText(name: string): [string, (text: string) => void] {
  const key = `${whose()}typed.${name}`;
  const [text, setText] = useState(() => localStorage.getItem(key) ?? '');
  return [
    text,
    (next) => {
      setText(next);
      if (next) localStorage.setItem(key, next);
      else localStorage.removeItem(key);
    },
  ];
}
