/**
 * The hot loops in AssemblyScript with SIMD: the twins of src/core/kernels/plain*.ts, which say what they do and are
 * the oracle of their tests. Same parameters, by address; no statics and no heap, for many instances share one
 * memory. Addresses are in words of four bytes, as the plain twins index typed arrays.
 *   npm run kernels
 */
import { BLADE, CONTACT, RELIGHT } from './layout';

// @ts-ignore: decorator
@inline function get(word: i32): f32 { return load<f32>(<usize>word << 2); }
// @ts-ignore: decorator
@inline function set(word: i32, v: f32): void { store<f32>(<usize>word << 2, v); }
// @ts-ignore: decorator
@inline function int(word: i32): i32 { return load<i32>(<usize>word << 2); }

export function contactRow(block: i32, cell0: i32, count: i32, step: i32, u0: f32, v0: f32, du: f32, dv: f32, depth0: f32, dDepth: f32): i32 {
  const p = block >> 2;
  const roughness = get(p + CONTACT.roughness), hang = get(p + CONTACT.hang), softness = get(p + CONTACT.softness), sink = get(p + CONTACT.sink), give = get(p + CONTACT.give), take = get(p + CONTACT.take);
  const plough = get(p + CONTACT.plough), areaInverse = get(p + CONTACT.cellAreaInverse), carriedBody = get(p + CONTACT.stiffness), ceiling = get(p + CONTACT.ceiling), passes = get(p + CONTACT.passes);
  const n = int(p + CONTACT.channels), film = int(p + CONTACT.film), relief = int(p + CONTACT.relief), body = int(p + CONTACT.body), laid = int(p + CONTACT.laid), fresh = int(p + CONTACT.fresh);
  const tip = int(p + CONTACT.tip), profile = int(p + CONTACT.profile), cells = int(p + CONTACT.cells), ride = int(p + CONTACT.ride), height = int(p + CONTACT.height), appetite = int(p + CONTACT.appetite);
  const mapWidth = int(p + CONTACT.mapWidth), aside = p + CONTACT.aside, cure = int(p + CONTACT.cure), stain = get(p + CONTACT.stain), shear = get(p + CONTACT.shear), onTop = f32x4.splat(get(p + CONTACT.onTop));
  const hair = int(p + CONTACT.hair), follow = get(p + CONTACT.follow), hold = get(p + CONTACT.hold);
  const vol = n - 1;
  let cell = cell0, touched = 0;
  for (let k = 0; k < count; k++) {
    // positions from the row's start, so that no rounding adds up
    const fk = <f32>k;
    const u = u0 + du * fk, v = v0 + dv * fk, depth = depth0 + dDepth * fk;
    const here = cell;
    cell += step;
    const ui = <i32>u;
    const at = <i32>v * mapWidth + ui;
    const z = profile + (at << 1);
    let lift = get(z) - depth;
    if (lift > 320) continue;
    if (lift < 0) lift = 0;
    const code = int(cells + at);
    const c = code >> 2;
    const o = film + 2 * here * n;
    const q = tip + c * n;
    const t = get(o + vol);
    const carried = get(q + vol);
    const h = get(relief + here);
    const r = ride + (c << 1);
    set(r, get(r) + h + sink * t);
    set(r + 1, get(r + 1) + 1);
    const bristle = get(z + 1);
    const off = get(hair + ui), part = u - <f32>ui;
    const stiff: f32 = carried < 125 ? follow + ((<f32>1 - follow) * carried) / <f32>125 : <f32>1;
    const hc = height + (c << 1);
    let gap = lift + (bristle + part * (get(z + 3) - bristle)) * roughness + (off + part * (get(hair + ui + 1) - off)) + get(hc) + stiff * (get(hc + 1) - h);
    if (gap < 0) gap = 0;
    const overlap = t + hang * carried - gap;
    if (overlap <= 0) continue;
    touched++;
    const contact = overlap / (overlap + (carried < 100 ? softness * (<f32>0.15 + <f32>0.0085 * carried) : softness));
    const fits = gap + <f32>18 + <f32>0.1 * carried;
    const dried = get(cure + here);
    const open = <f32>1 - dried;
    let fd: f32 = carried > hold ? give * contact * (<f32>1 - hold / carried) : <f32>0;
    if (dried > 0) {
      fd *= <f32>1 + <f32>4 * dried * open;
      if (fd > <f32>0.95) fd = <f32>0.95;
    }
    const full = fd * carried;
    if (full > fits - t) fd = fits - t > <f32>0.5 * full ? (fits - t) / carried : <f32>0.5 * fd;
    let given = fd * carried;
    const own = get(laid + here);
    if (ceiling < 1) {
      const left = ceiling * fits - own;
      if (given > left) {
        given = left > 0 ? left : 0;
        fd = carried > 0 ? given / carried : 0;
      }
    }
    set(laid + here, own + given);
    const free = t - stain;
    const fp = free > 0 ? (take * get(appetite + c) * contact * free * open * open * open) / t : <f32>0;
    const t2 = t + given - fp * t;
    let fr: f32 = 0;
    const surplus = t2 - gap - stain;
    if (surplus > 2) {
      fr = (plough * surplus * open) / t2;
      if (fr > <f32>0.6) fr = <f32>0.6;
    }
    if (given > 0) {
      const b = get(body + here);
      set(body + here, b + ((carriedBody - b) * given) / (t2 + <f32>1e-4));
    }
    if (dried > 0) set(cure + here, t2 > 0 ? (dried * (t - fp * t)) / t2 : <f32>0);
    set(fresh + here, passes);
    const top = get(o + n + vol);
    const taken = fp * t;
    let w: f32 = top / (top + <f32>40);
    if (w * taken > <f32>0.9 * top) w = taken > 0 ? (<f32>0.9 * top) / taken : <f32>0;
    const dp = fp * (<f32>1 - w);
    const sk: f32 = top > 0 ? (w * taken) / top : <f32>0;
    let keep: f32 = <f32>1 - shear * contact;
    const older = top - own;
    if (older > 0 && given > 0) keep *= <f32>1 - ((older / top) * given) / (given + older + <f32>1);
    const stayShare = <f32>1 - fr;
    const skinShare = (<f32>1 - dp - sk) * keep;
    const deep = f32x4.splat(dp), skim = f32x4.splat(sk), stay = f32x4.splat(stayShare), skin = f32x4.splat(stayShare * skinShare);
    const lands = f32x4.splat(fd * stayShare);
    const up = f32x4.splat(areaInverse);
    const rest = f32x4.splat(<f32>1 - fd * areaInverse);
    const half = <usize>n << 2;
    let po = <usize>o << 2, pq = <usize>q << 2;
    const end = po + half;
    if (fr > 0) {
      const target = here + int(aside + (code & 3));
      const w2 = film + 2 * target * n;
      const movesTip: f32 = fd * fr;
      set(fresh + target, passes);
      const moved = fr * (t - taken) + movesTip * carried;
      const share = moved / (get(w2 + vol) + moved + <f32>1e-4);
      const bt = get(body + target), ct = get(cure + target);
      set(body + target, bt + (get(body + here) - bt) * share);
      set(cure + target, ct + (get(cure + here) - ct) * share);
      const mf = f32x4.splat(fr), ms = f32x4.splat(fr * skinShare), mt = f32x4.splat(movesTip);
      let pw = <usize>w2 << 2;
      for (; po < end; po += 16, pq += 16, pw += 16) {
        const m = v128.load(po), s = v128.load(po + half), b = v128.load(pq);
        const lifted = f32x4.add(f32x4.mul(deep, m), f32x4.mul(skim, s));
        const a = f32x4.sub(m, lifted), given4 = f32x4.mul(mt, b), landed = f32x4.mul(lands, b);
        v128.store(pw, f32x4.add(v128.load(pw), f32x4.add(f32x4.mul(mf, a), given4)));
        v128.store(pw + half, f32x4.add(v128.load(pw + half), f32x4.add(f32x4.mul(ms, s), f32x4.mul(onTop, given4))));
        v128.store(po, f32x4.add(f32x4.mul(stay, a), landed));
        v128.store(po + half, f32x4.add(f32x4.mul(skin, s), f32x4.mul(onTop, landed)));
        v128.store(pq, f32x4.add(f32x4.mul(rest, b), f32x4.mul(up, lifted)));
      }
    } else {
      for (; po < end; po += 16, pq += 16) {
        const m = v128.load(po), s = v128.load(po + half), b = v128.load(pq);
        const lifted = f32x4.add(f32x4.mul(deep, m), f32x4.mul(skim, s));
        const landed = f32x4.mul(lands, b);
        v128.store(po, f32x4.add(m, f32x4.sub(landed, lifted)));
        v128.store(po + half, f32x4.add(f32x4.mul(skin, s), f32x4.mul(onTop, landed)));
        v128.store(pq, f32x4.add(f32x4.mul(rest, b), f32x4.mul(up, lifted)));
      }
    }
  }
  return touched;
}

