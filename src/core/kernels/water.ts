/**
 * Water on paper: a film that flows, evaporates, soaks in and advances, on the coarse grid of a basin (film/basin.ts).
 * Each loop works on one tile, `side` x `side` flow cells from offset `at` of every plane, and reads one cell beyond.
 * These are the plain loops, the oracle of their compiled twins. The model: shallow water with thin-film drag (after
 * Curtis et al. 1997), fronts that are pinned by dry paper (Chu and Tai 2005), fixed steps.
 */

/** Words of the parameter block: word addresses of planes, then shape (int), then constants (float). */
export const WATER = {
  water: 0,
  moisture: 1,
  rim: 2,
  u: 3,
  v: 4,
  load: 5,
  share: 6,
  depth: 7,
  open: 8,
  fluxX: 9,
  fluxY: 10,
  mass: 11,
  stream: 12,
  paintU: 13,
  paintV: 14,
  nextA: 15,
  nextB: 16,
  cover: 17,
  /** The bed, on the coarse grid: permeability and its logarithm, lobes, blotches, currents. */
  permeable: 18,
  resistance: 19,
  lobes: 20,
  blotches: 21,
  currents: 22,
  /** The bed, cell by cell: tooth 0..1, and two beds seen by rolling grains. */
  tooth: 23,
  bedA: 24,
  bedB: 25,
  stride: 26,
  coverStride: 27,
  bedStride: 28,
  fineStride: 29,
  factor: 30,
  side: 31,
  /** Scratch rows of 80 words for the transport of pigment: 8, and one for each pigment. */
  rows: 32,
  // --- constants, with the step's length worked in
  gravity: 33,
  drag: 34,
  yielding: 35,
  yieldDepth: 36,
  uneven: 37,
  fastest: 38,
  tiltX: 39,
  tiltY: 40,
  /** Share of a flow cell's film that leaves through a face at unit velocity. */
  transfer: 41,
  openFrom: 42,
  openOver: 43,
  evaporation: 44,
  rimEvaporation: 45,
  blotchEvaporation: 46,
  rimBlur: 47,
  absorption: 48,
  capacity: 49,
  paperEvaporation: 50,
  capillary: 51,
  breaks: 52,
  barrierDry: 53,
  barrierDamp: 54,
  barrierRough: 55,
  frontRate: 56,
  frontMost: 57,
  /** How much easier a gap between wet cells is closed. */
  tension: 58,
  relief: 59,
  loadBlur: 60,
  disperse: 61,
  traces: 62,
  rimDrift: 63,
  /** Length of the step, in units of the usual one. */
  step: 64,
  /** Cells that paint moves at a velocity of one in one usual step. */
  cells: 65,
  /** How much more than the scheme does by itself paint is smeared as it moves, so that fine cells keep no finer edges. */
  smear: 66,
  /** The bed: how much the sheet falls towards a flow cell from the one before it, along x and y (washes). */
  fallX: 67,
  fallY: 68,
  /** How unevenly the rim draws paint, and how unevenly paint spreads, by the lobes. */
  rimUneven: 69,
  fingers: 70,
  /** Most that paint spreads: more would swing to and fro. */
  spreadMost: 71,
  /** How much harder a cape of the front advances than a bay. */
  curve: 72,
  words: 76,
} as const;

const B = WATER;

/** Share of the highest speed that each of two directions may have: water that flows aslant is no faster. */
const DIAGONAL = 0.7;
/**
 * How much deeper in a bay the next cell of a slanted front seems, because it lies nearer to it than half a cell: 0.25
 * times the rim's slope for a straight front; with 0.75 pools that run come out round on every grid (measured).
 */
const ASLANT = 0.75;
/** Sides and half of the corners of a cell that are wet beside the kink of a front; from there on it is a gap. */
const GAP = 3;

/** Depth of the film under its cover, and how freely paint spreads in it: 1 in a deep film away from its rim. */
export function filmDepth(f32: Float32Array, i32: Int32Array, block: number, at: number): void {
  const stride = i32[block + B.stride];
  const side = i32[block + B.side];
  const from = f32[block + B.openFrom];
  const over = f32[block + B.openOver];
  for (let y = 0; y < side; y++) {
    for (let i = at + y * stride, end = i + side; i < end; i++) {
      const share = f32[i32[block + B.share] + i];
      const depth = share > 0 ? f32[i32[block + B.water] + i] / share : 0;
      f32[i32[block + B.depth] + i] = depth;
      const deep = clamp01((depth - from) * over);
      const inside = clamp01((f32[i32[block + B.rim] + i] - 0.6) * 2.5);
      f32[i32[block + B.open] + i] = share > 0 ? deep * inside : 0;
    }
  }
}

