/** Encoded colours of a run: the twins of src/core/kernels/light.ts. */

// @ts-ignore: decorator
@inline function f(word: i32): v128 { return v128.load(<usize>word << 2); }

// @ts-ignore: decorator
@inline function softLight4(b: v128, s: v128): v128 {
  const one = f32x4.splat(1), four = f32x4.splat(4);
  const lean = f32x4.sub(f32x4.add(s, s), one); // 2 s - 1
  const low = f32x4.mul(b, f32x4.sub(one, b));
  const deep = f32x4.mul(f32x4.add(f32x4.mul(f32x4.sub(f32x4.mul(f32x4.splat(16), b), f32x4.splat(12)), b), four), b);
  const d = v128.bitselect(deep, f32x4.sqrt(b), f32x4.le(b, f32x4.splat(0.25)));
  const way = v128.bitselect(low, f32x4.sub(d, b), f32x4.le(s, f32x4.splat(0.5)));
  return f32x4.add(b, f32x4.mul(lean, way));
}

export function blendPixels(count: i32, rows: i32, mode: i32, rgb: i32, stride: i32, pixels: i32, shares: i32, opacity: f32): void {
  const byte = f32x4.splat(<f32>(1.0 / 255.0)), low = i32x4.splat(255);
  for (let first = 0; first < rows << 6; first += 64) {
    for (let x = first, end = first + count; x < end; x += 4) {
      const v = f(pixels + x);
      let alpha = f32x4.mul(f32x4.mul(f32x4.convert_i32x4_s(i32x4.shr_u(v, 24)), byte), f32x4.splat(opacity));
      if (!v128.any_true(alpha)) continue;
      if (shares) alpha = f32x4.mul(alpha, f(shares + x));
      for (let c = 0; c < 3; c++) {
        const at = <usize>(rgb + c * stride + x) << 2;
        const b = v128.load(at);
        const s = f32x4.mul(f32x4.convert_i32x4_s(v128.and(i32x4.shr_u(v, 8 * c), low)), byte);
        let blended = s;
        if (mode == 1) blended = f32x4.mul(b, s);
        else if (mode == 2) blended = f32x4.sub(f32x4.add(b, s), f32x4.mul(b, s));
        else if (mode == 3) blended = softLight4(b, s);
        v128.store(at, f32x4.add(b, f32x4.mul(alpha, f32x4.sub(blended, b))));
      }
    }
  }
}


export function throughTables(count: i32, rows: i32, rgb: i32, stride: i32, tables: i32, steps: f32): void {
  const zero = f32x4.splat(0), one = f32x4.splat(1), n = f32x4.splat(steps);
  const length = <i32>steps + 2;
  for (let c = 0; c < 3; c++) {
    const table = tables + c * length;
    for (let first = 0; first < rows << 6; first += 64) {
      for (let x = first, end = first + count; x < end; x += 4) {
        const at = <usize>(rgb + c * stride + x) << 2;
        const t = f32x4.mul(f32x4.pmax(f32x4.pmin(v128.load(at), one), zero), n);
        const i = i32x4.trunc_sat_f32x4_s(t);
        const part = f32x4.sub(t, f32x4.convert_i32x4_s(i));
        const i0 = table + i32x4.extract_lane(i, 0), i1 = table + i32x4.extract_lane(i, 1);
        const i2 = table + i32x4.extract_lane(i, 2), i3 = table + i32x4.extract_lane(i, 3);
        // two neighbours of each at once
        const p = v128.load64_zero(<usize>i0 << 2), q = v128.load64_zero(<usize>i1 << 2);
        const r = v128.load64_zero(<usize>i2 << 2), s = v128.load64_zero(<usize>i3 << 2);
        const pq = v128.shuffle<f32>(p, q, 0, 4, 1, 5), rs = v128.shuffle<f32>(r, s, 0, 4, 1, 5);
        const a = v128.shuffle<f32>(pq, rs, 0, 1, 4, 5), b = v128.shuffle<f32>(pq, rs, 2, 3, 6, 7);
        v128.store(at, f32x4.add(a, f32x4.mul(part, f32x4.sub(b, a))));
      }
    }
  }
}

export function coloursToCodes(count: i32, rows: i32, rgb: i32, stride: i32, out: i32, outRow: i32): void {
  const n = f32x4.splat(255), half = f32x4.splat(0.5);
  for (let y = 0; y < rows; y++) {
    for (let x = 0; x < count; x += 4) {
      const from = rgb + (y << 6) + x;
      const r = i32x4.trunc_sat_f32x4_s(f32x4.add(f32x4.mul(f(from), n), half));
      const g = i32x4.trunc_sat_f32x4_s(f32x4.add(f32x4.mul(f(from + stride), n), half));
      const b = i32x4.trunc_sat_f32x4_s(f32x4.add(f32x4.mul(f(from + 2 * stride), n), half));
      const code = v128.or(v128.or(r, i32x4.shl(g, 8)), v128.or(i32x4.shl(b, 16), i32x4.splat(0xff000000)));
      const to = <usize>(out + y * outRow + x) << 2, left = count - x;
      if (left > 3) {
        v128.store(to, code);
        continue;
      }
      store<i32>(to, i32x4.extract_lane(code, 0));
      if (left > 1) store<i32>(to, i32x4.extract_lane(code, 1), 4);
      if (left > 2) store<i32>(to, i32x4.extract_lane(code, 2), 8);
    }
  }
}
