/**
 * Absorption and scattering in few bands for a pigment whose spectrum is known.
 *
 * Samples at the nominal wavelengths are a first guess. They are then refined until what painters make of the pigment
 * (masstone, tints, undertone over white and black) has the same CIELAB in the few bands as in all of them:
 * Levenberg and Marquardt (1963) on the logarithms of K and S, held near the first guess.
 */
import { hypot, maths } from '@/core/maths/maths';
import type { BandSet } from './bands';
import { linearToLab, type Triple } from './colorimetry';
import { filmReflectance, infiniteReflectance, toExternal, toInternal } from './kubelkaMunk';
import { bandsToLinear } from './mixture';
import { pigmentIndex } from './pigments';
import { pigmentSpectrum, spectrumToLab, WAVELENGTHS, type PigmentSpectrum } from './spectrum';

/** What is mixed with it, parts to one part of the pigment: white for tints, a few others because tubes meet. */
const MIXED: readonly (readonly [tube: string, parts: number])[] = [
  ['PW6', 0],
  ['PW6', 1],
  ['PW6', 4],
  ['PW6', 12],
  ['PW6', 40],
  ['PB29', 0.3],
  ['PB29', 2],
  ['PR188', 0.3],
  ['PY3', 2],
  ['PY3', 12],
  ['PBr7BS', 2],
];
/** Coats of a film, and what it lies on (external). */
const FILMS: readonly (readonly [coats: number, ground: number])[] = [
  [0.02, 0.9],
  [0.1, 0.9],
  [0.4, 0.9],
  [0.3, 0.012],
];
/** How firmly the first guess is held, Delta E for a doubling of one value. */
const HOLD = 0.12;
const ROUNDS = 14;

/** K and S of one coat in the bands of a set, from its spectrum at WAVELENGTHS. */
export function reduceToBands(spectrum: PigmentSpectrum, bands: BandSet): { K: number[]; S: number[] } {
  const { count } = bands;
  const at = bands.wavelengths.map((nm) => WAVELENGTHS.indexOf(nm));
  const start = [...at.map((i) => spectrum.K[i]), ...at.map((i) => spectrum.S[i])].map((v) =>
    maths.log(Math.max(v, 1e-5)),
  );
  const wanted = looks(WAVELENGTHS.length, spectrum, (id) => pigmentSpectrum(id)!, spectrumToLab);
  const inBands = (id: string): PigmentSpectrum => {
    const row = pigmentIndex(id) * count;
    return { K: [...bands.K.subarray(row, row + count)], S: [...bands.S.subarray(row, row + count)] };
  };
  const errors = (x: readonly number[]): number[] => {
    const values = x.map(maths.exp);
    const paint = { K: values.slice(0, count), S: values.slice(count) };
    const found = looks(count, paint, inBands, (external) => externalToLab(external, bands));
    return [
      ...found.flatMap((lab, k) => lab.map((v, c) => (v - wanted[k][c]) / (1 + 0.02 * hypot(lab[1], lab[2])))),
      ...x.map((v, i) => HOLD * (v - start[i])),
    ];
  };
  const x = fit(errors, start).map(maths.exp);
  return { K: x.slice(0, count), S: x.slice(count) };
}

/** CIELAB of everything that is compared. */
function looks(
  count: number,
  paint: PigmentSpectrum,
  other: (tube: string) => PigmentSpectrum,
  toLab: (external: number[]) => Triple,
): Triple[] {
  const over = (each: (i: number) => number) => toLab(Array.from({ length: count }, (_, i) => toExternal(each(i))));
  return [
    ...MIXED.map(([tube, parts]) => {
      const { K, S } = other(tube);
      return over((i) => infiniteReflectance(paint.K[i] + parts * K[i], paint.S[i] + parts * S[i]));
    }),
    ...FILMS.map(([coats, ground]) =>
      over((i) => filmReflectance(coats * paint.K[i], coats * paint.S[i], toInternal(ground))),
    ),
  ];
}

const externalToLab = (external: readonly number[], bands: BandSet): Triple =>
  linearToLab(
    bandsToLinear(
      external.map((r) => toInternal(r)),
      bands,
    ),
  );

/** Least squares of `errors` from `start`. */
function fit(errors: (x: readonly number[]) => number[], start: readonly number[]): number[] {
  let x = [...start];
  let e = errors(x);
  let cost = squares(e);
  let damping = 1e-2;
  for (let round = 0; round < ROUNDS; round++) {
    const slopes = x.map((_, j) => {
      const moved = [...x];
      moved[j] += 1e-4;
      return errors(moved).map((v, i) => (v - e[i]) / 1e-4);
    });
    const normal = slopes.map((p, i) => slopes.map((q, j) => dot(p, q) + (i === j ? damping : 0)));
    const step = solveLinear(
      normal,
      slopes.map((p) => -dot(p, e)),
    );
    const next = x.map((v, j) => v + Math.max(-1, Math.min(1, step[j])));
    const after = errors(next);
    if (squares(after) < cost) {
      x = next;
      e = after;
      cost = squares(after);
      damping = Math.max(1e-6, damping * 0.3);
    } else damping *= 6;
  }
  return x;
}

const dot = (p: readonly number[], q: readonly number[]) => p.reduce((sum, v, i) => sum + v * q[i], 0);
const squares = (e: readonly number[]) => dot(e, e);

/** Solves a small symmetric positive system by elimination. */
function solveLinear(matrix: readonly (readonly number[])[], right: readonly number[]): number[] {
  const rows = matrix.map((row, i) => [...row, right[i]]);
  const n = rows.length;
  for (let i = 0; i < n; i++) {
    for (let j = i + 1; j < n; j++) {
      const factor = rows[j][i] / rows[i][i];
      for (let k = i; k <= n; k++) rows[j][k] -= factor * rows[i][k];
    }
  }
  const x = new Array<number>(n).fill(0);
  for (let i = n - 1; i >= 0; i--) x[i] = (rows[i][n] - dot(rows[i].slice(i + 1, n), x.slice(i + 1))) / rows[i][i];
  return x;
}
