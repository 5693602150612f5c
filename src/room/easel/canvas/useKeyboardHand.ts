import { useEffect, type RefObject } from 'react';
import type { EngineClient } from '@/engine/client';
import { useEasel } from '@/room/easel/easelStore';
import { toMm } from './pen';
import { handIsBusy } from '@/room/easel/features';

/** How far an arrow key moves the tool, CSS pixels: far, and with Shift near; and how far apart readings are. */
const STEP_PX = 12;
const FINE_PX = 1;
const READING_PX = 3;
/** Time from reading to reading, ms, and how hard it is pressed: an even hand. */
const READING_MS = 16;
const PRESSURE = 0.6;

const WAYS: Record<string, readonly [number, number]> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
};

/** Where the tool is over the view, device pixels from its corner, and which way it goes, radians. */
export interface Pointer {
  readonly x: number;
  readonly y: number;
  readonly angle: number;
}

/** A hand on the keyboard: with the canvas focused, arrows move the tool, Enter puts it down and lifts it. */
export function useKeyboardHand(
  box: RefObject<HTMLDivElement | null>,
  pointer: RefObject<Pointer | undefined>,
  engine: EngineClient | undefined,
  ready: boolean,
): void {
  useEffect(() => {
    const element = box.current;
    if (!element || !engine || !ready) return;
    /** Time of the next reading, while the tool is down. */
    let time: number | undefined;

    const at = () => {
      const { width, height } = useEasel.getState().view;
      return (pointer.current ??= { x: width / 2, y: height / 2, angle: 0 });
    };
    const read = () => {
      const state = useEasel.getState();
      const dpr = window.devicePixelRatio;
      const { left, top } = element.getBoundingClientRect();
      const geometry = { view: state.view, mmPerPx: 25.4 / state.opened!.spec.ppi, dpr, left, top };
      const { x, y } = toMm(geometry, left + at().x / dpr, top + at().y / dpr);
      const round = (v: number) => Math.round(v * 1000) / 1000;
      engine.addSamples([[time!, round(x), round(y), PRESSURE]], Date.now());
      time! += READING_MS;
    };
    const lift = () => {
      if (time === undefined) return;
      time = undefined;
      engine.endStroke();
    };
    const put = () => {
      useEasel.setState({ refused: '' });
      engine.beginStroke();
      time = 0;
      read();
    };
    const key = (event: KeyboardEvent) => {
      if (event.target !== element || event.ctrlKey || event.metaKey || event.altKey) return;
      // an outline or a piece that is being made has the keys first
      if (handIsBusy()) return;
      const way = WAYS[event.key];
      if (way) {
        const far = (event.shiftKey ? FINE_PX : STEP_PX) * window.devicePixelRatio;
        const steps = Math.ceil(far / (READING_PX * window.devicePixelRatio));
        const { width, height } = useEasel.getState().view;
        for (let i = 0; i < steps; i++) {
          const from = at();
          const move = (v: number, by: number, most: number) => Math.max(0, Math.min(most, v + (by * far) / steps));
          const [x, y] = [move(from.x, way[0], width), move(from.y, way[1], height)];
          pointer.current = { x, y, angle: Math.atan2(way[1], way[0]) };
          if (time !== undefined) read();
        }
        element.dispatchEvent(new CustomEvent('hand'));
      } else if (event.key === 'Enter' && !event.repeat) (time === undefined ? put : lift)();
      else return;
      event.preventDefault();
    };
    element.addEventListener('keydown', key);
    element.addEventListener('blur', lift);
    return () => {
      lift();
      element.removeEventListener('keydown', key);
      element.removeEventListener('blur', lift);
    };
  }, [box, pointer, engine, ready]);
}
