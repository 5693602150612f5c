import { hypot, maths } from '@/core/maths/maths';
import type { Scene, Source } from './scene';
import { Lookout } from './sightAngles';

/**
 * Light in a plane, in units of an even sky all round: a surface under such a sky is lit by 1, and so is a point. A surface
 * of reflectance r lit by E gives back light of r E in every direction (Lambert). What a strip receives of another is the
 * form factor of infinite strips, half the difference of the sines of the angles to its ends (Hottel 1954).
 */

/** Pieces of all outlines, a few numbers each. */
export interface Outlines {
  readonly count: number;
  /** From x, y to x, y of each, mm. */
  readonly ends: Float64Array;
  /** Which way it looks, a unit vector; and where one stands to look from its middle. */
  readonly normals: Float64Array;
  readonly places: Float64Array;
  /** Linear sRGB: what it gives back; what falls on it straight from lights; and once more from other outlines. */
  readonly colours: Float64Array;
  readonly direct: Float64Array;
  readonly bounced: Float64Array;
  /** First piece of each edge, then of each round thing, and one past the last. */
  readonly begins: Int32Array;
}

/** Most pieces that outlines are cut into, and of one round thing. */
const MOST_PIECES = 640;
const ROUND_PIECES = 40;
/** How far before a surface one stands to look from it, as a share of the piece. */
const BEFORE = 1e-6;

/** Cuts all outlines into pieces as long as each other. */
function cut(scene: Scene): Outlines {
  const { edges, rounds } = scene;
  const edgeCount = edges.length / 4;
  const roundCount = rounds.length / 3;
  let long = 0;
  for (let e = 0; e < edges.length; e += 4) long += hypot(edges[e + 2] - edges[e], edges[e + 3] - edges[e + 1]);
  const pieces = Math.max(edgeCount, MOST_PIECES - roundCount * ROUND_PIECES);
  const begins = new Int32Array(edgeCount + roundCount + 1);
  for (let e = 0; e < edgeCount; e++) {
    const length = hypot(edges[4 * e + 2] - edges[4 * e], edges[4 * e + 3] - edges[4 * e + 1]);
    begins[e + 1] = begins[e] + Math.max(1, Math.round((pieces * length) / long));
  }
  for (let r = 0; r < roundCount; r++) begins[edgeCount + r + 1] = begins[edgeCount + r] + ROUND_PIECES;
  const count = begins[edgeCount + roundCount];
  const out = {
    count,
    ends: new Float64Array(4 * count),
    normals: new Float64Array(2 * count),
    places: new Float64Array(2 * count),
    colours: new Float64Array(3 * count),
    direct: new Float64Array(3 * count),
    bounced: new Float64Array(3 * count),
    begins,
  };
  /** @param bulge how far its middle lies before the line between its ends, mm */
  const put = (i: number, ends: readonly number[], colours: Float64Array, k: number, bulge = 0) => {
    const [ax, ay, bx, by] = ends;
    const length = hypot(bx - ax, by - ay);
    // what is solid lies to the right: it looks to the left
    const [nx, ny] = [(by - ay) / length, -(bx - ax) / length];
    const before = BEFORE * length + bulge;
    out.ends.set(ends, 4 * i);
    out.normals.set([nx, ny], 2 * i);
    out.places.set([(ax + bx) / 2 + before * nx, (ay + by) / 2 + before * ny], 2 * i);
    out.colours.set(colours.subarray(3 * k, 3 * k + 3), 3 * i);
  };
  for (let e = 0; e < edgeCount; e++) {
    const many = begins[e + 1] - begins[e];
    const along = (c: number, i: number) => edges[4 * e + c] + ((edges[4 * e + c + 2] - edges[4 * e + c]) * i) / many;
    for (let i = 0; i < many; i++)
      put(begins[e] + i, [along(0, i), along(1, i), along(0, i + 1), along(1, i + 1)], scene.edgeColours, e);
  }
  for (let r = 0; r < roundCount; r++) {
    const at = (c: 0 | 1, i: number) => {
      const angle = (2 * Math.PI * i) / ROUND_PIECES;
      return rounds[3 * r + c] + rounds[3 * r + 2] * (c === 0 ? maths.cos(angle) : maths.sin(angle));
    };
    const bulge = rounds[3 * r + 2] * (1 - maths.cos(Math.PI / ROUND_PIECES)) * (1 + BEFORE);
    for (let i = 0; i < ROUND_PIECES; i++)
      put(begins[edgeCount + r] + i, [at(0, i), at(1, i), at(0, i + 1), at(1, i + 1)], scene.roundColours, r, bulge);
  }
  return out;
}

