import type { PixelRect } from '@/core/film/pixelRect';
import { maths } from '@/core/maths/maths';
import type { Pyramid } from './pyramid';
import type { Painting } from '@/core/film/painting';
import type { CodeImage } from '@/core/study/looking/image';
import { blockSide, squint, squintReach, type Broad } from '@/core/study/looking/squint';
import type { Lens, LookingAid } from './aids/definition';

/**
 * How a painting is looked at: which of its cells is in the middle, how large, how turned. Mirroring turns the
 * picture left to right before it is turned.
 */
export interface View {
  /** Size of the view, device pixels. */
  readonly width: number;
  readonly height: number;
  /** Cell of the painting in the middle of the view. */
  readonly centreX: number;
  readonly centreY: number;
  /** Device pixels for each cell. */
  readonly zoom: number;
  /** Clockwise, radians. */
  readonly turn: number;
  readonly mirror: boolean;
}

/** Cell coordinates of a view pixel. */
export function viewToCell(view: View, vx: number, vy: number): { x: number; y: number } {
  const cos = maths.cos(view.turn) / view.zoom;
  const sin = maths.sin(view.turn) / view.zoom;
  const dx = vx - view.width / 2;
  const dy = vy - view.height / 2;
  const x = cos * dx + sin * dy;
  return { x: view.centreX + (view.mirror ? -x : x), y: view.centreY - sin * dx + cos * dy };
}

/** View pixel of cell coordinates. */
export function cellToView(view: View, x: number, y: number): { x: number; y: number } {
  const dx = (view.mirror ? view.centreX - x : x - view.centreX) * view.zoom;
  const dy = (y - view.centreY) * view.zoom;
  const cos = maths.cos(view.turn);
  const sin = maths.sin(view.turn);
  return { x: view.width / 2 + cos * dx - sin * dy, y: view.height / 2 + sin * dx + cos * dy };
}

/** The smallest rectangle of view pixels that shows a rectangle of cells. */
export function rectInView(view: View, r: PixelRect): PixelRect {
  const corners = [
    cellToView(view, r.left, r.top),
    cellToView(view, r.right, r.top),
    cellToView(view, r.left, r.bottom),
    cellToView(view, r.right, r.bottom),
  ];
  const xs = corners.map((c) => c.x);
  const ys = corners.map((c) => c.y);
  const margin = 1 + Math.ceil(view.zoom);
  return {
    left: Math.max(0, Math.floor(Math.min(...xs)) - margin),
    top: Math.max(0, Math.floor(Math.min(...ys)) - margin),
    right: Math.min(view.width, Math.ceil(Math.max(...xs)) + margin),
    bottom: Math.min(view.height, Math.ceil(Math.max(...ys)) + margin),
  };
}

/**
 * Draws a rectangle of the view: every pixel looks through the view at the level of the pyramid that is just fine
 * enough, with linear interpolation. Pixels beside the painting are transparent.
 * @param lens what it is looked at through
 * @returns RGBA bytes of the rectangle
 */
export function drawView(
  pyramid: Pyramid,
  u32: Uint32Array,
  view: View,
  r: PixelRect,
  lens?: Lens,
): Uint8ClampedArray<ArrayBuffer> {
  const out = lens ? throughLens(pyramid, u32, view, r, lens) : sampled(pyramid, u32, view, r);
  return new Uint8ClampedArray(out.buffer);
}

/** As far as a lens is drawn around what is looked at, pixels: from near, what it looks around at is larger than any view. */
const MOST_REACH_PX = 256;

/**
 * How far a lens looks around a pixel of the view, pixels, and whether that is less than it would: then what is drawn
 * anew of a view fits the rest only where all of it is drawn.
 */
export function reachOf({ aid, how }: Lens, view: View, painting: Painting): { px: number; cut: boolean } {
  const mm = squintReach(how.squintMm) + (aid?.reachMm?.(how) ?? 0);
  const px = Math.max(aid?.reachPx ?? 0, Math.ceil((mm * view.zoom) / painting.mmPerPx));
  return { px: Math.min(MOST_REACH_PX, px), cut: px > MOST_REACH_PX };
}

