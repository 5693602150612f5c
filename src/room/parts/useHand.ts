'use client';
import { useEffect, useRef, type RefObject } from 'react';

/** What a hand does over something; a handler that gives back `true` has caught it, and nothing beneath sees it. */
export interface Hand {
  readonly down: (event: PointerEvent) => boolean | void;
  readonly move: (event: PointerEvent) => boolean | void;
  readonly up: (event: PointerEvent) => boolean | void;
}

/** Place of an event in an element, CSS pixels from its corner. */
export function placeIn(element: Element, event: { clientX: number; clientY: number }): { x: number; y: number } {
  const box = element.getBoundingClientRect();
  return { x: event.clientX - box.left, y: event.clientY - box.top };
}

/**
 * Listens to the hand over an element before the canvas or the photo beneath does. Handlers may be new at every
 * drawing; what they see is always of the last.
 */
export function useHand(element: RefObject<Element | null>, active: boolean, hand: Hand): void {
  const live = useRef(hand);
  useEffect(() => {
    live.current = hand;
  });
  useEffect(() => {
    const over = element.current;
    if (!over || !active) return;
    const caught = (what: keyof Hand) => (event: Event) => {
      if (live.current[what](event as PointerEvent) !== true) return;
      event.stopPropagation();
      if (what === 'down') over.setPointerCapture((event as PointerEvent).pointerId);
    };
    const [down, move, up] = [caught('down'), caught('move'), caught('up')];
    // readings between frames belong to painting alone
    const raw = (event: Event) => event.stopPropagation();
    over.addEventListener('pointerdown', down);
    over.addEventListener('pointermove', move);
    over.addEventListener('pointerrawupdate', raw);
    over.addEventListener('pointerup', up);
    over.addEventListener('pointercancel', up);
    return () => {
      over.removeEventListener('pointerdown', down);
      over.removeEventListener('pointermove', move);
      over.removeEventListener('pointerrawupdate', raw);
      over.removeEventListener('pointerup', up);
      over.removeEventListener('pointercancel', up);
    };
  }, [element, active]);
}

/** The line through places, as an SVG path. */
export const pathThrough = (places: readonly { x: number; y: number }[]): string =>
  places.map(({ x, y }, i) => `${i ? 'L' : 'M'}${x.toFixed(1)} ${y.toFixed(1)}`).join('');
