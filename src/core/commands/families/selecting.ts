import { z } from '@/core/schema';
import { defineCommand } from '@/core/commands/definition';
import { layerId, outlineSchema, place } from '@/core/schemaParts';
import { deltaE2000 } from '@/core/colour/deltaE2000';
import { decodeSrgb, linearToLab, type Triple } from '@/core/colour/colorimetry';
import { TILE } from '@/core/film/cells';
import { coverageOf } from '@/core/film/coverage';
import type { Painting } from '@/core/film/painting';
import { writeMask } from '@/core/film/carrying/raster';
import type { Outline } from '@/core/marks/outlineDistance';
import { ShapeMask } from '@/core/marks/silhouette';
import { albedoOf } from '@/core/picture/layers/albedo';
import { flooded, grown, softened } from '@/core/film/carrying/regions';
import { maths } from '@/core/maths/maths';
import { noChange, type Change } from '@/core/commands/change';
import { wholeRect } from '@/core/film/tilesIn';
import type { Workplace } from '@/core/commands/workplace';
import { PainterError } from '@/core/errors';
import { needLayer } from './layers';

const schema = z.strictObject({
  do: z.literal('select').describe('Selects a part of the picture: everything then happens only there'),
  how: z
    .enum(['all', 'none', 'invert', 'rectangle', 'ellipse', 'outline', 'colour', 'painted', 'soften', 'grow'])
    .describe('By shape, by similar colour, what is painted on a layer; or changes what is selected'),
  mode: z.enum(['new', 'add', 'subtract', 'within']).default('new'),
  from: place.optional().describe('Corner of a rectangle or an ellipse, mm; the spot of a colour'),
  to: place.optional().describe('The other corner'),
  outline: outlineSchema.optional(),
  edgeMm: z.number().min(0).max(60).default(0),
  tolerance: z.number().min(0).max(100).default(10).describe('Delta E 2000 up to which a colour is similar'),
  touching: z.boolean().default(true).describe('Only what hangs together with the spot'),
  layer: layerId.optional(),
  byMm: z
    .number()
    .min(-60)
    .max(60)
    .default(1)
    .describe('How far to soften or to grow; grown by less than 0 it shrinks'),
});
type Select = z.output<typeof schema>;

/** Corners of an ellipse in a rectangle. */
const ellipse = ([x0, y0]: readonly number[], [x1, y1]: readonly number[]): Outline =>
  Array.from({ length: 180 }, (_, i) => {
    const a = (i / 90) * Math.PI;
    return [
      (x0 + x1) / 2 + (maths.cos(a) * Math.abs(x1 - x0)) / 2,
      (y0 + y1) / 2 + (maths.sin(a) * Math.abs(y1 - y0)) / 2,
    ];
  });

function outlineOf({ how, from, to, outline }: Select): Outline {
  if (how === 'outline') {
    if (!outline) throw new PainterError('An outline is needed to select by it.');
    return outline;
  }
  if (!from || !to) throw new PainterError('Two corners are needed to select by a shape.');
  return how === 'ellipse' ? ellipse(from, to) : [from, [to[0], from[1]], to, [from[0], to[1]]];
}

/** The selection as one plane, 0..255. */
export function selectionRaster(painting: Painting): Uint8Array {
  return rasterOf(painting, (index) => painting.selection.tiles[index]?.mask);
}

/** A plane as large as the painting from planes of tiles; 0 where there is none. */
function rasterOf(painting: Painting, plane: (index: number) => Uint8Array | undefined): Uint8Array {
  const { width, height, tilesX, tilesY } = painting;
  const out = new Uint8Array(width * height);
  for (let index = 0; index < tilesX * tilesY; index++) {
    const values = plane(index);
    if (!values) continue;
    const [left, top] = [(index % tilesX) * TILE, Math.floor(index / tilesX) * TILE];
    for (let y = 0; y < Math.min(TILE, height - top); y++) {
      const row = values.subarray(y * TILE, y * TILE + Math.min(TILE, width - left));
      out.set(row, (top + y) * width + left);
    }
  }
  return out;
}

