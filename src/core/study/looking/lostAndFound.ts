import { deltaE2000 } from '@/core/colour/deltaE2000';
import { findEdges, type Edges } from './edges';
import { isThere, labOf, type CodeImage } from './image';
import { massAt, type Masses } from './masses';
import { squint } from './squint';

/** How edges are judged. */
export interface EdgeMeasure {
  /** An edge up to this width is found, mm; wider ones are soft. */
  readonly foundMm: number;
  /** The widest that is an edge at all, mm. */
  readonly mostMm: number;
  /** Shortest that counts, mm along it. */
  readonly leastMm: number;
  /** Squint in which the masses lie whose borders may be lost, mm. */
  readonly squintMm: number;
}

/** Measures that suit a picture of a size: what is found at arm's length from a small one is finer than from a large one. */
export function measureFor(widthMm: number, heightMm: number): EdgeMeasure {
  const across = Math.sqrt(widthMm * widthMm + heightMm * heightMm);
  const within = (share: number, least: number, most: number) => Math.max(least, Math.min(most, share * across));
  return {
    foundMm: within(0.004, 0.6, 4),
    mostMm: within(0.03, 6, 24),
    leastMm: within(0.012, 2, 12),
    squintMm: within(0.006, 1, 6),
  };
}

/** Contrast across an edge that is seen as one, Delta E 2000. */
const SEEN = 6;
/** Contrast across a border of masses below which it is lost. */
const GONE = 7;

/** Edges of a picture that are seen, and the places where a border between its masses is lost. */
export interface LostAndFound {
  readonly edges: Edges;
  /** Whether each of the edges is seen: `found`, `soft`, or too faint. */
  readonly kinds: readonly ('found' | 'soft' | 'faint')[];
  /** Places of borders between masses where nothing tells one from the other, pixels. */
  readonly lost: readonly { readonly x: number; readonly y: number }[];
}

/** Finds both. @param masses what the picture falls into, found when squinting by the measure */
export function lostAndFound(image: CodeImage, masses: Masses, measure: EdgeMeasure): LostAndFound {
  const edges = findEdges(image, measure.mostMm, measure.leastMm);
  const kinds = Array.from({ length: edges.count }, (_, k) =>
    edges.contrast[k] < SEEN ? 'faint' : edges.width[k] <= measure.foundMm ? 'found' : 'soft',
  );
  return { edges, kinds, lost: lostPlaces(image, masses, measure, edges, kinds) };
}

/** Masses nearer in value than this are one to the eye: between them there is nothing to be lost. */
const APART = 0.8;

/** Whether masses are far enough apart; those of which only the border is known are. */
function apart({ of }: Masses, one: number, other: number): boolean {
  return !of[one] || !of[other] || Math.abs(of[one].value - of[other].value) >= APART;
}

/** Borders between masses with no edge near them, and without contrast over the widest that an edge may be. */
function lostPlaces(
  image: CodeImage,
  masses: Masses,
  { squintMm, mostMm }: EdgeMeasure,
  edges: Edges,
  kinds: LostAndFound['kinds'],
): { x: number; y: number }[] {
  const { width, height, mmPerPx } = image;
  // an edge speaks for what is within its own width, and a little more
  const cell = Math.max(1, Math.round(1 / mmPerPx));
  const columns = Math.ceil(width / cell);
  const spoken = new Uint8Array(columns * Math.ceil(height / cell));
  for (let k = 0; k < edges.count; k++) {
    if (kinds[k] === 'faint') continue;
    const reach = (squintMm + 1 + edges.width[k] / 2) / mmPerPx;
    const [left, right] = [edges.x[k] - reach, edges.x[k] + reach].map((v) => Math.floor(v / cell));
    const [top, bottom] = [edges.y[k] - reach, edges.y[k] + reach].map((v) => Math.floor(v / cell));
    for (let row = Math.max(0, top); row <= bottom && row * cell < height; row++)
      for (let column = Math.max(0, left); column <= Math.min(columns - 1, right); column++)
        spoken[row * columns + column] = 1;
  }
  const soft = squint(image, squintMm);
  const far = Math.max(1, Math.round(mostMm / 2 / mmPerPx));
  const lost: { x: number; y: number }[] = [];
  for (let y = 0; y + 1 < height; y++) {
    for (let x = 0; x + 1 < width; x++) {
      const i = y * width + x;
      if (!isThere(soft[i]) || spoken[Math.floor(y / cell) * columns + Math.floor(x / cell)]) continue;
      const mass = massAt(soft[i], masses);
      const parts = (other: number) => other !== mass && apart(masses, mass, other);
      const across = isThere(soft[i + 1]) && parts(massAt(soft[i + 1], masses));
      const down = isThere(soft[i + width]) && parts(massAt(soft[i + width], masses));
      if (!across && !down) continue;
      const step = across && down ? width + 1 : across ? 1 : width;
      const steps = Math.min(far, across ? Math.min(x, width - 1 - x) : far, down ? Math.min(y, height - 1 - y) : far);
      const [one, other] = [soft[i - step * steps], soft[i + step * steps]];
      if (isThere(one) && isThere(other) && deltaE2000(labOf(one), labOf(other)) < GONE) lost.push({ x, y });
    }
  }
  return lost;
}

