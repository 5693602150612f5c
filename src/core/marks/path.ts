import { hypot } from '@/core/maths/maths';

/**
 * From timed samples to a path: a centripetal Catmull-Rom curve through the samples (no loops or cusps however
 * unevenly they lie: Yuksel, Schaefer and Keyser 2011), walked in small steps.
 * Fed sample by sample, it gives the same points however the samples were bundled.
 */

/** One reading of the pen. Lengths mm, time ms, angles degrees. */
export interface Sample {
  readonly t: number;
  readonly x: number;
  readonly y: number;
  /** 0..1 */
  readonly pressure: number;
  readonly tiltX: number;
  readonly tiltY: number;
  readonly twist: number;
}

/** A point of the dense path. */
export type PathPoint = Sample;

/** Step of the dense path, mm. */
const STEP_MM = 0.25;
/** Samples closer than this are one place, mm. */
const SAME_PLACE_MM = 0.01;

export class PathBuilder {
  private readonly recent: Sample[] = [];
  private ended = false;

  constructor(private readonly emit: (point: PathPoint) => void) {}

  /** Takes the next sample. Its stretch of path follows once the sample after it is known. */
  add(sample: Sample): void {
    const last = this.recent.at(-1);
    if (last && hypot(sample.x - last.x, sample.y - last.y) < SAME_PLACE_MM) {
      // the pen presses without moving
      if (sample.pressure > last.pressure) this.recent[this.recent.length - 1] = { ...last, pressure: sample.pressure };
      return;
    }
    this.recent.push(sample);
    if (this.recent.length === 3) this.stretch(this.recent[0], this.recent[0], this.recent[1], this.recent[2]);
    else if (this.recent.length === 4) {
      const [a, b, c, d] = this.recent;
      this.stretch(a, b, c, d);
      this.recent.shift();
    }
  }

  /** The pen is lifted: what is still held back follows. */
  end(): void {
    if (this.ended) return;
    this.ended = true;
    const r = this.recent;
    if (r.length === 0) return;
    if (r.length === 2) this.stretch(r[0], r[0], r[1], r[1]);
    else if (r.length === 3) this.stretch(r[0], r[1], r[2], r[2]);
    this.emit(r[r.length - 1]);
  }

  /** Points from b up to, not including, c. */
  private stretch(a: Sample, b: Sample, c: Sample, d: Sample): void {
    const count = Math.max(1, Math.ceil(hypot(c.x - b.x, c.y - b.y) / STEP_MM));
    const curve = centripetal(a, b, c, d);
    for (let k = 0; k < count; k++) {
      const s = k / count;
      const mix = (from: number, to: number) => from + (to - from) * s;
      const { x, y } = curve(s);
      this.emit({
        t: mix(b.t, c.t),
        x,
        y,
        pressure: mix(b.pressure, c.pressure),
        tiltX: mix(b.tiltX, c.tiltX),
        tiltY: mix(b.tiltY, c.tiltY),
        twist: mix(b.twist, c.twist),
      });
    }
  }
}

/** The curve from b (s = 0) to c (s = 1), by Barry and Goldman's pyramid with knots at the root of the distance. */
function centripetal(a: Sample, b: Sample, c: Sample, d: Sample): (s: number) => { x: number; y: number } {
  const knot = (p: Sample, q: Sample) => Math.sqrt(hypot(q.x - p.x, q.y - p.y));
  const t1 = knot(a, b);
  const t2 = t1 + knot(b, c);
  const t3 = t2 + knot(c, d);
  const mix = (p: number, q: number, from: number, to: number, t: number) =>
    to > from ? p + ((q - p) * (t - from)) / (to - from) : q;
  const along = (pa: number, pb: number, pc: number, pd: number, t: number) => {
    const ab = t1 > 0 ? mix(pa, pb, 0, t1, t) : pb;
    const bc = mix(pb, pc, t1, t2, t);
    const cd = t3 > t2 ? mix(pc, pd, t2, t3, t) : pc;
    return mix(mix(ab, bc, 0, t2, t), mix(bc, cd, t1, t3, t), t1, t2, t);
  };
  return (s) => {
    const t = t1 + (t2 - t1) * s;
    return { x: along(a.x, b.x, c.x, d.x, t), y: along(a.y, b.y, c.y, d.y, t) };
  };
}

