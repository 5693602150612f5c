import { pigmentIndex } from '@/core/colour/pigments';
import { growRect, noRect } from '@/core/film/pixelRect';
import { retubeTile } from '@/core/film/retube';
import { noChange, tileRect, type Change, type Workplace } from './change';
import type { Command } from './commands';
import { PainterError } from './errors';
import { needTubes } from './toolbox';

/** Replaces a tube by another in all paint on the canvas. @throws PainterError when there is no such tube */
export function retube(
  { painting, keep }: Workplace,
  { from, to, factor }: Extract<Command, { do: 'retube' }>,
): Change {
  needTubes([from, to]);
  if (from === to) throw new PainterError('Choose another tube to put in its place.');
  const [old, fresh] = [pigmentIndex(from), pigmentIndex(to)];
  const { ledger, cellArea } = painting;
  const rect = noRect();
  for (const layer of painting.layers) {
    layer.forEachTile((tile, index) => {
      const washed = tile.wash?.pigments.includes(old);
      if (!washed && !tile.pigments.includes(old) && !tile.strata.some((s) => s.pigments.includes(old))) return;
      keep(layer, index);
      const exchange = retubeTile(painting.arena, tile, old, fresh, factor)!;
      ledger.removed[old] += exchange.gone * cellArea;
      ledger.loaded[fresh] += exchange.come * cellArea;
      growRect(rect, tileRect(painting, index));
    });
  }
  return { ...noChange(), rect };
}
