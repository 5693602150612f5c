import { hypot, maths } from '@/core/maths/maths';
import type { Scene, Source } from './scene';

/**
 * What a point sees of each light, exactly: in a plane, whatever stands in the way covers an interval of directions, and
 * what is left of the interval of the light are the gaps through which it is seen.
 */

/**
 * Directions are compared by a number that grows with the angle and needs no trigonometry: -2 to 2 once round, so that
 * half a turn is 2 (the angle on a diamond in place of a circle).
 */
function turnOf(along: number, across: number): number {
  const sum = Math.abs(along) + Math.abs(across);
  if (sum === 0) return 0;
  const t = across / sum;
  return along >= 0 ? t : across >= 0 ? 2 - t : -2 - t;
}

/** The angle of a turn, radians. */
function angleOf(turn: number): number {
  const size = Math.abs(turn);
  const angle = size <= 1 ? maths.atan2(size, 1 - size) : Math.PI - maths.atan2(2 - size, size - 1);
  return turn < 0 ? -angle : angle;
}

/** A light narrower than this is a point, as a turn. */
const POINT = 1e-7;
/** A light over more than a quarter of a turn to each side has no wedge that something could lie beside. */
const OPEN = 1;

/** Looks from points of a scene. What it found last can be asked for until it looks again. */
export class Lookout {
  /** Unit direction to the middle of what was looked at, and its distance where it is a lamp, mm. */
  cx = 1;
  cy = 0;
  distance = Infinity;
  /** Half its angle, as a turn and as a tangent. */
  private half = 0;
  private tan = 0;
  private gapCount = 0;
  private coveredCount = 0;
  /** Gaps through which it is seen, and what is covered, from the middle: from, to each, as turns. */
  private readonly gaps: Float64Array;
  private readonly covered: Float64Array;
  private readonly every: Int32Array;
  private readonly edgeCount: number;

  constructor(private readonly scene: Scene) {
    const most = scene.edges.length / 4 + scene.rounds.length / 3 + scene.openings.length / 4;
    this.edgeCount = scene.edges.length / 4;
    this.every = Int32Array.from({ length: this.edgeCount + scene.rounds.length / 3 }, (_, i) => i);
    this.covered = new Float64Array(4 * most + 8);
    this.gaps = new Float64Array(4 * most + 8);
  }

  /**
   * Share of a light that a point sees: 1 all of it, 0 nothing. Of a window, seen from its wrong side, nothing.
   * @param list what may stand in the way: numbers of edges, and of round things after all of those @param end how many
   */
  share(source: Source, x: number, y: number, list: Int32Array = this.every, end = list.length): number {
    this.gapCount = 0;
    this.coveredCount = 0;
    if (!this.aim(source, x, y)) return 0;
    const { edges, rounds, openings } = this.scene;
    for (let i = 0; i < end; i++) {
      const k = list[i];
      if (k < this.edgeCount) {
        if (this.cover(edges, 4 * k, x, y)) return 0;
      } else if (this.coverRound(rounds, 3 * (k - this.edgeCount), x, y)) return 0;
    }
    if (source.kind === 'sky') for (let k = 0; k < openings.length; k += 4) if (this.cover(openings, k, x, y)) return 0;
    return this.leave();
  }

  /** How many gaps the light was seen through. */
  get count(): number {
    return this.gapCount;
  }

  /** Where a gap begins, or ends, radians in the board's axes. */
  gap(index: number, end: 0 | 1): number {
    return maths.atan2(this.cy, this.cx) + angleOf(this.gaps[2 * index + end]);
  }

  /** Where a light is seen from a point. @returns false where it is not */
  private aim(source: Source, x: number, y: number): boolean {
    this.distance = Infinity;
    let along: number;
    let across: number;
    if (source.kind === 'lamp') {
      const dx = source.x0 - x;
      const dy = source.y0 - y;
      const distance = hypot(dx, dy);
      this.distance = distance;
      this.cx = distance > 0 ? dx / distance : 1;
      this.cy = distance > 0 ? dy / distance : 0;
      across = Math.min(source.radius, distance);
      along = Math.sqrt(distance * distance - across * across);
    } else if (source.kind === 'window') {
      const ax = source.x0 - x;
      const ay = source.y0 - y;
      const bx = source.x1 - x;
      const by = source.y1 - y;
      if (ax * by - ay * bx <= 0) return false;
      const a = hypot(ax, ay);
      const b = hypot(bx, by);
      let mx = ax / a + bx / b;
      let my = ay / a + by / b;
      const m = hypot(mx, my);
      if (m > 1e-9) {
        mx /= m;
        my /= m;
      } else {
        // from the middle of the opening itself: straight out
        mx = (ay - by) / (a + b);
        my = (bx - ax) / (a + b);
      }
      this.cx = mx;
      this.cy = my;
      along = (ax * mx + ay * my) / a;
      across = Math.abs(ay * mx - ax * my) / a;
    } else {
      this.cx = source.ux;
      this.cy = source.uy;
      along = source.cosHalf;
      across = source.sinHalf;
    }
    this.half = source.half > 3 ? 2 : turnOf(along, across);
    this.tan = this.half <= OPEN ? across / Math.max(along, 1e-12) : NaN;
    return true;
  }

