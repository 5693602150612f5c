'use client';
import { create } from 'zustand';
import { isTimeUp } from '@/core/commands/houseRules';
import { amendPainting } from '@/engine/keeping/shelf';
import { onPaletteChange, usePalette } from '@/room/colour/paletteStore';
import { useEasel } from './easelStore';

/** How often the time is read, and how often it is kept, ms. */
const READ_MS = 1000;
const KEEP_MS = 10_000;
/** What a reading may count for at most: a machine that was asleep has not painted. */
const MOST_MS = 3 * READ_MS;

/** How long the painting on the easel has been painted on, ms: while it stood open and was seen. */
export const usePaintingTime = create<{ readonly spentMs: number }>(() => ({ spentMs: 0 }));

/** Tells the engine which rules hold now. */
function tellRules(): void {
  const { rules, tubes } = usePalette.getState();
  useEasel.getState().engine?.setRules(rules, tubes, isTimeUp(rules, usePaintingTime.getState().spentMs));
}

/**
 * Counts the time of a painting from now on, and tells the engine of its rules whenever they or the time say so.
 * @param spentMs what has been counted before
 * @returns how to stop that
 */
export function countTime(painting: string, spentMs = 0): () => void {
  usePaintingTime.setState({ spentMs });
  let readAt = Date.now();
  let keptMs = spentMs;
  const keep = () => {
    const now = usePaintingTime.getState().spentMs;
    if (now === keptMs) return;
    keptMs = now;
    void amendPainting(painting, { spentMs: Math.round(now) }).catch(() => {});
  };
  const read = () => {
    const at = Date.now();
    const passed = Math.min(MOST_MS, at - readAt);
    readAt = at;
    if (document.hidden || useEasel.getState().painter !== 'here') return;
    const before = usePaintingTime.getState().spentMs;
    const now = before + passed;
    usePaintingTime.setState({ spentMs: now });
    const { rules } = usePalette.getState();
    if (isTimeUp(rules, now) !== isTimeUp(rules, before)) tellRules();
    // without a time that is set it is enough to keep it in the end
    if (rules.minutes !== undefined && now - keptMs >= KEEP_MS) keep();
  };
  const stop = onPaletteChange(({ rules }) => {
    if (rules) tellRules();
  });
  const timer = setInterval(read, READ_MS);
  window.addEventListener('pagehide', keep);
  return () => {
    stop();
    clearInterval(timer);
    window.removeEventListener('pagehide', keep);
    keep();
  };
}
