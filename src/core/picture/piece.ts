import { TILE } from '@/core/film/cells';
import { coverageOf, maskOf } from '@/core/film/coverage';
import type { Layer } from '@/core/film/layer';
import type { Painting } from '@/core/film/painting';
import { growRect, isEmpty, noRect, type PixelRect } from '@/core/film/pixelRect';
import { outlinesOf } from '@/core/film/carrying/regions';
import { count, noCounts, type Counts } from '@/core/study/histogram';
import { albedoOf } from '@/core/picture/layers/albedo';
import type { ViewOptions } from './viewOptions';

/** A piece of some layers as it is shown while it is moved. */
export interface Piece {
  /** Where it lies, cells. */
  readonly rect: PixelRect;
  readonly width: number;
  readonly height: number;
  /** RGBA codes, row by row, not multiplied by alpha. */
  readonly rgba: Uint8ClampedArray<ArrayBuffer>;
}

/** Share of each cell that layers cover (and that is selected), over the whole painting at a step. */
function coverAt(painting: Painting, layers: readonly Layer[]) {
  const known = new Map<number, Float32Array | undefined>();
  const { tilesX, selected, selection } = painting;
  return (x: number, y: number): number => {
    const index = (y >> 6) * tilesX + (x >> 6);
    if (!known.has(index)) {
      let sum: Float32Array | undefined;
      for (const layer of layers) {
        const cover = coverageOf(painting, layer, index);
        if (!cover) continue;
        if (!sum) sum = cover;
        else for (let i = 0; i < sum.length; i++) sum[i] = Math.max(sum[i], cover[i]);
      }
      const mask = selection.tiles[index]?.mask;
      if (sum && selected) for (let i = 0; i < sum.length; i++) sum[i] *= (mask ? mask[i] : 0) / 255;
      known.set(index, sum);
    }
    return known.get(index)?.[(y & 63) * TILE + (x & 63)] ?? 0;
  };
}

/**
 * How a piece looks that is about to be moved: its colours as they are seen now, with what it covers as alpha.
 * @param most longest side of the picture, pixels @returns undefined when nothing is there
 */
export function pieceOf(painting: Painting, layers: readonly Layer[], most: number): Piece | undefined {
  const { width, height } = painting;
  const cover = coverAt(painting, layers);
  const rect = noRect();
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      if (cover(x, y) > 0.004) growRect(rect, { left: x, top: y, right: x + 1, bottom: y + 1 });
    }
  }
  if (isEmpty(rect)) return undefined;
  const codes = albedoOf(painting).raster(rect);
  const wide = rect.right - rect.left;
  const step = Math.max(1, Math.max(wide, rect.bottom - rect.top) / most);
  const w = Math.max(1, Math.floor(wide / step));
  const h = Math.max(1, Math.floor((rect.bottom - rect.top) / step));
  const rgba = new Uint8ClampedArray(w * h * 4);
  for (let y = 0; y < h; y++) {
    for (let x = 0; x < w; x++) {
      const [sx, sy] = [Math.floor((x + 0.5) * step), Math.floor((y + 0.5) * step)];
      const code = codes[sy * wide + sx];
      const to = (y * w + x) * 4;
      for (let c = 0; c < 3; c++) rgba[to + c] = (code >>> (8 * c)) & 255;
      rgba[to + 3] = Math.round(255 * cover(rect.left + sx, rect.top + sy));
    }
  }
  return { rect, width: w, height: h, rgba };
}

/** Cells along a side of the grid on which outlines are traced, at most. */
const OUTLINE_SIDE = 900;

/** Outlines of a plane of the painting that tiles give (0..1 or 0..255 a cell, at least half is in), mm. */
function outlined(
  painting: Painting,
  tile: (index: number) => ArrayLike<number> | undefined,
  half: number,
): [number, number][][] {
  const { width, height, mmPerPx, tilesX } = painting;
  const step = Math.max(1, Math.ceil(Math.max(width, height) / OUTLINE_SIDE));
  const [w, h] = [Math.ceil(width / step), Math.ceil(height / step)];
  const region = new Uint8Array(w * h);
  const known = new Map<number, ArrayLike<number> | undefined>();
  for (let y = 0; y < h; y++) {
    for (let x = 0; x < w; x++) {
      const [px, py] = [Math.min(width - 1, x * step + (step >> 1)), Math.min(height - 1, y * step + (step >> 1))];
      const index = (py >> 6) * tilesX + (px >> 6);
      if (!known.has(index)) known.set(index, tile(index));
      const v = known.get(index)?.[(py & 63) * TILE + (px & 63)] ?? 0;
      if (v >= half) region[y * w + x] = 255;
    }
  }
  return outlinesOf(region, w, h).map((line) =>
    line.map(([x, y]) => [Math.min(width, x * step) * mmPerPx, Math.min(height, y * step) * mmPerPx]),
  );
}

/** Outlines of what is selected, mm; none where nothing is. */
export const selectionOutlines = (painting: Painting): [number, number][][] =>
  painting.selected ? outlined(painting, (index) => painting.selection.tiles[index]?.mask, 128) : [];

/** Outlines of what a layer has, mm. */
export const paintedOutlines = (painting: Painting, layer: Layer): [number, number][][] =>
  layer.kind === 'adjust' && !layer.look.mask
    ? []
    : outlined(painting, (index) => coverageOf(painting, layer, index) ?? (maskOf(layer, index) || undefined), 0.5);

/** Cells that are counted for a histogram, about. */
const COUNTED = 500_000;

/** How many cells of the unlit picture have each code: red, green, blue and luma, 256 each. Of a large one every so manyeth tile. */
export function histogramOf(painting: Painting, options: ViewOptions): Counts {
  const counts = noCounts();
  const { tilesX, tilesY, width, height } = painting;
  const step = Math.max(1, Math.round((width * height) / COUNTED));
  for (let index = 0; index < tilesX * tilesY; index += step) {
    const [left, top] = [(index % tilesX) * TILE, Math.floor(index / tilesX) * TILE];
    const tile = { left, top, right: Math.min(width, left + TILE), bottom: Math.min(height, top + TILE) };
    count(counts, albedoOf(painting).raster(tile, options));
  }
  return counts;
}
