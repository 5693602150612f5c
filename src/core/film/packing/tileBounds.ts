import { TABLE_COUNT } from '@/core/colour/pigments';
import type { TileImage } from '@/core/film/tile';
import { TILE_CELLS } from '@/core/film/cells';
import { COATS, RESISTS } from '@/core/film/wash';

/** More coats, micrometres or washes than any cell can have. */
const MOST = 1e7;
/** Rounding may leave a trace of less than nothing. */
const LEAST = -1e-2;

/** @throws RangeError when a tile from outside holds what no paint can be */
export function checkTile(image: TileImage): void {
  const amounts = (plane: ArrayLike<number> | undefined) => {
    if (plane) within(plane, LEAST, MOST);
  };
  pigmentsInOrder(image.pigments);
  image.planes.forEach(amounts);
  image.skin?.forEach(amounts);
  for (const { pigments, massStep, thicknessStep, mass, thickness } of image.strata) {
    pigmentsInOrder(pigments);
    within([...massStep, thicknessStep], 0, MOST);
    if (mass.length !== pigments.length || thickness.length !== TILE_CELLS) throw damaged();
  }
  const { wash, water } = image;
  if (wash) {
    pigmentsInOrder(wash.pigments);
    for (const coat of COATS) wash.coats[coat].forEach(amounts);
    for (const resist of RESISTS) amounts(wash.resist[resist]);
  }
  if (!water) return;
  // velocities go both ways
  within(water.scalars, 0, MOST);
  for (const plane of water.planes) within(plane, -MOST, MOST);
}

const damaged = () => new RangeError('The tile is damaged.');

function within(values: ArrayLike<number>, least: number, most: number): void {
  for (let i = 0; i < values.length; i++) if (!(values[i] >= least && values[i] <= most)) throw damaged();
}

function pigmentsInOrder(pigments: readonly number[]): void {
  pigments.forEach((pigment, i) => {
    if (pigment >= TABLE_COUNT || (i > 0 && pigment <= pigments[i - 1])) throw damaged();
  });
}