/**
 * New velocities at the left and upper faces of the flow cells, and what flows through them. The film is driven by
 * differences of depth and by the tilt, slowed the more the thinner it is, and held by a thin film ahead.
 * @returns the fastest, reference cells a step
 */
export function pushWater(f32: Float32Array, i32: Int32Array, block: number, at: number, bed: number): number {
  const stride = i32[block + B.stride];
  const side = i32[block + B.side];
  const depth = i32[block + B.depth];
  const share = i32[block + B.share];
  const permeable = i32[block + B.permeable];
  const lobes = i32[block + B.lobes];
  const gravity = f32[block + B.gravity];
  const drag = f32[block + B.drag];
  const yieldOver = 1 / f32[block + B.yieldDepth];
  const most = f32[block + B.fastest];
  const transfer = f32[block + B.transfer];
  let fastest = 0;
  const face = (
    velocity: number,
    flux: number,
    i: number,
    back: number,
    cross: number,
    ground: number,
    tilt: number,
  ) => {
    const here = f32[share + i];
    const there = f32[share + i - back];
    if (here <= 0 || there <= 0) {
      f32[velocity + i] = 0;
      f32[flux + i] = 0;
      return;
    }
    const behind = f32[depth + i - back];
    const ahead = f32[depth + i];
    let push = behind - ahead + tilt;
    let film = push > 0 ? behind : ahead;
    const thin = Math.max(0, 1 - (push > 0 ? ahead : behind) * yieldOver);
    const held = f32[block + B.yielding] * Math.max(0, 1 - f32[block + B.uneven] * f32[lobes + ground]) * thin;
    push = push > 0 ? Math.max(0, push - held) : Math.min(0, push + held);
    // deep puddles keep the speed of a film of 1.5
    const g = film > 1.5 ? (gravity * 1.5) / film : gravity;
    film = Math.min(film, 1.5);
    const mobile = film * film * f32[permeable + ground];
    let a = ((f32[velocity + i] + g * push) * mobile) / (mobile + drag);
    let limit = most;
    if (a > DIAGONAL * most || a < -DIAGONAL * most) {
      const d = depth + i;
      const aside = 0.25 * (f32[d + cross] + f32[d + cross - back] - f32[d - cross] - f32[d - cross - back]);
      const down = behind - ahead + tilt;
      limit *= Math.max(DIAGONAL, Math.abs(down) / Math.max(1e-9, Math.sqrt(down * down + aside * aside)));
    }
    a = a > limit ? limit : a < -limit ? -limit : a;
    if (a < 1e-9 && a > -1e-9) a = 0;
    f32[velocity + i] = a;
    f32[flux + i] = transfer * a * (a > 0 ? behind : ahead) * Math.min(here, there);
    fastest = Math.max(fastest, Math.abs(a));
  };
  for (let y = 0; y < side; y++) {
    const g0 = bed + y * i32[block + B.bedStride];
    for (let x = 0, i = at + y * stride; x < side; x++, i++) {
      face(
        i32[block + B.u],
        i32[block + B.fluxX],
        i,
        1,
        stride,
        g0 + x,
        f32[block + B.tiltX] + f32[i32[block + B.fallX] + g0 + x],
      );
      face(
        i32[block + B.v],
        i32[block + B.fluxY],
        i,
        stride,
        1,
        g0 + x,
        f32[block + B.tiltY] + f32[i32[block + B.fallY] + g0 + x],
      );
    }
  }
  return fastest;
}

/** Water goes where it flows. */
export function shiftWater(f32: Float32Array, i32: Int32Array, block: number, at: number): void {
  const stride = i32[block + B.stride];
  const side = i32[block + B.side];
  const water = i32[block + B.water];
  const fluxX = i32[block + B.fluxX];
  const fluxY = i32[block + B.fluxY];
  for (let y = 0; y < side; y++) {
    for (let i = at + y * stride, end = i + side; i < end; i++) {
      const gain = f32[fluxX + i] - f32[fluxX + i + 1] + f32[fluxY + i] - f32[fluxY + i + stride];
      f32[water + i] = Math.max(0, f32[water + i] + gain);
    }
  }
}

/**
 * Evaporation, faster at the rim; soaking into the paper; moisture drying and creeping through the paper. The new rim
 * detector (a screened blur of the cover) and the new moisture are left in `nextA` and `nextB`.
 * @returns water that evaporated, washes times flow cells
 */
