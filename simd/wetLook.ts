/** What wet paper looks like, in AssemblyScript with SIMD: the twins of src/core/kernels/wetLook.ts. */
import { WET_LOOK } from './layout';

// @ts-ignore: decorator
@inline function get(word: i32): f32 { return load<f32>(<usize>word << 2); }
// @ts-ignore: decorator
@inline function int(word: i32): i32 { return load<i32>(<usize>word << 2); }
// @ts-ignore: decorator
@inline function ld(word: i32): v128 { return v128.load(<usize>word << 2); }
// @ts-ignore: decorator
@inline function st(word: i32, v: v128): void { v128.store(<usize>word << 2, v); }
// @ts-ignore: decorator
@inline function lanes(v: f32): v128 { return f32x4.splat(v); }

export function waterLooks(block: i32, count: i32): void {
  const share = int(block + WET_LOOK.share), water = int(block + WET_LOOK.water), moisture = int(block + WET_LOOK.moisture), cover = int(block + WET_LOOK.cover);
  const looks = int(block + WET_LOOK.looks), film = int(block + WET_LOOK.film), shift = int(block + WET_LOOK.shift), phase = int(block + WET_LOOK.phase);
  const wetOver = get(block + WET_LOOK.wetOver), dampOver = get(block + WET_LOOK.dampOver);
  for (let x = 0; x < count; x++) {
    const i = (phase + x) >> shift;
    const p = get(share + i);
    const depth: f32 = p > 0 ? get(water + i) / p : 0;
    const covered = get(cover + x);
    const wet = covered * min(<f32>1, depth * wetOver);
    store<f32>(<usize>(film + x) << 2, depth * covered);
    store<f32>(<usize>(looks + x) << 2, min(<f32>1, max(wet, dampOver * get(moisture + i))));
  }
}

export function dampen(count: i32, looks: i32, share: f32, bands: i32, reflectance: i32, bandStride: i32): void {
  for (let x = 0; x < count; x += 4) {
    const keeps = f32x4.sub(lanes(1), f32x4.mul(lanes(share), ld(looks + x)));
    for (let b = 0, at = reflectance + x; b < bands; b++, at += bandStride) st(at, f32x4.mul(ld(at), keeps));
  }
}

export function sumCoats(count: i32, list: i32, planes: i32, first: i32, looks: i32, deepens: f32, to: i32): void {
  for (let x = 0; x < count; x += 4) {
    let sum = lanes(0);
    for (let n = 0; n < planes; n++) sum = f32x4.add(sum, ld(int(list + n) + first + x));
    if (looks != 0) sum = f32x4.mul(sum, f32x4.add(lanes(1), f32x4.mul(lanes(deepens), ld(looks + x))));
    st(to + x, sum);
  }
}

export function wetSurface(count: i32, film: i32, wax: i32, relief: i32, codes: i32, sheen: f32): void {
  for (let x = 0; x < count; x++) {
    const depth = get(film + x);
    let gloss: f32 = wax != 0 ? 30 * get(wax + x) : 0;
    if (depth > 0) {
      const um = get(relief + x);
      store<f32>(<usize>(relief + x) << 2, um + (depth * 75 - um) * min(<f32>1, depth * <f32>(1 / 0.6)));
      gloss += min(<f32>110, 40 + 120 * depth);
    }
    if (gloss > 0) store<i32>(<usize>(codes + x) << 2, (int(codes + x) & 0x00ffffff) | (<i32>(sheen + min(<f32>127, gloss)) << 24));
  }
}
