import { z } from '@/core/schema';
import { defineCommand } from '@/core/commands/definition';
import { layerId } from '@/core/schemaParts';
import { TILE_CELLS } from '@/core/film/cells';
import { writeMask } from '@/core/film/carrying/raster';
import type { Change } from '@/core/commands/change';
import type { Workplace } from '@/core/commands/workplace';
import { PainterError } from '@/core/errors';
import { allChanged, needOpen } from './layers';

const schema = z.strictObject({
  do: z.literal('layer.mask').describe('Gives a layer a mask, changes it or takes it off'),
  layer: layerId,
  how: z
    .enum(['show', 'hide', 'selection', 'invert', 'remove'])
    .describe('All shown, all hidden, as selected; the mask turned round; taken off'),
});

/** Gives a layer a mask, changes it or takes it off. @throws PainterError when there is none to change */
function changeMask({ painting, keep }: Workplace, { layer: id, how }: z.output<typeof schema>): Change {
  const layer = needOpen(painting, id);
  const { mask } = layer.look;
  const put = (fill: 0 | 255) => (layer.look = { ...layer.look, mask: { fill, on: true } });
  const wipe = (fill: 0 | 255) => writeMask(painting, layer, keep, fill, () => fill);
  switch (how) {
    case 'show':
    case 'hide': {
      const fill = how === 'show' ? 255 : 0;
      wipe(fill);
      put(fill);
      painting.choose(layer.id, 'mask');
      break;
    }
    case 'selection': {
      if (!painting.selected) throw new PainterError('Nothing is selected yet: select the part that should show.');
      const { selection } = painting;
      writeMask(painting, layer, keep, 0, (_x, _y, cell, index) => selection.tiles[index]?.mask?.[cell] ?? 0);
      put(0);
      painting.choose(layer.id, 'mask');
      break;
    }
    case 'invert': {
      if (!mask) throw new PainterError(`"${layer.name}" has no mask: give it one first.`);
      layer.forEachTile((tile, index) => {
        if (!tile.mask) return;
        keep(layer, index);
        tile.mask = Uint8Array.from({ length: TILE_CELLS }, (_, i) => 255 - tile.mask![i]);
        tile.version++;
      });
      layer.look = { ...layer.look, mask: { fill: mask.fill === 0 ? 255 : 0, on: mask.on } };
      break;
    }
    case 'remove': {
      if (!mask) throw new PainterError(`"${layer.name}" has no mask: give it one first.`);
      wipe(mask.fill);
      layer.look = { ...layer.look, mask: undefined };
      if (painting.activeLayer === layer.id) painting.choose(layer.id);
    }
  }
  painting.order++;
  return allChanged(painting);
}

export const mask = defineCommand({ schema, undoable: true, apply: changeMask });
