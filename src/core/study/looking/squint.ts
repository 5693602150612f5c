import { codeOf, isThere, LINEAR, type CodeImage } from './image';

/** Light that lashes take away where nothing is blurred yet, and where all is. */
const LASHES = 0.86;
/** Widths of three boxes that together blur as a Gaussian does (Wells 1986), by its deviation. */
function boxes(sigma: number): readonly number[] {
  const ideal = Math.sqrt(4 * sigma * sigma + 1);
  const low = Math.max(1, Math.floor(ideal) - ((Math.floor(ideal) + 1) % 2));
  // so many of the narrower ones that the variances add up
  const narrow = Math.round((12 * sigma * sigma - 3 * low * low - 12 * low - 9) / (-4 * low - 4));
  return [0, 1, 2].map((i) => (i < narrow ? low : low + 2));
}

/** How far a squint looks around a place, mm. @param radiusMm deviation of the blur */
export const squintReach = (radiusMm: number): number => 3 * radiusMm;

/** A place in the view: where the first pixel of a picture that is a part of it lies. */
export interface InView {
  readonly x: number;
  readonly y: number;
}
const FIRST: InView = { x: 0, y: 0 };

/** Deviation of a blur, in pixels of the grid that it is worked out on, at least; and the coarsest such grid, pixels. */
const LEAST_SIGMA = 1.6;
const COARSEST = 8;

/** Side of the blocks of pixels on which a blur of a deviation (pixels) is worked out: the softer it is, the coarser. */
export function blockSide(sigma: number): number {
  let side = 1;
  while (side < COARSEST && sigma / (2 * side) >= LEAST_SIGMA) side *= 2;
  return side;
}

/** A coarse picture of what lies around a part of a view: each of its pixels is a block of those, at whole multiples. */
export interface Broad {
  readonly image: CodeImage;
  readonly side: number;
  /** Its first pixel, counted in blocks of the view. */
  readonly column: number;
  readonly row: number;
}

/** A grid on which a blur is worked out: blocks of pixels, at whole multiples in the view, so that parts fit together. */
class Blocks {
  private constructor(
    private readonly side: number,
    readonly width: number,
    readonly height: number,
    /** Where the first pixel of the picture lies in the first block, pixels. */
    private readonly left: number,
    private readonly top: number,
    private readonly sigma: number,
  ) {}

  /** Over a picture itself. */
  static over(width: number, height: number, sigma: number, { x, y }: InView): Blocks {
    const side = blockSide(sigma);
    const left = ((x % side) + side) % side;
    const top = ((y % side) + side) % side;
    return new Blocks(side, Math.ceil((left + width) / side), Math.ceil((top + height) / side), left, top, sigma);
  }

  /** Over what lies around it. */
  static around({ image, side, column, row }: Broad, sigma: number, { x, y }: InView): Blocks {
    return new Blocks(side, image.width, image.height, x - column * side, y - row * side, sigma);
  }

  /** Which block a pixel of the picture lies in. */
  of(x: number, y: number): number {
    const { side } = this;
    return Math.floor((y + this.top) / side) * this.width + Math.floor((x + this.left) / side);
  }

  blur(planes: readonly Float32Array[]): void {
    const { side, width, height, sigma } = this;
    const spare = new Float32Array(width * height);
    // a block is a box, and what is drawn between blocks a triangle: both soften by themselves
    const own = side > 1 ? (side * side - 1) / 12 + (side * side) / 6 : 0;
    for (const plane of planes) blur(plane, spare, width, height, Math.sqrt(sigma * sigma - own) / side);
  }

  /** Values of a plane along a row of the picture, between the middles of blocks. */
  row(plane: Float32Array, y: number, out: Float32Array): void {
    const { side, width, height, left, top } = this;
    if (side === 1) {
      out.set(plane.subarray(y * width, y * width + out.length));
      return;
    }
    const v = Math.max(0, Math.min(height - 1, (y + top + 0.5) / side - 0.5));
    const upper = Math.floor(v);
    const up = upper * width;
    const down = Math.min(height - 1, upper + 1) * width;
    const t = v - upper;
    for (let x = 0; x < out.length; x++) {
      const u = Math.max(0, Math.min(width - 1, (x + left + 0.5) / side - 0.5));
      const column = u | 0;
      const next = column + 1 < width ? column + 1 : column;
      const s = u - column;
      const above = plane[up + column] + s * (plane[up + next] - plane[up + column]);
      const below = plane[down + column] + s * (plane[down + next] - plane[down + column]);
      out[x] = above + t * (below - above);
    }
  }
}

/**
 * Softens a picture as half closed eyes do: a Gaussian in linear light, a little darker, as through lashes. What is
 * beside the picture adds no light and takes none.
 * @param radiusMm deviation of the blur; 0 leaves the picture as it is @param at where it lies in the view
 */
