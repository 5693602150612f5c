/**
 * Every hot loop compiled and plain, in turn on the same work, as JSON: the ratio is what counts.
 *   npm run bench:kernels
 */
import { BANDS } from '@/core/colour/bands';
import { encodeSrgb } from '@/core/colour/colorimetry';
import { Arena } from '@/core/film/arena';
import { Flow } from '@/core/flow/flowing';
import { BLADE } from '@/core/kernels/blade';
import { CODE_STEPS } from '@/core/kernels/colour';
import { CONTACT } from '@/core/kernels/contact';
import { plainKernels, simdKernels, type Kernels } from '@/core/kernels/kernels';
import { aimLamp, RELIGHT } from '@/core/kernels/relight';
import { randomFrom } from '@/core/surface/noise';
import { WET_PX, wetSheet } from './wetPaper';

const arena = new Arena(512 * 2 ** 20);
const random = randomFrom(3);
const plane = (words: number, value: (i: number) => number = () => 0) => {
  const at = arena.allocate(words * 4) >> 2;
  for (let i = 0; i < words; i++) arena.f32[at + i] = value(i);
  return at;
};
const pair = { simd: simdKernels(arena)!, plain: plainKernels(arena) };

/** Units a second of both kinds, measured in turn, best of several rounds, and their ratio. */
function compare(units: number, work: (k: Kernels) => void): { simd: number; plain: number; ratio: number } {
  const best = { simd: 0, plain: 0 };
  for (let round = 0; round < 7; round++) {
    for (const kind of ['simd', 'plain'] as const) {
      const start = performance.now();
      let runs = 0;
      do {
        work(pair[kind]);
        runs++;
      } while (performance.now() - start < 60);
      best[kind] = Math.max(best[kind], (units * runs * 1000) / (performance.now() - start));
    }
  }
  const three = (v: number) => Number(v.toPrecision(3));
  return { simd: three(best.simd), plain: three(best.plain), ratio: three(best.simd / best.plain) };
}

const figures: Record<string, unknown> = {};
const side = 256;
const n = 8;

