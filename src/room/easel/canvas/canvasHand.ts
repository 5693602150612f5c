import { toolOf } from '@/core/tools/tools';
import type { EngineClient } from '@/engine/client';
import { usePalette } from '@/room/colour/paletteStore';
import type { SpotReading } from '@/core/picture/readings';
import { useCompare } from '@/room/easel/compare/compareStore';
import { solveFor } from '@/room/easel/compare/sampling';
import { readAs, readCanvas } from '@/room/easel/compare/spots';
import { useEasel } from '@/room/easel/easelStore';
import { guideInUse, useSight } from '@/room/easel/sighting/sightStore';
import { inParts } from '@/core/colour/recipeWords';
import { placeIn, type Hand } from '@/room/parts/useHand';
import { setSize, setStrength, undo } from '@/room/easel/hand/handActs';
import { useLikings } from '@/room/likings';
import { isHeld } from './holds';
import { PenButtons } from './penButtons';
import { PenReader, toMm, type PenGeometry } from './pen';

/** A finger that moves farther than this, or stays longer, paints; until then a second finger may join it. */
const FINGER_SLOP_PX = 7;
const FINGER_WAIT_MS = 90;
/** A second finger that comes so soon after one that paints, ms, was meant to move the view with it. */
const LATE_FINGER_MS = 450;
/** How often a hand that holds still is heeded, ms. */
const HOLD_MS = 40;
/** A stroke that begins so near a guide follows it, CSS pixels. */
const GUIDE_PX = 24;
/** Time between questions how wet the paper is, ms. */
const FEEL_MS = 160;

/** Whether the tool has no paint, and there is none on the layer that it could move. */
function isEmptyHand(): boolean {
  const { bench } = useEasel.getState();
  if (!bench || bench.onMask || bench.tool.keepLoaded || isHeld('blend')) return false;
  const { takesPaint, holds, blender, thirsty } = toolOf(bench.tool.tool);
  const layer = bench.layers.find(({ id }) => id === bench.activeLayer);
  const needsPaint = takesPaint && holds === 'reservoir' && !blender && !thirsty;
  return needsPaint === true && bench.level < 0.002 && layer?.kind === 'paint' && !layer.wet;
}

/** Milliseconds since epoch of an event. */
const epoch = (event: PointerEvent) => performance.timeOrigin + event.timeStamp;

/** The hand over the canvas: what comes down paints, samples or compares; what hovers looks. The view is moved elsewhere. */
export class CanvasHand implements Hand {
  private readonly pen = new PenReader();
  private readonly buttons = new PenButtons();
  private readonly fingers = new Set<number>();
  /** The pointer that paints, and the timer that heeds it while it holds still. */
  private painting: number | undefined;
  private holding: number | undefined;
  /** When the finger that paints came down; nothing where a pen or a mouse paints. */
  private fingerSince: number | undefined;
  /** A finger of which it is not known yet whether another joins it. */
  private waiting: { readonly id: number; readonly events: PointerEvent[]; readonly timer: number } | undefined;
  private read: PointerEvent | undefined;
  /** The pointer that moves the view. */
  private viewing: number | undefined;
  /** A setting that follows the hand: where it was, and what it was there. */
  private dragged: { readonly what: 'strength' | 'size'; readonly x: number; readonly from: number } | undefined;
  /** Once a pen has painted, fingers do not. */
  private penSeen = false;
  private felt = 0;

  constructor(
    private readonly element: HTMLElement,
    private readonly engine: EngineClient,
    /** Told of each move, before anything is done about it. */
    private readonly moved: (event: PointerEvent | undefined) => void,
  ) {}

  /** Whether a pointer that comes down moves the view rather than painting. */
  readonly movesView = (event: PointerEvent): boolean =>
    isHeld('view') ||
    event.button === 1 ||
    (event.pointerType === 'touch' && this.penSeen && !this.paints && !isHeld('sample') && !isHeld('compare'));

  get paints(): boolean {
    return this.painting !== undefined;
  }