export function squint(image: CodeImage, radiusMm: number, at: InView = FIRST): Uint32Array {
  const { codes, width, height, mmPerPx } = image;
  const sigma = radiusMm / mmPerPx;
  if (sigma < 0.3) return codes;
  const blocks = Blocks.over(width, height, sigma, at);
  const planes = [0, 1, 2, 3].map(() => new Float32Array(blocks.width * blocks.height));
  const [red, green, blue, there] = planes;
  for (let y = 0, i = 0; y < height; y++) {
    for (let x = 0; x < width; x++, i++) {
      const code = codes[i];
      if (!isThere(code)) continue;
      const k = blocks.of(x, y);
      red[k] += LINEAR[code & 255];
      green[k] += LINEAR[(code >>> 8) & 255];
      blue[k] += LINEAR[(code >>> 16) & 255];
      there[k]++;
    }
  }
  blocks.blur(planes);
  const out = new Uint32Array(codes.length);
  const [r, g, b, all] = [0, 1, 2, 3].map(() => new Float32Array(width));
  for (let y = 0, i = 0; y < height; y++) {
    blocks.row(red, y, r);
    blocks.row(green, y, g);
    blocks.row(blue, y, b);
    blocks.row(there, y, all);
    for (let x = 0; x < width; x++, i++) {
      if (!isThere(codes[i]) || all[x] <= 0) continue;
      const k = LASHES / all[x];
      out[i] = (0xff000000 | (codeOf(b[x] * k) << 16) | (codeOf(g[x] * k) << 8) | codeOf(r[x] * k)) >>> 0;
    }
  }
  return out;
}

/**
 * Means of something over the surroundings of each pixel, a Gaussian of a deviation, pixels; 0 where nothing is there.
 * @param of what a code counts for @param at where the picture lies in the view
 * @param broad what lies around it, where that is known
 */
export function surroundings(
  image: CodeImage,
  sigma: number,
  of: (code: number) => number,
  at: InView = FIRST,
  broad?: Broad,
): Float32Array {
  const { width, height } = image;
  const blocks = broad ? Blocks.around(broad, sigma, at) : Blocks.over(width, height, sigma, at);
  const sums = new Float32Array(blocks.width * blocks.height);
  const there = new Float32Array(blocks.width * blocks.height);
  const from = broad?.image ?? image;
  for (let y = 0, i = 0; y < from.height; y++) {
    for (let x = 0; x < from.width; x++, i++) {
      const code = from.codes[i];
      if (!isThere(code)) continue;
      const k = broad ? i : blocks.of(x, y);
      sums[k] += of(code);
      there[k]++;
    }
  }
  blocks.blur([sums, there]);
  const out = new Float32Array(width * height);
  const all = new Float32Array(width);
  for (let y = 0; y < height; y++) {
    const row = out.subarray(y * width, (y + 1) * width);
    blocks.row(sums, y, row);
    blocks.row(there, y, all);
    for (let x = 0; x < width; x++) row[x] = all[x] > 0 ? row[x] / all[x] : 0;
  }
  return out;
}

/** Blurs a plane in place. @param sigma deviation, pixels */
export function blur(plane: Float32Array, spare: Float32Array, width: number, height: number, sigma: number): void {
  blurByBoxes(plane, spare, width, height, boxes(sigma));
}

/** Blurs a plane in place by means of boxes, one after another. @param widths odd, pixels */
export function blurByBoxes(
  plane: Float32Array,
  spare: Float32Array,
  width: number,
  height: number,
  widths: readonly number[],
): void {
  for (const box of widths) {
    if (box < 2) continue;
    acrossRows(plane, spare, width, height, (box - 1) >> 1);
    downColumns(spare, plane, width, height, (box - 1) >> 1);
  }
}

/** Means over what of a box lies within the row. */
function acrossRows(from: Float32Array, to: Float32Array, width: number, height: number, half: number): void {
  for (let y = 0; y < height; y++) {
    const start = y * width;
    let sum = 0;
    for (let x = 0; x < Math.min(half, width); x++) sum += from[start + x];
    for (let x = 0; x < width; x++) {
      if (x + half < width) sum += from[start + x + half];
      if (x > half) sum -= from[start + x - half - 1];
      to[start + x] = sum / (Math.min(width - 1, x + half) - Math.max(0, x - half) + 1);
    }
  }
}

/** The same down the columns, row by row, as memory lies. */
function downColumns(from: Float32Array, to: Float32Array, width: number, height: number, half: number): void {
  const sums = new Float64Array(width);
  const add = (row: number, sign: number) => {
    const start = row * width;
    for (let x = 0; x < width; x++) sums[x] += sign * from[start + x];
  };
  for (let y = 0; y < Math.min(half, height); y++) add(y, 1);
  for (let y = 0; y < height; y++) {
    if (y + half < height) add(y + half, 1);
    if (y > half) add(y - half - 1, -1);
    const share = 1 / (Math.min(height - 1, y + half) - Math.max(0, y - half) + 1);
    const start = y * width;
    for (let x = 0; x < width; x++) to[start + x] = sums[x] * share;
  }
}
