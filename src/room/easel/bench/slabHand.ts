import type { EngineClient } from '@/engine/client';
import { isHeld } from '@/room/easel/canvas/holds';
import { PenReader, type PenGeometry } from '@/room/easel/canvas/pen';
import { useEasel } from '@/room/easel/easelStore';
import type { Hand } from '@/room/parts/useHand';

/** A hand that moves less than this, CSS pixels, presses the brush into the paint; one that moves farther mixes. */
const PRESS_PX = 3;

/** Milliseconds since epoch of an event. */
const epoch = (event: PointerEvent) => performance.timeOrigin + event.timeStamp;

/** The hand over the slab: a press takes paint up, a stroke mixes, and with the key held it samples. */
export class SlabHand implements Hand {
  private readonly pen = new PenReader();
  /** Where it came down, and what it has done since, until it is known to be a stroke. */
  private from: PointerEvent | undefined;
  private waiting: PointerEvent[] = [];
  private painting = false;

  constructor(
    private readonly canvas: HTMLCanvasElement,
    private readonly engine: EngineClient,
    private readonly widthMm: number,
  ) {}

  readonly down = (event: PointerEvent): boolean => {
    if (event.button !== 0 || this.from) return false;
    useEasel.setState({ refused: '' });
    if (isHeld('sample')) {
      this.sample(event, true);
      return true;
    }
    this.from = event;
    this.waiting = [];
    return true;
  };

  readonly move = (event: PointerEvent): void => {
    if (!this.from && isHeld('sample')) this.sample(event, false);
  };

  readonly readings = (event: PointerEvent): void => {
    const { from, waiting } = this;
    if (event.pointerId !== from?.pointerId) return;
    if (this.painting) {
      this.read(event);
      return;
    }
    waiting.push(event);
    if (Math.hypot(event.clientX - from.clientX, event.clientY - from.clientY) < PRESS_PX) return;
    this.painting = true;
    this.engine.beginStroke('slab');
    this.engine.addSamples([this.pen.begin(from, this.geometry())], epoch(from));
    for (const earlier of waiting) this.read(earlier);
  };

  readonly up = (event: PointerEvent): void => {
    if (event.pointerId !== this.from?.pointerId) return;
    if (this.painting) this.engine.endStroke();
    else if (event.type === 'pointerup') useEasel.getState().apply({ do: 'slab.take', at: this.placeOf(this.from) });
    this.painting = false;
    this.from = undefined;
  };

  /** Ends what is going on. */
  dispose(): void {
    if (this.painting) this.engine.endStroke();
  }

  private read(event: PointerEvent): void {
    this.engine.addSamples(this.pen.readAll(event, this.geometry()), epoch(event));
  }

  private geometry(): PenGeometry {
    const { left, top } = this.canvas.getBoundingClientRect();
    const { width, height } = this.canvas;
    const view = { width, height, centreX: width / 2, centreY: height / 2, zoom: 1, turn: 0, mirror: false };
    return { view, mmPerPx: this.widthMm / width, dpr: window.devicePixelRatio, left, top };
  }

  /** Place on the slab, mm. */
  private placeOf(event: PointerEvent): [number, number] {
    const { left, top, width } = this.canvas.getBoundingClientRect();
    const mm = (v: number) => Math.round(((v * this.widthMm) / width) * 100) / 100;
    return [mm(event.clientX - left), mm(event.clientY - top)];
  }

  private sample(event: PointerEvent, use: boolean): void {
    const [x, y] = this.placeOf(event);
    const radiusMm = (useEasel.getState().spotPx * this.widthMm) / this.canvas.getBoundingClientRect().width;
    this.engine.ask({ of: 'spot', x, y, on: 'slab', radiusMm }).then(
      (sample) => {
        const state = useEasel.getState();
        state.set({ sample: sample ?? undefined });
        if (use && sample && sample.layer !== 'ground') state.loadMixture({ ...sample.mixture });
      },
      () => {},
    );
  }
}
