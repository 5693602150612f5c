import { hypot, maths } from '@/core/maths/maths';
import type { Place } from './register';

/** What a stroke can be drawn along: a straightedge, an ellipse, a free curve, lines to vanishing points. Lengths in mm. */
export const GUIDE_KINDS = ['straight', 'ellipse', 'curve', 'perspective'] as const;
export type GuideKind = (typeof GUIDE_KINDS)[number];

export interface Guide {
  readonly kind: GuideKind;
  /**
   * Straight: two places. Ellipse: its middle, the end of one half axis, and a place that tells the other. Curve: places
   * that it goes through. Perspective: one to three vanishing points, wherever they lie.
   */
  readonly points: readonly Place[];
}

/** How far a hand must have gone before it is known which line of a perspective it follows, mm. */
const DECIDES_MM = 2;

/** Middle, half axes and turn of an ellipse guide. */
export function ellipseOf([middle, end, side]: readonly Place[]): {
  x: number;
  y: number;
  a: number;
  b: number;
  turn: number;
} {
  const [dx, dy] = [end.x - middle.x, end.y - middle.y];
  const a = Math.max(0.1, hypot(dx, dy));
  const turn = maths.atan2(dy, dx);
  const b = Math.abs(-(side.x - middle.x) * maths.sin(turn) + (side.y - middle.y) * maths.cos(turn));
  return { x: middle.x, y: middle.y, a, b: Math.max(0.1, b), turn };
}

/** An ellipse that fills a box. */
export const ellipseIn = (from: Place, to: Place): Place[] => {
  const middle = { x: (from.x + to.x) / 2, y: (from.y + to.y) / 2 };
  return [middle, { x: to.x, y: middle.y }, { x: middle.x, y: to.y }];
};

const onLine = (p: Place, a: Place, b: Place): Place => {
  const [dx, dy] = [b.x - a.x, b.y - a.y];
  const t = ((p.x - a.x) * dx + (p.y - a.y) * dy) / Math.max(1e-12, dx * dx + dy * dy);
  return { x: a.x + t * dx, y: a.y + t * dy };
};

/** Nearest place of an ellipse, by bisection of Eberly's equation for the first quadrant (Eberly 2013). */
export function onEllipse(p: Place, points: readonly Place[]): Place {
  const e = ellipseOf(points);
  const [c, s] = [maths.cos(e.turn), maths.sin(e.turn)];
  const u = c * (p.x - e.x) + s * (p.y - e.y);
  const v = -s * (p.x - e.x) + c * (p.y - e.y);
  const swap = e.b > e.a;
  const [e0, e1] = swap ? [e.b, e.a] : [e.a, e.b];
  const [y0, y1] = swap ? [Math.abs(v), Math.abs(u)] : [Math.abs(u), Math.abs(v)];
  let [x0, x1] = [e0, 0];
  if (y1 > 0) {
    const [z0, z1] = [y0 / e0, y1 / e1];
    const r = (e0 / e1) ** 2;
    let low = z1 - 1;
    let high = hypot(r * z0, z1) - 1;
    for (let i = 0; i < 60; i++) {
      const mid = (low + high) / 2;
      const g = ((r * z0) / (mid + r)) ** 2 + (z1 / (mid + 1)) ** 2 - 1;
      if (g > 0) low = mid;
      else high = mid;
    }
    const t = (low + high) / 2;
    [x0, x1] = [(r * y0) / (t + r), y1 / (t + 1)];
    // so near the middle that the root has no digits left: the ends of the short axis are nearest, or as near as any
    const on = hypot(x0 / e0, x1 / e1);
    [x0, x1] = on > 1e-6 ? [x0 / on, x1 / on] : [0, e1];
  } else if (y0 < (e0 * e0 - e1 * e1) / e0) {
    x0 = (e0 * e0 * y0) / (e0 * e0 - e1 * e1);
    x1 = e1 * Math.sqrt(Math.max(0, 1 - (x0 / e0) ** 2));
  }
  const nu = Math.sign(u || 1) * (swap ? x1 : x0);
  const nv = Math.sign(v || 1) * (swap ? x0 : x1);
  return { x: e.x + c * nu - s * nv, y: e.y + s * nu + c * nv };
}

