import { useEffect, type RefObject } from 'react';
import type { EngineClient } from '@/engine/client';
import { useEasel } from '@/room/easel/easelStore';
import { fitView, isFitted } from './viewControl';

/** The view follows the size of its box in the room; the first shows the whole canvas, and one that did goes on to. */
export function useViewSize(box: RefObject<HTMLElement | null>, engine: EngineClient | undefined): void {
  const look = useEasel((s) => s.look);
  useEffect(() => {
    const element = box.current!;
    const observer = new ResizeObserver(() => {
      const dpr = window.devicePixelRatio;
      const width = Math.max(1, Math.round(element.clientWidth * dpr));
      const height = Math.max(1, Math.round(element.clientHeight * dpr));
      const state = useEasel.getState();
      if (state.view.width === width && state.view.height === height) return;
      const next = { ...state.view, width, height };
      const { opened, view } = state;
      // what was seen whole is seen whole, however a drawer or another window changes the room for it
      const whole = opened && (view.width === 0 || isFitted(view, opened.width, opened.height));
      look(whole ? fitView(next, opened.width, opened.height) : next);
    });
    observer.observe(element);
    return () => observer.disconnect();
  }, [box, look, engine]);
}