// @ts-ignore: decorator
@inline function flow(film: i32, relief: i32, body: i32, cure: i32, n: i32, rate: f32, size: f32, p: i32, q: i32): void {
  const vol = n - 1;
  const tp = get(film + 2 * p * n + vol), tq = get(film + 2 * q * n + vol);
  if (tp + tq < 2) return;
  let from = p, to = q, high = tp, low = tq;
  let step = get(relief + p) + tp - get(relief + q) - tq;
  if (step < 0) {
    step = -step;
    from = q;
    to = p;
    high = tq;
    low = tp;
  }
  if (high < 3) return;
  const b = get(body + from);
  const yieldUm = (<f32>10 + <f32>190 * b * b + (<f32>2500 / (<f32>25 + high)) * (<f32>0.3 + b)) * size;
  let move: f32 = high > 25 && low > 25 ? <f32>0.08 * step * (<f32>1.2 - <f32>0.85 * b) : <f32>0;
  if (step > yieldUm) move += rate * (step - yieldUm) * (<f32>1.05 - <f32>0.75 * b);
  move *= <f32>1 - get(cure + from);
  if (move <= 0) return;
  if (move > <f32>0.3 * high) move = <f32>0.3 * high;
  const share = f32x4.splat(move / high);
  const bt = get(body + to), ct = get(cure + to), mixed = move / (low + move);
  set(body + to, bt + (b - bt) * mixed);
  set(cure + to, ct + (get(cure + from) - ct) * mixed);
  let pf = <usize>(film + 2 * from * n) << 2, pt = <usize>(film + 2 * to * n) << 2;
  const end = pf + (<usize>n << 3);
  for (; pf < end; pf += 16, pt += 16) {
    const a = v128.load(pf);
    const m = f32x4.mul(a, share);
    v128.store(pf, f32x4.sub(a, m));
    v128.store(pt, f32x4.add(v128.load(pt), m));
  }
}

