'use client';
import { useEffect, useState, type RefObject } from 'react';
import { toolOf } from '@/core/tools/tools';
import { useEasel } from '@/room/easel/easelStore';
import { useLikings } from '@/room/likings';
import styles from './canvas.module.css';

/** How long it is said that there is no paint on the tool, ms. */
const SAID_MS = 3000;

/** What a painter who has never painted here does next, on a canvas that nobody has touched. */
export function FirstWords() {
  const hasPainted = useLikings((s) => s.hasPainted);
  const says = useEasel(({ bench, painter, opened }) => {
    if (!opened || !bench || painter !== 'here') return undefined;
    if (bench.strokes > 0 || bench.canUndo || bench.canRedo) return undefined;
    const { takesPaint, holds } = toolOf(bench.tool.tool);
    if (takesPaint && holds !== 'made' && bench.level < 0.002) return 'Load a tube, then paint.';
    return 'Now paint: a slow or heavy hand leaves more.';
  });
  if (hasPainted || !says) return null;
  return (
    <p className={styles.firstWords} role="status">
      {says}
    </p>
  );
}

/** Says at the pointer that a tool without paint has touched a canvas on which there is none to move. */
export function EmptyTag({ box }: { box: RefObject<HTMLDivElement | null> }) {
  const [at, setAt] = useState<{ x: number; y: number }>();
  useEffect(() => {
    const element = box.current;
    if (!element) return;
    let timer: ReturnType<typeof setTimeout> | undefined;
    // where it came down: a quick finger is gone again by now
    const say = (event: Event) => {
      setAt((event as CustomEvent<{ x: number; y: number }>).detail);
      clearTimeout(timer);
      timer = setTimeout(() => setAt(undefined), SAID_MS);
    };
    element.addEventListener('empty-hand', say);
    return () => {
      clearTimeout(timer);
      element.removeEventListener('empty-hand', say);
    };
  }, [box]);
  if (!at) return null;
  return (
    <div className={styles.emptyTag} style={{ left: at.x + 18, top: at.y + 18 }} role="status">
      There is no paint on it: load a tube.
    </div>
  );
}
