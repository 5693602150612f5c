'use client';
import { useEffect, useRef } from 'react';
import { toolOf } from '@/core/tools/tools';
import { cellToView, viewToCell } from '@/core/picture/view';
import type { Place } from '@/core/study/register';
import { Footprint } from '@/room/easel/hand/Footprint';
import { SampleTag } from '@/room/easel/compare/SampleTag';
import { useEasel } from '@/room/easel/easelStore';
import { PenReader, toMm, type PenGeometry } from './pen';
import { panBy, turnAt, zoomAt } from './viewControl';
import { useKeyboardHand } from './useKeyboardHand';
import type { OverCanvas } from '@/room/easel/feature';
import { FEATURES } from '@/room/easel/features';
import { heldKeys } from './heldKeys';
import { useFrames } from './useFrames';
import { useViewSize } from './useViewSize';
import { usePalette } from '@/room/colour/paletteStore';
import { inParts } from '@/room/parts/recipeWords';
import { guideInUse, useSight } from '@/room/easel/sighting/sightStore';
import { CompareTag } from '@/room/easel/compare/CompareTag';
import { useCompare } from '@/room/easel/compare/compareStore';
import { solveFor } from '@/room/easel/compare/sampling';
import { readCanvas } from '@/room/easel/compare/spots';
import easel from '../easel.module.css';
import styles from './canvas.module.css';

/** A finger that moves farther than this, or stays longer, paints; until then a second finger may join it. */
const FINGER_SLOP_PX = 7;
const FINGER_WAIT_MS = 90;
/** How often a hand that holds still is heeded, ms. */
const HOLD_MS = 40;
/** A stroke that begins so near a guide follows it, CSS pixels. */
const GUIDE_PX = 24;

