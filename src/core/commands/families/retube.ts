import { z } from '@/core/schema';
import { defineCommand } from '@/core/commands/definition';
import { tubeId } from '@/core/schemaParts';
import { pigmentIndex } from '@/core/colour/pigments';
import { growRect, noRect } from '@/core/film/pixelRect';
import { retubeTile } from '@/core/film/carrying/retube';
import { noChange, type Change } from '@/core/commands/change';
import { tileRect } from '@/core/film/tilesIn';
import type { Workplace } from '@/core/commands/workplace';
import { PainterError } from '@/core/errors';
import { needTubes } from '@/core/tools/needTubes';

const schema = z.strictObject({
  do: z.literal('retube').describe('Replaces one tube by another in all paint on the canvas, wet and dry'),
  from: tubeId,
  to: tubeId,
  factor: z.number().min(0.001).max(1000).default(1).describe('Parts of the new tube for one part of the old'),
});

/** Replaces a tube by another in all paint on the canvas. @throws PainterError when there is no such tube */
function replaceTube({ painting, keep }: Workplace, { from, to, factor }: z.output<typeof schema>): Change {
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

export const retube = defineCommand({ schema, undoable: true, tubes: ({ to }) => [to], apply: replaceTube });