  /** Takes what an edge covers off a light. @returns whether nothing is left of a point of light */
  private cover(of: Float64Array, k: number, x: number, y: number): boolean {
    const { cx, cy, tan } = this;
    const ax = of[k] - x;
    const ay = of[k + 1] - y;
    const bx = of[k + 2] - x;
    const by = of[k + 3] - y;
    // along the direction to the light, and across it
    let ua = ax * cx + ay * cy;
    let wa = ay * cx - ax * cy;
    let ub = bx * cx + by * cy;
    let wb = by * cx - bx * cy;
    const ta = tan * ua;
    const tb = tan * ub;
    // no comparison with NaN holds
    if ((wa >= ta && wb >= tb) || (wa <= -ta && wb <= -tb)) return false;
    const far = this.distance;
    if (far < Infinity) {
      // what lies behind a lamp does not cover it
      if (ua >= far && ub >= far) return false;
      if (ua > far) {
        wa += ((wb - wa) * (far - ua)) / (ub - ua);
        ua = far;
      } else if (ub > far) {
        wb += ((wa - wb) * (far - ub)) / (ua - ub);
        ub = far;
      }
    }
    if (this.half < POINT) {
      if (wa * wb > 0 || wa === wb) return false;
      return ua + ((ub - ua) * wa) / (wa - wb) > 0;
    }
    const from = turnOf(ua, wa);
    let turn = turnOf(ub, wb) - from;
    // an edge covers less than half a turn, whichever way round
    if (turn > 2) turn -= 4;
    else if (turn < -2) turn += 4;
    if (turn >= 0) this.add(from, from + turn);
    else this.add(from + turn, from);
    return false;
  }

  private coverRound(of: Float64Array, k: number, x: number, y: number): boolean {
    const dx = of[k] - x;
    const dy = of[k + 1] - y;
    const radius = of[k + 2];
    const distance = hypot(dx, dy);
    if (distance <= radius) {
      this.insert(-2, 2);
      return this.half < POINT;
    }
    if (distance >= this.distance) return false;
    const u = dx * this.cx + dy * this.cy;
    const w = dy * this.cx - dx * this.cy;
    // its tangents: the direction to its middle, turned to both sides
    const along = Math.sqrt(distance * distance - radius * radius);
    if (this.half < POINT) return u > 0 && Math.abs(w) < radius;
    const from = turnOf(u * along + w * radius, w * along - u * radius);
    let to = turnOf(u * along - w * radius, w * along + u * radius);
    if (to < from) to += 4;
    this.add(from, to);
    return false;
  }

  /** Notes what is covered, from the middle of the light: what goes over the back comes in at the other side. */
  private add(from: number, to: number): void {
    if (to > 2) {
      this.insert(from, 2);
      this.insert(-2, to - 4);
    } else if (from < -2) {
      this.insert(from + 4, 2);
      this.insert(-2, to);
    } else this.insert(from, to);
  }

  private insert(from: number, to: number): void {
    const a = from > -this.half ? from : -this.half;
    const b = to < this.half ? to : this.half;
    if (b <= a) return;
    const { covered } = this;
    let i = 2 * this.coveredCount++;
    for (; i > 0 && covered[i - 2] > a; i -= 2) {
      covered[i] = covered[i - 2];
      covered[i + 1] = covered[i - 1];
    }
    covered[i] = a;
    covered[i + 1] = b;
  }

  /** The gaps between what is covered. @returns their share of the light */
  private leave(): number {
    const { covered, gaps, half } = this;
    if (this.coveredCount === 0 || half < POINT) {
      gaps[0] = -half;
      gaps[1] = half;
      this.gapCount = 1;
      return 1;
    }
    let seen = 0;
    let at = -half;
    for (let i = 0; i <= 2 * this.coveredCount; i += 2) {
      const next = i < 2 * this.coveredCount ? covered[i] : half;
      if (next > at) {
        gaps[2 * this.gapCount] = at;
        gaps[2 * this.gapCount++ + 1] = next;
        seen += angleOf(next) - angleOf(at);
      }
      if (i < 2 * this.coveredCount && covered[i + 1] > at) at = covered[i + 1];
    }
    return seen <= 0 ? 0 : Math.min(1, seen / (2 * angleOf(half)));
  }
}

/** Directions in which a point sees light, radians in the board's axes (y down), each of one light. */
export interface SightCone {
  readonly source: number;
  readonly from: number;
  readonly to: number;
  /** How far the light is, mm; Infinity for all but lamps. */
  readonly distance: number;
}

/** The cones in which a point sees light. */
export function sightCones(scene: Scene, x: number, y: number): SightCone[] {
  const lookout = new Lookout(scene);
  return scene.sources.flatMap((source) => {
    if (lookout.share(source, x, y) === 0) return [];
    const { distance } = lookout;
    return Array.from({ length: lookout.count }, (_, i) => ({
      source: source.id,
      from: lookout.gap(i, 0),
      to: lookout.gap(i, 1),
      distance,
    }));
  });
}
