/**
 * The few colours of a photo that matter: its pixels clustered in CIELAB. Clusters begin far apart (Arthur and
 * Vassilvitskii 2007, without chance: always the farthest, weighed by how much there is of it), then move to the
 * middle of what belongs to them (Lloyd 1982). What is shown of a cluster is its most crowded place, not its mean,
 * so that a palette has the colours that are there.
 */
import { decodeSrgb, linearToLab, type Triple } from '@/core/colour/colorimetry';
import { hypot, maths } from '@/core/maths/maths';

export interface PhotoColour {
  readonly lab: Triple;
  /** Share of the photo, 0..1. */
  readonly weight: number;
  /** Where in the photo it is found, share of width and height. */
  readonly at: readonly [x: number, y: number];
}

interface Cell {
  lab: Triple;
  count: number;
  x: number;
  y: number;
}

/** Side of the cells into which colours are gathered first, CIELAB units. */
const CELL = 3;
const ROUNDS = 24;
/** Two colours of a palette are at least this far apart, CIELAB units. */
const APART = 7;
/** Share of a photo below which a colour is noise. */
const NOISE = 0.0004;

/**
 * @param rgba sRGB codes, four bytes a pixel, `width` x `height`
 * @param most how many colours at most
 * @returns strongest share first
 */
export function photoPalette(
  rgba: Uint8ClampedArray | Uint8Array,
  width: number,
  height: number,
  most: number,
): PhotoColour[] {
  const cells = gather(rgba, width, height);
  const total = cells.reduce((sum, c) => sum + c.count, 0);
  const seen = cells.filter((c) => c.count >= NOISE * total);
  if (seen.length === 0) return [];
  const counted = seen.reduce((sum, c) => sum + c.count, 0);
  const centres = begin(seen, most).map((c) => [...c.lab] as Triple);
  let owner = new Int32Array(seen.length);
  for (let round = 0; round < ROUNDS; round++) {
    const next = Int32Array.from(seen, (c) => closest(centres, c.lab));
    const settled = round > 0 && next.every((k, i) => k === owner[i]);
    owner = next;
    if (settled) break;
    centres.forEach((centre, k) => {
      const sum: Triple = [0, 0, 0];
      let weight = 0;
      seen.forEach((c, i) => {
        if (owner[i] !== k) return;
        // a rare strong colour pulls its cluster as much as a common dull one
        const w = maths.pow(c.count, 0.7);
        for (let d = 0; d < 3; d++) sum[d] += c.lab[d] * w;
        weight += w;
      });
      if (weight > 0) for (let d = 0; d < 3; d++) centre[d] = sum[d] / weight;
    });
  }
  const colours = centres.flatMap((_, k): (PhotoColour & { crowd: number })[] => {
    const members = seen.filter((_, i) => owner[i] === k);
    if (members.length === 0) return [];
    const crowded = members.reduce((p, q) => (density(members, q) > density(members, p) ? q : p));
    const weight = members.reduce((sum, c) => sum + c.count, 0) / counted;
    return [{ lab: crowded.lab, weight, at: [crowded.x / width, crowded.y / height], crowd: crowded.count }];
  });
  return merge(colours).sort((p, q) => q.weight - p.weight);
}

/** Colours of a photo, counted in cells of CIELAB. */
function gather(rgba: ArrayLike<number>, width: number, height: number): Cell[] {
  const linear = Float64Array.from({ length: 256 }, (_, i) => decodeSrgb(i / 255));
  const cells = new Map<number, Cell>();
  const step = Math.max(1, Math.floor(Math.sqrt((width * height) / 60_000)));
  for (let y = step >> 1; y < height; y += step) {
    for (let x = step >> 1; x < width; x += step) {
      const i = 4 * (y * width + x);
      if (rgba[i + 3] < 128) continue;
      const lab = linearToLab([linear[rgba[i]], linear[rgba[i + 1]], linear[rgba[i + 2]]]);
      const [a, b, c] = lab.map((v) => Math.round(v / CELL) + 64);
      const key = (a * 128 + b) * 128 + c;
      const cell = cells.get(key);
      if (!cell) cells.set(key, { lab, count: 1, x, y });
      else {
        cell.count++;
        // where it is found: neither the first pixel, which may be an edge, nor always the last
        if ((cell.count & (cell.count - 1)) === 0) {
          cell.x = x;
          cell.y = y;
        }
        for (let d = 0; d < 3; d++) cell.lab[d] += (lab[d] - cell.lab[d]) / cell.count;
      }
    }
  }
  return [...cells.values()];
}

/** Where clusters begin: the most common colour, then always what is farthest from all so far. */
function begin(cells: readonly Cell[], most: number): Cell[] {
  const chosen = [cells.reduce((p, q) => (q.count > p.count ? q : p))];
  const far = Float64Array.from(cells, (c) => distance(c.lab, chosen[0].lab));
  while (chosen.length < Math.min(most, cells.length)) {
    let best = 0;
    const worth = (i: number) => far[i] ** 2 * maths.pow(cells[i].count, 0.35);
    for (let i = 1; i < cells.length; i++) if (worth(i) > worth(best)) best = i;
    if (far[best] < APART) break;
    chosen.push(cells[best]);
    cells.forEach((c, i) => (far[i] = Math.min(far[i], distance(c.lab, cells[best].lab))));
  }
  return chosen;
}

const density = (members: readonly Cell[], at: Cell) =>
  members.reduce((sum, c) => sum + c.count * maths.exp(-(distance(c.lab, at.lab) ** 2) / 32), 0);

/** Colours that came out nearly alike become one. */
function merge<T extends PhotoColour>(colours: readonly T[]): PhotoColour[] {
  const kept: PhotoColour[] = [];
  for (const c of [...colours].sort((p, q) => q.weight - p.weight)) {
    const like = kept.findIndex((k) => distance(k.lab, c.lab) < APART * 0.8);
    if (like < 0) kept.push({ lab: c.lab, weight: c.weight, at: c.at });
    else kept[like] = { ...kept[like], weight: kept[like].weight + c.weight };
  }
  return kept;
}

const distance = (p: Readonly<Triple>, q: Readonly<Triple>) => hypot(p[0] - q[0], p[1] - q[1], p[2] - q[2]);

function closest(centres: readonly Triple[], lab: Readonly<Triple>): number {
  let best = 0;
  for (let k = 1; k < centres.length; k++) if (distance(centres[k], lab) < distance(centres[best], lab)) best = k;
  return best;
}