  readonly down = (event: PointerEvent): boolean => {
    const { pointerType: type, pointerId: id } = event;
    if (event.button > 1 && type !== 'pen') return false;
    this.element.focus({ preventScroll: true });
    if (type === 'pen') this.penSeen = true;
    if (!this.paints) this.buttons.heed(event);
    if (type === 'touch' && this.paints) {
      this.besidePainting(event);
      return true;
    }
    if (this.movesView(event)) this.viewing = id;
    else if (isHeld('sample')) this.sample(event, true);
    else if (isHeld('compare')) this.compare(event, true);
    else if (type === 'touch') this.touch(event);
    else if (!this.paints && (event.button === 0 || type === 'pen')) this.beginStroke(event);
    return true;
  };

  readonly move = (event: PointerEvent): void => {
    this.moved(event);
    if (!this.paints) this.buttons.heed(event);
    if (this.waiting?.id === event.pointerId) {
      this.waiting.events.push(event);
      const [first] = this.waiting.events;
      if (Math.hypot(event.clientX - first.clientX, event.clientY - first.clientY) > FINGER_SLOP_PX) this.wasFinger();
      return;
    }
    const busy = this.painting === event.pointerId || this.viewing === event.pointerId;
    if (busy || (event.pointerType === 'touch' && !isHeld('sample') && !isHeld('compare'))) return;
    this.feelPaper(event);
    if (isHeld('sample')) this.sample(event, false);
    else if (isHeld('compare')) this.compare(event, false);
    else if (useCompare.getState().probe) this.probe(event);
    this.dragSetting(event);
  };

  readonly readings = (event: PointerEvent): void => {
    // the event by which a finger was known to paint has been read with those that waited
    if (this.painting === event.pointerId && event !== this.read)
      this.engine.addSamples(this.pen.readAll(event, this.geometry()), epoch(event));
  };

  readonly up = (event: PointerEvent): void => {
    if (this.waiting?.id === event.pointerId) this.wasFinger();
    this.fingers.delete(event.pointerId);
    if (this.painting === event.pointerId) this.endStroke();
    if (this.viewing === event.pointerId) this.viewing = undefined;
  };

  readonly leave = (): void => {
    useEasel.setState({ paper: undefined });
    if (!this.paints) this.buttons.letGo();
    this.moved(undefined);
  };

  /** Ends what is going on. */
  dispose(): void {
    clearTimeout(this.waiting?.timer);
    if (this.paints) this.endStroke();
    this.buttons.letGo();
  }

  private geometry(): PenGeometry {
    const { left, top } = this.element.getBoundingClientRect();
    const { view, opened } = useEasel.getState();
    return { view, mmPerPx: 25.4 / opened!.spec.ppi, dpr: window.devicePixelRatio, left, top };
  }

  private mmOf(event: PointerEvent): { x: number; y: number } {
    return toMm(this.geometry(), event.clientX, event.clientY);
  }

  // --- painting

  /** A finger paints unless a second one joins it at once. */
  private touch(event: PointerEvent): void {
    this.fingers.add(event.pointerId);
    clearTimeout(this.waiting?.timer);
    this.waiting = undefined;
    if (this.fingers.size > 1) return;
    const timer = window.setTimeout(() => this.wasFinger(), FINGER_WAIT_MS);
    this.waiting = { id: event.pointerId, events: [event], timer };
  }

  /** Another finger beside what paints: a palm, or the second of two that move the view. */
  private besidePainting(event: PointerEvent): void {
    if (this.fingerSince === undefined || event.timeStamp - this.fingerSince > LATE_FINGER_MS) return;
    this.fingers.add(event.pointerId);
    this.endStroke();
    undo();
  }

  /** It is known now that a finger paints. */
  private wasFinger(): void {
    const { waiting } = this;
    if (!waiting) return;
    clearTimeout(waiting.timer);
    this.waiting = undefined;
    const [first, ...rest] = waiting.events;
    this.beginStroke(first);
    for (const event of rest) this.readings(event);
    this.read = rest.at(-1);
  }