/** A smooth curve through places (Catmull and Rom 1974), as a line of short pieces. */
export function curveThrough(points: readonly Place[], pieces = 24): Place[] {
  if (points.length < 3) return [...points];
  const out: Place[] = [];
  for (let i = 0; i + 1 < points.length; i++) {
    const [p0, p1, p2, p3] = [
      points[Math.max(0, i - 1)],
      points[i],
      points[i + 1],
      points[Math.min(points.length - 1, i + 2)],
    ];
    for (let k = i === 0 ? 0 : 1; k <= pieces; k++) {
      const t = k / pieces;
      const blend = (a: number, b: number, c: number, d: number) =>
        0.5 * (2 * b + (c - a) * t + (2 * a - 5 * b + 4 * c - d) * t * t + (3 * b - a - 3 * c + d) * t * t * t);
      out.push({ x: blend(p0.x, p1.x, p2.x, p3.x), y: blend(p0.y, p1.y, p2.y, p3.y) });
    }
  }
  return out;
}

function onCurve(p: Place, line: readonly Place[]): Place {
  let best = line[0];
  let least = Infinity;
  for (let i = 0; i + 1 < line.length; i++) {
    const [a, b] = [line[i], line[i + 1]];
    const [dx, dy] = [b.x - a.x, b.y - a.y];
    const t = Math.max(0, Math.min(1, ((p.x - a.x) * dx + (p.y - a.y) * dy) / Math.max(1e-12, dx * dx + dy * dy)));
    const q = { x: a.x + t * dx, y: a.y + t * dy };
    const far = hypot(p.x - q.x, p.y - q.y);
    if (far < least) {
      least = far;
      best = q;
    }
  }
  return best;
}

/** Unit directions in which a perspective lets a stroke go from a place: to each vanishing point, and what stays upright or level. */
export function directionsAt(points: readonly Place[], from: Place): Place[] {
  const to = points.map(({ x, y }) => {
    const d = hypot(x - from.x, y - from.y) || 1;
    return { x: (x - from.x) / d, y: (y - from.y) / d };
  });
  if (points.length < 3) to.push({ x: 0, y: 1 });
  if (points.length < 2) to.push({ x: 1, y: 0 });
  return to;
}

/** Puts places of one stroke onto a guide. */
export type Follow = (p: Place) => Place;

/**
 * How a stroke that begins at a place follows a guide.
 * @param withinMm how near it must begin
 * @returns undefined where it begins too far away, and goes free
 */
export function followFrom(guide: Guide, start: Place, withinMm: number): Follow | undefined {
  const near = (q: Place) => hypot(q.x - start.x, q.y - start.y) <= withinMm;
  const { points } = guide;
  switch (guide.kind) {
    case 'straight': {
      const follow: Follow = (p) => onLine(p, points[0], points[1]);
      return near(follow(start)) ? follow : undefined;
    }
    case 'ellipse': {
      const follow: Follow = (p) => onEllipse(p, points);
      return near(follow(start)) ? follow : undefined;
    }
    case 'curve': {
      const line = curveThrough(points);
      const follow: Follow = (p) => onCurve(p, line);
      return near(follow(start)) ? follow : undefined;
    }
    case 'perspective': {
      let chosen: Place | undefined;
      return (p) => {
        const [dx, dy] = [p.x - start.x, p.y - start.y];
        if (!chosen && hypot(dx, dy) < DECIDES_MM) return start;
        chosen ??= directionsAt(points, start).reduce((best, d) =>
          Math.abs(d.x * dx + d.y * dy) > Math.abs(best.x * dx + best.y * dy) ? d : best,
        );
        const t = dx * chosen.x + dy * chosen.y;
        return { x: start.x + t * chosen.x, y: start.y + t * chosen.y };
      };
    }
  }
}

/**
 * A steadied hand: the place follows the hand on a string. @param strength 0 free .. 1 a string of 12 mm
 */
export function steadied(strength: number): Follow {
  const string = 12 * strength * strength;
  let at: Place | undefined;
  return (p) => {
    if (!at || string === 0) return (at = p);
    const far = hypot(p.x - at.x, p.y - at.y);
    if (far <= string) return at;
    const t = (far - string) / far;
    return (at = { x: at.x + (p.x - at.x) * t, y: at.y + (p.y - at.y) * t });
  };
}
