import { linearToBytes } from '@/core/colour/colorimetry';
import { masstoneLinear, type Mixture } from '@/core/colour/mixture';
import { Guard } from '@/core/film/guard';
import type { Painting } from '@/core/film/painting';
import { writeMask, writePixels } from '@/core/film/carrying/raster';
import { noChange, type Change } from '@/core/commands/change';
import { wholeRect } from '@/core/film/tilesIn';
import { layerForLight } from '@/core/commands/target';
import type { Workplace } from '@/core/commands/workplace';

/** Share of a cell that is filled, 0..1. */
type ShareAt = (x: number, y: number) => number;

/**
 * Fills what has no film, where shapes and areas are filled: a mask with the grey of the tool in hand, a layer of light or
 * a picture with the colour of a mixture.
 * @param mixture undefined where the shape is cut out: a mask then hides there, and light goes
 * @throws PainterError when the layer in hand takes no light
 */
export function fillLight({ painting, tools, keep }: Workplace, share: ShareAt, mixture: Mixture | undefined): Change {
  const layer = layerForLight(painting, tools);
  const guard = Guard.of(painting, layer);
  const shareAt: ShareAt = guard ? (x, y) => guard.at(x, y) * share(x, y) : share;
  const change = { ...noChange(), rect: wholeRect(painting) };
  // what was there before a tile is written anew
  const { tiles } = layer;
  if (painting.part === 'mask') {
    const fill = layer.look.mask?.fill ?? 255;
    const to = mixture ? 255 * tools.current.grey : 0;
    const was = tiles.map((tile) => tile?.mask);
    writeMask(painting, layer, keep, fill, (x, y, cell, index) => {
      const grey = was[index]?.[cell] ?? fill;
      return Math.round(grey + shareAt(x, y) * (to - grey));
    });
    return change;
  }
  const colour = mixture && linearToBytes(masstoneLinear(mixture));
  const was = tiles.map((tile) => tile?.pixels);
  writePixels(painting, layer, keep, (x, y) => {
    const code = was[tileOf(painting, x, y)]?.[(y & 63) * 64 + (x & 63)] ?? 0;
    return colour ? over(code, colour, shareAt(x, y)) : faded(code, 1 - shareAt(x, y));
  });
  return change;
}

const tileOf = ({ tilesX }: Painting, x: number, y: number) => (y >> 6) * tilesX + (x >> 6);

/** A colour laid over a code (0xAABBGGRR, alpha not multiplied in) by a share. */
function over(code: number, colour: readonly number[], share: number): number {
  const kept = (1 - share) * ((code >>> 24) / 255);
  const all = share + kept;
  if (all <= 0) return 0;
  const mixed = (c: number) => Math.round((share * colour[c] + kept * ((code >>> (8 * c)) & 255)) / all);
  return (mixed(0) | (mixed(1) << 8) | (mixed(2) << 16) | (Math.round(255 * all) << 24)) >>> 0;
}

const faded = (code: number, kept: number) =>
  ((code & 0xffffff) | (Math.round((code >>> 24) * Math.max(0, kept)) << 24)) >>> 0;
