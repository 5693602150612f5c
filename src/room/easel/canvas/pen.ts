import { viewToCell, type View } from '@/core/picture/view';
import { followFrom, steadied, type Follow, type Guide } from '@/core/study/guides';

/** Where readings of the pen come to lie on the painting. */
export interface PenGeometry {
  readonly view: View;
  readonly mmPerPx: number;
  readonly dpr: number;
  /** Top left corner of the view on the page, CSS pixels. */
  readonly left: number;
  readonly top: number;
}

/** How a hand is led: along a guide that it begins near, and steadied. */
export interface Led {
  readonly guide?: Guide;
  /** How near it must begin, mm. */
  readonly withinMm: number;
  /** 0 free .. 1. */
  readonly steady: number;
}

/** Millimetres on the painting of a place on the page. */
export function toMm(g: PenGeometry, clientX: number, clientY: number): { x: number; y: number } {
  const cell = viewToCell(g.view, (clientX - g.left) * g.dpr, (clientY - g.top) * g.dpr);
  return { x: cell.x * g.mmPerPx, y: cell.y * g.mmPerPx };
}

/** A mouse has no pressure: a slow hand presses, a fast one skims. Speeds in mm/s on the painting. */
const SLOW_PRESSURE = 0.68;
const FAST_PRESSURE = 0.34;
const FAST_MM_PER_S = 420;

/**
 * Turns pointer events into readings [t ms, x mm, y mm, pressure, tiltX, tiltY, twist], rounded to what a hand can
 * do, so that journals stay small.
 */
export class PenReader {
  private start = 0;
  private last: { t: number; x: number; y: number } | undefined;
  private speed = 0;
  private pressure = 0;
  private follow: Follow | undefined;
  private calm: Follow | undefined;
  private newest: number[] | undefined;

  /** Begins a stroke at an event. */
  begin(event: PointerEvent, geometry: PenGeometry, led?: Led): number[] {
    const start = toMm(geometry, event.clientX, event.clientY);
    this.follow = led?.guide && followFrom(led.guide, start, led.withinMm);
    this.calm = led && led.steady > 0 ? steadied(led.steady) : undefined;
    this.start = event.timeStamp;
    this.last = undefined;
    this.speed = 0;
    this.pressure = SLOW_PRESSURE * 0.75;
    return this.read(event, geometry);
  }

  /** All readings that came with an event, the coalesced ones too. */
  readAll(event: PointerEvent, geometry: PenGeometry): number[][] {
    const events = event.getCoalescedEvents?.() ?? [];
    return (events.length > 0 ? events : [event]).map((e) => this.read(e, geometry));
  }

  private read(event: PointerEvent, geometry: PenGeometry): number[] {
    const free = toMm(geometry, event.clientX, event.clientY);
    const calm = this.calm ? this.calm(free) : free;
    const { x, y } = this.follow ? this.follow(calm) : calm;
    const t = Math.max(0, event.timeStamp - this.start);
    const pressure = event.pointerType === 'pen' ? event.pressure : this.pressureOfSpeed(t, x, y);
    const reading = [round(t, 10), round(x, 1000), round(y, 1000), round(pressure, 1000)];
    // the picture may be mirrored or turned: the lean of the handle goes with it
    if (event.tiltX || event.tiltY || event.twist) {
      const { view } = geometry;
      const cos = Math.cos(view.turn);
      const sin = Math.sin(view.turn);
      const tx = cos * event.tiltX + sin * event.tiltY;
      reading.push(round(view.mirror ? -tx : tx, 10), round(-sin * event.tiltX + cos * event.tiltY, 10), event.twist);
    }
    this.newest = reading;
    return reading;
  }

  /** The last reading once more at a later time, ms of the page's clock: the hand holds still. */
  again(now: number): number[][] {
    const t = round(now - this.start, 10);
    if (!this.newest || t <= this.newest[0]) return [];
    this.newest = [t, ...this.newest.slice(1)];
    return [this.newest];
  }

  private pressureOfSpeed(t: number, x: number, y: number): number {
    const { last } = this;
    this.last = { t, x, y };
    if (last && t > last.t) {
      const now = (Math.hypot(x - last.x, y - last.y) / (t - last.t)) * 1000;
      const k = 1 - Math.exp(-(t - last.t) / 60);
      this.speed += (now - this.speed) * k;
      const wanted = SLOW_PRESSURE + (FAST_PRESSURE - SLOW_PRESSURE) * Math.min(1, this.speed / FAST_MM_PER_S);
      this.pressure += (wanted - this.pressure) * k;
    }
    return this.pressure;
  }
}

const round = (v: number, steps: number) => Math.round(v * steps) / steps;
