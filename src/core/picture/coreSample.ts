import { BANDS } from '@/core/colour/bands';
import { filmReflectance } from '@/core/colour/kubelkaMunk';
import { linearToLab, type Triple } from '@/core/colour/colorimetry';
import { bandsToLinear, masstoneBands, normalise, type Mixture } from '@/core/colour/mixture';
import { pigmentId } from '@/core/colour/pigments';
import { GRAINS_UM } from '@/core/kernels/colour';
import type { Dried } from '@/core/film/packing/stratum';
import type { Picture } from './picture';
import { filmsAt, type FilmAtCell } from './readings';

/** One film of a core, from the ground up. */
export interface CoreFilm {
  /** Id and name of the layer that it lies on. */
  readonly layer: string;
  readonly name: string;
  readonly state: FilmAtCell['state'];
  readonly um: number;
  /** Parts, sum 1. */
  readonly mixture: Mixture;
  /** CIELAB of its paint by itself, laid thickly; and of all films up to this one, on the ground, as seen. */
  readonly own: Triple;
  readonly seen: Triple;
  /** When it dried, where it has and that is known. */
  readonly dried?: Dried;
}

/** What lies at a place, from the ground to the surface. */
export interface CoreSample {
  /** mm. */
  readonly x: number;
  readonly y: number;
  /** CIELAB of the ground. */
  readonly ground: Triple;
  readonly films: readonly CoreFilm[];
  /** All of it, um. */
  readonly um: number;
}

/** Films thinner than this are none, um. */
const LEAST_UM = 0.2;

/** A film that dried in two goes is one, and a wet one with what is not worked in: the second is a trace of the same paint. */
const isOne = (below: CoreFilm['state'], state: CoreFilm['state']) =>
  below === state || (below === 'wet' && state === 'top');
const TRACE_UM = 5;
const isTrace = (one: number, other: number) => Math.min(one, other) < TRACE_UM;
const isAlike = (one: Mixture, other: Mixture) =>
  [...new Set([...Object.keys(one), ...Object.keys(other)])].every(
    (id) => Math.abs((one[id] ?? 0) - (other[id] ?? 0)) < 0.05,
  );

/** Takes a core. @param x cell, @param y cell, both inside the painting */
export function coreAt(picture: Picture, x: number, y: number): CoreSample {
  const { painting } = picture;
  const R = Float64Array.from(painting.ground);
  const lab = () => linearToLab(bandsToLinear(R));
  const ground = lab();
  const films: CoreFilm[] = [];
  for (const { layer, state, masses, um, dried } of filmsAt(picture, x, y)) {
    const there = masses.filter(([, coats]) => coats > 0);
    if (um < LEAST_UM || there.length === 0) continue;
    const mixture = normalise(Object.fromEntries(there.map(([p, coats]) => [pigmentId(p), coats])));
    const cover = Math.min(1, um / GRAINS_UM);
    for (let b = 0; b < BANDS.count; b++) {
      let A = 0;
      let S = 0;
      for (const [p, coats] of there) {
        A += (coats / cover) * BANDS.K[p * BANDS.count + b];
        S += (coats / cover) * BANDS.S[p * BANDS.count + b];
      }
      R[b] += (filmReflectance(A, S, R[b]) - R[b]) * cover;
    }
    const name = painting.layer(layer)?.name ?? layer;
    const below = films.at(-1);
    if (
      below?.layer === layer &&
      isOne(below.state, state) &&
      isTrace(below.um, um) &&
      isAlike(below.mixture, mixture)
    ) {
      films[films.length - 1] = { ...below, um: below.um + um, seen: lab(), dried: dried ?? below.dried };
      continue;
    }
    films.push({
      layer,
      name,
      state,
      um,
      mixture,
      own: linearToLab(bandsToLinear(masstoneBands(mixture))),
      seen: lab(),
      dried,
    });
  }
  const mm = (cell: number) => (cell + 0.5) * painting.mmPerPx;
  return { x: mm(x), y: mm(y), ground, films, um: films.reduce((sum, film) => sum + film.um, 0) };
}

/** Cores along a line, evenly, both ends among them; places beside the painting are left out. @param from mm, @param to mm */
export function section(
  picture: Picture,
  from: { readonly x: number; readonly y: number },
  to: { readonly x: number; readonly y: number },
  count: number,
): CoreSample[] {
  const { width, height, mmPerPx } = picture.painting;
  const out: CoreSample[] = [];
  for (let k = 0; k < count; k++) {
    const t = count > 1 ? k / (count - 1) : 0;
    const x = Math.floor((from.x + (to.x - from.x) * t) / mmPerPx);
    const y = Math.floor((from.y + (to.y - from.y) * t) / mmPerPx);
    if (x >= 0 && y >= 0 && x < width && y < height) out.push(coreAt(picture, x, y));
  }
  return out;
}
