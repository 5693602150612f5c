import { z } from '@/core/schema';
import { defineCommand } from '@/core/commands/definition';
import { blendMode as blend, layerId, layerName, packed, unit } from '@/core/schemaParts';
import { unzlibSync } from 'fflate';
import { adjuster } from '@/core/colour/adjust';
import { blendOnto } from '@/core/colour/blendModes';
import { decodeSrgb, encodeSrgb } from '@/core/colour/colorimetry';
import { TILE_CELLS } from '@/core/film/cells';
import { clipBase, coverageOf, maskOf } from '@/core/film/coverage';
import type { Layer } from '@/core/film/layer';
import { holdsFilm, holdsPixels } from '@/core/film/layerLook';
import { fadeTile, mergeTile } from '@/core/film/carrying/mergeTile';
import type { Painting } from '@/core/film/painting';
import { writePixels } from '@/core/film/carrying/raster';
import { sealTile } from '@/core/flow/drying';
import { flowOf } from '@/core/flow/flowing';
import { albedoOf } from '@/core/picture/layers/albedo';
import type { Change } from '@/core/commands/change';
import { wholeRect } from '@/core/film/tilesIn';
import type { Workplace } from '@/core/commands/workplace';
import { PainterError } from '@/core/errors';
import { allChanged, insertLayer, needOpen, tidyGroups, withMembers } from './layers';
import { layerBytes, needRoom } from '@/core/commands/memoryBudget';

const duplicateSchema = z.strictObject({
  do: z.literal('layer.duplicate').describe('Copies a layer with its paint'),
  layer: layerId,
});
const mergeSchema = z.strictObject({
  do: z.literal('layer.merge').describe('Lays a layer onto the one below: paint on paint, pixels on pixels'),
  layer: layerId,
});
const copyAllSchema = z.strictObject({
  do: z.literal('layer.copy-all').describe('Copies the whole picture, unlit, as one picture layer on top'),
  name: layerName.default('Copy of all'),
  grey: z.boolean().optional().describe('In greys of the same value'),
});
const pictureSchema = z.strictObject({
  do: z.literal('layer.picture').describe('Brings a photo or a texture as a picture layer, and chooses it'),
  name: layerName.default('Picture'),
  widthPx: z.number().int().min(1).max(8192),
  heightPx: z.number().int().min(1).max(8192),
  rgba: packed('Red, green, blue and alpha of each pixel, row by row', 200_000_000),
  fit: z.enum(['whole', 'cover', 'tile']).default('cover').describe('Whole on the canvas, covering it, or repeated'),
  tileMm: z.number().min(1).max(5000).optional().describe('Width of one piece where it is repeated'),
  blend: blend.optional(),
  opacity: unit.optional(),
  under: z.boolean().optional().describe('Lowest of all: a photographed ground'),
});

type Place = Pick<Workplace, 'painting' | 'keep'>;

const total = (painting: Painting): Float64Array => {
  const { film, settled, strata } = painting.massOnCanvas();
  return film.map((v, i) => v + settled[i] + strata[i]);
};

/** Runs work that changes paint, and enters the difference in the ledger. */
export function booked(painting: Painting, book: 'added' | 'removed', work: () => void): void {
  const before = total(painting);
  const water = painting.waterOnCanvas();
  work();
  const after = total(painting);
  const sign = book === 'added' ? 1 : -1;
  after.forEach((v, i) => {
    // sums in another order differ in their last digits
    if (Math.abs(v - before[i]) > 1e-9 * before[i]) painting.ledger[book][i] += sign * (v - before[i]);
  });
  const drops = painting.waterOnCanvas() - water;
  if (drops > 0) painting.ledger.water.loaded += drops;
  else painting.ledger.water.removed -= drops;
}

