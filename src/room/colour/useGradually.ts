'use client';
import { useEffect, useState } from 'react';

/** Longest piece of work at a time, ms: the hand goes first. */
const SLICE_MS = 10;
/** How often what is there is shown, ms. */
const SHOWN_MS = 150;

/**
 * Computes a list item by item while the page stays quick; what is not there yet is undefined.
 * @param whole shown only when everything is there: for what is dear to draw
 * @param key what the items depend on: the work begins anew when it changes
 */
export function useGradually<T>(
  key: string,
  count: number,
  compute: (index: number) => T,
  whole = false,
): readonly (T | undefined)[] {
  const [state, setState] = useState<{ key: string; items: readonly T[] }>({ key: '', items: [] });
  useEffect(() => {
    let gone = false;
    const items: T[] = [];
    let shown = performance.now();
    const work = () => {
      if (gone) return;
      const end = performance.now() + SLICE_MS;
      while (items.length < count && performance.now() < end) items.push(compute(items.length));
      if (items.length >= count || (!whole && performance.now() - shown > SHOWN_MS)) {
        shown = performance.now();
        setState({ key, items: [...items] });
      }
      if (items.length < count) setTimeout(work);
    };
    const timer = setTimeout(work);
    return () => {
      gone = true;
      clearTimeout(timer);
    };
    // the key says what `compute` depends on
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [key, count, whole]);
  return Array.from({ length: count }, (_, i) => (state.key === key ? state.items[i] : undefined));
}