export function levelPass(film: i32, relief: i32, body: i32, cure: i32, fresh: i32, n: i32, stride: i32, active: f32, rate: f32, size: f32, x0: i32, y0: i32, x1: i32, y1: i32): i32 {
  let more = 0;
  for (let y = y0; y < y1; y++) {
    for (let x = x0; x < x1; x++) {
      const cell = y * stride + x;
      const left = get(fresh + cell);
      if (left <= 0) continue;
      set(fresh + cell, left - 1);
      if (left > 1) more = 1;
      if (left > active) continue;
      if (x + 1 < x1) flow(film, relief, body, cure, n, rate, size, cell, cell + 1);
      if (y + 1 < y1) flow(film, relief, body, cure, n, rate, size, cell, cell + stride);
    }
  }
  return more;
}

// @ts-ignore: decorator
@inline function layBand(at: usize, a: v128, s: v128, thicken: v128, cover: v128, there: v128): void {
  const one = f32x4.splat(1);
  const A = f32x4.mul(a, thicken), S = f32x4.mul(s, thicken);
  const Rg = v128.load(at);
  const q = f32x4.mul(A, f32x4.add(A, f32x4.add(S, S)));
  let p = f32x4.add(f32x4.mul(q, f32x4.splat(0.00026247427)), f32x4.splat(0.00243847915));
  p = f32x4.add(f32x4.mul(p, q), f32x4.splat(0.0457631785));
  p = f32x4.add(f32x4.mul(p, q), f32x4.splat(0.332777959));
  p = f32x4.add(f32x4.mul(p, q), one);
  const c = f32x4.sqrt(f32x4.add(q, f32x4.div(one, p)));
  const alpha = f32x4.add(A, S);
  const top = f32x4.sub(S, f32x4.mul(Rg, f32x4.sub(alpha, c)));
  const under = f32x4.add(f32x4.sub(alpha, f32x4.mul(Rg, S)), c);
  const mixed = f32x4.add(Rg, f32x4.mul(f32x4.sub(f32x4.div(top, under), Rg), cover));
  v128.store(at, v128.bitselect(mixed, Rg, there));
}

/**
 * Four cells and four bands at a time, so that a mass is read once for four bands; rows are padded to a multiple of
 * four cells. Tables are float32: for each band and plane K, S. The number of bands is a multiple of four.
 * `less` and `lessThickness`, where given, are taken off first.
 */
export function filmOver(count: i32, rows: i32, mass: i32, less: i32, planes: i32, thickness: i32, lessThickness: i32, tables: i32, bands: i32, reflectance: i32, bandStride: i32): void {
  const zero = f32x4.splat(0), one = f32x4.splat(1);
  const row = <usize>planes << 3;
  const step = <usize>bandStride << 2;
  for (let first = 0; first < rows << 6; first += 64) {
    for (let x = first, end = first + count; x < end; x += 4) {
      let um = v128.load(<usize>(thickness + x) << 2);
      if (lessThickness != 0) um = f32x4.pmax(zero, f32x4.sub(um, v128.load(<usize>(lessThickness + x) << 2)));
      const there = f32x4.gt(um, zero);
      if (!v128.any_true(there)) continue;
      const cover = f32x4.pmin(f32x4.mul(um, f32x4.splat(0.5)), one);
      // where there is no film, cover is 0 and what is divided by it does not matter
      const thicken = f32x4.div(one, f32x4.pmax(cover, f32x4.splat(1e-9)));
      let table = <usize>tables << 2;
      let at = <usize>(reflectance + x) << 2;
      for (let b = 0; b < bands; b += 4) {
        let A0 = zero, A1 = zero, A2 = zero, A3 = zero, S0 = zero, S1 = zero, S2 = zero, S3 = zero;
        let t = table;
        for (let i = 0; i < planes; i++, t += 8) {
          let m = v128.load(<usize>(int(mass + i) + x) << 2);
          if (less != 0) m = f32x4.pmax(zero, f32x4.sub(m, v128.load(<usize>(int(less + i) + x) << 2)));
          const t1 = t + row, t2 = t1 + row, t3 = t2 + row;
          A0 = f32x4.add(A0, f32x4.mul(m, v128.load32_splat(t)));
          S0 = f32x4.add(S0, f32x4.mul(m, v128.load32_splat(t, 4)));
          A1 = f32x4.add(A1, f32x4.mul(m, v128.load32_splat(t1)));
          S1 = f32x4.add(S1, f32x4.mul(m, v128.load32_splat(t1, 4)));
          A2 = f32x4.add(A2, f32x4.mul(m, v128.load32_splat(t2)));
          S2 = f32x4.add(S2, f32x4.mul(m, v128.load32_splat(t2, 4)));
          A3 = f32x4.add(A3, f32x4.mul(m, v128.load32_splat(t3)));
          S3 = f32x4.add(S3, f32x4.mul(m, v128.load32_splat(t3, 4)));
        }
        layBand(at, A0, S0, thicken, cover, there);
        layBand(at + step, A1, S1, thicken, cover, there);
        layBand(at + 2 * step, A2, S2, thicken, cover, there);
        layBand(at + 3 * step, A3, S3, thicken, cover, there);
        table += row << 2;
        at += step << 2;
      }
    }
  }
}