/** Copies a layer with its paint, wet as it is; a group with all that is in it. */
function duplicateLayer({ painting, keep }: Place, { layer: id }: z.output<typeof duplicateSchema>): Change {
  const source = needOpen(painting, id);
  needRoom(
    painting,
    withMembers(painting, source).reduce((sum, layer) => sum + layerBytes(layer), 0),
  );
  const copies = new Map<string, string>();
  booked(painting, 'added', () => {
    // members first, so that the copy of the group is chosen in the end
    for (const layer of withMembers(painting, source).reverse()) {
      const copy = insertLayer(painting, layer.kind, layer.name, painting.layers.indexOf(source) + 1);
      copies.set(layer.id, copy.id);
      copy.look = { ...layer.look, name: layer === source ? `${layer.name} copy`.slice(0, 60) : layer.name };
      layer.forEachTile((_, index) => {
        keep(copy, index);
        copy.restore(index, layer.capture(index, painting.arena), painting.arena, () => painting.newBasin());
      });
    }
  });
  for (const layer of painting.layers) {
    const group = layer.look.group && copies.get(layer.look.group);
    if (group && [...copies.values()].includes(layer.id)) layer.look = { ...layer.look, group };
  }
  painting.choose(copies.get(source.id)!);
  tidyGroups(painting);
  return allChanged(painting);
}

/**
 * Lays a layer onto the one below it.
 * @throws PainterError when the two do not go together: paint goes on paint, pixels and adjustments on pixels
 */
function mergeDown({ painting, keep }: Place, { layer: id }: z.output<typeof mergeSchema>): Change {
  const upper = needOpen(painting, id);
  const siblings = painting.layers.filter((l) => l.look.group === upper.look.group);
  const lower = siblings[siblings.indexOf(upper) - 1];
  if (!lower) throw new PainterError(`There is nothing below "${upper.name}" to merge it with.`);
  if (lower.look.locked) throw new PainterError(`"${lower.name}" is locked: unlock it in Layers first.`);
  if (holdsFilm(upper.kind) && holdsFilm(lower.kind)) mergePaint(painting, upper, lower, keep);
  else if (lower.kind === 'picture' && (holdsPixels(upper.kind) || upper.kind === 'adjust')) {
    mergePixels(painting, upper, lower, keep);
  } else {
    throw new PainterError(
      `"${upper.name}" cannot become part of "${lower.name}": paint merges with paint, pictures and light with pictures. "Copy of all" makes one picture of everything.`,
    );
  }
  upper.forEachTile((_, index) => keep(upper, index));
  painting.disposeLayer(upper);
  painting.layers = painting.layers.filter((l) => l !== upper);
  painting.choose(lower.id);
  painting.order++;
  return allChanged(painting);
}

/** Share of a layer that is seen in the cells of a tile; undefined where all of it is. */
function seenOf(painting: Painting, layer: Layer, index: number): Float32Array | undefined {
  const { opacity, look } = layer;
  const mask = maskOf(layer, index);
  const base = look.clip ? clipBase(painting, layer) : undefined;
  if (opacity === 1 && mask === undefined && !base) return undefined;
  const out = new Float32Array(TILE_CELLS).fill(mask === 0 ? 0 : opacity);
  const cover = base && (coverageOf(painting, base, index) ?? new Float32Array(TILE_CELLS));
  for (let i = 0; i < TILE_CELLS; i++) out[i] *= (mask ? mask[i] / 255 : 1) * (cover ? cover[i] : 1);
  return out;
}

function mergePaint(painting: Painting, upper: Layer, lower: Layer, keep: Workplace['keep']): void {
  if (upper.look.blend !== 'normal') {
    throw new PainterError(`"${upper.name}" has a blend mode, which is light and no paint: set it to normal first.`);
  }
  const { arena } = painting;
  for (const layer of [upper, lower]) if (layer.basin) flowOf(painting).dry(keep, layer);
  upper.forEachTile((tile, index) => {
    if (tile.bare || (!tile.volume && !tile.wash && tile.strata.length === 0)) return;
    keep(upper, index);
    keep(lower, index);
    const seen = seenOf(painting, upper, index);
    const { ledger, cellArea } = painting;
    if (seen) {
      const count = () => massOf(painting, tile);
      const before = count();
      fadeTile(arena, tile, seen);
      const after = count();
      before.forEach((v, p) => (ledger.removed[p] += (v - (after.get(p) ?? 0)) * cellArea));
    }
    const into = lower.ensureTile(index, arena);
    // dry paint cannot lie on wet paint: that dries
    if ((tile.strata.length > 0 || tile.wash) && into.volume) sealTile(arena, into);
    mergeTile(arena, into, tile);
  });
}