const lightOf = Float64Array.from({ length: 256 }, (_, i) => decodeSrgb(i / 255));

/** Which cells look like a spot: 1 for those within a Delta E. */
export function alike(painting: Painting, x: number, y: number, tolerance: number): Uint8Array {
  const { width } = painting;
  const raster = albedoOf(painting).raster(wholeRect(painting));
  const seen = new Map<number, 0 | 1>();
  const lab = (code: number): Triple =>
    linearToLab([lightOf[code & 255], lightOf[(code >>> 8) & 255], lightOf[(code >>> 16) & 255]]);
  const spot = lab(raster[y * width + x]);
  return Uint8Array.from(raster, (code) => {
    const key = code & 0xffffff;
    let is = seen.get(key);
    if (is === undefined) seen.set(key, (is = deltaE2000(lab(key), spot) <= tolerance ? 1 : 0));
    return is;
  });
}

/** The cell of a place. @throws PainterError when it is not on the canvas */
export function cellAt({ mmPerPx, width, height }: Painting, [x, y]: readonly number[]): [x: number, y: number] {
  const [px, py] = [Math.floor(x / mmPerPx), Math.floor(y / mmPerPx)];
  if (px < 0 || py < 0 || px >= width || py >= height) throw new PainterError('That spot is not on the canvas.');
  return [px, py];
}

function wanted(painting: Painting, command: Select): Uint8Array {
  const { width, height, mmPerPx } = painting;
  switch (command.how) {
    case 'all':
      return new Uint8Array(width * height).fill(255);
    case 'invert':
      return selectionRaster(painting).map((v) => 255 - v);
    case 'soften':
      return softened(selectionRaster(painting), width, height, Math.abs(command.byMm) / mmPerPx);
    case 'grow':
      return grown(selectionRaster(painting), width, height, command.byMm / mmPerPx);
    case 'colour': {
      if (!command.from) throw new PainterError('A spot is needed to select by its colour.');
      const [x, y] = cellAt(painting, command.from);
      const same = alike(painting, x, y, command.tolerance);
      return command.touching ? flooded(same, width, x, y) : same.map((v) => 255 * v);
    }
    case 'painted': {
      const layer = command.layer ? needLayer(painting, command.layer) : painting.active;
      return rasterOf(painting, (index) => {
        const cover = coverageOf(painting, layer, index);
        return cover && Uint8Array.from(cover, (v) => Math.round(255 * v));
      });
    }
    default: {
      const mask = new ShapeMask(painting, outlineOf(command), command.edgeMm);
      const out = new Uint8Array(width * height);
      const { left, top, right, bottom } = mask.rect;
      for (let y = top; y < bottom; y++) {
        for (let x = left; x < right; x++) out[y * width + x] = Math.round(255 * mask.at(x, y));
      }
      return out;
    }
  }
}

/** Selects a part of the picture, or changes what is selected. @throws PainterError when nothing would be selected */
function changeSelection({ painting, keep }: Workplace, command: Select): Change {
  const { selection, width } = painting;
  const { how, mode } = command;
  const write = (region: (at: number) => number) =>
    writeMask(painting, selection, keep, 0, (x, y) => region(y * width + x));
  if (how === 'none') {
    write(() => 0);
    return { ...noChange(), layers: true };
  }
  if ((how === 'soften' || how === 'grow') && !painting.selected) {
    throw new PainterError('Nothing is selected yet: select a part first.');
  }
  const region = wanted(painting, command);
  const had =
    mode === 'new' || ['invert', 'soften', 'grow', 'all'].includes(how) ? undefined : selectionRaster(painting);
  const joined = had
    ? region.map((v, i) =>
        mode === 'add' ? Math.max(v, had[i]) : mode === 'subtract' ? Math.min(had[i], 255 - v) : Math.min(had[i], v),
      )
    : region;
  if (!joined.some((v) => v > 0)) throw new PainterError('Nothing is there to select.');
  write((at) => joined[at]);
  return { ...noChange(), layers: true };
}

export const select = defineCommand({ schema, undoable: true, apply: changeSelection });