/** A stamp: where the tool meets the surface once. */
export interface Stamp {
  readonly point: PathPoint;
  /** Direction of motion, unit vector. */
  readonly dx: number;
  readonly dy: number;
  /** Way since the stamp before, mm. */
  readonly wayMm: number;
}

/** Way over which the direction of a stroke is first read, mm. */
const AIM_MM = 1.5;

/**
 * Walks the dense path and stamps at the spacing that the tool asks for. The direction is smoothed, so that a
 * trembling hand does not turn a wide brush.
 */
export class StampWalker {
  private held: PathPoint[] | undefined = [];
  private last!: PathPoint;
  private dx = 0;
  private dy = 1;
  private since = 0;
  private next = 0;
  private begun = false;
  /** Nothing has been stamped yet. */
  private taps = true;

  constructor(
    private readonly spacingMm: (point: PathPoint, dx: number, dy: number) => number,
    private readonly stamp: (stamp: Stamp) => void,
  ) {}

  add(point: PathPoint): void {
    if (!this.held) {
      this.advance(point);
      return;
    }
    this.held.push(point);
    const first = this.held[0];
    if (hypot(point.x - first.x, point.y - first.y) >= AIM_MM) this.begin();
  }

  end(): void {
    if (this.held?.length) this.begin();
    // a touch without motion still leaves a mark
    if (this.begun && this.taps) this.tap();
  }

  private begin(): void {
    const held = this.held!;
    this.held = undefined;
    const first = held[0];
    const aim = held[held.length - 1];
    const length = hypot(aim.x - first.x, aim.y - first.y);
    if (length > 0) {
      this.dx = (aim.x - first.x) / length;
      this.dy = (aim.y - first.y) / length;
    }
    this.begun = true;
    this.last = first;
    this.next = this.spacingMm(first, this.dx, this.dy);
    for (const point of held.slice(1)) this.advance(point);
  }

  private advance(to: PathPoint): void {
    const from = this.last;
    const sx = to.x - from.x;
    const sy = to.y - from.y;
    const length = hypot(sx, sy);
    if (length < 1e-6) return;
    const k = Math.min(1, length / AIM_MM);
    this.dx += (sx / length - this.dx) * k;
    this.dy += (sy / length - this.dy) * k;
    const norm = hypot(this.dx, this.dy) || 1;
    this.dx /= norm;
    this.dy /= norm;
    let at = 0;
    while (this.since + length - at >= this.next) {
      at += this.next - this.since;
      this.since = 0;
      this.taps = false;
      const point = between(from, to, at / length);
      this.stamp({ point, dx: this.dx, dy: this.dy, wayMm: this.next });
      this.next = this.spacingMm(point, this.dx, this.dy);
    }
    this.since += length - at;
    this.last = to;
  }

  private tap(): void {
    for (let i = 0; i < 6; i++) this.stamp({ point: this.last, dx: this.dx, dy: this.dy, wayMm: this.next });
  }
}

function between(a: PathPoint, b: PathPoint, s: number): PathPoint {
  const mix = (from: number, to: number) => from + (to - from) * s;
  return {
    t: mix(a.t, b.t),
    x: mix(a.x, b.x),
    y: mix(a.y, b.y),
    pressure: mix(a.pressure, b.pressure),
    tiltX: mix(a.tiltX, b.tiltX),
    tiltY: mix(a.tiltY, b.tiltY),
    twist: mix(a.twist, b.twist),
  };
}
