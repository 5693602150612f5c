import type { Arena } from '@/core/film/arena';
import { addShare, gather, scatter, tidy, type Mover } from '@/core/film/packing/interleave';
import { highest, packSteps, unpackSteps } from '@/core/film/packing/stratum';
import { bladeStamp } from './blade';
import { bandsToCodes, bandsToColours, filmOver } from './colour';
import { SHARED, UNSHARED } from './compiled';
import { carryX, carryY, settlePaint } from './carry';
import { contactRow } from './contact';
import { levelPass } from './levelling';
import { blendPixels, coloursToCodes, throughTables } from './light';
import { relight, RELIGHT, RELIGHT_REACH } from './relight';
import { adoptWater, evaporate, filmDepth, pushWater, shiftWater } from './water';
import { advanceFront, coverFilm } from './waterFront';
import { adoptLoad, pushPaint, weighPaint } from './waterPaint';
import { filmSurface, groundSurface } from './surfaceLook';
import { dampen, sumCoats, waterLooks, wetSurface } from './wetLook';

/** The loops of water, of what it carries and of what it looks like: all take (f32, i32, ...). */
const FLOWING = {
  filmDepth,
  pushWater,
  shiftWater,
  evaporate,
  adoptWater,
  advanceFront,
  coverFilm,
  weighPaint,
  adoptLoad,
  pushPaint,
  carryX,
  carryY,
  settlePaint,
  waterLooks,
  dampen,
  sumCoats,
  wetSurface,
};
type Flowing = { readonly [K in keyof typeof FLOWING]: Bound<(typeof FLOWING)[K], [Float32Array, Int32Array]> };

/** Drops the views of the memory from a plain kernel's parameters. */
type Bound<F, Views extends unknown[]> = F extends (...all: [...Views, ...infer Rest]) => infer R
  ? (...rest: Rest) => R
  : never;

/** The hot loops, bound to one arena. What each does is told at its plain form. */
export interface Kernels extends Flowing {
  readonly kind: 'simd' | 'plain';
  readonly contactRow: Bound<typeof contactRow, [Float32Array, Int32Array]>;
  readonly bladeStamp: Bound<typeof bladeStamp, [Float32Array, Int32Array]>;
  readonly levelPass: Bound<typeof levelPass, [Float32Array]>;
  readonly filmOver: Bound<typeof filmOver, [Float32Array, Int32Array]>;
  readonly bandsToCodes: Bound<typeof bandsToCodes, [Float32Array, Uint32Array, Uint8Array]>;
  readonly bandsToColours: Bound<typeof bandsToColours, [Float32Array]>;
  readonly blendPixels: Bound<typeof blendPixels, [Float32Array, Uint32Array]>;
  readonly throughTables: Bound<typeof throughTables, [Float32Array]>;
  readonly coloursToCodes: Bound<typeof coloursToCodes, [Float32Array, Uint32Array]>;
  readonly groundSurface: Bound<typeof groundSurface, [Float32Array, Uint32Array]>;
  readonly filmSurface: Bound<typeof filmSurface, [Float32Array, Uint32Array]>;
  readonly relight: Bound<typeof relight, [Float32Array, Int32Array, Uint32Array, Uint8Array]>;
  readonly gather: Mover['gather'];
  readonly scatter: Mover['scatter'];
  readonly tidy: Mover['tidy'];
  readonly addShare: Mover['addShare'];
  /** Packing of planes that lie in the arena: word addresses of floats, addresses of steps in units of two bytes. */
  readonly highest: Bound<typeof highest, [Float32Array]>;
  readonly packSteps: Bound<typeof packSteps, [Float32Array, Uint16Array]>;
  readonly unpackSteps: Bound<typeof unpackSteps, [Float32Array, Uint16Array]>;
}