// @ts-ignore: decorator
@inline function stepOf(v: v128, steps: v128): v128 {
  const clipped = f32x4.pmax(f32x4.pmin(v, f32x4.splat(1)), f32x4.splat(0));
  return i32x4.trunc_sat_f32x4_s(f32x4.add(f32x4.mul(clipped, steps), f32x4.splat(0.5)));
}

// @ts-ignore: decorator
@inline function code(codes: i32, r: i32, g: i32, b: i32): u32 {
  return <u32>load<u8>(codes + r) | (<u32>load<u8>(codes + g) << 8) | (<u32>load<u8>(codes + b) << 16) | 0xff000000;
}

/** `matrix`: float32, for each band r, g, b. `codes`: byte address of the table. */
export function bandsToCodes(count: i32, rows: i32, reflectance: i32, bandStride: i32, bands: i32, matrix: i32, offset: f32, k2: f32, codes: i32, steps: f32, out: i32, outRow: i32): void {
  const one = f32x4.splat(1), k = f32x4.splat(k2), n = f32x4.splat(steps);
  for (let y = 0; y < rows; y++) {
    for (let x = 0; x < count; x += 4) {
      let r = f32x4.splat(offset), g = r, b = r;
      let m = <usize>matrix << 2;
      for (let i = 0; i < bands; i++, m += 12) {
        const R = v128.load(<usize>(reflectance + i * bandStride + (y << 6) + x) << 2);
        const q = f32x4.div(R, f32x4.sub(one, f32x4.mul(k, R)));
        r = f32x4.add(r, f32x4.mul(q, v128.load32_splat(m)));
        g = f32x4.add(g, f32x4.mul(q, v128.load32_splat(m, 4)));
        b = f32x4.add(b, f32x4.mul(q, v128.load32_splat(m, 8)));
      }
      const ri = stepOf(r, n), gi = stepOf(g, n), bi = stepOf(b, n);
      const to = <usize>(out + y * outRow + x) << 2;
      const left = count - x;
      store<u32>(to, code(codes, i32x4.extract_lane(ri, 0), i32x4.extract_lane(gi, 0), i32x4.extract_lane(bi, 0)));
      if (left > 1) store<u32>(to, code(codes, i32x4.extract_lane(ri, 1), i32x4.extract_lane(gi, 1), i32x4.extract_lane(bi, 1)), 4);
      if (left > 2) store<u32>(to, code(codes, i32x4.extract_lane(ri, 2), i32x4.extract_lane(gi, 2), i32x4.extract_lane(bi, 2)), 8);
      if (left > 3) store<u32>(to, code(codes, i32x4.extract_lane(ri, 3), i32x4.extract_lane(gi, 3), i32x4.extract_lane(bi, 3)), 12);
    }
  }
}

// @ts-ignore: decorator
@inline function curve4(v: v128, table: i32, n: v128): v128 {
  const t = f32x4.mul(f32x4.sqrt(f32x4.pmax(f32x4.pmin(v, f32x4.splat(1)), f32x4.splat(0))), n);
  const i = i32x4.trunc_sat_f32x4_s(t);
  const f = f32x4.sub(t, f32x4.convert_i32x4_s(i));
  const i0 = i32x4.extract_lane(i, 0), i1 = i32x4.extract_lane(i, 1), i2 = i32x4.extract_lane(i, 2), i3 = i32x4.extract_lane(i, 3);
  const low = f32x4(0, 0, 0, 0);
  let a = f32x4.replace_lane(low, 0, get(table + i0)), b = f32x4.replace_lane(low, 0, get(table + i0 + 1));
  a = f32x4.replace_lane(a, 1, get(table + i1)); b = f32x4.replace_lane(b, 1, get(table + i1 + 1));
  a = f32x4.replace_lane(a, 2, get(table + i2)); b = f32x4.replace_lane(b, 2, get(table + i2 + 1));
  a = f32x4.replace_lane(a, 3, get(table + i3)); b = f32x4.replace_lane(b, 3, get(table + i3 + 1));
  return f32x4.add(a, f32x4.mul(f, f32x4.sub(b, a)));
}

export function bandsToColours(count: i32, rows: i32, reflectance: i32, bandStride: i32, bands: i32, matrix: i32, offset: f32, k2: f32, table: i32, steps: f32, linear: i32, encoded: i32): void {
  const one = f32x4.splat(1), k = f32x4.splat(k2), n = f32x4.splat(steps);
  for (let first = 0; first < rows << 6; first += 64) {
    for (let x = first, end = first + count; x < end; x += 4) {
      let r = f32x4.splat(offset), g = r, b = r;
      let m = <usize>matrix << 2;
      for (let i = 0; i < bands; i++, m += 12) {
        const R = v128.load(<usize>(reflectance + i * bandStride + x) << 2);
        const q = f32x4.div(R, f32x4.sub(one, f32x4.mul(k, R)));
        r = f32x4.add(r, f32x4.mul(q, v128.load32_splat(m)));
        g = f32x4.add(g, f32x4.mul(q, v128.load32_splat(m, 4)));
        b = f32x4.add(b, f32x4.mul(q, v128.load32_splat(m, 8)));
      }
      const l = <usize>(linear + x) << 2, e = <usize>(encoded + x) << 2, row = <usize>bandStride << 2;
      v128.store(l, r); v128.store(l + row, g); v128.store(l + 2 * row, b);
      v128.store(e, curve4(r, table, n)); v128.store(e + row, curve4(g, table, n)); v128.store(e + 2 * row, curve4(b, table, n));
    }
  }
}

