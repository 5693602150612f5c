'use client';
import { useEffect, useRef, type RefObject } from 'react';

/** What a hand does over something; a handler that gives back `true` has caught it, and nothing beneath sees it. */
export interface Hand {
  readonly down: (event: PointerEvent) => boolean | void;
  readonly move: (event: PointerEvent) => boolean | void;
  readonly up: (event: PointerEvent) => boolean | void;
  /** Readings as they come, not once a frame. */
  readonly readings?: (event: PointerEvent) => void;
  readonly leave?: () => void;
}

/** Place of an event in an element, CSS pixels from its corner. */
export function placeIn(element: Element, event: { clientX: number; clientY: number }): { x: number; y: number } {
  const box = element.getBoundingClientRect();
  return { x: event.clientX - box.left, y: event.clientY - box.top };
}

/**
 * A finger that works is not also a gesture of the browser's: after a quick stroke it would take itself to be scrolling
 * and swallow the next tap, wherever that is. What is a control on the element stays one, and a field is still left.
 */
function noGesture(event: Event): void {
  if (event.target instanceof Element && event.target.closest('button, a, input, select, textarea, [role=button]'))
    return;
  event.preventDefault();
  const { activeElement } = document;
  if (activeElement instanceof HTMLElement && activeElement.matches('input, textarea')) activeElement.blur();
}

/**
 * Listens to the hand over an element before what lies beneath does; from where it came down, the hand is followed
 * wherever it goes. Handlers may be new at every drawing; what they see is always of the last.
 */
export function useHand(element: RefObject<Element | null>, active: boolean, hand: Hand): void {
  const live = useRef(hand);
  useEffect(() => {
    live.current = hand;
  });
  useEffect(() => {
    const over = element.current;
    if (!over || !active) return;
    const finely = 'onpointerrawupdate' in window;
    const caught = (what: 'down' | 'move' | 'up') => (event: Event) => {
      const pointer = event as PointerEvent;
      if (live.current[what](pointer) === true) {
        event.stopPropagation();
        if (what === 'down') over.setPointerCapture(pointer.pointerId);
      }
      if (what === 'move' && !finely) live.current.readings?.(pointer);
    };
    const up = caught('up');
    const listeners: Record<string, (event: Event) => void> = {
      pointerdown: caught('down'),
      pointermove: caught('move'),
      pointerup: up,
      pointercancel: up,
      pointerleave: () => live.current.leave?.(),
      // readings between frames belong to painting alone
      pointerrawupdate: (event) => {
        event.stopPropagation();
        live.current.readings?.(event as PointerEvent);
      },
    };
    for (const [name, listener] of Object.entries(listeners)) over.addEventListener(name, listener);
    over.addEventListener('touchstart', noGesture, { passive: false });
    return () => {
      over.removeEventListener('touchstart', noGesture);
      for (const [name, listener] of Object.entries(listeners)) over.removeEventListener(name, listener);
    };
  }, [element, active]);
}

/** The line through places, as an SVG path. */
export const pathThrough = (places: readonly { x: number; y: number }[]): string =>
  places.map(({ x, y }, i) => `${i ? 'L' : 'M'}${x.toFixed(1)} ${y.toFixed(1)}`).join('');
