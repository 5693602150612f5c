'use client';
import { useEffect, useRef } from 'react';
import { cellToView, viewToCell, type View } from '@/core/picture/view';
import type { Place } from '@/core/study/register';
import { Footprint } from '@/room/easel/hand/Footprint';
import { SettingTag } from '@/room/easel/hand/SettingTag';
import { SampleTag } from '@/room/easel/compare/SampleTag';
import { CompareTag } from '@/room/easel/compare/CompareTag';
import { useEasel } from '@/room/easel/easelStore';
import type { OverCanvas } from '@/room/easel/feature';
import { FEATURES } from '@/room/easel/features';
import { useSight } from '@/room/easel/sighting/sightStore';
import { placeIn, useHand } from '@/room/parts/useHand';
import { useViewGestures } from '@/room/parts/useViewGestures';
import { CanvasHand } from './canvasHand';
import { EmptyTag, FirstWords } from './FirstWords';
import { wheelSetsSpot } from './holds';
import { useFrames } from './useFrames';
import { useKeyboardHand, type Pointer } from './useKeyboardHand';
import { useViewSize } from './useViewSize';
import { panBy, turnAt, zoomAt } from './viewControl';
import easel from '../easel.module.css';
import styles from './canvas.module.css';

/** The canvas, and the hand over it: painting, looking, sampling. */
export function CanvasView() {
  const box = useRef<HTMLDivElement>(null);
  const canvas = useRef<HTMLCanvasElement>(null);
  const engine = useEasel((s) => s.engine);
  const opened = useEasel((s) => s.opened);
  const sampling = useEasel((s) => s.sampling);
  const view = useEasel((s) => s.view);
  const pointer = useRef<Pointer>(undefined);

  useKeyboardHand(box, pointer, engine, opened !== undefined);

  const look = useEasel((s) => s.look);
  useFrames(canvas);
  useViewSize(box, engine);

  const hand = useRef<CanvasHand>(undefined);
  useEffect(() => {
    if (!engine || !opened) return;
    const element = box.current!;
    const quiet = (event: Event) => event.preventDefault();
    element.addEventListener('contextmenu', quiet);
    hand.current = new CanvasHand(element, engine, (event) => {
      pointer.current = event && follow(pointer.current, inView(element, event));
      element.dispatchEvent(new CustomEvent('hand'));
    });
    return () => {
      element.removeEventListener('contextmenu', quiet);
      hand.current?.dispose();
      hand.current = undefined;
    };
  }, [engine, opened]);
  useHand(box, engine !== undefined && opened !== undefined, {
    down: (event) => hand.current?.down(event),
    move: (event) => hand.current?.move(event),
    readings: (event) => hand.current?.readings(event),
    up: (event) => hand.current?.up(event),
    leave: () => hand.current?.leave(),
  });
  const change = (next: (view: View, dpr: number) => View) =>
    look(next(useEasel.getState().view, window.devicePixelRatio));
  useViewGestures(box, {
    moves: (event) => hand.current?.movesView(event) ?? false,
    pinches: () => hand.current?.paints === false,
    turns: (event) => event.shiftKey,
    pan: (dx, dy) => change((v, dpr) => panBy(v, dx * dpr, dy * dpr)),
    zoom: (factor, at) => change((v, dpr) => zoomAt(v, factor, at.x * dpr, at.y * dpr)),
    turn: (angle, at) => change((v, dpr) => turnAt(v, angle, at.x * dpr, at.y * dpr)),
    wheel: wheelSets,
  });

  return (
    <div
      ref={box}
      className={easel.view}
      data-testid="canvas"
      data-zoom={view.zoom.toFixed(4)}
      tabIndex={0}
      role="application"
      aria-label="The canvas: arrow keys move the tool, Enter puts it down and lifts it"
      style={{ cursor: sampling ? 'crosshair' : 'none' }}
    >
      <canvas ref={canvas} className={styles.picture} />
      {!opened && <p className={styles.opening}>Bringing the painting to the easel …</p>}
      <Footprint box={box} pointer={pointer} />
      <SettingTag box={box} pointer={pointer} />
      <EmptyTag box={box} />
      <FirstWords />
      <SampleTag box={box} pointer={pointer} />
      <CompareTag box={box} pointer={pointer} />
      {opened && <Overlays view={view} spec={opened.spec} />}
    </div>
  );
}

/** Where a pointer is, device pixels from the corner of the view. */
function inView(element: HTMLElement, event: PointerEvent): { x: number; y: number } {
  const { x, y } = placeIn(element, event);
  return { x: x * window.devicePixelRatio, y: y * window.devicePixelRatio };
}

/** The pointer with the direction it goes in, radians: of its last way that is long enough to tell. */
function follow(before: Pointer | undefined, to: { x: number; y: number }): Pointer {
  if (!before) return { ...to, angle: 0 };
  const [dx, dy] = [to.x - before.x, to.y - before.y];
  return Math.hypot(dx, dy) > 2 ? { ...to, angle: Math.atan2(dy, dx) } : before;
}

/** With a key held, the wheel sets what is looked through. @returns whether it did */
function wheelSets({ deltaY }: WheelEvent): boolean {
  const { held, lucida, change } = useSight.getState();
  if (held) change({ lucida: Math.max(0.05, Math.min(0.95, lucida + (deltaY < 0 ? 0.05 : -0.05))) });
  return held || wheelSetsSpot(deltaY);
}

/** What features draw over the canvas. */
function Overlays({ view, spec }: Pick<OverCanvas, 'view' | 'spec'>) {
  const dpr = window.devicePixelRatio;
  const mmPerPx = 25.4 / spec.ppi;
  const toScreen = (p: Place): Place => {
    const at = cellToView(view, p.x / mmPerPx, p.y / mmPerPx);
    return { x: at.x / dpr, y: at.y / dpr };
  };
  const toCanvas = (p: Place): Place => {
    const cell = viewToCell(view, p.x * dpr, p.y * dpr);
    return { x: cell.x * mmPerPx, y: cell.y * mmPerPx };
  };
  return FEATURES.map(
    ({ id, Overlay }) =>
      Overlay && <Overlay key={id} view={view} spec={spec} toScreen={toScreen} toCanvas={toCanvas} />,
  );
}