/** Strength of a lamp at a distance, mm: its strength is meant at a metre, and does not grow within it. */
export const lampAt = ({ strength, radius }: Source, distance: number): number => {
  const metres = Math.max(distance, radius, 1) / 1000;
  return strength / (metres * metres);
};

/** Light of a source, 1 for each of its colours, that falls on a surface at a point. @param nx unit normal */
function onSurface(lookout: Lookout, source: Source, x: number, y: number, nx: number, ny: number): number {
  const share = lookout.share(source, x, y);
  if (share === 0) return 0;
  if (source.kind === 'lamp' || source.kind === 'sun') {
    // what the horizon of the surface cuts off is not seen: its share says so
    const cosine = Math.max(0, lookout.cx * nx + lookout.cy * ny);
    return cosine * share * (source.kind === 'lamp' ? lampAt(source, lookout.distance) : source.strength);
  }
  const normal = maths.atan2(ny, nx);
  let sum = 0;
  for (let g = 0; g < lookout.count; g++) {
    // from the normal, with the beginning within one turn of it
    let from = lookout.gap(g, 0) - normal;
    const long = lookout.gap(g, 1) - normal - from;
    from -= 2 * Math.PI * Math.round(from / (2 * Math.PI));
    for (let turn = -1; turn <= 1; turn++) {
      const a = Math.max(-Math.PI / 2, from + 2 * Math.PI * turn);
      const b = Math.min(Math.PI / 2, from + long + 2 * Math.PI * turn);
      if (b > a) sum += maths.sin(b) - maths.sin(a);
    }
  }
  return (source.strength * sum) / 2;
}

/** Whether nothing stands between two points, mm. */
function free({ edges, rounds }: Scene, ax: number, ay: number, bx: number, by: number): boolean {
  const [dx, dy] = [bx - ax, by - ay];
  for (let e = 0; e < edges.length; e += 4) {
    const px = edges[e] - ax;
    const py = edges[e + 1] - ay;
    const ex = edges[e + 2] - edges[e];
    const ey = edges[e + 3] - edges[e + 1];
    const det = dx * ey - dy * ex;
    if (det === 0) continue;
    const t = (px * ey - py * ex) / det;
    const s = (px * dy - py * dx) / det;
    if (t > 0 && t < 1 && s >= 0 && s <= 1) return false;
  }
  const length = dx * dx + dy * dy;
  for (let r = 0; r < rounds.length; r += 3) {
    const [px, py] = [rounds[r] - ax, rounds[r + 1] - ay];
    const t = Math.max(0, Math.min(1, (px * dx + py * dy) / length));
    const far = hypot(px - t * dx, py - t * dy);
    if (far < rounds[r + 2] * (1 - 1e-6)) return false;
  }
  return true;
}

/** Form factor from a point with a normal to a strip, 0 where it lies behind the point or shows its back. */
export function toStrip(x: number, y: number, nx: number, ny: number, ends: Float64Array, k: number): number {
  const [ax, ay, bx, by] = [ends[k] - x, ends[k + 1] - y, ends[k + 2] - x, ends[k + 3] - y];
  // the strip looks to the left of its line
  if (ax * by - ay * bx >= 0) return 0;
  const sine = (px: number, py: number) => {
    const length = hypot(px, py);
    // behind the surface what is seen ends at its horizon
    const across = -px * ny + py * nx;
    return px * nx + py * ny > 0 ? across / length : Math.sign(across);
  };
  if (ax * nx + ay * ny <= 0 && bx * nx + by * ny <= 0) return 0;
  return Math.abs(sine(bx, by) - sine(ax, ay)) / 2;
}

