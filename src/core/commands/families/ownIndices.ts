import type { TileImage } from '@/core/film/tile';
import type { WashImage } from '@/core/film/wash';

/**
 * A tile from elsewhere with the indices that its own paints have here. Pigments of a tile stand in the order of their
 * indices, and so do their planes.
 * @param here index here by the index that it came with
 */
export function withOwnIndices(image: TileImage, here: ReadonlyMap<number, number>): TileImage {
  if ([...here].every(([from, to]) => from === to)) return image;
  const { pigments, planes, skin, strata, wash } = image;
  const wet = ordered(pigments, here);
  return {
    ...image,
    pigments: wet.pigments,
    planes: planes.length > 0 ? inOrder(planes, wet.order) : planes,
    ...(skin && { skin: inOrder(skin, wet.order) }),
    strata: strata.map((stratum) => {
      const { pigments: own, order } = ordered(stratum.pigments, here);
      return {
        ...stratum,
        pigments: own,
        mass: order.map((i) => stratum.mass[i]),
        massStep: order.map((i) => stratum.massStep[i]),
      };
    }),
    ...(wash && { wash: washWith(wash, here) }),
  };
}

function washWith(wash: WashImage, here: ReadonlyMap<number, number>): WashImage {
  const { pigments, order } = ordered(wash.pigments, here);
  const coats = Object.fromEntries(
    Object.entries(wash.coats).map(([coat, planes]) => [coat, order.map((i) => planes[i])]),
  ) as unknown as WashImage['coats'];
  return { ...wash, pigments, coats };
}

/** New indices in their order, and which place each came from. */
function ordered(pigments: readonly number[], here: ReadonlyMap<number, number>) {
  const renamed = pigments.map((pigment) => here.get(pigment) ?? pigment);
  const order = renamed.map((_, i) => i).sort((a, b) => renamed[a] - renamed[b]);
  return { pigments: order.map((i) => renamed[i]), order };
}

/** Planes of pigments in another order; what stands behind them stays there. */
const inOrder = <T>(planes: readonly T[], order: readonly number[]): T[] => [
  ...order.map((i) => planes[i]),
  ...planes.slice(order.length),
];
