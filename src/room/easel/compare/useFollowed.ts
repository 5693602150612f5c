'use client';
import { useEffect, useState } from 'react';
import type { Triple } from '@/core/colour/colorimetry';
import { compareColours, type Comparison } from '@/core/study/compare';
import { useEasel } from '@/room/easel/easelStore';
import type { MarkedPair, MarkedSpot } from './compareStore';

/** A spot that has changed less than this is as it was, Delta E 2000. */
const CHANGED = 0.5;

/** Pairs as they are now, where one of their spots on the canvas has changed since it was marked. */
export function useFollowed(pairs: readonly MarkedPair[]): Readonly<Record<number, Comparison>> {
  const engine = useEasel((s) => s.engine);
  const strokes = useEasel((s) => s.bench?.strokes);
  const [followed, setFollowed] = useState<Record<number, Comparison>>({});
  useEffect(() => {
    if (!engine) return;
    let gone = false;
    const now = async ({ on, x, y, radiusMm, layer, lab }: MarkedSpot): Promise<Triple> =>
      (on === 'canvas' ? (await engine.ask({ of: 'spot', x, y, radiusMm, layer }))?.lab : undefined) ?? lab;
    const follow = async () => {
      const out: Record<number, Comparison> = {};
      for (const { id, first, second } of pairs) {
        const [a, b] = [await now(first), await now(second)];
        const moved = compareColours(a, first.lab).deltaE + compareColours(b, second.lab).deltaE;
        if (moved > CHANGED) out[id] = compareColours(b, a);
      }
      if (!gone) setFollowed(out);
    };
    follow().catch(() => {});
    return () => {
      gone = true;
    };
    // what is painted changes them
  }, [engine, pairs, strokes]);
  return followed;
}