// @ts-ignore: decorator
@inline function at4(word: i32): v128 { return v128.load(<usize>word << 2); }
// @ts-ignore: decorator
@inline function sp(v: f32): v128 { return f32x4.splat(v); }
// @ts-ignore: decorator
@inline function linear4(table: i32, v: v128, shift: i32): v128 {
  const i = v128.and(i32x4.shr_u(v, shift), i32x4.splat(255));
  let r = f32x4.splat(get(table + i32x4.extract_lane(i, 0)));
  r = f32x4.replace_lane(r, 1, get(table + i32x4.extract_lane(i, 1)));
  r = f32x4.replace_lane(r, 2, get(table + i32x4.extract_lane(i, 2)));
  return f32x4.replace_lane(r, 3, get(table + i32x4.extract_lane(i, 3)));
}

/** Cells far enough from the edges only; see the plain twin for the block. */
export function relight(block: i32, x0: i32, y0: i32, x1: i32, y1: i32): void {
  const width = int(block + RELIGHT.width), albedo = int(block + RELIGHT.albedo), relief = int(block + RELIGHT.relief), lit = int(block + RELIGHT.lit);
  const linear = int(block + RELIGHT.linear), codes = int(block + RELIGHT.codes);
  const steps = sp(get(block + RELIGHT.steps)), scale = sp(get(block + RELIGHT.scale));
  const lx = sp(get(block + RELIGHT.lampX)), ly = sp(get(block + RELIGHT.lampY)), lz = sp(get(block + RELIGHT.lampZ));
  const hx = sp(get(block + RELIGHT.halfX)), hy = sp(get(block + RELIGHT.halfY)), hz = sp(get(block + RELIGHT.halfZ));
  const room = get(block + RELIGHT.room), shadow = sp(get(block + RELIGHT.shadow)), gloss = sp(get(block + RELIGHT.gloss)), flat = sp(get(block + RELIGHT.flat));
  const lamp = sp((1 - room) / get(block + RELIGHT.lampZ)), half = sp(<f32>0.5 * room);
  const zero = sp(0), one = sp(1), near = sp(0.375), far = sp(0.0625);
  const o0 = int(block + RELIGHT.towards + 1) * width + int(block + RELIGHT.towards), o1 = int(block + RELIGHT.towards + 3) * width + int(block + RELIGHT.towards + 2);
  const o2 = int(block + RELIGHT.towards + 5) * width + int(block + RELIGHT.towards + 4), o3 = int(block + RELIGHT.towards + 7) * width + int(block + RELIGHT.towards + 6);
  const r0 = sp(get(block + RELIGHT.rise)), r1 = sp(get(block + RELIGHT.rise + 1)), r2 = sp(get(block + RELIGHT.rise + 2)), r3 = sp(get(block + RELIGHT.rise + 3));
  const k0 = sp(get(block + RELIGHT.hides)), k1 = sp(get(block + RELIGHT.hides + 1)), k2 = sp(get(block + RELIGHT.hides + 2)), k3 = sp(get(block + RELIGHT.hides + 3));
  const glossGain = sp(get(block + RELIGHT.glossGain) / 127), glossLift = sp(get(block + RELIGHT.glossLift)), matteGain = sp(get(block + RELIGHT.matteGain) / 128), matteLift = sp(get(block + RELIGHT.matteLift));
  const veil = sp(get(block + RELIGHT.veil)), tr = sp(get(block + RELIGHT.tint)), tg = sp(get(block + RELIGHT.tint + 1)), tb = sp(get(block + RELIGHT.tint + 2));
  for (let y = y0; y < y1; y++) {
    for (let x = x0; x < x1; x += 4) {
      const cell = y * width + x;
      const h = relief + cell;
      const nw = at4(h - width - 1), n = at4(h - width), ne = at4(h - width + 1);
      const w = at4(h - 1), c = at4(h), e = at4(h + 1);
      const sw = at4(h + width - 1), s = at4(h + width), se = at4(h + width + 1);
      const gx = f32x4.mul(f32x4.add(f32x4.mul(f32x4.sub(e, w), near), f32x4.mul(f32x4.add(f32x4.sub(se, sw), f32x4.sub(ne, nw)), far)), scale);
      const gy = f32x4.mul(f32x4.add(f32x4.mul(f32x4.sub(s, n), near), f32x4.mul(f32x4.add(f32x4.sub(se, ne), f32x4.sub(sw, nw)), far)), scale);
      const inverse = f32x4.div(one, f32x4.sqrt(f32x4.add(f32x4.add(f32x4.mul(gx, gx), f32x4.mul(gy, gy)), one)));
      const facing = f32x4.pmax(zero, f32x4.mul(f32x4.sub(f32x4.sub(lz, f32x4.mul(gx, lx)), f32x4.mul(gy, ly)), inverse));
      let hidden = f32x4.pmax(zero, f32x4.mul(f32x4.sub(f32x4.mul(f32x4.sub(at4(h + o0), c), scale), r0), k0));
      hidden = f32x4.pmax(hidden, f32x4.mul(f32x4.sub(f32x4.mul(f32x4.sub(at4(h + o1), c), scale), r1), k1));
      hidden = f32x4.pmax(hidden, f32x4.mul(f32x4.sub(f32x4.mul(f32x4.sub(at4(h + o2), c), scale), r2), k2));
      hidden = f32x4.pmax(hidden, f32x4.mul(f32x4.sub(f32x4.mul(f32x4.sub(at4(h + o3), c), scale), r3), k3));
      const open = f32x4.sub(one, f32x4.mul(shadow, f32x4.pmin(one, hidden)));
      const diffuse = f32x4.add(f32x4.mul(half, f32x4.add(one, inverse)), f32x4.mul(lamp, f32x4.mul(facing, open)));
      const v = v128.load(<usize>(albedo + cell) << 2);
      let g = f32x4.pmax(zero, f32x4.mul(f32x4.sub(f32x4.sub(hz, f32x4.mul(gx, hx)), f32x4.mul(gy, hy)), inverse));
      g = f32x4.mul(g, g);
      g = f32x4.mul(g, g);
      g = f32x4.mul(g, g);
      g = f32x4.mul(g, g);
      g = f32x4.mul(g, g);
      const sheen = f32x4.sub(f32x4.convert_i32x4_u(i32x4.shr_u(v, 24)), sp(128));
      const glossy = f32x4.add(f32x4.mul(glossGain, f32x4.pmax(zero, sheen)), glossLift);
      const matte = f32x4.add(f32x4.mul(matteGain, f32x4.pmax(zero, f32x4.sub(zero, sheen))), matteLift);
      const shine = f32x4.add(f32x4.mul(f32x4.mul(gloss, glossy), f32x4.mul(f32x4.pmax(zero, f32x4.sub(g, flat)), open)), f32x4.mul(f32x4.mul(veil, matte), diffuse));
      const lift = f32x4.mul(f32x4.pmax(zero, f32x4.sub(one, diffuse)), sp(0.18));
      const a = f32x4.mul(linear4(linear, v, 0), tr), b = f32x4.mul(linear4(linear, v, 8), tg), d = f32x4.mul(linear4(linear, v, 16), tb);
      const ri = stepOf(f32x4.add(f32x4.mul(a, f32x4.add(diffuse, f32x4.mul(lift, a))), shine), steps);
      const gi = stepOf(f32x4.add(f32x4.mul(b, f32x4.add(diffuse, f32x4.mul(lift, b))), shine), steps);
      const bi = stepOf(f32x4.add(f32x4.mul(d, f32x4.add(diffuse, f32x4.mul(lift, d))), shine), steps);
      const to = <usize>(lit + cell) << 2;
      const left = x1 - x;
      store<u32>(to, code(codes, i32x4.extract_lane(ri, 0), i32x4.extract_lane(gi, 0), i32x4.extract_lane(bi, 0)));
      if (left > 1) store<u32>(to, code(codes, i32x4.extract_lane(ri, 1), i32x4.extract_lane(gi, 1), i32x4.extract_lane(bi, 1)), 4);
      if (left > 2) store<u32>(to, code(codes, i32x4.extract_lane(ri, 2), i32x4.extract_lane(gi, 2), i32x4.extract_lane(bi, 2)), 8);
      if (left > 3) store<u32>(to, code(codes, i32x4.extract_lane(ri, 3), i32x4.extract_lane(gi, 3), i32x4.extract_lane(bi, 3)), 12);
    }
  }
}