/** Coats of each pigment on a tile, summed over cells. */
function massOf({ arena: { f32 } }: Painting, tile: Layer['tiles'][number] & object): Map<number, number> {
  const sums = new Map<number, number>();
  const add = (pigment: number, sum: number) => sums.set(pigment, (sums.get(pigment) ?? 0) + sum);
  const plane = (at: number) => {
    let sum = 0;
    for (let i = at >> 2, end = i + TILE_CELLS; i < end; i++) sum += f32[i];
    return sum;
  };
  tile.pigments.forEach((p, k) => add(p, plane(tile.mass[k])));
  tile.wash?.forEach((at, p) => add(p, plane(at)));
  for (const s of tile.strata) {
    s.pigments.forEach((p, k) => add(p, s.mass[k].reduce((sum, v) => sum + v, 0) * s.massStep[k]));
  }
  return sums;
}

function mergePixels(painting: Painting, upper: Layer, lower: Layer, keep: Workplace['keep']): void {
  const { tilesX, tilesY, arena } = painting;
  const { blend, adjust } = upper.look;
  const change = adjust && adjuster(adjust);
  if (adjust && !change) {
    throw new PainterError('Blur looks at everything below it: make a "Copy of all" in place of merging it.');
  }
  const rgba = new Float32Array(4);
  const one = new Float32Array(3);
  for (let index = 0; index < tilesX * tilesY; index++) {
    const source = upper.tiles[index]?.pixels;
    const known = lower.tiles[index]?.pixels;
    if (!(change ? known : source)) continue;
    keep(lower, index);
    const seen = seenOf(painting, upper, index);
    const pixels = new Uint32Array(TILE_CELLS);
    for (let i = 0; i < TILE_CELLS; i++) {
      const [b, s] = [known?.[i] ?? 0, source?.[i] ?? 0];
      for (let c = 0; c < 4; c++) rgba[c] = ((b >>> (8 * c)) & 255) / 255;
      const share = seen ? seen[i] : upper.opacity;
      if (change) {
        for (let c = 0; c < 3; c++) one[c] = rgba[c];
        change(one, 1, 1);
        const { [3]: alpha } = rgba;
        rgba[3] = 1;
        blendOnto(blend, rgba, one[0], one[1], one[2], share);
        rgba[3] = alpha;
      } else {
        blendOnto(
          blend,
          rgba,
          (s & 255) / 255,
          ((s >>> 8) & 255) / 255,
          ((s >>> 16) & 255) / 255,
          ((s >>> 24) / 255) * share,
        );
      }
      let code = 0;
      for (let c = 0; c < 4; c++) code |= Math.round(255 * rgba[c]) << (8 * c);
      pixels[i] = code >>> 0;
    }
    const tile = lower.ensureTile(index, arena);
    tile.pixels = pixels;
    tile.version++;
  }
}

/** The whole picture, unlit, as one picture layer on top. */
function copyOfAll({ painting, keep }: Place, { name, grey }: z.output<typeof copyAllSchema>): Change {
  needRoom(painting, 8 * painting.width * painting.height);
  const raster = albedoOf(painting).raster(wholeRect(painting));
  const layer = insertLayer(painting, 'picture', name, painting.layers.length);
  writePixels(painting, layer, keep, (x, y) => {
    const code = raster[y * painting.width + x];
    if (!grey) return (code | 0xff000000) >>> 0;
    const light = [0.2126, 0.7152, 0.0722].reduce(
      (sum, k, c) => sum + k * decodeSrgb(((code >>> (8 * c)) & 255) / 255),
      0,
    );
    const v = Math.round(255 * encodeSrgb(light));
    return (v | (v << 8) | (v << 16) | 0xff000000) >>> 0;
  });
  painting.choose(layer.id);
  painting.order++;
  return allChanged(painting);
}

