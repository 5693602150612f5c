import { edgeMap } from '@/core/study/looking/edgeMap';
import { lostAndFound, measureFor, type EdgeMeasure } from '@/core/study/looking/lostAndFound';
import { findMasses, valueCounts, type Masses } from '@/core/study/looking/masses';
import { squint } from '@/core/study/looking/squint';
import type { CodeImage } from '@/core/study/looking/image';
import { greyOfCode } from '@/core/picture/valueView';
import type { Looking, LookingAid } from './definition';

interface Prepared {
  readonly masses: Masses;
  readonly measure: EdgeMeasure;
}

/** Widest edge that is looked for while painting, mm: what is wider asks for too much around each stroke. */
const MOST_MM = 8;

/** How edges of a picture are judged, and the masses whose borders may be lost. */
export function edgesPrepared(whole: CodeImage, { masses: count }: Looking): Prepared {
  const usual = measureFor(whole.width * whole.mmPerPx, whole.height * whole.mmPerPx);
  const measure = { ...usual, mostMm: Math.min(usual.mostMm, MOST_MM) };
  const masses = findMasses(valueCounts({ codes: squint(whole, measure.squintMm) }), count);
  return { masses, measure };
}

/** Coarser scales begin at whole multiples of this, pixels of the view, so that a part falls on the same places. */
const GRID = 16;

export const edges: LookingAid = {
  name: 'Edges',
  hint: 'See which edges are found (lines), soft (hatched) and lost (dots)',
  prepare: edgesPrepared,
  reachMm: () => 3 * MOST_MM,
  reachPx: 2 * GRID,
  later: { seeCode: greyOfCode },
  look(image, _, prepared, { x, y }) {
    const { masses, measure } = prepared as Prepared;
    const part = onGrid(image, x, y);
    const map = edgeMap(part.image, lostAndFound(part.image, masses, measure), x + part.left, y + part.top);
    const out = new Uint32Array(image.codes.length);
    for (let row = 0; row < part.image.height; row++)
      out.set(
        map.subarray(row * part.image.width, (row + 1) * part.image.width),
        (row + part.top) * image.width + part.left,
      );
    return out;
  },
};

/** A picture without what of it lies before the first place of the grid. */
function onGrid(image: CodeImage, x: number, y: number): { image: CodeImage; left: number; top: number } {
  const before = (at: number, size: number) => Math.min(size, ((-at % GRID) + GRID) % GRID);
  const left = before(x, image.width);
  const top = before(y, image.height);
  const width = image.width - left;
  const height = image.height - top;
  const codes = new Uint32Array(width * height);
  for (let row = 0; row < height; row++)
    codes.set(image.codes.subarray((row + top) * image.width + left, (row + top + 1) * image.width), row * width);
  return { image: { ...image, codes, width, height }, left, top };
}