/** A place where an edge is sharp and strong. */
export interface SharpPlace {
  /** Pixels of the picture. */
  readonly x: number;
  readonly y: number;
  readonly widthMm: number;
  readonly contrast: number;
}

/** What can be said of the edges of a whole picture. */
export interface EdgeReport {
  /** Finer than this nothing is told apart: a pixel, mm. */
  readonly finestMm: number;
  /** Shares of all that is an edge or was one, by length; together 1, or all 0 where there is none. */
  readonly found: number;
  readonly soft: number;
  readonly lost: number;
  /** Where it is sharpest, the first the most; apart from each other by a tenth of the picture. */
  readonly sharpest: readonly SharpPlace[];
}

/** A place is not the sharpest by itself: where edges meet or end, one that is much narrower than those around is none. */
const LONE = 0.6;
const AROUND_MM = 2;

/** Median width of the edges around one, mm. @param px radius, pixels of the picture */
function widthAround({ count, x, y, width }: Edges, k: number, px: number): number {
  const widths: number[] = [];
  for (let i = 0; i < count; i++) if (Math.abs(x[i] - x[k]) < px && Math.abs(y[i] - y[k]) < px) widths.push(width[i]);
  return widths.sort((p, q) => p - q)[widths.length >> 1];
}

/** Sums up. @param most how many of the sharpest places */
export function edgeReport(image: CodeImage, { edges, kinds, lost }: LostAndFound, most = 5): EdgeReport {
  const sums = { found: 0, soft: 0, faint: 0 };
  for (let k = 0; k < edges.count; k++) sums[kinds[k]] += edges.length[k];
  const gone = lost.length * image.mmPerPx;
  const all = sums.found + sums.soft + gone;
  const share = (part: number) => (all > 0 ? part / all : 0);
  // a strong edge pulls by its contrast, a sharp one by how narrow it is
  const pull = (k: number) => edges.contrast[k] / Math.sqrt(edges.width[k] + 0.3);
  const order = Array.from({ length: edges.count }, (_, k) => k)
    .filter((k) => kinds[k] !== 'faint')
    .sort((p, q) => pull(q) - pull(p));
  const apart = Math.max(image.width, image.height) / 10;
  const sharpest: SharpPlace[] = [];
  for (const k of order) {
    if (sharpest.length === most) break;
    const place = { x: edges.x[k], y: edges.y[k], widthMm: edges.width[k], contrast: edges.contrast[k] };
    const near = (other: SharpPlace) => Math.abs(other.x - place.x) < apart && Math.abs(other.y - place.y) < apart;
    if (!sharpest.some(near) && place.widthMm >= LONE * widthAround(edges, k, AROUND_MM / image.mmPerPx))
      sharpest.push(place);
  }
  return { found: share(sums.found), soft: share(sums.soft), lost: share(gone), sharpest, finestMm: image.mmPerPx };
}
