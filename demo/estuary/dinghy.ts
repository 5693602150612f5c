import type { Place } from './hand';

/** A clinker dinghy, heeled on the mud, in perspective: its lines in mm on the picture. */

type Vector = readonly [number, number, number];
const LENGTH_M = 3.05;
const BEAM_M = 1.36;
/** How round she is between keel and sheer. */
const FULL = 0.62;
const STEM = 0.86;

/** Half beam along her, shares from stern (0) to bow (1). */
const STATIONS = [0, 0.15, 0.4, 0.6, 0.78, 0.9, 0.96, 1];
const HALF_BEAMS = [0.66, 0.84, 1, 0.97, 0.76, 0.46, 0.22, 0.015];

/** A smooth curve through values at stations (cubic Hermite, slopes of the neighbours). */
function through(u: number): number {
  const n = STATIONS.length;
  const slope = (i: number) => {
    const [a, b] = [Math.max(0, i - 1), Math.min(n - 1, i + 1)];
    return (HALF_BEAMS[b] - HALF_BEAMS[a]) / (STATIONS[b] - STATIONS[a]);
  };
  let i = STATIONS.findIndex((s) => s >= u) - 1;
  i = Math.min(n - 2, Math.max(0, i));
  const h = STATIONS[i + 1] - STATIONS[i];
  const t = (u - STATIONS[i]) / h;
  return (
    (2 * t ** 3 - 3 * t * t + 1) * HALF_BEAMS[i] +
    (t ** 3 - 2 * t * t + t) * h * slope(i) +
    (3 * t * t - 2 * t ** 3) * HALF_BEAMS[i + 1] +
    (t ** 3 - t * t) * h * slope(i + 1)
  );
}

const minus = (a: Vector, b: Vector): Vector => [a[0] - b[0], a[1] - b[1], a[2] - b[2]];
const cross = (a: Vector, b: Vector): Vector => [
  a[1] * b[2] - a[2] * b[1],
  a[2] * b[0] - a[0] * b[2],
  a[0] * b[1] - a[1] * b[0],
];
export const dot = (a: Vector, b: Vector): number => a[0] * b[0] + a[1] * b[1] + a[2] * b[2];
export const unit = (a: Vector): Vector => {
  const n = Math.hypot(...a) || 1;
  return [a[0] / n, a[1] / n, a[2] / n];
};

export class Dinghy {
  private readonly origin: Vector;
  private readonly heading: Vector;
  private readonly abeam: Vector;

  /**
   * @param centre where she lies, mm @param horizonMm of the picture @param heel, trim degrees
   * @param size 1 = 3.05 m
   */
  constructor(
    [x, y]: Place,
    private readonly horizonMm: number,
    towards: Place,
    private readonly heel: number,
    private readonly trim: number,
    private readonly size: number,
    /** Distance of the picture, mm, its middle, and height of the eye, m. */
    private readonly view = { far: 200, middle: 120, eye: 1.6 },
  ) {
    const { far, middle, eye } = view;
    const z = (far * eye) / (y - horizonMm);
    this.origin = [((x - middle) * z) / far, 0, z];
    this.heading = unit([towards[0], 0, towards[1]]);
    const abeam: Vector = [-this.heading[2], 0, this.heading[0]];
    // towards us
    this.abeam = abeam[2] > 0 ? [-abeam[0], 0, -abeam[2]] : abeam;
  }

  private sheer(u: number): number {
    return 0.6 + 0.95 * (u - 0.4) ** 2 * (u > 0.4 ? 1.25 : 0.75);
  }

  private keel(u: number): number {
    return 0.03 + (u > 0.7 ? 0.34 * ((u - 0.7) / 0.3) ** 3 : 0) + (u < 0.3 ? 0.14 * ((0.3 - u) / 0.3) ** 2 : 0);
  }

  /** A place on her skin, m: u from stern to bow, v from keel to sheer, side 1 near or -1 far. */
  private local(u: number, v: number, side: number): Vector {
    const angle = (v * Math.PI) / 2;
    const rake = u > STEM ? (0.16 * v * (u - STEM)) / 0.14 : 0;
    const [top, bottom] = [this.sheer(u), this.keel(u)];
    return [
      (u - 0.5) * LENGTH_M + rake,
      ((side * BEAM_M) / 2) * through(u) * Math.sin(angle) ** FULL,
      bottom + (top - bottom) * (1 - Math.cos(angle)) ** 0.92,
    ];
  }

  private world(local: Vector): Vector {
    let [l, y, z] = local.map((v) => v * this.size);
    const turn = (a: number, b: number, degrees: number): [number, number] => {
      const [c, s] = [Math.cos((degrees * Math.PI) / 180), Math.sin((degrees * Math.PI) / 180)];
      return [a * c - b * s, a * s + b * c];
    };
    [l, z] = turn(l, z, this.trim);
    [y, z] = turn(y, z, -this.heel);
    const { origin, heading, abeam } = this;
    return [origin[0] + heading[0] * l + abeam[0] * y, z + 0.11 * this.size, origin[2] + heading[2] * l + abeam[2] * y];
  }

  private seen([x, y, z]: Vector): Place {
    const { far, middle, eye } = this.view;
    return [middle + (far * x) / z, this.horizonMm + (far * (eye - y)) / z];
  }

  at(u: number, v: number, side = 1): Place {
    return this.seen(this.world(this.local(u, v, side)));
  }

  /** A line along her at one height. */
  line(v: number, from: number, to: number, side = 1, count = 14): Place[] {
    return Array.from({ length: count }, (_, i) => this.at(from + ((to - from) * i) / (count - 1), v, side));
  }

  /** A line across her at a share of the height of her sheer; from -1, the far side, to 1. */
  across(u: number, height: number, from = -1, to = 1, count = 5): Place[] {
    const z = this.keel(u) + (this.sheer(u) - this.keel(u)) * height;
    const v = Math.acos(Math.max(-1, Math.min(1, 1 - height ** (1 / 0.92)))) / (Math.PI / 2);
    const half = (BEAM_M / 2) * through(u) * Math.sin((v * Math.PI) / 2) ** FULL;
    return Array.from({ length: count }, (_, i) =>
      this.seen(this.world([(u - 0.5) * LENGTH_M, half * (from + ((to - from) * i) / (count - 1)), z])),
    );
  }

  /** Which way her skin faces, outwards. */
  normal(u: number, v: number, side = 1): Vector {
    const e = 1e-3;
    const [a, b] = [Math.min(0.97, Math.max(0.02, u)), Math.min(0.97, Math.max(0.03, v))];
    const skin = (x: number, y: number) => this.world(this.local(x, y, side));
    const n = unit(cross(minus(skin(a + e, b), skin(a - e, b)), minus(skin(a, b + e), skin(a, b - e))));
    return dot(n, this.abeam) * side < 0 ? [-n[0], -n[1], -n[2]] : n;
  }

  /** Her outline on the picture. */
  get outline(): Place[] {
    const stem = Array.from({ length: 9 }, (_, i) => this.at(1, 1 - i / 8));
    const stern = Array.from({ length: 9 }, (_, i) => this.at(0, i / 8));
    return [this.at(0, 1, -1), ...this.line(1, 0, 1, -1, 24), ...stem, ...this.line(0.02, 1, 0, 1, 24), ...stern];
  }
}