/** The canvas, and the hand over it: painting, looking, sampling. */
export function CanvasView() {
  const box = useRef<HTMLDivElement>(null);
  const canvas = useRef<HTMLCanvasElement>(null);
  const engine = useEasel((s) => s.engine);
  const opened = useEasel((s) => s.opened);
  const sampling = useEasel((s) => s.sampling);
  const view = useEasel((s) => s.view);
  const pointer = useRef<{ x: number; y: number; angle: number } | undefined>(undefined);

  useKeyboardHand(box, pointer, engine, opened !== undefined);

  const look = useEasel((s) => s.look);
  useFrames(canvas);
  useViewSize(box, engine);

  // the hand
  useEffect(() => {
    if (!engine || !opened) return;
    const element = box.current!;
    const pen = new PenReader();
    const fingers = new Map<number, { x: number; y: number }>();
    let painting: number | undefined;
    let holding: number | undefined;
    let waitingFinger: { id: number; events: PointerEvent[]; timer: number } | undefined;
    let moving: { id: number; x: number; y: number; angle: number } | undefined;
    let strength: { x: number; from: number } | undefined;
    let penSeen = false;
    const rawReadings = 'onpointerrawupdate' in window;

    const geometry = (): PenGeometry => {
      const { left, top } = element.getBoundingClientRect();
      const state = useEasel.getState();
      return { view: state.view, mmPerPx: 25.4 / state.opened!.spec.ppi, dpr: window.devicePixelRatio, left, top };
    };
    const place = (event: { clientX: number; clientY: number }) => {
      const { left, top } = element.getBoundingClientRect();
      const dpr = window.devicePixelRatio;
      return { x: (event.clientX - left) * dpr, y: (event.clientY - top) * dpr };
    };
    const angleOf = (p: { x: number; y: number }) => {
      const v = useEasel.getState().view;
      return Math.atan2(p.y - v.height / 2, p.x - v.width / 2);
    };
    const epoch = (event: PointerEvent) => performance.timeOrigin + event.timeStamp;

    const beginStroke = (event: PointerEvent) => {
      useEasel.setState({ refused: '' });
      painting = event.pointerId;
      engine.beginStroke();
      const g = geometry();
      const led = { guide: guideInUse(), withinMm: (GUIDE_PX * g.dpr * g.mmPerPx) / g.view.zoom, steady: useSight.getState().steady }; // prettier-ignore
      engine.addSamples([pen.begin(event, g, led)], epoch(event));
      holding = window.setInterval(hold, HOLD_MS);
    };
    // what gives by time goes on where the hand holds still, for which no reading comes; which tool it is may be told late
    const hold = () => {
      const { bench } = useEasel.getState();
      if (!bench || !toolOf(bench.tool.tool).givesByTime) return;
      const now = performance.now();
      const held = pen.again(now);
      if (held.length > 0) engine.addSamples(held, performance.timeOrigin + now);
    };
    const endStroke = () => {
      if (holding !== undefined) hold();
      clearInterval(holding);
      holding = undefined;
      painting = undefined;
      engine.endStroke();
    };
    const takeSample = (event: PointerEvent, use: boolean) => {
      const { x, y } = toMm(geometry(), event.clientX, event.clientY);
      if (!usePalette.getState().rules.sampleCanvas) {
        useEasel.setState({ sample: undefined });
        return;
      }
      readCanvas(x, y, (sample) => {
        const state = useEasel.getState();
        state.set({ sample: sample ?? undefined });
        if (!use || !sample) return;
        const mixture = state.asSeen ? solveFor(sample.lab).mixture : sample.mixture;
        if (Object.keys(mixture).length > 0) state.loadMixture(inParts(mixture));
      });
    };
    const compare = (event: PointerEvent, mark: boolean) => {
      const { x, y } = toMm(geometry(), event.clientX, event.clientY);
      readCanvas(x, y, (reading) => {
        const spot = reading ? { on: 'canvas' as const, x, y, lab: reading.lab } : undefined;
        if (mark && spot) useCompare.getState().mark(spot);
        else useCompare.getState().see(spot);
      });
    };
    const probe = (event: PointerEvent) => {
      const { x, y } = toMm(geometry(), event.clientX, event.clientY);
      readCanvas(x, y, (reading) => useCompare.getState().feel(reading?.lab));
    };

    let felt = 0;
    const feelPaper = (event: PointerEvent) => {
      const { bench } = useEasel.getState();
      if (!bench || !toolOf(bench.tool.tool).forWater || event.timeStamp - felt < 160) return;
      felt = event.timeStamp;
      const { x, y } = toMm(geometry(), event.clientX, event.clientY);
      engine.ask({ of: 'paper', x, y }).then(
        (paper) => useEasel.setState({ paper }),
        () => {},
      );
    };

    const down = (event: PointerEvent) => {
      if (event.button > 1 && event.pointerType !== 'pen') return;
      element.setPointerCapture(event.pointerId);
      element.focus({ preventScroll: true });
      if (event.pointerType === 'pen') penSeen = true;
      const p = place(event);
      if (event.pointerType === 'touch') {
        if (painting !== undefined && penSeen) return; // the pen paints
        fingers.set(event.pointerId, p);
        if (fingers.size === 2 && waitingFinger) {
          clearTimeout(waitingFinger.timer);
          waitingFinger = undefined;
        }
        if (fingers.size === 1 && !penSeen && !heldKeys.space) {
          const begin = () => {
            const waiting = waitingFinger;
            waitingFinger = undefined;
            if (!waiting) return;
            beginStroke(waiting.events[0]);
            for (const e of waiting.events.slice(1)) engine.addSamples(pen.readAll(e, geometry()), epoch(e));
          };
          waitingFinger = { id: event.pointerId, events: [event], timer: window.setTimeout(begin, FINGER_WAIT_MS) };
        }
        return;
      }
      if (heldKeys.space || event.button === 1) {
        moving = { id: event.pointerId, ...p, angle: angleOf(p) };
        return;
      }
      if (heldKeys.sample) {
        takeSample(event, true);
        return;
      }
      if (heldKeys.compare) {
        compare(event, true);
        return;
      }
      if (painting === undefined && event.button === 0) beginStroke(event);
    };

    const gesture = (id: number, to: { x: number; y: number }) => {
      const before = [...fingers.values()];
      fingers.set(id, to);
      const after = [...fingers.values()];
      let next = useEasel.getState().view;
      if (before.length === 1) {
        next = panBy(next, after[0].x - before[0].x, after[0].y - before[0].y);
      } else {
        const mid = (q: { x: number; y: number }[]) => ({ x: (q[0].x + q[1].x) / 2, y: (q[0].y + q[1].y) / 2 });
        const span = (q: { x: number; y: number }[]) => Math.hypot(q[1].x - q[0].x, q[1].y - q[0].y);
        const lean = (q: { x: number; y: number }[]) => Math.atan2(q[1].y - q[0].y, q[1].x - q[0].x);
        const m0 = mid(before);
        const m1 = mid(after);
        next = panBy(next, m1.x - m0.x, m1.y - m0.y);
        next = zoomAt(next, span(after) / Math.max(1, span(before)), m1.x, m1.y);
        next = turnAt(next, lean(after) - lean(before), m1.x, m1.y);
      }
      look(next);
    };

    const move = (event: PointerEvent) => {
      const p = place(event);
      const old = pointer.current;
      if (!old) pointer.current = { ...p, angle: 0 };
      else {
        const dx = p.x - old.x;
        const dy = p.y - old.y;
        if (Math.hypot(dx, dy) > 2) pointer.current = { ...p, angle: Math.atan2(dy, dx) };
      }
      element.dispatchEvent(new CustomEvent('hand'));
      if (waitingFinger?.id === event.pointerId) {
        waitingFinger.events.push(event);
        const first = waitingFinger.events[0];
        if (Math.hypot(event.clientX - first.clientX, event.clientY - first.clientY) > FINGER_SLOP_PX) {
          clearTimeout(waitingFinger.timer);
          const { events } = waitingFinger;
          waitingFinger = undefined;
          beginStroke(events[0]);
          for (const e of events.slice(1)) engine.addSamples(pen.readAll(e, geometry()), epoch(e));
        }
        fingers.set(event.pointerId, p);
        return;
      }
      if (painting === event.pointerId) {
        if (!rawReadings) engine.addSamples(pen.readAll(event, geometry()), epoch(event));
        return;
      }
      if (event.pointerType === 'touch') {
        if (fingers.has(event.pointerId)) gesture(event.pointerId, p);
        return;
      }
      if (moving?.id === event.pointerId) {
        const now = useEasel.getState().view;
        const angle = angleOf(p);
        const next = event.shiftKey
          ? turnAt(now, angle - moving.angle, now.width / 2, now.height / 2)
          : panBy(now, p.x - moving.x, p.y - moving.y);
        moving = { id: moving.id, ...p, angle };
        look(next);
        return;
      }
      feelPaper(event);
      if (heldKeys.sample) takeSample(event, false);
      else if (heldKeys.compare) compare(event, false);
      else if (useCompare.getState().probe) probe(event);
      if (heldKeys.strength) {
        const { bench, apply } = useEasel.getState();
        if (!bench) return;
        strength ??= { x: event.clientX, from: bench.tool.strength };
        const value = Math.min(1, Math.max(0.02, strength.from + (event.clientX - strength.x) / 250));
        apply({ do: 'tool', tool: bench.tool.tool, strength: Math.round(value * 100) / 100 });
      } else strength = undefined;
    };

    // readings as they come, not once a frame
    const raw = (event: Event) => {
      const reading = event as PointerEvent;
      if (painting === reading.pointerId) engine.addSamples(pen.readAll(reading, geometry()), epoch(reading));
    };

    const up = (event: PointerEvent) => {
      if (waitingFinger?.id === event.pointerId) {
        clearTimeout(waitingFinger.timer);
        beginStroke(waitingFinger.events[0]);
        for (const e of waitingFinger.events.slice(1)) engine.addSamples(pen.readAll(e, geometry()), epoch(e));
        waitingFinger = undefined;
      }
      fingers.delete(event.pointerId);
      if (painting === event.pointerId) endStroke();
      if (moving?.id === event.pointerId) moving = undefined;
    };
    const wheel = (event: WheelEvent) => {
      event.preventDefault();
      const p = place(event);
      if (useSight.getState().held) {
        const { lucida, change } = useSight.getState();
        change({ lucida: Math.max(0.05, Math.min(0.95, lucida + (event.deltaY < 0 ? 0.05 : -0.05))) });
        return;
      }
      if (heldKeys.sample || heldKeys.compare) {
        // the wheel opens and closes the spot while one looks through it
        const { spotPx, set } = useEasel.getState();
        set({ spotPx: Math.max(0, Math.min(30, spotPx + (event.deltaY < 0 ? 1 : -1))) });
        return;
      }
      look(zoomAt(useEasel.getState().view, Math.exp(-event.deltaY * 0.0016), p.x, p.y));
    };
    const leave = () => {
      pointer.current = undefined;
      useEasel.setState({ paper: undefined });
      element.dispatchEvent(new CustomEvent('hand'));
    };
    const quiet = (event: Event) => event.preventDefault();

    element.addEventListener('pointerdown', down);
    element.addEventListener('pointermove', move);
    if (rawReadings) element.addEventListener('pointerrawupdate', raw);
    element.addEventListener('pointerup', up);
    element.addEventListener('pointercancel', up);
    element.addEventListener('pointerleave', leave);
    element.addEventListener('wheel', wheel, { passive: false });
    element.addEventListener('contextmenu', quiet);
    return () => {
      if (painting !== undefined) endStroke();
      element.removeEventListener('pointerdown', down);
      clearInterval(holding);
      element.removeEventListener('pointermove', move);
      element.removeEventListener('pointerrawupdate', raw);
      element.removeEventListener('pointerup', up);
      element.removeEventListener('pointercancel', up);
      element.removeEventListener('pointerleave', leave);
      element.removeEventListener('wheel', wheel);
      element.removeEventListener('contextmenu', quiet);
    };
  }, [engine, opened, look]);

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
      <SampleTag box={box} pointer={pointer} />
      <CompareTag box={box} pointer={pointer} />
      {opened && <Overlays view={view} spec={opened.spec} />}
    </div>
  );
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
