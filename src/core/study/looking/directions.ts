import { hypot, maths } from '@/core/maths/maths';
import type { Edges } from './edges';

/**
 * Strong straight directions in a picture, prolonged: the Hough transform (Duda and Hart 1972), in which each piece of an
 * edge votes only for the line that it lies on, by its contrast and length.
 */

/** A straight direction. Places in shares of the longer side, from the upper left. */
export interface LeadingLine {
  /** Where what makes it begins and ends. */
  readonly from: { readonly x: number; readonly y: number };
  readonly to: { readonly x: number; readonly y: number };
  /** Where it leaves the picture on either side. */
  readonly ends: readonly [{ readonly x: number; readonly y: number }, { readonly x: number; readonly y: number }];
  /** Share of all edges that lie along it, by contrast and length. */
  readonly share: number;
}

const ANGLES = 180;
/** Distance between lines that are told apart, and how far from one an edge still lies on it: shares of the diagonal. */
const STEP = 1 / 160;
const NEAR = 1.5 * STEP;
/** Least length of what makes a line, and how much of it there must be edges, shares of the diagonal. */
const LEAST = 0.14;
const DENSE = 0.45;
/** Lines that are so near in angle and place are one: degrees, share of the diagonal. */
const SAME_ANGLE = 8;
const SAME_PLACE = 6 * STEP;

/**
 * The strongest straight directions.
 * @param width, height of the picture, pixels @param most how many @param mmPerPx size of a pixel
 */
export function leadingLines(edges: Edges, width: number, height: number, mmPerPx: number, most = 6): LeadingLine[] {
  const diagonal = hypot(width, height);
  const longer = Math.max(width, height);
  const steps = Math.ceil(2 / STEP) + 1;
  const votes = new Float64Array(ANGLES * steps);
  const { count, x, y, nx, ny, contrast, length } = edges;
  const weight = new Float64Array(count);
  const angle = new Float64Array(count);
  let all = 0;
  for (let i = 0; i < count; i++) {
    weight[i] = contrast[i] * length[i];
    all += weight[i];
    const turned = maths.atan2(ny[i], nx[i]);
    angle[i] = ((turned < 0 ? turned + Math.PI : turned) * ANGLES) / Math.PI;
    // the angle of a short piece is known to a few degrees
    for (let by = -3; by <= 3; by++) {
      const at = (Math.round(angle[i]) + by + 2 * ANGLES) % ANGLES;
      const [c, s] = [maths.cos((at * Math.PI) / ANGLES), maths.sin((at * Math.PI) / ANGLES)];
      const row = Math.round(((c * x[i] + s * y[i]) / diagonal + 1) / STEP);
      votes[at * steps + row] += weight[i] / (1 + Math.abs(by));
    }
  }
  const lines: LeadingLine[] = [];
  // what lies along a line that was found makes no other
  const used = new Uint8Array(count);
  for (let turn = 0; turn < 40 * most && lines.length < most; turn++) {
    let best = -1;
    for (let i = 0; i < votes.length; i++) if (votes[i] > 0 && (best < 0 || votes[i] > votes[best])) best = i;
    if (best < 0) break;
    const [at, row] = [Math.floor(best / steps), best % steps];
    votes[best] = 0;
    const [c, s] = [maths.cos((at * Math.PI) / ANGLES), maths.sin((at * Math.PI) / ANGLES)];
    const far = (row * STEP - 1) * diagonal;
    const line = made(edges, used, weight, angle, at, { c, s, far }, diagonal, mmPerPx);
    if (!line) continue;
    for (let i = 0; i < count; i++) {
      const off = Math.abs(angle[i] - at);
      if (Math.min(off, ANGLES - off) <= 2 * SAME_ANGLE && Math.abs(c * x[i] + s * y[i] - far) < SAME_PLACE * diagonal)
        used[i] = 1;
    }
    const point = (along: number) => ({ x: (c * far - s * along) / longer, y: (s * far + c * along) / longer });
    const ends = leaving(c, s, far, width, height);
    if (!ends) continue;
    lines.push({
      from: point(line.from),
      to: point(line.to),
      ends: [point(ends[0]), point(ends[1])],
      share: line.weight / all,
    });
  }
  return lines.sort((p, q) => q.share - p.share);
}

/** What makes a line: the longest stretch of it that is dense with edges. */
function made(
  { count, x, y, length }: Edges,
  used: Uint8Array,
  weight: Float64Array,
  angle: Float64Array,
  at: number,
  { c, s, far }: { c: number; s: number; far: number },
  diagonal: number,
  mmPerPx: number,
): { from: number; to: number; weight: number } | undefined {
  const on: { along: number; px: number; weight: number }[] = [];
  for (let i = 0; i < count; i++) {
    if (used[i] || Math.abs(c * x[i] + s * y[i] - far) > NEAR * diagonal) continue;
    const off = Math.abs(angle[i] - at);
    if (Math.min(off, ANGLES - off) > 2 * SAME_ANGLE) continue;
    on.push({ along: c * y[i] - s * x[i], px: length[i] / mmPerPx, weight: weight[i] });
  }
  on.sort((p, q) => p.along - q.along);
  let best: { from: number; to: number; weight: number } | undefined;
  for (let i = 0; i < on.length;) {
    let [edge, sum] = [on[i].px, on[i].weight];
    let k = i + 1;
    // a gap as long as a tenth of the least ends a stretch
    while (k < on.length && on[k].along - on[k - 1].along < LEAST * diagonal * 0.2) {
      edge += on[k].px;
      sum += on[k].weight;
      k++;
    }
    const long = on[k - 1].along - on[i].along;
    if (long >= LEAST * diagonal && edge >= DENSE * long && (!best || sum > best.weight))
      best = { from: on[i].along, to: on[k - 1].along, weight: sum };
    i = k;
  }
  return best;
}

/** Where a line leaves a picture, along it. */
function leaving(c: number, s: number, far: number, width: number, height: number): [number, number] | undefined {
  const hits: number[] = [];
  // x = c far - s t, y = s far + c t
  if (Math.abs(s) > 1e-9) for (const edge of [0, width]) hits.push((c * far - edge) / s);
  if (Math.abs(c) > 1e-9) for (const edge of [0, height]) hits.push((edge - s * far) / c);
  const inside = hits.filter((t) => {
    const [px, py] = [c * far - s * t, s * far + c * t];
    return px >= -0.01 && py >= -0.01 && px <= width + 0.01 && py <= height + 0.01;
  });
  if (inside.length < 2) return undefined;
  return [Math.min(...inside), Math.max(...inside)];
}