// film to reflectance, five pigments in eight bands, rows of 64
{
  const planes = Array.from({ length: 5 }, () => plane(68, () => 0.1 * random()));
  const list = plane(8);
  planes.forEach((p, i) => (arena.i32[list + i] = p));
  const thickness = plane(68, () => 40 + 60 * random());
  const tables = plane(80, (j) => {
    const pigment = [0, 5, 15, 27, 33][Math.floor(j / 2) % 5];
    return (j % 2 ? BANDS.S : BANDS.K)[pigment * 8 + Math.floor(j / 10)];
  });
  const run = plane(64 * 8, () => 0.7);
  figures['film over substrate, 5 pigments, 8 bands, px'] = compare(64 * 200, (k) => {
    for (let i = 0; i < 200; i++) k.filmOver(64, 1, list, 0, 5, thickness, 0, tables, 8, run, 64);
  });
  const codes = arena.allocate(CODE_STEPS + 1);
  const matrix = plane(24, () => 0.1);
  const out = plane(68);
  figures['bands to sRGB codes, px'] = compare(64 * 200, (k) => {
    for (let i = 0; i < 200; i++) k.bandsToCodes(64, 1, run, 64, 8, matrix, 0.005, 0.5, codes, CODE_STEPS, out, 64);
  });
}
// light
{
  const albedo = plane(side * side);
  for (let i = 0; i < side * side; i++) arena.u32[albedo + i] = (random() * 2 ** 32) >>> 0;
  const relief = plane(side * side, () => 100 * random());
  const codes = arena.allocate(CODE_STEPS + 1);
  for (let i = 0; i <= CODE_STEPS; i++) arena.u8[codes + i] = Math.round(255 * encodeSrgb(i / CODE_STEPS));
  const block = plane(RELIGHT.words);
  arena.i32.set([side, side, albedo, relief, plane(side * side), plane(256, (i) => (i / 255) ** 2.2), codes], block);
  arena.f32.set([CODE_STEPS, 0.006], block + RELIGHT.steps);
  aimLamp(arena.f32, arena.i32, block, { azimuth: 320, elevation: 35, room: 0.4, finish: 0.5, warmth: 0 });
  figures['light, px'] = compare(side * side, (k) => k.relight(block, 0, 0, side, side));
}
// contact of a brush 100 cells wide with wet paint of five pigments
{
  const cells = side * side;
  const film = plane(cells * 2 * n, (i) => (i % (2 * n) < n ? 20 + 30 * random() : 10 * random()));
  const brush = 120;
  const block = arena.allocate(CONTACT.words * 4);
  const b = block >> 2;
  arena.f32.set([60, 0.8, 35, 0.7, 0.05, 0.05, 0.2, 1 / 16, 0.6, 1, 8], b);
  arena.f32[b + CONTACT.stain] = 5;
  arena.f32[b + CONTACT.shear] = 0.1;
  arena.f32[b + CONTACT.onTop] = 0.5;
  const cellMap = arena.allocate(120 * 40 * 4) >> 2;
  for (let i = 0; i < 120 * 40; i++)
    arena.i32[cellMap + i] = Math.floor(random() * brush) * 4 + Math.floor(random() * 3);
  const at = {
    channels: n,
    film,
    relief: plane(cells, () => 40 * random()),
    body: plane(cells),
    laid: plane(cells),
    fresh: plane(cells),
    tip: plane(brush * n, () => 60 * random()),
    profile: plane(2 * 120 * 40 + 4, (i) => (i % 2 ? random() : 20 * random())),
    cells: cellMap,
    ride: plane(brush * 2),
    height: plane(brush, () => -20),
    appetite: plane(brush, () => 0.8),
    mapWidth: 120,
    cure: plane(cells),
  };
  for (const [name, v] of Object.entries(at)) arena.i32[b + CONTACT[name as keyof typeof at]] = v;
  [-1, side, 1].forEach((v, i) => (arena.i32[b + CONTACT.aside + i] = v));
  figures['contact, 5 pigments, cells'] = compare(100 * 36, (k) => {
    for (let y = 0; y < 36; y++) k.contactRow(block, (40 + y) * side + 40, 100, 1, 5, y, 1, 0, 300, 0);
  });
  const body = plane(cells, () => 0.4);
  const fresh = plane(cells);
  figures['levelling, 5 pigments, cells'] = compare(cells, (k) => {
    arena.f32.fill(6, fresh, fresh + cells);
    k.levelPass(film, at.relief, body, at.cure, fresh, n, side, 5, 0.2, 1, 1, 1, side - 1, side - 1);
  });
  const blade = plane(BLADE.words);
  const columns = 24;
  const f = {
    cos: 1,
    sin: 0,
    x: 128,
    y: 100,
    half: 52,
    edge: 46,
    column: 104 / columns,
    back: 1.5,
    ahead: 18,
    stand: 60,
    nickScale: 9,
    chatter: 2,
    slope: 30,
    beyondSlope: 120,
    lean: 0,
    leanBase: 0,
    fill: 0.5,
    fillZone: 2.4,
    ceiling: 1,
    ownBody: 0.8,
    passes: 5,
    least: 3,
    carryOff: 0.3,
    standoff: 0.5,
    stir: 0.1,
    buoyancy: 0.5,
  };
  for (const [name, v] of Object.entries(f)) arena.f32[blade + BLADE[name as keyof typeof f]] = v;
  const words = {
    channels: n,
    film,
    relief: at.relief,
    body,
    laid: at.laid,
    fresh,
    cure: at.cure,
    bead: plane(columns * n, () => 3000),
    ride: plane(columns, () => 20),
    nick: plane(columns * 4 + 8, () => random()),
    felt: plane(columns * 3),
    columns,
    width: side,
    x0: 70,
    y0: 90,
    x1: 186,
    y1: 126,
  };
  for (const [name, v] of Object.entries(words)) arena.i32[blade + BLADE[name as keyof typeof words]] = v;
  figures['blade, 5 pigments, cells'] = compare(116 * 36, (k) => k.bladeStamp(blade));
}
// packing of a tile's plane
{
  const from = plane(4096, () => random() ** 3);
  const steps = arena.allocate(8192) >> 1;
  figures['pack, bytes of float'] = compare(4096 * 4 * 20, (k) => {
    for (let i = 0; i < 20; i++) k.packSteps(from, 4096, 1 / 65535, steps);
  });
  figures['unpack, bytes of float'] = compare(4096 * 4 * 20, (k) => {
    for (let i = 0; i < 20; i++) k.unpackSteps(steps, 4096, 1 / 65535, from);
  });
}
// a step of water: all loops of a wash of 512 x 512 cells, and what leads from one to the next
{
  const { studio } = wetSheet(768, 768);
  const { painting } = studio;
  const flows = {
    simd: new Flow(painting, simdKernels(painting.arena)),
    plain: new Flow(painting, plainKernels(painting.arena)),
  };
  figures['step of a wash, cells'] = {
    wetTiles: studio.time.wetTiles,
    ...compare(WET_PX * WET_PX, (k) => flows[k.kind].step(() => {})),
  };
}
console.log(JSON.stringify(figures, null, 2));