/** What falls on all outlines: from lights, and once more from each other. */
export function lightOutlines(scene: Scene): Outlines {
  const outlines = cut(scene);
  const { count, ends, normals, places, colours, direct, bounced } = outlines;
  const lookout = new Lookout(scene);
  for (let i = 0; i < count; i++) {
    const [x, y, nx, ny] = [places[2 * i], places[2 * i + 1], normals[2 * i], normals[2 * i + 1]];
    for (const source of scene.sources) {
      const light = onSurface(lookout, source, x, y, nx, ny);
      for (let c = 0; c < 3; c++) direct[3 * i + c] += light * source.colour[c];
    }
  }
  for (let i = 0; i < count; i++) {
    const [x, y, nx, ny] = [places[2 * i], places[2 * i + 1], normals[2 * i], normals[2 * i + 1]];
    for (let j = 0; j < count; j++) {
      if (direct[3 * j] + direct[3 * j + 1] + direct[3 * j + 2] === 0) continue;
      const factor = toStrip(x, y, nx, ny, ends, 4 * j);
      if (factor < 1e-5 || !free(scene, x, y, places[2 * j], places[2 * j + 1])) continue;
      for (let c = 0; c < 3; c++) bounced[3 * i + c] += factor * colours[3 * j + c] * direct[3 * j + c];
    }
  }
  return outlines;
}

/** Directions in which a point looks for what outlines give back. */
const RAYS = 96;

/**
 * What outlines give back to points of a coarse grid: linear sRGB, three numbers a point, NaN inside what is solid.
 * @param step distance of its points, mm; the first lies at half of it
 */
export function bounceMap(scene: Scene, outlines: Outlines, width: number, height: number, step: number): Float32Array {
  const map = new Float32Array(3 * width * height);
  const { edges, rounds } = scene;
  const { begins, colours, direct } = outlines;
  const edgeCount = edges.length / 4;
  const cosines = Float64Array.from({ length: RAYS }, (_, i) => maths.cos((2 * Math.PI * (i + 0.5)) / RAYS));
  const sines = Float64Array.from({ length: RAYS }, (_, i) => maths.sin((2 * Math.PI * (i + 0.5)) / RAYS));
  for (let row = 0, at = 0; row < height; row++) {
    for (let column = 0; column < width; column++, at += 3) {
      const x = (column + 0.5) * step;
      const y = (row + 0.5) * step;
      for (let r = 0; r < RAYS; r++) {
        const dx = cosines[r];
        const dy = sines[r];
        let nearest = Infinity;
        let hit = -1;
        let inside = false;
        for (let e = 0; e < edgeCount; e++) {
          const k = 4 * e;
          const px = edges[k] - x;
          const py = edges[k + 1] - y;
          const ex = edges[k + 2] - edges[k];
          const ey = edges[k + 3] - edges[k + 1];
          const det = dx * ey - dy * ex;
          if (det === 0) continue;
          const t = (px * ey - py * ex) / det;
          if (t <= 0 || t >= nearest) continue;
          const s = (px * dy - py * dx) / det;
          if (s < 0 || s >= 1) continue;
          nearest = t;
          // seen from its back: the point lies inside
          inside = det > 0;
          hit = begins[e] + Math.floor(s * (begins[e + 1] - begins[e]));
        }
        for (let k = 0; k < rounds.length; k += 3) {
          const px = rounds[k] - x;
          const py = rounds[k + 1] - y;
          const radius = rounds[k + 2];
          const along = px * dx + py * dy;
          const off = px * px + py * py - along * along;
          if (off >= radius * radius) continue;
          const chord = Math.sqrt(radius * radius - off);
          if (along + chord <= 0 || along - chord >= nearest) continue;
          inside = along - chord < 0;
          nearest = Math.max(0, along - chord);
          const angle = maths.atan2(nearest * dy - py, nearest * dx - px) / (2 * Math.PI);
          const first = begins[edgeCount + k / 3];
          hit = first + Math.min(ROUND_PIECES - 1, Math.floor((angle - Math.floor(angle)) * ROUND_PIECES));
        }
        if (hit < 0) continue;
        if (inside) {
          map.fill(NaN, at, at + 3);
          break;
        }
        for (let c = 0; c < 3; c++) map[at + c] += (colours[3 * hit + c] * direct[3 * hit + c]) / RAYS;
      }
    }
  }
  return map;
}
