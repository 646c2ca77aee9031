import { useLayoutEffect, useRef, useState } from 'react';

/** What can be drawn in: a page that isn't laid out has no width yet. */
const drawable = (width: number) => Math.max(160, Math.round(width));

/** The width of an element in pixels, followed as it changes. */
export function useWidth<T extends HTMLElement>(first: number) {
  const ref = useRef<T>(null);
  const [width, setWidth] = useState(first);
  useLayoutEffect(() => {
    const element = ref.current;
    if (!element) return;
    const observer = new ResizeObserver(([entry]) => {
      if (entry) setWidth(drawable(entry.contentRect.width));
    });
    observer.observe(element);
    setWidth(drawable(element.getBoundingClientRect().width));
    return () => observer.disconnect();
  }, []);
  return [ref, width] as const;
}