/** One position of a blade; see the plain twin for the block. */
export function bladeStamp(block: i32): void {
  const cos = get(block + BLADE.cos), sin = get(block + BLADE.sin), x = get(block + BLADE.x), y = get(block + BLADE.y);
  const halfWidth = get(block + BLADE.half), edge = get(block + BLADE.edge), column = get(block + BLADE.column), back = get(block + BLADE.back), ahead = get(block + BLADE.ahead);
  const stand = get(block + BLADE.stand), nickScale = get(block + BLADE.nickScale), chatter = get(block + BLADE.chatter), slope = get(block + BLADE.slope), beyondSlope = get(block + BLADE.beyondSlope);
  const lean = get(block + BLADE.lean), leanBase = get(block + BLADE.leanBase), fill = get(block + BLADE.fill), fillZone = get(block + BLADE.fillZone), ceiling = get(block + BLADE.ceiling);
  const ownBody = get(block + BLADE.ownBody), passes = get(block + BLADE.passes), least = get(block + BLADE.least), carryOff = get(block + BLADE.carryOff);
  const n = int(block + BLADE.channels), film = int(block + BLADE.film), relief = int(block + BLADE.relief), body = int(block + BLADE.body), laid = int(block + BLADE.laid);
  const fresh = int(block + BLADE.fresh), cure = int(block + BLADE.cure), bead = int(block + BLADE.bead), ride = int(block + BLADE.ride), nick = int(block + BLADE.nick);
  const felt = int(block + BLADE.felt), columns = int(block + BLADE.columns), width = int(block + BLADE.width);
  const x0 = int(block + BLADE.x0), y0 = int(block + BLADE.y0), x1 = int(block + BLADE.x1), y1 = int(block + BLADE.y1);
  const vol = n - 1;
  const standoff = get(block + BLADE.standoff), stir = get(block + BLADE.stir), buoyancy = get(block + BLADE.buoyancy), half = <usize>n << 2;
  let bodySum: f32 = 0, bodyCount: f32 = 0, filmSum: f32 = 0;
  for (let py = y0; py < y1; py++) {
    const Y = <f32>py + <f32>0.5 - y;
    for (let px = x0; px < x1; px++) {
      const X = <f32>px + <f32>0.5 - x;
      const v = cos * Y - sin * X;
      if (v < -back || v > ahead) continue;
      const u = cos * X + sin * Y;
      if (u < -halfWidth || u >= halfWidth) continue;
      const fc = (u + halfWidth) / column;
      let c = <i32>fc;
      if (c >= columns) c = columns - 1;
      const cell = py * width + px;
      const o = film + 2 * cell * n;
      const t = get(o + vol);
      const h = get(relief + cell);
      const beyond = abs<f32>(u) - edge;
      if (beyond < 0) {
        const w = felt + c * 3;
        const old = t - get(laid + cell);
        const under = h + (old > 0 ? buoyancy * old : <f32>0);
        set(w, get(w) + under);
        if (under > get(w + 1)) set(w + 1, under);
        set(w + 2, get(w + 2) + 1);
      }
      const c2 = c + 1 < columns ? c + 1 : c;
      let share = fc - <f32>c - <f32>0.5;
      if (share < 0) share = 0;
      const rc = get(ride + c);
      const raised = lean * u + leanBase;
      let gap = stand + nickScale * get(nick + <i32>(fc * <f32>4)) + chatter + (v > standoff ? slope * (v - standoff) : <f32>0) + (beyond > 0 ? beyondSlope * beyond : <f32>0) + (raised > 0 ? raised : <f32>0) + rc + (get(ride + c2) - rc) * share - h;
      if (gap < 0) gap = 0;
      gap += least;
      if (t > 10) {
        bodySum += get(body + cell);
        bodyCount += 1;
        filmSum += t;
      }
      const q = bead + c * n;
      const carried = get(q + vol);
      if (v < fillZone && beyond < 0 && t > 10 && carried > t && stir > 0) {
        const open = <f32>1 - get(cure + cell);
        const part = stir * open * open;
        const there = f32x4.splat(part), back = f32x4.splat((part * t) / carried);
        let po = <usize>o << 2, pq = <usize>q << 2;
        const end = po + (<usize>n << 2);
        for (; po < end; po += 16, pq += 16) {
          const a = v128.load(po), b = v128.load(pq);
          const m = f32x4.sub(f32x4.mul(a, there), f32x4.mul(b, back));
          v128.store(po, f32x4.sub(a, m));
          v128.store(pq, f32x4.add(b, m));
          v128.store(po + half, f32x4.add(f32x4.mul(v128.load(po + half), f32x4.sub(f32x4.splat(1), there)), f32x4.mul(b, back)));
        }
      }
      if (t > gap) {
        const open = <f32>1 - get(cure + cell);
        const f = ((t - gap) / t) * carryOff * open * open;
        if (f <= 0) continue;
        const s = f32x4.splat(f);
        let po = <usize>o << 2, pq = <usize>q << 2;
        const end = po + (<usize>n << 2);
        for (; po < end; po += 16, pq += 16) {
          const a = v128.load(po);
          const m = f32x4.mul(a, s);
          v128.store(po, f32x4.sub(a, m));
          const sk = v128.load(po + half);
          v128.store(po + half, f32x4.sub(sk, f32x4.mul(sk, s)));
          v128.store(pq, f32x4.add(v128.load(pq), m));
        }
        set(fresh + cell, passes);
      } else if (v < fillZone && carried > <f32>0.02 * column) {
        const high = sqrt<f32>((<f32>2 * carried * slope) / column);
        const overlap = t + high - gap;
        const above = high - gap;
        if (overlap <= 0 || above <= 0) continue;
        const touched = (above * above) / (above * above + <f32>3600);
        let d = (gap * touched - t) * (overlap / (overlap + <f32>35)) * fill;
        if (d > <f32>0.25 * carried) d = <f32>0.25 * carried;
        const own = get(laid + cell);
        if (ceiling < 1) {
          const left = ceiling * gap - own;
          if (d > left) d = left;
        }
        if (d <= 0) continue;
        set(laid + cell, own + d);
        const top = get(o + n + vol), older = top - own;
        const keep = f32x4.splat(older > 0 ? <f32>1 - ((older / top) * d) / (d + older + <f32>1) : <f32>1);
        const s = f32x4.splat(d / carried);
        let po = <usize>o << 2, pq = <usize>q << 2;
        const end = po + (<usize>n << 2);
        for (; po < end; po += 16, pq += 16) {
          const a = v128.load(pq);
          const m = f32x4.mul(a, s);
          v128.store(pq, f32x4.sub(a, m));
          v128.store(po, f32x4.add(v128.load(po), m));
          v128.store(po + half, f32x4.add(f32x4.mul(v128.load(po + half), keep), m));
        }
        const mixed = d / (get(o + vol) + <f32>1e-4);
        const b = get(body + cell), k = get(cure + cell);
        set(body + cell, b + (ownBody - b) * mixed);
        set(cure + cell, k - k * mixed);
        set(fresh + cell, passes);
      }
    }
  }
  set(block + BLADE.bodySum, bodySum);
  set(block + BLADE.bodyCount, bodyCount);
  set(block + BLADE.filmSum, filmSum);
}

