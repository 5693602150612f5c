'use client';
import { useGesture } from '@use-gesture/react';
import type { RefObject } from 'react';

export interface Place {
  readonly x: number;
  readonly y: number;
}

/** What is moved by gestures over it; places are CSS pixels from its corner. */
export interface Viewed {
  /** Whether a pointer that is put down moves what is seen. */
  readonly moves: (event: PointerEvent) => boolean;
  readonly pan: (dx: number, dy: number) => void;
  readonly zoom: (factor: number, at: Place) => void;
  /** Turns by an angle (radians, clockwise); what cannot be turned has none. */
  readonly turn?: (angle: number, at: Place) => void;
  /** Whether dragging turns around the middle rather than moves. */
  readonly turns?: (event: PointerEvent) => boolean;
  /** Whether two fingers are heeded now. */
  readonly pinches?: () => boolean;
  /** Takes the wheel for something else. @returns whether it did */
  readonly wheel?: (event: WheelEvent) => boolean;
}

/** Zoom for a pixel of the wheel, natural logarithm. */
const WHEEL = 0.0016;
const ANGLE = Math.PI / 180;

/** Dragging, two fingers and the wheel over an element move what is seen in it. */
export function useViewGestures(target: RefObject<HTMLElement | null>, viewed: Viewed): void {
  const placeIn = ([x, y]: readonly [number, number]): Place => {
    const box = target.current!.getBoundingClientRect();
    return { x: x - box.left, y: y - box.top };
  };
  useGesture(
    {
      onDrag({ event, first, last, cancel, canceled, pinching, xy, memo }) {
        const pointer = event as PointerEvent;
        const to = placeIn(xy);
        if (first && !viewed.moves(pointer)) cancel();
        if (canceled || pinching || !memo || last) return to;
        const from = memo as Place;
        if (viewed.turn && viewed.turns?.(pointer)) {
          const { clientWidth, clientHeight } = target.current!;
          const middle = { x: clientWidth / 2, y: clientHeight / 2 };
          const lean = (p: Place) => Math.atan2(p.y - middle.y, p.x - middle.x);
          viewed.turn(lean(to) - lean(from), middle);
        } else viewed.pan(to.x - from.x, to.y - from.y);
        return to;
      },
      onPinch({ first, last, origin, da: [distance, angle], memo }) {
        const at = placeIn(origin);
        const now = { at, distance, angle };
        if (first || last || !memo || viewed.pinches?.() === false) return now;
        const before = memo as typeof now;
        viewed.pan(at.x - before.at.x, at.y - before.at.y);
        viewed.zoom(distance / Math.max(1, before.distance), at);
        viewed.turn?.((((angle - before.angle + 540) % 360) - 180) * ANGLE, at);
        return now;
      },
      onWheel({ event, last, delta: [, dy] }) {
        if (last) return;
        event.preventDefault();
        if (!viewed.wheel?.(event)) viewed.zoom(Math.exp(-dy * WHEEL), placeIn([event.clientX, event.clientY]));
      },
    },
    {
      target,
      eventOptions: { passive: false },
      drag: { pointer: { buttons: -1, keys: false } },
      pinch: { pinchOnWheel: false },
    },
  );
}
