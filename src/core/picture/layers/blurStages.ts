import { tilesIn } from '@/core/film/tilesIn';
import { encodeFast } from '@/core/colour/rgbBands';
import { decodeSrgb } from '@/core/colour/colorimetry';
import { TILE } from '@/core/film/cells';
import type { Layer } from '@/core/film/layer';
import type { Painting } from '@/core/film/painting';
import { clipRect, widened, type PixelRect } from '@/core/film/pixelRect';
import { isPlain, seenLook, type ViewOptions } from '@/core/picture/viewOptions';

const linear = Float32Array.from({ length: 256 }, (_, i) => decodeSrgb(i / 255));

/** What one blurred layer sees below it, and what it makes of it: sRGB codes, as large as the painting. */
interface Stage {
  readonly under: Uint32Array;
  readonly blurred: Uint32Array;
  /** State of what was below when a tile of `under` was made. */
  readonly keys: string[];
  /** Counts how often a tile of `blurred` was made anew. */
  readonly made: number[];
  radius: number;
}

/**
 * Blur needs the colours around a cell, so what lies below a layer that blurs is kept as a picture of its own.
 * A Gaussian of linear light, by three box filters one after the other (Wells 1986).
 */
export class BlurStages {
  private readonly stages = new Map<string, Stage>();

  constructor(private readonly painting: Painting) {}

  /** Layers that blur and are seen, lowest first. */
  visible(options: ViewOptions): Layer[] {
    const { layers } = this.painting;
    const blur = (look: Layer['look'] | undefined) => look?.adjust?.kind === 'blur';
    const there = new Set(layers.map(({ id }) => id));
    for (const name of this.stages.keys()) if (!there.has(name.split(' ')[0])) this.stages.delete(name);
    return layers.filter((layer) => blur(seenLook(layer, options)));
  }

  /** Name of a layer's stage. A painting as it is has other stages than one that is looked at in another way. */
  nameOf({ id }: Layer, options: ViewOptions): string {
    return isPlain(options) ? id : `${id} looked at`;
  }

  /** The picture below a layer, to be written tile by tile. */
  stageOf(layer: Layer, options: ViewOptions): Stage {
    const name = this.nameOf(layer, options);
    let stage = this.stages.get(name);
    const { width, height, mmPerPx } = this.painting;
    if (!stage) {
      const raster = () => new Uint32Array(width * height);
      stage = { under: raster(), blurred: raster(), keys: [], made: [], radius: -1 };
      this.stages.set(name, stage);
    }
    const adjust = seenLook(layer, options)?.adjust;
    const radius = adjust?.kind === 'blur' ? adjust.radiusMm / mmPerPx : 0;
    if (radius !== stage.radius) {
      stage.radius = radius;
      stage.keys.length = 0;
    }
    return stage;
  }

  /** Cells as far as which a layer's blur reaches. */
  reach({ radius }: Stage): number {
    return boxes(radius / 2).reduce((sum, box) => sum + box, 0);
  }

  /** Blurs a rectangle anew. */
  blur({ under, blurred, radius, made }: Stage, rect: PixelRect): void {
    const { width, height, tilesX } = this.painting;
    const sizes = boxes(radius / 2);
    const reach = sizes.reduce((sum, box) => sum + box, 0);
    const to = clipRect(rect, width, height);
    const from = clipRect(widened(to, reach), width, height);
    const w = from.right - from.left;
    const h = from.bottom - from.top;
    if (w <= 0 || h <= 0) return;
    for (const { index } of tilesIn(to, tilesX)) {
      made[index] = (made[index] ?? 0) + 1;
    }
    const planes = [0, 1, 2].map(() => new Float32Array(w * h));
    for (let y = 0; y < h; y++) {
      for (let x = 0; x < w; x++) {
        const v = under[(from.top + y) * width + from.left + x];
        for (let c = 0; c < 3; c++) planes[c][y * w + x] = linear[(v >>> (8 * c)) & 255];
      }
    }
    const line = new Float32Array(Math.max(w, h));
    for (const plane of planes) {
      for (const box of sizes) {
        for (let y = 0; y < h; y++) boxLine(plane, y * w, 1, w, box, line);
        for (let x = 0; x < w; x++) boxLine(plane, x, w, h, box, line);
      }
    }
    for (let y = to.top; y < to.bottom; y++) {
      for (let x = to.left; x < to.right; x++) {
        const i = (y - from.top) * w + x - from.left;
        const code = (c: number) => Math.round(255 * encodeFast(planes[c][i]));
        blurred[y * width + x] = (code(0) | (code(1) << 8) | (code(2) << 16) | 0xff000000) >>> 0;
      }
    }
  }

  /** How often the blurred colours of a tile were made anew. */
  madeAt(name: string, index: number): number {
    return this.stages.get(name)?.made[index] ?? 0;
  }

  /** Blurred colours of a row of cells, encoded: red, green and blue, `stride` apart in `out`; undefined before there are any. */
  row(
    name: string,
    index: number,
    cell: number,
    count: number,
    stride: number,
    out: Float32Array,
  ): Float32Array | undefined {
    const { width, tilesX } = this.painting;
    const stage = this.stages.get(name);
    if (!stage) return undefined;
    const x0 = (index % tilesX) * TILE + (cell & 63);
    const y = Math.floor(index / tilesX) * TILE + (cell >> 6);
    for (let x = 0; x < count; x++) {
      const v = stage.blurred[y * width + x0 + x];
      for (let c = 0; c < 3; c++) out[c * stride + x] = ((v >>> (8 * c)) & 255) / 255;
    }
    return out;
  }
}

/** Half widths of three boxes that together blur like a Gaussian of this standard deviation, cells. */
function boxes(sigma: number): [number, number, number] {
  const ideal = Math.sqrt(4 * sigma * sigma + 1);
  let low = Math.floor(ideal);
  if (low % 2 === 0) low--;
  const wide = low + 2;
  const few = Math.round((12 * sigma * sigma - 3 * low * low - 12 * low - 9) / (-4 * low - 4));
  return [0, 1, 2].map((i) => ((i < few ? low : wide) - 1) / 2) as [number, number, number];
}

/** Means of a line over 2 `half` + 1 values, in place; beyond its ends it goes on as it ends. */
function boxLine(plane: Float32Array, at: number, step: number, n: number, half: number, line: Float32Array): void {
  if (half === 0) return;
  for (let i = 0; i < n; i++) line[i] = plane[at + i * step];
  const get = (i: number) => line[i < 0 ? 0 : i >= n ? n - 1 : i];
  let sum = 0;
  for (let i = -half; i <= half; i++) sum += get(i);
  const share = 1 / (2 * half + 1);
  for (let i = 0; i < n; i++) {
    plane[at + i * step] = sum * share;
    sum += get(i + half + 1) - get(i - half);
  }
}
