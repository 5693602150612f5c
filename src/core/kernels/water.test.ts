import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { Arena } from '@/core/film/arena';
import { randomFrom } from '@/core/surface/noise';
import { CARRIED, SETTLED } from './carry';
import { plainKernels, simdKernels, type Kernels } from './kernels';
import { WATER } from './water';

/** One tile of water with random depths, cover and pigment, in an arena of its own; the same for the same seed. */
function tileOf(seed: number, factor: 1 | 2 | 4) {
  const arena = new Arena();
  const random = randomFrom(seed);
  const side = 64 / factor;
  const stride = side + 16;
  const coverStride = 80;
  const block = arena.allocate(WATER.words * 4) >> 2;
  const coarse = stride * (side + 4);
  const fine = coverStride * 68;
  const fill = (words: number, value: () => number) => {
    const at = arena.allocate((words + 16) * 4) >> 2;
    for (let i = 0; i < words; i++) arena.f32[at + i] = value();
    return at;
  };
  const wet = Float32Array.from({ length: coarse }, () => (random() < 0.8 ? 1 : random() < 0.5 ? 0 : random()));
  let n = 0;
  const planes: Partial<Record<keyof typeof WATER, number>> = {
    water: fill(coarse, () => wet[n++ % coarse] * 1.6 * random()),
    moisture: fill(coarse, () => 0.25 * random()),
    rim: fill(coarse, random),
    u: fill(coarse, () => 0.4 * (random() - 0.5)),
    v: fill(coarse, () => 0.4 * (random() - 0.5)),
    load: fill(coarse, random),
    share: 0,
    depth: fill(coarse, () => 0),
    open: fill(coarse, random),
    fluxX: fill(coarse, () => 0),
    fluxY: fill(coarse, () => 0),
    mass: fill(coarse, () => 0),
    stream: fill(coarse, () => 0.05 * (random() - 0.5)),
    paintU: fill(coarse, () => 0.3 * (random() - 0.5)),
    paintV: fill(coarse, () => 0.3 * (random() - 0.5)),
    nextA: fill(coarse, () => 0),
    nextB: fill(coarse, () => 0),
    fallX: fill(coarse, () => 0.02 * (random() - 0.5)),
    fallY: fill(coarse, () => 0.02 * (random() - 0.5)),
    cover: fill(fine, () => (random() < 0.85 ? 1 : random())),
    permeable: fill(coarse, () => 0.5 + random()),
    resistance: fill(coarse, () => random() - 0.5),
    lobes: fill(coarse, () => random() - 0.5),
    blotches: fill(coarse, () => random() - 0.5),
    currents: fill(coarse, () => 0.05 * (random() - 0.5)),
    tooth: fill(fine, random),
    bedA: fill(fine, random),
    bedB: fill(fine, random),
    rows: fill(80 * 16, () => 0),
  };
  n = 0;
  planes.share = fill(coarse, () => wet[n++ % coarse]);
  for (const [name, at] of Object.entries(planes)) arena.i32[block + WATER[name as keyof typeof WATER]] = at;
  Object.entries({ stride, coverStride, bedStride: stride, fineStride: coverStride, factor, side }).forEach(
    ([name, v]) => {
      arena.i32[block + WATER[name as keyof typeof WATER]] = v;
    },
  );
  const constants: Partial<Record<keyof typeof WATER, number>> = {
    gravity: 0.2,
    drag: 0.035,
    yielding: 0.35,
    yieldDepth: 0.3,
    uneven: 1.2,
    fastest: 0.45,
    tiltX: 0.01,
    tiltY: -0.02,
    transfer: 0.5,
    openFrom: 0.2,
    openOver: 1.8,
    evaporation: 0.0016,
    rimEvaporation: 4,
    blotchEvaporation: 0.16,
    rimBlur: 0.16,
    absorption: 0.0014,
    capacity: 0.25,
    paperEvaporation: 0.0009,
    capillary: 0.01,
    breaks: 0.02,
    barrierDry: 2.2,
    barrierDamp: 0.1,
    barrierRough: 0.8,
    frontRate: 0.5,
    frontMost: 0.34,
    tension: 0.35,
    relief: 0.85,
    loadBlur: 0.1,
    disperse: 0.5,
    traces: 0.02,
    rimDrift: 0.05,
    step: 1,
    cells: 0.6,
    smear: 1.2,
    rimUneven: 0.8,
    fingers: 0.6,
    spreadMost: 0.6,
    curve: 2,
  };
  for (const [name, v] of Object.entries(constants)) arena.f32[block + WATER[name as keyof typeof WATER]] = v;
  const at = 2 * stride + 4;
  const coverAt = 2 * coverStride + 4;
  const suspended = fill(4096, () => 0.02 * random());
  const settled = fill(4096, () => 0.02 * random());
  const under = fill(4096, () => 0.01 * random());
  const soluble = fill(4096, () => 0.01 * random());
  const list = arena.allocate(64 * 4) >> 2;
  const gains = fill(4096, () => 0);
  return { arena, block, at, coverAt, side, stride, suspended, settled, under, soluble, list, gains, planes };
}
type Made = ReturnType<typeof tileOf>;

