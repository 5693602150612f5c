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

/**
 * Softens a picture as half closed eyes do: a Gaussian in linear light, a little darker, as through lashes. What is
 * beside the picture adds no light and takes none.
 * @param radiusMm deviation of the blur; 0 leaves the picture as it is
 */
export function squint(image: CodeImage, radiusMm: number): Uint32Array {
  const { codes, width, height, mmPerPx } = image;
  const sigma = radiusMm / mmPerPx;
  if (sigma < 0.3) return codes;
  const count = codes.length;
  const planes = [0, 1, 2, 3].map(() => new Float32Array(count));
  for (let i = 0; i < count; i++) {
    const code = codes[i];
    if (!isThere(code)) continue;
    planes[0][i] = LINEAR[code & 255];
    planes[1][i] = LINEAR[(code >>> 8) & 255];
    planes[2][i] = LINEAR[(code >>> 16) & 255];
    planes[3][i] = 1;
  }
  const spare = new Float32Array(count);
  for (const plane of planes) blur(plane, spare, width, height, sigma);
  const out = new Uint32Array(count);
  const [r, g, b, there] = planes;
  for (let i = 0; i < count; i++) {
    if (!isThere(codes[i]) || there[i] <= 0) continue;
    const k = LASHES / there[i];
    out[i] = (0xff000000 | (codeOf(b[i] * k) << 16) | (codeOf(g[i] * k) << 8) | codeOf(r[i] * k)) >>> 0;
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
