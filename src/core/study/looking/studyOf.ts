import {
  differences,
  differencesByMass,
  valueKey,
  type AreaDifference,
  type MassDifference,
  type ValueKey,
} from './differences';
import { hueSpots, type HueSpot } from './hues';
import type { CodeImage } from './image';
import { edgeReport, lostAndFound, measureFor, type EdgeReport } from './lostAndFound';
import { findMasses, valueCounts, type Masses } from './masses';
import { squint } from './squint';

/** What is measured of a picture by itself. */
export interface PictureStudy {
  /** Share of each tenth of a value, 0..10 in a hundred steps; together 1, or all 0 where there is no picture. */
  readonly values: readonly number[];
  readonly masses: Masses;
  /** Its light and dark families; nothing where there is no picture. */
  readonly key?: ValueKey;
  readonly edges: EdgeReport;
  /** Its hues and chromas, the most frequent first. */
  readonly hues: readonly HueSpot[];
}

/** What is measured of a canvas and of a photo in register with it. */
export interface Study {
  readonly canvas: PictureStudy;
  readonly photo?: PictureStudy;
  /** Area by area, the largest first. */
  readonly differences: readonly AreaDifference[];
  /** Mass by mass of the photo, likewise. */
  readonly byMass: readonly MassDifference[];
}

const STEPS = 100;

/** Measures a picture. @param count of masses, 2 to 5 */
export function studyPicture(image: CodeImage, count: number): PictureStudy {
  const measure = measureFor(image.width * image.mmPerPx, image.height * image.mmPerPx);
  const soft = squint(image, measure.squintMm);
  const counts = valueCounts({ codes: soft });
  const masses = findMasses(counts, count);
  const [parting] = findMasses(counts, 2).borders;
  return {
    values: shares(valueCounts(image)),
    masses,
    key: parting === undefined ? undefined : valueKey(image, soft, parting),
    edges: edgeReport(image, lostAndFound(image, masses, measure)),
    hues: hueSpots(image),
  };
}

/** Measures both. @param net columns and rows in which they are compared */
export function studyOf(
  canvas: CodeImage,
  photo: CodeImage | undefined,
  masses: number,
  net: readonly [number, number],
): Study {
  const studied = photo && studyPicture(photo, masses);
  return {
    canvas: studyPicture(canvas, masses),
    photo: studied,
    differences: photo ? differences(canvas, photo, ...net) : [],
    byMass: photo ? differencesByMass(canvas, photo, massed(photo), studied!.masses) : [],
  };
}

/** A picture squinted as far as its masses are found. */
export function massed(image: CodeImage): Uint32Array {
  const { squintMm } = measureFor(image.width * image.mmPerPx, image.height * image.mmPerPx);
  return squint(image, squintMm);
}

/** Share of each hundredth of all values; 0 where there is no picture. */
export function shares(counts: Float64Array): number[] {
  const per = counts.length / STEPS;
  const all = counts.reduce((a, b) => a + b, 0);
  return Array.from({ length: STEPS }, (_, i) => {
    let sum = 0;
    for (let k = 0; k < per; k++) sum += counts[i * per + k];
    return all > 0 ? sum / all : 0;
  });
}