export function evaporate(f32: Float32Array, i32: Int32Array, block: number, at: number, bed: number): number {
  const stride = i32[block + B.stride];
  const side = i32[block + B.side];
  const water = i32[block + B.water];
  const moisture = i32[block + B.moisture];
  const rim = i32[block + B.rim];
  const rimBlur = f32[block + B.rimBlur];
  const around = (1 - rimBlur) * 0.25;
  const dries = f32[block + B.evaporation];
  const full = 1 / f32[block + B.capacity];
  const creep = f32[block + B.capillary] * full;
  let gone = 0;
  for (let y = 0; y < side; y++) {
    const g0 = bed + y * i32[block + B.bedStride];
    for (let x = 0, i = at + y * stride; x < side; x++, i++) {
      const share = f32[i32[block + B.share] + i];
      const r = rim + i;
      const near = rimBlur * share + around * (f32[r - 1] + f32[r + 1] + f32[r - stride] + f32[r + stride]);
      f32[i32[block + B.nextA] + i] = near < 1e-6 ? 0 : near;
      const s = moisture + i;
      const damp = f32[s];
      const film = f32[water + i];
      const blotch = f32[i32[block + B.blotches] + g0 + x];
      const air =
        dries * share * (1 + f32[block + B.rimEvaporation] * (1 - near) + f32[block + B.blotchEvaporation] * blotch);
      const dried = Math.min(film, Math.max(0, air));
      const soaked = Math.max(0, Math.min(film - dried, f32[block + B.absorption] * share * (1 - damp * full)));
      f32[water + i] = film - dried - soaked;
      // what creeps goes towards the drier side, the faster the wetter the wet side is
      const side4 =
        Math.max(damp, f32[s - 1]) * (f32[s - 1] - damp) +
        Math.max(damp, f32[s + 1]) * (f32[s + 1] - damp) +
        Math.max(damp, f32[s - stride]) * (f32[s - stride] - damp) +
        Math.max(damp, f32[s + stride]) * (f32[s + stride] - damp);
      const wetted = Math.max(0, damp + soaked + creep * side4);
      const open = 1 - share;
      let left = Math.max(0, wetted - f32[block + B.paperEvaporation] * open * (0.35 + 0.65 * wetted * full));
      if (left < 1e-5) left = 0;
      f32[i32[block + B.nextB] + i] = left;
      gone += dried + wetted - left;
    }
  }
  return gone;
}

/** Takes over what `evaporate` left: rim and moisture. */
export function adoptWater(f32: Float32Array, i32: Int32Array, block: number, at: number): void {
  const stride = i32[block + B.stride];
  const side = i32[block + B.side];
  for (let y = 0; y < side; y++) {
    const row = at + y * stride;
    copy(f32, i32[block + B.nextA] + row, i32[block + B.rim] + row, side);
    copy(f32, i32[block + B.nextB] + row, i32[block + B.moisture] + row, side);
  }
}

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
        f32[d], f32[d - 1], f32[d + 1], f32[d - stride], f32[d + stride],
        f32[d - stride - 1], f32[d - stride + 1], f32[d + stride - 1], f32[d + stride + 1],
      ); // prettier-ignore
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
            f32[c - coverStride - 1] + f32[c - coverStride + 1] + f32[c + coverStride - 1] + f32[c + coverStride + 1]; // prettier-ignore
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

/**
 * Paint that is suspended under each flow cell's film (sum over pigments, in washes), the mingling currents as far as
 * they reach there, and into `nextA` the smoothed load.
 * @param list address of pairs: plane of a suspended pigment (int), and one over its mass in a wash (float)
 */
export function weighPaint(
  f32: Float32Array,
  i32: Int32Array,
  block: number,
  at: number,
  bed: number,
  list: number,
  count: number,
): void {
  const stride = i32[block + B.stride];
  const side = i32[block + B.side];
  const factor = i32[block + B.factor];
  const width = side * factor;
  const share = i32[block + B.share];
  const open = i32[block + B.open];
  const load = i32[block + B.load];
  const blur = f32[block + B.loadBlur];
  const around = (1 - blur) * 0.25;
  const inverse = 1 / (factor * factor);
  for (let y = 0; y < side; y++) {
    for (let x = 0; x < side; x++) {
      const i = at + y * stride + x;
      let sum = 0;
      for (let n = 0; n < count; n++) {
        const first = i32[list + 2 * n] + y * factor * width + x * factor;
        let cells = 0;
        for (let j = 0; j < factor; j++) for (let k = 0; k < factor; k++) cells += f32[first + j * width + k];
        sum += cells * f32[list + 2 * n + 1];
      }
      const covered = f32[share + i];
      if (covered <= 0) {
        f32[i32[block + B.mass] + i] = 0;
        f32[i32[block + B.stream] + i] = 0;
        f32[i32[block + B.nextA] + i] = 0;
        continue;
      }
      const o = open + i;
      const free = Math.min(f32[o], f32[o - 1], f32[o - stride], f32[o - stride - 1]);
      f32[i32[block + B.stream] + i] =
        f32[i32[block + B.currents] + bed + y * i32[block + B.bedStride] + x] * free * f32[block + B.step];
      const mass = (sum * inverse) / Math.max(0.2, covered);
      f32[i32[block + B.mass] + i] = mass;
      const l = load + i;
      const own = f32[l];
      const at4 = (d: number) => (f32[share + i + d] > 0 ? f32[l + d] : own);
      const smooth = blur * mass + around * (at4(-1) + at4(1) + at4(-stride) + at4(stride));
      f32[i32[block + B.nextA] + i] = smooth < 1e-9 ? 0 : smooth;
    }
  }
}

