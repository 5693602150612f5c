import type { Layer } from './layer';

/** A number that changes with every change of a layer's tiles. */
export function tilesSerial({ tiles }: Layer): number {
  let sum = 0;
  // versions of tiles are unique and only grow
  for (const tile of tiles) if (tile) sum += tile.version;
  return sum;
}

/**
 * What follows from the tiles of a layer, worked out again only when one of them has changed.
 * @param workOut what it is given beside the layer must always be the same for it
 */
export function factOfTiles<T, With extends unknown[]>(
  workOut: (layer: Layer, ...given: With) => T,
): (layer: Layer, ...given: With) => T {
  const known = new WeakMap<Layer, { serial: number; fact: T }>();
  return (layer, ...given) => {
    const serial = tilesSerial(layer);
    const found = known.get(layer);
    if (found?.serial === serial) return found.fact;
    const fact = workOut(layer, ...given);
    known.set(layer, { serial, fact });
    return fact;
  };
}