/** Brings pixels from elsewhere as a picture layer. @throws PainterError when they are not of the size that is said */
function bringPicture({ painting, keep }: Place, command: z.output<typeof pictureSchema>): Change {
  const { widthPx, heightPx, name, fit, blend, opacity, under } = command;
  needRoom(painting, 4 * painting.width * painting.height);
  const source = unpackRgba(command.rgba, widthPx, heightPx);
  const { width, height, mmPerPx } = painting;
  const scale =
    fit === 'tile'
      ? (command.tileMm ?? widthPx * mmPerPx) / mmPerPx / widthPx
      : (fit === 'cover' ? Math.max : Math.min)(width / widthPx, height / heightPx);
  const [left, top] = fit === 'tile' ? [0, 0] : [(width - widthPx * scale) / 2, (height - heightPx * scale) / 2];
  const at = under ? 0 : fit === 'whole' ? painting.layers.length : painting.layers.indexOf(painting.active) + 1;
  const layer = insertLayer(painting, 'picture', name, at);
  layer.look = {
    ...layer.look,
    blend: blend ?? 'normal',
    opacity: opacity ?? 1,
    group: under || fit === 'whole' ? undefined : painting.active.look.group,
  };
  const small = shrunk({ pixels: source, width: widthPx, height: heightPx }, 1 / scale);
  const k = small.width / widthPx;
  writePixels(painting, layer, keep, (x, y) => {
    const [u, v] = [((x + 0.5 - left) / scale) * k - 0.5, ((y + 0.5 - top) / scale) * k - 0.5];
    return bilinear(small, u, v, fit === 'tile');
  });
  painting.choose(layer.id);
  tidyGroups(painting);
  return allChanged(painting);
}

interface Pixels {
  readonly pixels: Uint8Array;
  readonly width: number;
  readonly height: number;
}

function unpackRgba(packed: string, width: number, height: number): Uint8Array {
  const length = width * height * 4;
  let pixels: Uint8Array;
  try {
    const bytes = Uint8Array.from(atob(packed), (c) => c.charCodeAt(0));
    // room for exactly one picture of this size: whatever claims to be larger is cut off here
    pixels = unzlibSync(bytes, { out: new Uint8Array(length) });
  } catch {
    throw new PainterError('The picture is damaged.');
  }
  if (pixels.length !== length) throw new PainterError('The picture is not of the size it says.');
  return pixels;
}

/** Halves a picture as long as it has more than twice the pixels that are needed along a side. */
function shrunk(picture: Pixels, need: number): Pixels {
  let { pixels, width, height } = picture;
  while (need > 2 && width > 1 && height > 1) {
    const [w, h] = [width >> 1, height >> 1];
    const next = new Uint8Array(w * h * 4);
    for (let y = 0; y < h; y++) {
      for (let x = 0; x < w; x++) {
        for (let c = 0; c < 4; c++) {
          const at = (2 * y * width + 2 * x) * 4 + c;
          next[(y * w + x) * 4 + c] =
            (pixels[at] + pixels[at + 4] + pixels[at + width * 4] + pixels[at + width * 4 + 4] + 2) >> 2;
        }
      }
    }
    [pixels, width, height, need] = [next, w, h, need / 2];
  }
  return { pixels, width, height };
}

/** A colour between pixels, 0xAABBGGRR; nothing beyond the picture's edges, unless it goes on for ever. */
function bilinear({ pixels, width, height }: Pixels, u: number, v: number, endless: boolean): number {
  if (!endless && (u < -0.5 || v < -0.5 || u > width - 0.5 || v > height - 0.5)) return 0;
  const [i, j] = [Math.floor(u), Math.floor(v)];
  const [a, b] = [u - i, v - j];
  const place = (n: number, most: number) =>
    endless ? ((n % most) + most) % most : Math.max(0, Math.min(most - 1, n));
  const at = (di: number, dj: number, c: number) =>
    pixels[(place(j + dj, height) * width + place(i + di, width)) * 4 + c];
  let code = 0;
  for (let c = 0; c < 4; c++) {
    const value = (at(0, 0, c) * (1 - a) + at(1, 0, c) * a) * (1 - b) + (at(0, 1, c) * (1 - a) + at(1, 1, c) * a) * b;
    code |= Math.round(value) << (8 * c);
  }
  return code >>> 0;
}

export const duplicate = defineCommand({
  schema: duplicateSchema,
  undoable: true,
  addsLayer: true,
  apply: duplicateLayer,
});

export const merge = defineCommand({ schema: mergeSchema, undoable: true, apply: mergeDown });

export const copyAll = defineCommand({ schema: copyAllSchema, undoable: true, addsLayer: true, apply: copyOfAll });

export const picture = defineCommand({ schema: pictureSchema, undoable: true, addsLayer: true, apply: bringPicture });