/** A rectangle of the view through a lens: what lies around it is drawn along as far as the lens looks around. */
function throughLens(
  pyramid: Pyramid,
  u32: Uint32Array,
  view: View,
  r: PixelRect,
  lens: Lens,
): Uint32Array<ArrayBuffer> {
  const { aid, how, prepared } = lens;
  const { painting } = pyramid.picture;
  const mmPerPx = painting.mmPerPx / view.zoom;
  const { px } = reachOf(lens, view, painting);
  const broad = aid?.broadMm && broadly(pyramid, u32, view, r, px, aid.broadMm(how) / mmPerPx);
  const reach = broad ? Math.ceil(squintReach(how.squintMm) / mmPerPx) : px;
  const around = { left: r.left - reach, top: r.top - reach, right: r.right + reach, bottom: r.bottom + reach };
  const width = around.right - around.left;
  const height = around.bottom - around.top;
  const at = { x: around.left, y: around.top };
  let codes: Uint32Array = sampled(pyramid, u32, view, around);
  codes = squint({ codes, width, height, mmPerPx }, how.squintMm, at);
  if (aid?.look) {
    codes = aid.look({ codes, width, height, mmPerPx }, how, prepared, at, broad);
  } else if (aid?.seeCode) {
    for (let i = 0; i < codes.length; i++) if (codes[i] !== 0) codes[i] = aid.seeCode(codes[i]);
  }
  const out = new Uint32Array((r.right - r.left) * (r.bottom - r.top));
  for (let y = 0, to = 0; y < r.bottom - r.top; y++) {
    const from = (y + reach) * width + reach;
    for (let x = 0; x < r.right - r.left; x++) out[to++] = codes[from + x];
  }
  if (!aid?.see) return out;
  if (!aid.lined?.(how)) {
    seenCells(view, r, painting, aid.see, out);
    return out;
  }
  // a line at the rim of a part is known by what lies beside it
  const beside = { ...r, right: r.right + 1, bottom: r.bottom + 1 };
  const wide = new Uint32Array((out.length / (r.bottom - r.top) + 1) * (r.bottom - r.top + 1)).fill(0xff000000);
  seenCells(view, beside, painting, aid.see, wide);
  linesBetween(wide, out, r.right - r.left, r.bottom - r.top);
  return out;
}

/** Darkens where the next pixel to the right or below is another. @param wide one column and one row more than out */
function linesBetween(wide: Uint32Array, out: Uint32Array, width: number, height: number): void {
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      const i = y * width + x;
      const at = y * (width + 1) + x;
      if (out[i] === 0) continue;
      const code = wide[at];
      const edge = code !== wide[at + 1] || code !== wide[at + width + 1];
      out[i] = edge ? (0xff000000 | ((code >>> 1) & 0x7f7f7f)) >>> 0 : code;
    }
  }
}

/** What lies around a rectangle of the view, in blocks; undefined where it counts so sharply that blocks are pixels. */
function broadly(
  pyramid: Pyramid,
  u32: Uint32Array,
  view: View,
  r: PixelRect,
  reach: number,
  sigma: number,
): Broad | undefined {
  const side = blockSide(sigma);
  if (side === 1) return undefined;
  const left = Math.floor((r.left - reach) / side);
  const top = Math.floor((r.top - reach) / side);
  const right = Math.ceil((r.right + reach) / side);
  const bottom = Math.ceil((r.bottom + reach) / side);
  const coarse = { ...view, width: view.width / side, height: view.height / side, zoom: view.zoom / side };
  const codes = sampled(pyramid, u32, coarse, { left, top, right, bottom });
  const mmPerPx = pyramid.picture.painting.mmPerPx / coarse.zoom;
  return { image: { codes, width: right - left, height: bottom - top, mmPerPx }, side, column: left, row: top };
}

