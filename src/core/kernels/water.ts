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

/** @returns `v` held between nothing and all */
export const clamp01 = (v: number) => (v < 0 ? 0 : v > 1 ? 1 : v);
/** Copies a run of words. */
export const copy = (f32: Float32Array, from: number, to: number, count: number) => {
  for (let i = 0; i < count; i++) f32[to + i] = f32[from + i];
};
