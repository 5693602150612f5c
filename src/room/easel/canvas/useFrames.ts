import { useEffect, useRef, type RefObject } from 'react';
import type { View } from '@/core/picture/view';
import { askedViews, useEasel } from '@/room/easel/easelStore';
import { previewMatrix } from './viewControl';

/** Latencies of the pen that are kept for their median. */
const LATENCIES = 60;

/** Puts frames of the engine on a canvas; until one of a new view comes, the picture there is shown as it would lie in it. */
export function useFrames(canvas: RefObject<HTMLCanvasElement | null>): void {
  /** The view for which the pixels on the canvas were drawn. */
  const drawn = useRef<{ serial: number; view: View } | undefined>(undefined);
  // until a view is drawn, the picture that is there is shown as it would lie in it
  useEffect(
    () =>
      useEasel.subscribe((now, before) => {
        if (now.view === before.view || !drawn.current || !canvas.current) return;
        canvas.current.style.transform = previewMatrix(drawn.current.view, now.view, window.devicePixelRatio);
      }),
    [canvas],
  );

  // frames from the engine
  useEffect(() => {
    const latencies: number[] = [];
    let told = 0;
    const store = useEasel.getState();
    store.onFrame((frame) => {
      const state = useEasel.getState();
      const element = canvas.current;
      if (element) {
        const mine = askedViews.get(frame.serial);
        if (frame.whole && mine) {
          if (element.width !== mine.width || element.height !== mine.height) {
            element.width = mine.width;
            element.height = mine.height;
          }
          drawn.current = { serial: frame.serial, view: mine };
          for (const serial of askedViews.keys()) if (serial < frame.serial) askedViews.delete(serial);
          element.style.transform = previewMatrix(mine, state.view, window.devicePixelRatio);
        }
        if (drawn.current?.serial === frame.serial) {
          const image = new ImageData(frame.data, frame.width, frame.height);
          element.getContext('2d')!.putImageData(image, frame.x, frame.y);
        }
      }
      state.engine?.shown();
      if (frame.newest > 0) {
        const { newest } = frame;
        requestAnimationFrame(() => {
          latencies.push(performance.timeOrigin + performance.now() - newest);
          if (latencies.length > LATENCIES) latencies.shift();
          if (performance.now() - told > 500) {
            told = performance.now();
            const sorted = [...latencies].sort((a, b) => a - b);
            useEasel.setState({ latency: sorted[sorted.length >> 1] });
          }
          window.dispatchEvent(new CustomEvent('stigmos-frame', { detail: latencies[latencies.length - 1] }));
        });
      }
    });
    return () => store.onFrame(undefined);
  }, [canvas]);
}