/** Highest of `count` values, at least 0; `count` is a multiple of four. */
export function highest(from: i32, count: i32): f32 {
  let m = f32x4.splat(0);
  for (let i = 0; i < count; i += 4) m = f32x4.pmax(m, v128.load(<usize>(from + i) << 2));
  const a = f32x4.extract_lane(m, 0), b = f32x4.extract_lane(m, 1), c = f32x4.extract_lane(m, 2), d = f32x4.extract_lane(m, 3);
  const p = a > b ? a : b, q = c > d ? c : d;
  return p > q ? p : q;
}

/** `to` counts in units of two bytes. */
export function packSteps(from: i32, count: i32, unit: f32, to: i32): void {
  const inverse = f32x4.splat(<f32>1 / unit), zero = f32x4.splat(0), most = f32x4.splat(65535), half = f32x4.splat(0.5);
  let carry = zero;
  let out = <usize>to << 1;
  for (let i = 0; i < count; i += 4, out += 8) {
    const v = v128.load(<usize>(from + i) << 2);
    const bare = f32x4.le(v, zero);
    const exact = f32x4.add(f32x4.mul(v, inverse), carry);
    const step = f32x4.pmax(zero, f32x4.pmin(most, f32x4.floor(f32x4.add(exact, half))));
    const kept = v128.bitselect(zero, step, bare);
    carry = v128.bitselect(carry, f32x4.sub(exact, step), bare);
    const w = i32x4.trunc_sat_f32x4_s(kept);
    v128.store64_lane(out, i16x8.narrow_i32x4_u(w, w), 0);
  }
}

