/**
 * The front of water on paper: where a film advances into dry paper, and how it covers cells (kernels/water.ts says how
 * each loop is called).
 */
import { clamp01, WATER as B } from './water';

/**
 * How much deeper in a bay the next cell of a slanted front seems, because it lies nearer to it than half a cell: 0.25
 * times the rim's slope for a straight front; with 0.75 pools that run come out round on every grid (measured).
 */
const ASLANT = 0.75;
/** Sides and half of the corners of a cell that are wet beside the kink of a front; from there on it is a gap. */
const GAP = 3;

/**
 * The wet front: how much more of each cell (64 x 64, into `gains`) the film comes to cover. Dry paper holds all but an
 * over-full film; damp paper lets it run. Capes of the front are held back, bays fill.
 * @param masking address of a plane of the tile, or 0; @param wax the same
 * @returns whether anything is gained
 */
export function advanceFront(
  f32: Float32Array,
  i32: Int32Array,
  block: number,
  at: number,
  bed: number,
  coverAt: number,
  fine: number,
  masking: number,
  wax: number,
  gains: number,
): number {
  const stride = i32[block + B.stride];
  const coverStride = i32[block + B.coverStride];
  const side = i32[block + B.side];
  const factor = i32[block + B.factor];
  const depth = i32[block + B.depth];
  const cover = i32[block + B.cover];
  const barrierDry = f32[block + B.barrierDry];
  const barrierDamp = f32[block + B.barrierDamp];
  const full = 1 / f32[block + B.capacity];
  const width = side * factor;
  let any = 0;
  for (let y = 0; y < side; y++) {
    for (let x = 0; x < side; x++) {
      const i = at + y * stride + x;
      if (f32[i32[block + B.share] + i] >= 1) continue;
      const d = depth + i;
      const near = Math.max(
        f32[d],
        f32[d - 1],
        f32[d + 1],
        f32[d - stride],
        f32[d + stride],
        f32[d - stride - 1],
        f32[d - stride + 1],
        f32[d + stride - 1],
        f32[d + stride + 1],
      );
      if (near <= barrierDamp * 0.3) continue;
      // the cells that a slanted front comes to next lie nearer to it, and are no deeper in a bay for that
      const dx = Math.abs(f32[i32[block + B.rim] + i + 1] - f32[i32[block + B.rim] + i - 1]);
      const dy = Math.abs(f32[i32[block + B.rim] + i + stride] - f32[i32[block + B.rim] + i - stride]);
      const aslant = (ASLANT * (Math.sqrt(dx * dx + dy * dy) - Math.max(dx, dy))) / factor;
      const t = clamp01((f32[i32[block + B.moisture] + i] * full - 0.25) * 1.7);
      const damp = t * t * (3 - 2 * t);
      const rough = f32[block + B.barrierRough] * (0.1 + 0.9 * damp);
      const ground = bed + y * i32[block + B.bedStride] + x;
      const barrier =
        (barrierDry + (barrierDamp - barrierDry) * damp) * (1 - rough * 0.45 * f32[i32[block + B.resistance] + ground]);
      for (let j = 0; j < factor; j++) {
        for (let k = 0; k < factor; k++) {
          const cell = (y * factor + j) * width + x * factor + k;
          const c = cover + coverAt + (y * factor + j) * coverStride + x * factor + k;
          const has = f32[c];
          if (has >= 1) continue;
          if ((masking && f32[masking + cell] > 0.5) || (wax && f32[wax + cell] > 0.5)) continue;
          const edge = ahead(Math.max(f32[c - 1], f32[c + 1], f32[c - coverStride], f32[c + coverStride]), has);
          if (edge <= 0) continue;
          const corners =
            f32[c - coverStride - 1] + f32[c - coverStride + 1] + f32[c + coverStride - 1] + f32[c + coverStride + 1];
          const sides = f32[c - 1] + f32[c + 1] + f32[c - coverStride] + f32[c + coverStride];
          const gap = Math.max(0, sides + 0.5 * corners - GAP);
          const h = f32[i32[block + B.tooth] + fine + (y * factor + j) * i32[block + B.fineStride] + x * factor + k];
          // how the front curves over a flow cell or two: bays fill, capes are held
          const rx = (k + 0.5) / factor - 0.5;
          const ry = (j + 0.5) / factor - 0.5;
          const sx = rx < 0 ? -1 : 1;
          const sy = ry < 0 ? -stride : stride;
          const r = i32[block + B.rim] + i;
          const beside = f32[r] + (f32[r + sx] - f32[r]) * Math.abs(rx);
          const below = f32[r + sy] + (f32[r + sy + sx] - f32[r + sy]) * Math.abs(rx);
          const bay = beside + (below - beside) * Math.abs(ry) - 0.5 - aslant;
          const over =
            near -
            barrier *
              (1 + rough * f32[block + B.relief] * (h - 0.5)) *
              Math.max(0.05, 1 - f32[block + B.curve] * bay - f32[block + B.tension] * gap);
          if (over <= 0) continue;
          const more = Math.min(f32[block + B.frontMost], f32[block + B.frontRate] * over) * edge;
          f32[gains + cell] = Math.min(1 - has, more);
          any = 1;
        }
      }
    }
  }
  return any;
}