  private beginStroke(event: PointerEvent): void {
    useEasel.setState({ refused: '' });
    this.painting = event.pointerId;
    if (isEmptyHand())
      this.element.dispatchEvent(new CustomEvent('empty-hand', { detail: placeIn(this.element, event) }));
    this.buttons.begin(event);
    this.fingerSince = event.pointerType === 'touch' ? event.timeStamp : undefined;
    this.engine.beginStroke();
    const geometry = this.geometry();
    const led = {
      guide: guideInUse(),
      withinMm: (GUIDE_PX * geometry.dpr * geometry.mmPerPx) / geometry.view.zoom,
      steady: useSight.getState().steady,
    };
    this.engine.addSamples([this.pen.begin(event, geometry, led)], epoch(event));
    this.holding = window.setInterval(() => this.hold(), HOLD_MS);
  }

  /**
   * What gives by time goes on where the hand holds still, for which no reading comes. Which tool it is may be told
   * late, so it is asked every time.
   */
  private hold(): void {
    const { bench } = useEasel.getState();
    if (!bench || !toolOf(bench.tool.tool).givesByTime) return;
    const now = performance.now();
    const held = this.pen.again(now);
    if (held.length > 0) this.engine.addSamples(held, performance.timeOrigin + now);
  }

  private endStroke(): void {
    this.hold();
    clearInterval(this.holding);
    this.painting = undefined;
    this.engine.endStroke();
    this.buttons.end();
    const { hasPainted, like } = useLikings.getState();
    if (!hasPainted) like({ hasPainted: true });
  }

  // --- looking

  private sample(event: PointerEvent, use: boolean): void {
    if (!usePalette.getState().rules.sampleCanvas) {
      useEasel.setState({ sample: undefined });
      return;
    }
    const { x, y } = this.mmOf(event);
    const done = (sample: SpotReading | null) => {
      const state = useEasel.getState();
      state.set({ sample: sample ?? undefined });
      if (!use || !sample) return;
      const mixture = state.asSeen ? solveFor(sample.lab).mixture : sample.mixture;
      if (Object.keys(mixture).length > 0) state.loadMixture(inParts(mixture));
    };
    readCanvas(x, y, done, use);
  }

  private compare(event: PointerEvent, mark: boolean): void {
    const { x, y } = this.mmOf(event);
    const done = (reading: SpotReading | null) => {
      const spot = reading ? { on: 'canvas' as const, x, y, ...readAs(), lab: reading.lab } : undefined;
      if (mark && spot) useCompare.getState().mark(spot);
      else useCompare.getState().see(spot);
    };
    readCanvas(x, y, done, mark);
  }

  private probe(event: PointerEvent): void {
    const { x, y } = this.mmOf(event);
    readCanvas(x, y, (reading) => useCompare.getState().feel(reading?.lab));
  }

  private feelPaper(event: PointerEvent): void {
    const { bench } = useEasel.getState();
    if (!bench || !toolOf(bench.tool.tool).forWater || event.timeStamp - this.felt < FEEL_MS) return;
    this.felt = event.timeStamp;
    this.engine.ask({ of: 'paper', ...this.mmOf(event) }).then(
      (paper) => useEasel.setState({ paper }),
      () => {},
    );
  }

  /** While their key is held, strength and size follow the way of the hand from where it was then. */
  private dragSetting({ clientX }: PointerEvent): void {
    const { bench } = useEasel.getState();
    const what = isHeld('strength') ? 'strength' : isHeld('size') ? 'size' : undefined;
    if (!what || !bench) {
      this.dragged = undefined;
      return;
    }
    if (this.dragged?.what !== what) {
      this.dragged = { what, x: clientX, from: what === 'strength' ? bench.tool.strength : bench.tool.sizeMm };
    }
    const { x, from } = this.dragged;
    if (what === 'strength') setStrength(from + (clientX - x) / 250);
    else setSize(from * Math.exp((clientX - x) / 150));
  }
}
