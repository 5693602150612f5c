import { growRect, noRect } from '@/core/film/pixelRect';
import { squeeze } from '@/core/marks/squeeze';
import { startSettings } from '@/core/marks/tools';
import { noChange, tileRect, type Change, type Workplace } from './change';
import type { Command } from './commands';
import { PainterError } from './errors';
import { needTubes } from './toolbox';

/** Squeezes a bead of paint onto the slab. @throws PainterError beside it, or when a tube is not there */
export function squeezeOnSlab(
  { slab, keep }: Workplace,
  { mixture, at, sizeMm, vehicle }: Extract<Command, { do: 'slab.squeeze' }>,
): Change {
  const [x, y] = at;
  if (x < 0 || y < 0 || x > slab.spec.widthMm || y > slab.spec.heightMm) {
    throw new PainterError('That is beside the slab.');
  }
  needTubes(Object.keys(mixture));
  const make = { ...startSettings('knife'), vehicle };
  return { ...noChange(), slab: squeeze(slab, { mixture, x, y, sizeMm, make }, keep) };
}

/** Takes everything off the slab. */
export function scrapeSlab({ slab, keep }: Workplace): Change {
  slab.massOnCanvas().film.forEach((mass, i) => (slab.ledger.removed[i] += mass));
  const rect = noRect();
  const [layer] = slab.layers;
  layer.forEachTile((tile, index) => {
    keep(layer, index);
    tile.dispose();
    layer.tiles[index] = undefined;
    growRect(rect, tileRect(slab, index));
  });
  return { ...noChange(), slab: rect };
}
