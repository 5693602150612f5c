/** Relief and sheen: the twins of src/core/kernels/surfaceLook.ts. */

// @ts-ignore: decorator
@inline function f(word: i32): v128 { return v128.load(<usize>word << 2); }
// @ts-ignore: decorator
@inline function lanes(v: f32): v128 { return f32x4.splat(v); }
/** Nothing is written beyond the row. */
// @ts-ignore: decorator
@inline function put(word: i32, v: v128, left: i32): void {
  const to = <usize>word << 2;
  if (left > 3) {
    v128.store(to, v);
    return;
  }
  v128.store32_lane(to, v, 0);
  if (left > 1) v128.store32_lane(to, v, 1, 4);
  if (left > 2) v128.store32_lane(to, v, 2, 8);
}

const SHEEN: f32 = 128;

export function groundSurface(columns: i32, rows: i32, shading: f32, um: i32, codes: i32, pitch: i32, relief: i32, picture: i32, row: i32): void {
  const s = lanes(shading), colour = i32x4.splat(0x00ffffff), own = i32x4.splat(<i32>SHEEN << 24);
  for (let y = 0; y < rows; y++, relief += row, picture += row) {
    const from = y * pitch;
    for (let x = 0; x < columns; x += 4) {
      let height = f32x4.mul(f(relief + x), s), sheen = own;
      if (codes != 0) {
        height = f32x4.add(height, f(um + from + x));
        sheen = v128.andnot(f(codes + from + x), colour);
      }
      put(relief + x, height, columns - x);
      put(picture + x, v128.or(v128.and(f(picture + x), colour), sheen), columns - x);
    }
  }
}

export function filmSurface(columns: i32, rows: i32, dryShare: f32, wetShare: f32, sealed: i32, volume: i32, solvent: i32, lean: i32, off: i32, shares: i32, pitch: i32, relief: i32, picture: i32, row: i32): void {
  const zero = lanes(0), one = lanes(1), most = lanes(127), colour = i32x4.splat(0x00ffffff);
  for (let y = 0; y < rows; y++) {
    const first = y * pitch;
    for (let x = 0; x < columns; x += 4) {
      const from = first + x, at = y * row + x;
      let dry = zero, film = zero;
      if (sealed) {
        dry = f32x4.mul(f(sealed + from), lanes(dryShare));
        if (off) dry = f32x4.mul(dry, f32x4.sub(one, f(off + from)));
      }
      if (volume) film = f(volume + from);
      let wet = f32x4.mul(film, lanes(wetShare));
      if (shares) {
        const seen = f(shares + from);
        dry = f32x4.mul(dry, seen);
        wet = f32x4.mul(wet, seen);
      }
      const all = f32x4.add(dry, wet);
      const there = f32x4.gt(all, zero);
      if (!v128.any_true(there)) continue;
      const left = columns - x;
      const height = f(relief + at);
      put(relief + at, f32x4.add(height, v128.and(all, there)), left);
      let gloss = f32x4.pmin(f32x4.add(f32x4.mul(wet, lanes(3)), f32x4.pmin(f32x4.mul(dry, lanes(1.5)), lanes(55))), most);
      if (solvent != 0 || lean != 0) {
        const soaked = f32x4.gt(wet, one);
        const dried = lean ? f(lean + from) : zero;
        const thinned = solvent ? f32x4.div(f32x4.mul(f(solvent + from), lanes(120)), f32x4.pmax(film, lanes(1e-6))) : zero;
        const thin = v128.bitselect(thinned, dried, soaked);
        const matte = f32x4.pmin(f32x4.mul(f32x4.pmax(f32x4.sub(thin, lanes(0.25)), zero), lanes(2)), one);
        const dull = f32x4.mul(f32x4.mul(matte, most), f32x4.pmin(f32x4.mul(all, lanes(0.1)), one));
        gloss = f32x4.sub(f32x4.mul(gloss, f32x4.sub(one, matte)), dull);
      }
      const sheen = i32x4.shl(i32x4.trunc_sat_f32x4_s(f32x4.add(gloss, lanes(SHEEN))), 24);
      const code = f(picture + at);
      put(picture + at, v128.bitselect(v128.or(v128.and(code, colour), sheen), code, there), left);
    }
  }
}
