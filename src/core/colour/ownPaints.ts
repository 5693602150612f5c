/** Paints that a painter adds to the tubes: measured, and derived from what was measured. */
import { maths } from '@/core/maths/maths';
import { bandSet } from './bands';
import { deltaE2000 } from './deltaE2000';
import { linearToHex, type Triple } from './colorimetry';
import { filmReflectance, infiniteReflectance, toExternal, toInternal } from './kubelkaMunk';
import { masstoneLinear } from './mixture';
import { isTube, pigmentName, placePigment, tube, type Pigment } from './pigments';
import { reduceToBands } from './reduceBands';
import {
  masstoneSpectrum,
  pigmentSpectrum,
  placeSpectrum,
  spectrumToLab,
  WAVELENGTHS,
  type PigmentSpectrum,
} from './spectrum';

/** Everything that makes a paint: a painting carries it along, so that its journal can be painted anywhere. */
export interface OwnPaint {
  /** `own-` and eight hexadecimal digits, from name and spectrum (see ownPaintId). */
  readonly id: string;
  readonly name: string;
  /** Absorption and scattering per coat at WAVELENGTHS. */
  readonly K: readonly number[];
  readonly S: readonly number[];
}

export const OWN_ID = /^own-[0-9a-f]{8}$/;

/** An id that the same paint has everywhere: FNV-1a (Fowler, Noll and Vo) of its name and numbers. */
export function ownPaintId(name: string, K: readonly number[], S: readonly number[]): string {
  let hash = 0x811c9dc5;
  for (const char of JSON.stringify([name, K, S])) {
    hash = Math.imul(hash ^ char.codePointAt(0)!, 0x01000193) >>> 0;
  }
  return `own-${hash.toString(16).padStart(8, '0')}`;
}

/** A paint from its numbers, rounded so that writing and reading it changes nothing. */
export function makeOwnPaint(name: string, K: readonly number[], S: readonly number[]): OwnPaint {
  const round = (v: number) => Number(v.toPrecision(6));
  const [k, s] = [K.map(round), S.map(round)];
  return { id: ownPaintId(name, k, s), name, K: k, S: s };
}

/**
 * Makes a paint known to everything that mixes. Knowing it already is no fault.
 * @throws RangeError when there is no place left for it
 */
export function knowPaint(paint: OwnPaint): void {
  if (isTube(paint.id)) return;
  const index = placePigment(labelOf(paint));
  placeSpectrum(paint.id, paint);
  for (const bands of [bandSet(8), bandSet(12)]) {
    const { K, S } = reduceToBands(paint, bands);
    bands.K.set(K, index * bands.count);
    bands.S.set(S, index * bands.count);
  }
  // the label shows the masstone as the engine paints it
  Object.assign(tube(paint.id)!, { masstoneHex: linearToHex(masstoneLinear({ [paint.id]: 1 })) });
}

/** The own paint of an id, as it travels with what uses it; undefined where it is none or is not known. */
export function ownPaint(id: string): OwnPaint | undefined {
  const spectrum = OWN_ID.test(id) ? pigmentSpectrum(id) : undefined;
  return spectrum && { id, name: pigmentName(id), K: spectrum.K, S: spectrum.S };
}

/** What can be said of a paint from its spectrum alone; what is judgement stays in the middle. */
function labelOf(paint: OwnPaint): Pigment {
  const at560 = paint.S[WAVELENGTHS.indexOf(560)];
  const over = (ground: number) => {
    const lab = spectrumToLab(paint.K.map((k, i) => toExternal(filmReflectance(k, paint.S[i], toInternal(ground)))));
    return maths.pow((lab[0] + 16) / 116, 3);
  };
  return {
    id: paint.id,
    name: paint.name,
    colourIndex: 'own paint',
    transparency: at560 < 3 ? 'transparent' : at560 <= 12 ? 'semi' : 'opaque',
    tintingStrength: tintingStrength(paint),
    masstoneHex: '#808080',
    dryFactor: 1,
    granulation: 0.2,
    staining: 0.5,
    settling: 0.4,
    hiding: Math.min(1, over(0.012) / over(0.9)),
  };
}

/** Parts of white that one part can colour by Delta E 2000 of 20, relative to ultramarine. */
function tintingStrength(paint: PigmentSpectrum): number {
  const white = pigmentSpectrum('PW6')!;
  const whiteLab = spectrumToLab(masstoneSpectrum({ PW6: 1 }));
  const carries = ({ K, S }: PigmentSpectrum) => {
    const seen = (parts: number): Triple =>
      spectrumToLab(
        K.map((k, i) => toExternal(infiniteReflectance(k + parts * white.K[i], S[i] + parts * white.S[i]))),
      );
    let [low, high] = [1e-3, 1e4];
    if (deltaE2000(seen(low), whiteLab) < 20) return 0;
    for (let i = 0; i < 40; i++) {
      const parts = Math.sqrt(low * high);
      if (deltaE2000(seen(parts), whiteLab) > 20) low = parts;
      else high = parts;
    }
    return low;
  };
  return carries(paint) / carries(pigmentSpectrum('PB29')!);
}