/** Shows each pixel as an aid sees its cell. */
function seenCells(
  view: View,
  r: PixelRect,
  painting: Painting,
  see: NonNullable<LookingAid['see']>,
  out: Uint32Array,
): void {
  const width = r.right - r.left;
  const { origin, ax, ay, bx, by } = steps(view, r);
  for (let i = 0; i < out.length; i++) {
    if (out[i] === 0) continue;
    const [x, y] = [i % width, Math.floor(i / width)];
    const cellX = (origin.x + ax * x + bx * y) | 0;
    const cellY = (origin.y + ay * x + by * y) | 0;
    if (cellX >= 0 && cellY >= 0 && cellX < painting.width && cellY < painting.height)
      out[i] = see(out[i], painting, cellX, cellY);
  }
}

/** Where the first pixel of a rectangle of the view looks, and how far the next to the right and below look from it, cells. */
function steps(view: View, r: PixelRect) {
  const origin = viewToCell(view, r.left + 0.5, r.top + 0.5);
  const right = viewToCell(view, r.left + 1.5, r.top + 0.5);
  const down = viewToCell(view, r.left + 0.5, r.top + 1.5);
  return { origin, ax: right.x - origin.x, ay: right.y - origin.y, bx: down.x - origin.x, by: down.y - origin.y };
}

/** The picture as it is, sampled for each pixel of a rectangle of the view. */
function sampled(pyramid: Pyramid, u32: Uint32Array, view: View, r: PixelRect): Uint32Array<ArrayBuffer> {
  const width = r.right - r.left;
  const height = r.bottom - r.top;
  const out = new Uint32Array(width * height);
  const k = Math.max(0, Math.min(pyramid.levels.length - 1, Math.floor(maths.log2(1.001 / view.zoom))));
  const level = pyramid.levels[k];
  const full = pyramid.levels[0];
  const scale = 1 / (1 << k);
  const { origin, ax, ay, bx, by } = steps(view, r);
  const { at, width: w, height: h } = level;
  for (let y = 0; y < height; y++) {
    let px = origin.x + bx * y;
    let py = origin.y + by * y;
    for (let x = 0; x < width; x++, px += ax, py += ay) {
      if (px < 0 || py < 0 || px >= full.width || py >= full.height) continue;
      // centre of a cell lies at half
      const fx = px * scale - 0.5;
      const fy = py * scale - 0.5;
      const ix = Math.floor(fx);
      const iy = Math.floor(fy);
      const x0 = ix < 0 ? 0 : ix;
      const y0 = iy < 0 ? 0 : iy;
      const x1 = ix + 1 >= w ? w - 1 : ix + 1;
      const y1 = iy + 1 >= h ? h - 1 : iy + 1;
      const sx = ((fx - ix) * 256) | 0;
      const sy = ((fy - iy) * 256) | 0;
      const top = at + y0 * w;
      const low = at + y1 * w;
      out[y * width + x] = between(
        between(u32[top + x0], u32[top + x1], sx),
        between(u32[low + x0], u32[low + x1], sx),
        sy,
      );
    }
  }
  return out;
}

/** The whole picture, small: what aids are prepared from. */
export function wholeImage(pyramid: Pyramid, u32: Uint32Array): CodeImage {
  const { at, width, height } = pyramid.levels.at(-1)!;
  const { painting } = pyramid.picture;
  return {
    codes: u32.slice(at, at + width * height),
    width,
    height,
    mmPerPx: (painting.width * painting.mmPerPx) / width,
  };
}

/** Mixes two packed colours, `s` in 0..256. */
function between(a: number, b: number, s: number): number {
  if (s === 0 || a === b) return a;
  const even = (((a & 0xff00ff) * (256 - s) + (b & 0xff00ff) * s) >>> 8) & 0xff00ff;
  const odd = (((a >>> 8) & 0xff) * (256 - s) + ((b >>> 8) & 0xff) * s) & 0xff00;
  return (even | odd | 0xff000000) >>> 0;
}