/** `from` counts in units of two bytes; runs are padded to a multiple of four. */
export function unpackSteps(from: i32, count: i32, unit: f32, to: i32): void {
  const u = f32x4.splat(unit);
  let at = <usize>from << 1;
  for (let i = 0; i < count; i += 4, at += 8) {
    const w = i32x4.extend_low_i16x8_u(v128.load64_zero(at));
    v128.store(<usize>(to + i) << 2, f32x4.mul(f32x4.convert_i32x4_u(w), u));
  }
}

/** See the plain twins in film/interleave.ts; all addresses in words. */
export function gather(list: i32, planes: i32, offset: i32, planeRow: i32, to: i32, stride: i32, row: i32, columns: i32, rows: i32): void {
  const step = <usize>stride << 2;
  for (let y = 0; y < rows; y++) {
    for (let i = 0; i < planes; i++) {
      const plane = int(list + i);
      if (plane == 0) continue;
      let from = <usize>(plane + offset + y * planeRow) << 2;
      let at = <usize>(to + y * row + i) << 2;
      for (let x = 0; x < columns; x++, from += 4, at += step) store<f32>(at, load<f32>(from));
    }
  }
}

export function scatter(list: i32, planes: i32, offset: i32, planeRow: i32, from: i32, stride: i32, row: i32, columns: i32, rows: i32): void {
  const step = <usize>stride << 2;
  for (let y = 0; y < rows; y++) {
    for (let i = 0; i < planes; i++) {
      const plane = int(list + i);
      if (plane == 0) continue;
      let to = <usize>(plane + offset + y * planeRow) << 2;
      let at = <usize>(from + y * row + i) << 2;
      for (let x = 0; x < columns; x++, to += 4, at += step) store<f32>(to, load<f32>(at));
    }
  }
}

export function tidy(from: i32, stride: i32, row: i32, columns: i32, rows: i32, least: f32, out: i32): void {
  const zero = f32x4.splat(0), small = f32x4.splat(least);
  for (let i = 0; i < stride; i += 4) v128.store(<usize>(out + i) << 2, zero);
  for (let y = 0; y < rows; y++) {
    let at = <usize>(from + y * row) << 2;
    for (let x = 0; x < columns; x++) {
      let top = <usize>out << 2;
      for (let i = 0; i < stride; i += 4, at += 16, top += 16) {
        const v = v128.load(at);
        if (!v128.any_true(v)) continue;
        const kept = v128.and(v, f32x4.ge(v, small));
        v128.store(at, kept);
        v128.store(top, f32x4.pmax(v128.load(top), kept));
      }
    }
  }
}

/** In double precision, as the plain twin adds. */
export function addShare(from: i32, fromRow: i32, share: f64, to: i32, toRow: i32, columns: i32, rows: i32): void {
  const s = f64x2.splat(share);
  for (let y = 0; y < rows; y++) {
    let p = <usize>(from + y * fromRow) << 2, q = <usize>(to + y * toRow) << 2;
    for (let x = 0; x < columns; x += 2, p += 8, q += 8) {
      const sum = f64x2.add(f64x2.promote_low_f32x4(v128.load64_zero(q)), f64x2.mul(f64x2.promote_low_f32x4(v128.load64_zero(p)), s));
      v128.store64_lane(q, f32x4.demote_f64x2_zero(sum), 0);
    }
  }
}

export {
  filmDepth, pushWater, shiftWater, evaporate, adoptWater, adoptLoad, advanceFront, coverFilm, weighPaint, pushPaint, carryX, carryY,
  settlePaint,
} from './water';

export { dampen, sumCoats, waterLooks, wetSurface } from './wetLook';
export { filmSurface, groundSurface } from './surfaceLook';
export { blendPixels, coloursToCodes, throughTables } from './light';