/** Takes over the smoothed load that `weighPaint` left. */
export function adoptLoad(f32: Float32Array, i32: Int32Array, block: number, at: number): void {
  const side = i32[block + B.side];
  for (let y = 0; y < side; y++) {
    const row = at + y * i32[block + B.stride];
    copy(f32, i32[block + B.nextA] + row, i32[block + B.load] + row, side);
  }
}

/**
 * Velocities of paint at the faces: of the film, of spreading into thinner paint or clear water, of the mingling
 * currents, and towards the rim, where the film is pinned and dries first (Deegan et al. 1997).
 * @returns the fastest beyond the film's own, reference cells a step
 */
export function pushPaint(f32: Float32Array, i32: Int32Array, block: number, at: number, bed: number): number {
  const stride = i32[block + B.stride];
  const side = i32[block + B.side];
  const share = i32[block + B.share];
  const open = i32[block + B.open];
  const load = i32[block + B.load];
  const rim = i32[block + B.rim];
  const stream = i32[block + B.stream];
  const most = f32[block + B.fastest];
  const traces = f32[block + B.traces];
  let fastest = 0;
  let drift = 0;
  /** Step of the load at a face, against what is there: -1..1. */
  const stepAt = (i: number, back: number) => {
    if (f32[share + i - back] <= 0) return 0;
    const s = (f32[load + i - back] - f32[load + i]) / (f32[load + i - back] + f32[load + i] + traces);
    return s > STANDS ? s - STANDS : s < -STANDS ? s + STANDS : 0;
  };
  const face = (out: number, film: number, i: number, back: number, current: number, spread: number, steep: number) => {
    if (f32[share + i] <= 0 || f32[share + i - back] <= 0) {
      f32[out + i] = 0;
      return;
    }
    const free = Math.min(f32[open + i - back], f32[open + i]);
    const a = current + drift * (f32[rim + i - back] - f32[rim + i]) + free * spread * steep;
    fastest = Math.max(fastest, Math.abs(a));
    const sum = a + f32[film + i];
    f32[out + i] = sum > most ? most : sum < -most ? -most : sum;
  };
  for (let y = 0; y < side; y++) {
    for (let x = 0; x < side; x++) {
      const i = at + y * stride + x;
      const ground = bed + y * i32[block + B.bedStride] + x;
      const lobe = f32[i32[block + B.lobes] + ground];
      const spread = Math.min(
        f32[block + B.spreadMost],
        f32[block + B.disperse] *
          f32[i32[block + B.permeable] + ground] *
          Math.max(0.05, 1 + f32[block + B.fingers] * lobe),
      );
      drift = f32[block + B.rimDrift] * Math.max(0.1, 1 + f32[block + B.rimUneven] * lobe);
      const s = f32[stream + i];
      const sx = stepAt(i, 1);
      const sy = stepAt(i, stride);
      // as fast aslant as along the axes
      const aslant = spread / Math.sqrt(Math.max(1, sx * sx + sy * sy));
      face(i32[block + B.paintU], i32[block + B.u], i, 1, f32[stream + i + stride] - s, aslant, sx);
      face(i32[block + B.paintV], i32[block + B.v], i, stride, s - f32[stream + i + 1], aslant, sy);
    }
  }
  return fastest;
}

/** Differences of load below this stay: a brush's path, a pool. */
const STANDS = 0.07;
/** How far a neighbour's cover pushes on: not before half of it is covered. */
const ahead = (most: number, has: number) => clamp01(2 * most - 1) * clamp01(4 * (most - has));
const clamp01 = (v: number) => (v < 0 ? 0 : v > 1 ? 1 : v);
const copy = (f32: Float32Array, from: number, to: number, count: number) => {
  for (let i = 0; i < count; i++) f32[to + i] = f32[from + i];
};
