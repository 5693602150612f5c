'use client';
import { useEffect, useState, type RefObject } from 'react';
import { useHolds } from '@/room/easel/canvas/holds';
import { useEasel } from '@/room/easel/easelStore';
import styles from '../compare/compare.module.css';

/** The size or strength that is being dragged, in numbers at the pointer. */
export function SettingTag({
  box,
  pointer,
}: {
  box: RefObject<HTMLDivElement | null>;
  pointer: RefObject<{ readonly x: number; readonly y: number } | undefined>;
}) {
  const [at, setAt] = useState<{ x: number; y: number }>();
  const held = useHolds((s) => (s.size ? 'size' : s.strength ? 'strength' : undefined));
  const tool = useEasel((s) => s.bench?.tool);
  const ppi = useEasel((s) => s.opened?.spec.ppi ?? 100);
  useEffect(() => {
    const element = box.current;
    if (!element || !held) return;
    const follow = () => setAt(pointer.current && { x: pointer.current.x, y: pointer.current.y });
    element.addEventListener('hand', follow);
    follow();
    return () => element.removeEventListener('hand', follow);
  }, [box, pointer, held]);
  if (!held || !at || !tool) return null;
  const dpr = window.devicePixelRatio;
  const says =
    held === 'size'
      ? `${tool.sizeMm.toFixed(1)} mm, ${Math.round((tool.sizeMm / 25.4) * ppi)} px`
      : `${Math.round(tool.strength * 100)} %`;
  return (
    <div className={styles.sampleTag} style={{ left: at.x / dpr + 18, top: at.y / dpr + 18 }} role="status">
      {says}
    </div>
  );
}