/** The plain loops on an arena: for machines without SIMD, and as the oracle in tests. */
export const plainKernels = (arena: Arena): Kernels => ({
  kind: 'plain',
  ...(Object.fromEntries(
    Object.entries(FLOWING).map(([name, loop]) => [
      name,
      (...p: number[]) => (loop as (...all: unknown[]) => unknown)(arena.f32, arena.i32, ...p),
    ]),
  ) as unknown as Flowing),
  contactRow: (...p) => contactRow(arena.f32, arena.i32, ...p),
  bladeStamp: (...p) => bladeStamp(arena.f32, arena.i32, ...p),
  levelPass: (...p) => levelPass(arena.f32, ...p),
  filmOver: (...p) => filmOver(arena.f32, arena.i32, ...p),
  bandsToCodes: (...p) => bandsToCodes(arena.f32, arena.u32, arena.u8, ...p),
  bandsToColours: (...p) => bandsToColours(arena.f32, ...p),
  blendPixels: (...p) => blendPixels(arena.f32, arena.u32, ...p),
  throughTables: (...p) => throughTables(arena.f32, ...p),
  coloursToCodes: (...p) => coloursToCodes(arena.f32, arena.u32, ...p),
  groundSurface: (...p) => groundSurface(arena.f32, arena.u32, ...p),
  filmSurface: (...p) => filmSurface(arena.f32, arena.u32, ...p),
  relight: (...p) => relight(arena.f32, arena.i32, arena.u32, arena.u8, ...p),
  gather: (...p) => gather([arena.f32, arena.i32], ...p),
  scatter: (...p) => scatter([arena.f32, arena.i32], ...p),
  tidy: (...p) => tidy([arena.f32, arena.i32], ...p),
  addShare: (...p) => addShare([arena.f32, arena.i32], ...p),
  highest: (...p) => highest(arena.f32, ...p),
  packSteps: (...p) => packSteps(arena.f32, arena.u16, ...p),
  unpackSteps: (...p) => unpackSteps(arena.f32, arena.u16, ...p),
});

const modules = new Map<string, WebAssembly.Module | undefined>();

/** The compiled module for a kind of memory; undefined where the machine has no SIMD. */
function moduleFor(bytes: string): WebAssembly.Module | undefined {
  if (!modules.has(bytes)) {
    const binary = Uint8Array.from(atob(bytes), (c) => c.charCodeAt(0));
    modules.set(bytes, WebAssembly.validate(binary) ? new WebAssembly.Module(binary) : undefined);
  }
  return modules.get(bytes);
}

/** The compiled loops on an arena, or undefined where the machine cannot run them. */
export function simdKernels(arena: Arena): Kernels | undefined {
  const shared = typeof SharedArrayBuffer !== 'undefined' && arena.memory.buffer instanceof SharedArrayBuffer;
  const compiled = moduleFor(shared ? SHARED : UNSHARED);
  if (!compiled) return undefined;
  const instance = new WebAssembly.Instance(compiled, { env: { memory: arena.memory } });
  const loops = instance.exports as unknown as Omit<Kernels, 'kind'>;
  return { kind: 'simd', ...loops, relight: inside(arena, loops.relight) };
}

/** Leaves the cells near the picture's edges, whose neighbours are missing, to the plain loop. */
const inside =
  (arena: Arena, compiled: Kernels['relight']): Kernels['relight'] =>
  (block, x0, y0, x1, y1) => {
    const edge = RELIGHT_REACH;
    const left = Math.min(x1, Math.max(x0, edge));
    const top = Math.min(y1, Math.max(y0, edge));
    const right = Math.max(left, Math.min(x1, arena.i32[block + RELIGHT.width] - edge - 3));
    const bottom = Math.max(top, Math.min(y1, arena.i32[block + RELIGHT.height] - edge));
    compiled(block, left, top, right, bottom);
    const plain = (a: number, b: number, c: number, d: number) => {
      if (c > a && d > b) relight(arena.f32, arena.i32, arena.u32, arena.u8, block, a, b, c, d);
    };
    plain(x0, y0, x1, top);
    plain(x0, bottom, x1, y1);
    plain(x0, top, left, bottom);
    plain(right, top, x1, bottom);
  };

const chosen = new WeakMap<Arena, Kernels>();

/** The fastest loops that this machine can run, for an arena. */
export function kernelsFor(arena: Arena): Kernels {
  let kernels = chosen.get(arena);
  if (!kernels) {
    kernels = simdKernels(arena) ?? plainKernels(arena);
    chosen.set(arena, kernels);
  }
  return kernels;
}