/** Runs every loop once in the order of a step. */
function run(kernels: Kernels, t: Made): number[] {
  const { arena, block, at, coverAt, list } = t;
  const out: number[] = [];
  kernels.filmDepth(block, at);
  out.push(kernels.pushWater(block, at, at));
  kernels.shiftWater(block, at);
  out.push(kernels.evaporate(block, at, at));
  kernels.adoptWater(block, at);
  arena.i32[list] = t.suspended;
  arena.f32[list + 1] = 40;
  kernels.weighPaint(block, at, at, list, 1);
  kernels.adoptLoad(block, at);
  out.push(kernels.pushPaint(block, at, at));
  arena.i32.fill(0, list, list + CARRIED.words);
  arena.i32[list] = t.suspended;
  arena.f32.set([0.8, 0.01, 0.008, 0.03], list + CARRIED.mobile);
  kernels.carryX(block, at, coverAt, coverAt, list, 1, 1);
  kernels.carryY(block, at, coverAt, coverAt, list, 1, 1);
  arena.i32.set([t.suspended, t.settled, t.under, t.soluble], list);
  arena.f32.set([0.02, 0.6, 0.01, 0.0005, 0.004, 0.1], list + SETTLED.settle);
  kernels.settlePaint(block, at, coverAt, coverAt, list, 1, 0.4, 3);
  out.push(kernels.advanceFront(block, at, at, coverAt, coverAt, 0, 0, t.gains));
  out.push(kernels.coverFilm(block, at, coverAt, t.gains));
  return out;
}

const sum = (t: Made, plane: number) => t.arena.f32.subarray(plane, plane + 4096).reduce((a, b) => a + b, 0);

describe.each([1, 2, 4] as const)('water, %i cells to a flow cell', (factor) => {
  it('compiled loops do what the plain ones do', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 1e6 }), (seed) => {
        const a = tileOf(seed, factor);
        const b = tileOf(seed, factor);
        const compiled = simdKernels(b.arena)!;
        expect(compiled.kind).toBe('simd');
        const p = run(plainKernels(a.arena), a);
        const q = run(compiled, b);
        p.forEach((v, i) => expect(Math.abs(q[i] - v)).toBeLessThan(1e-4 * (1 + Math.abs(v))));
        const planes = [
          ...Object.values(a.planes).filter((at) => at !== a.planes.rows),
          a.suspended,
          a.settled,
          a.under,
          a.soluble,
        ];
        for (const plane of planes) {
          for (let i = 0; i < 64 * 60; i += 7) {
            expect(Math.abs(a.arena.f32[plane + i] - b.arena.f32[plane + i])).toBeLessThan(2e-4);
          }
        }
      }),
      { numRuns: 12 },
    );
  });

  it('pigment is only moved: within a closed tile nothing is lost', () => {
    const t = tileOf(77, factor);
    const all = () => sum(t, t.suspended) + sum(t, t.settled) + sum(t, t.under) + sum(t, t.soluble);
    const before = all();
    run(simdKernels(t.arena)!, t);
    expect(Math.abs(all() - before) / before).toBeLessThan(1e-5);
    for (let i = 0; i < 4096; i++) expect(t.arena.f32[t.suspended + i]).toBeGreaterThanOrEqual(0);
  });
});
