import { BANDS } from '@/core/colour/bands';
import { filmReflectance } from '@/core/colour/kubelkaMunk';
import { bandsToLinear } from '@/core/colour/mixture';
import { linearToBytes } from '@/core/colour/colorimetry';
import { isColoured, isTube, pigmentId, pigmentIndex } from '@/core/colour/pigments';
import { GRAINS_UM } from '@/core/kernels/colour';
import { COAT_UM } from '@/core/film/packing/stratum';
import type { Picture } from './picture';
import { FRESH, type PaintOptics } from './layers/filmTables';
import { filmsAt, type FilmAtCell } from './readings';

/** A tube that lies on the canvas. */
export interface TubeUsed {
  readonly id: string;
  /** How much of it, ml of tube paint. */
  readonly ml: number;
}

/** The tubes that a painting is painted with, most first. */
export function tubesUsed({ painting }: Picture): TubeUsed[] {
  const { film, settled, strata } = painting.massOnCanvas();
  return [...film]
    .map((mass, i) => ({ i, ml: ((mass + settled[i] + strata[i]) * COAT_UM) / 1e6 }))
    .filter(({ i, ml }) => isColoured(i) && isTube(pigmentId(i)) && ml > 0)
    .map(({ i, ml }) => ({ id: pigmentId(i), ml }))
    .sort((p, q) => q.ml - p.ml);
}

/** Unlit colour of a painting, small: sRGB codes with alpha, `width` x `height`. */
export interface Proof {
  readonly width: number;
  readonly height: number;
  readonly rgba: Uint8ClampedArray<ArrayBuffer>;
}

/** Optics of paint in which one tube stands for another. */
function retubed(change: { from: string; to: string; factor: number }): PaintOptics {
  const [from, to] = [pigmentIndex(change.from), pigmentIndex(change.to)];
  return {
    K: (p, b) => (p === from ? change.factor * FRESH.K(to, b) : FRESH.K(p, b)),
    S: (p, b, liesIn) => (p === from ? change.factor * FRESH.S(to, b, liesIn) : FRESH.S(p, b, liesIn)),
  };
}

/** Lays films over what lies below them, in bands, in place: the oldest first. @returns `seen` */
export function laidOver(
  films: readonly FilmAtCell[],
  seen: Float64Array,
  { K, S, binder }: PaintOptics,
): Float64Array {
  for (const { masses, um, state } of films) {
    const cover = Math.min(1, um / GRAINS_UM);
    if (cover <= 0) continue;
    const oil = state !== 'grains';
    for (let b = 0; b < BANDS.count; b++) {
      let A = oil && binder ? binder(b) * um : 0;
      let scattered = 0;
      for (const [pigment, coats] of masses) {
        const m = coats / cover;
        A += m * K(pigment, b);
        scattered += m * S(pigment, b, oil ? 'binder' : 'air');
      }
      seen[b] += (filmReflectance(A, scattered, seen[b]) - seen[b]) * cover;
    }
  }
  return seen;
}

/**
 * How a painting would look with one tube replaced by another, small and unlit, without changing it.
 * @param change absent: as it is
 */
export function retubeProof(
  picture: Picture,
  widthPx: number,
  change?: { from: string; to: string; factor: number },
): Proof {
  const { painting } = picture;
  const step = painting.width / widthPx;
  const width = Math.max(1, Math.round(painting.width / step));
  const height = Math.max(1, Math.round(painting.height / step));
  const rgba = new Uint8ClampedArray(width * height * 4);
  const optics = change ? retubed(change) : FRESH;
  const { ground } = painting;
  const seen = new Float64Array(BANDS.count);
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      const cx = Math.min(painting.width - 1, Math.floor((x + 0.5) * step));
      const cy = Math.min(painting.height - 1, Math.floor((y + 0.5) * step));
      seen.set(ground);
      laidOver(filmsAt(picture, cx, cy), seen, optics);
      rgba.set([...linearToBytes(bandsToLinear(seen)), 255], 4 * (y * width + x));
    }
  }
  return { width, height, rgba };
}