/**
 * Adds what the front has gained, lets films that are too thin break, and works out the covered shares.
 * @param gains address of 64 x 64 values, or 0 for none; they are cleared
 * @returns bits: 1 there is film, 2 there is moisture, 4, 8, 16, 32 film or moisture at the left, right, top, bottom
 */
export function coverFilm(
  f32: Float32Array,
  i32: Int32Array,
  block: number,
  at: number,
  coverAt: number,
  gains: number,
): number {
  const stride = i32[block + B.stride];
  const coverStride = i32[block + B.coverStride];
  const side = i32[block + B.side];
  const factor = i32[block + B.factor];
  const width = side * factor;
  const breaks = f32[block + B.breaks];
  const inverse = 1 / (factor * factor);
  let found = 0;
  for (let y = 0; y < side; y++) {
    for (let x = 0; x < side; x++) {
      const i = at + y * stride + x;
      const share = i32[block + B.share] + i;
      const water = i32[block + B.water] + i;
      const moisture = i32[block + B.moisture] + i;
      const first = i32[block + B.cover] + coverAt + y * factor * coverStride + x * factor;
      const had = f32[share];
      if (had > 0 && f32[i32[block + B.depth] + i] < breaks && f32[water] < breaks * had) {
        // the film breaks, and what is left of it soaks in
        const keeps = f32[water] <= 0 || had < 0.02 ? 0 : 0.6;
        f32[moisture] += f32[water] * (1 - keeps);
        f32[water] *= keeps;
        for (let j = 0; j < factor; j++) for (let k = 0; k < factor; k++) f32[first + j * coverStride + k] *= keeps;
        f32[share] = had * keeps;
      } else if (gains && had < 1) {
        let sum = 0;
        for (let j = 0; j < factor; j++) {
          for (let k = 0; k < factor; k++) {
            const gain = gains + (y * factor + j) * width + x * factor + k;
            const c = first + j * coverStride + k;
            f32[c] += f32[gain];
            sum += f32[c];
          }
        }
        f32[share] = sum * inverse;
      }
      const here = f32[share] > 0 ? 1 : f32[moisture] > 0 ? 2 : 0;
      if (here === 0) continue;
      found |= here;
      if (x === 0) found |= 4;
      if (x === side - 1) found |= 8;
      if (y === 0) found |= 16;
      if (y === side - 1) found |= 32;
    }
  }
  if (gains) f32.fill(0, gains, gains + width * width);
  return found;
}

/** How far a neighbour's cover pushes on: not before half of it is covered. */
const ahead = (most: number, has: number) => clamp01(2 * most - 1) * clamp01(4 * (most - has));
