/**
 * Water and what it carries, in AssemblyScript with SIMD: the twins of src/core/kernels/water*.ts and carry.ts, which
 * say what the loops do. The words of the parameter blocks are theirs (layout.ts).
 */
import { CARRIED, SETTLED, WATER } from './layout';

// @ts-ignore: decorator
@inline function get(word: i32): f32 { return load<f32>(<usize>word << 2); }
// @ts-ignore: decorator
@inline function set(word: i32, v: f32): void { store<f32>(<usize>word << 2, v); }
// @ts-ignore: decorator
@inline function int(word: i32): i32 { return load<i32>(<usize>word << 2); }
// @ts-ignore: decorator
@inline function ld(word: i32): v128 { return v128.load(<usize>word << 2); }
// @ts-ignore: decorator
@inline function st(word: i32, v: v128): void { v128.store(<usize>word << 2, v); }
// @ts-ignore: decorator
@inline function all(word: i32): v128 { return v128.load32_splat(<usize>word << 2); }
// @ts-ignore: decorator
@inline function lanes(v: f32): v128 { return f32x4.splat(v); }
// @ts-ignore: decorator
@inline function clamp01(v: v128): v128 { return f32x4.pmax(lanes(0), f32x4.pmin(lanes(1), v)); }
// @ts-ignore: decorator
@inline function sum4(v: v128): f32 { return f32x4.extract_lane(v, 0) + f32x4.extract_lane(v, 1) + f32x4.extract_lane(v, 2) + f32x4.extract_lane(v, 3); }
// @ts-ignore: decorator
@inline function max4(v: v128): f32 { return max(max(f32x4.extract_lane(v, 0), f32x4.extract_lane(v, 1)), max(f32x4.extract_lane(v, 2), f32x4.extract_lane(v, 3))); }
// @ts-ignore: decorator
@inline function limited(v: v128, most: v128): v128 { return f32x4.pmax(f32x4.neg(most), f32x4.pmin(most, v)); }

const ROW: i32 = 80;
const FADE: f32 = 0.35;

export function filmDepth(block: i32, at: i32): void {
  const stride = int(block + WATER.stride), side = int(block + WATER.side);
  const share = int(block + WATER.share), water = int(block + WATER.water), depth = int(block + WATER.depth), open = int(block + WATER.open), rim = int(block + WATER.rim);
  const from = all(block + WATER.openFrom), over = all(block + WATER.openOver);
  for (let y = 0; y < side; y++) {
    for (let i = at + y * stride, end = i + side; i < end; i += 4) {
      const p = ld(share + i);
      const there = f32x4.gt(p, lanes(0));
      const d = v128.and(f32x4.div(ld(water + i), p), there);
      st(depth + i, d);
      const deep = clamp01(f32x4.mul(f32x4.sub(d, from), over));
      const inside = clamp01(f32x4.mul(f32x4.sub(ld(rim + i), lanes(0.6)), lanes(2.5)));
      st(open + i, v128.and(f32x4.mul(deep, inside), there));
    }
  }
}

/** Share of the highest speed that each of two directions may have: water that flows aslant is no faster. */
const DIAGONAL: f32 = 0.7;

// @ts-ignore: decorator
@inline function pushFace(velocity: i32, flux: i32, behind: v128, ahead: v128, there: v128, here: v128, permeable: v128, held0: v128, tilt: v128, gravity: v128, drag: v128, over: v128, most: v128, transfer: v128, depth: i32, back: i32, cross: i32): v128 {
  const zero = lanes(0), one = lanes(1);
  const open = v128.and(f32x4.gt(here, zero), f32x4.gt(there, zero));
  if (!v128.any_true(open)) {
    st(velocity, zero);
    st(flux, zero);
    return zero;
  }
  const push0 = f32x4.add(f32x4.sub(behind, ahead), tilt);
  const forward = f32x4.gt(push0, zero);
  const film = v128.bitselect(behind, ahead, forward);
  const before = v128.bitselect(ahead, behind, forward);
  const thin = f32x4.pmax(zero, f32x4.sub(one, f32x4.mul(before, over)));
  const size = f32x4.pmax(zero, f32x4.sub(f32x4.abs(push0), f32x4.mul(held0, thin)));
  const push = v128.bitselect(size, f32x4.neg(size), forward);
  const g = f32x4.mul(gravity, f32x4.pmin(one, f32x4.div(lanes(1.5), f32x4.pmax(film, lanes(1e-6)))));
  const low = f32x4.pmin(film, lanes(1.5));
  const mobile = f32x4.mul(f32x4.mul(low, low), permeable);
  let a = f32x4.div(f32x4.mul(f32x4.add(ld(velocity), f32x4.mul(g, push)), mobile), f32x4.add(mobile, drag));
  let limit = most;
  if (v128.any_true(f32x4.gt(f32x4.abs(a), f32x4.mul(lanes(DIAGONAL), most)))) {
    const aside = f32x4.mul(lanes(0.25), f32x4.sub(f32x4.add(ld(depth + cross), ld(depth + cross - back)), f32x4.add(ld(depth - cross), ld(depth - cross - back))));
    const steep = f32x4.sqrt(f32x4.add(f32x4.mul(push0, push0), f32x4.mul(aside, aside)));
    limit = f32x4.mul(most, f32x4.pmax(lanes(DIAGONAL), f32x4.div(f32x4.abs(push0), f32x4.pmax(steep, lanes(1e-9)))));
  }
  a = limited(a, limit);
  const size2 = f32x4.abs(a);
  a = v128.and(v128.and(a, f32x4.ge(size2, lanes(1e-9))), open);
  st(velocity, a);
  const up = v128.bitselect(behind, ahead, f32x4.gt(a, zero));
  st(flux, f32x4.mul(f32x4.mul(f32x4.mul(transfer, a), up), f32x4.pmin(here, there)));
  return f32x4.abs(a);
}

export function pushWater(block: i32, at: i32, bed: i32): f32 {
  const stride = int(block + WATER.stride), side = int(block + WATER.side), bedStride = int(block + WATER.bedStride);
  const depth = int(block + WATER.depth), share = int(block + WATER.share), permeable = int(block + WATER.permeable), lobes = int(block + WATER.lobes);
  const u = int(block + WATER.u), v = int(block + WATER.v), fluxX = int(block + WATER.fluxX), fluxY = int(block + WATER.fluxY);
  const gravity = all(block + WATER.gravity), drag = all(block + WATER.drag), over = lanes(<f32>1 / get(block + WATER.yieldDepth));
  const most = all(block + WATER.fastest), transfer = all(block + WATER.transfer), yielding = all(block + WATER.yielding), uneven = all(block + WATER.uneven);
  const tiltX = all(block + WATER.tiltX), tiltY = all(block + WATER.tiltY), fallX = int(block + WATER.fallX), fallY = int(block + WATER.fallY);
  let fastest = lanes(0);
  for (let y = 0; y < side; y++) {
    for (let x = 0; x < side; x += 4) {
      const i = at + y * stride + x, ground = bed + y * bedStride + x;
      const here = ld(share + i), ahead = ld(depth + i), k = ld(permeable + ground);
      const held = f32x4.mul(yielding, f32x4.pmax(lanes(0), f32x4.sub(lanes(1), f32x4.mul(uneven, ld(lobes + ground)))));
      fastest = f32x4.pmax(fastest, pushFace(u + i, fluxX + i, ld(depth + i - 1), ahead, ld(share + i - 1), here, k, held, f32x4.add(tiltX, ld(fallX + ground)), gravity, drag, over, most, transfer, depth + i, 1, stride));
      fastest = f32x4.pmax(fastest, pushFace(v + i, fluxY + i, ld(depth + i - stride), ahead, ld(share + i - stride), here, k, held, f32x4.add(tiltY, ld(fallY + ground)), gravity, drag, over, most, transfer, depth + i, stride, 1));
    }
  }
  return max4(fastest);
}

export function shiftWater(block: i32, at: i32): void {
  const stride = int(block + WATER.stride), side = int(block + WATER.side);
  const water = int(block + WATER.water), fluxX = int(block + WATER.fluxX), fluxY = int(block + WATER.fluxY);
  for (let y = 0; y < side; y++) {
    for (let i = at + y * stride, end = i + side; i < end; i += 4) {
      const gain = f32x4.add(f32x4.sub(ld(fluxX + i), ld(fluxX + i + 1)), f32x4.sub(ld(fluxY + i), ld(fluxY + i + stride)));
      st(water + i, f32x4.pmax(lanes(0), f32x4.add(ld(water + i), gain)));
    }
  }
}

export function evaporate(block: i32, at: i32, bed: i32): f32 {
  const stride = int(block + WATER.stride), side = int(block + WATER.side), bedStride = int(block + WATER.bedStride);
  const water = int(block + WATER.water), moisture = int(block + WATER.moisture), rim = int(block + WATER.rim), share = int(block + WATER.share);
  const nextA = int(block + WATER.nextA), nextB = int(block + WATER.nextB), blotches = int(block + WATER.blotches);
  const rimBlur = all(block + WATER.rimBlur), around = lanes((<f32>1 - get(block + WATER.rimBlur)) * <f32>0.25);
  const dries = all(block + WATER.evaporation), rimDries = all(block + WATER.rimEvaporation), blotchDries = all(block + WATER.blotchEvaporation);
  const full = lanes(<f32>1 / get(block + WATER.capacity)), creep = lanes(get(block + WATER.capillary) / get(block + WATER.capacity));
  const absorbs = all(block + WATER.absorption), paper = all(block + WATER.paperEvaporation);
  const zero = lanes(0), one = lanes(1);
  let gone = zero;
  for (let y = 0; y < side; y++) {
    for (let x = 0; x < side; x += 4) {
      const i = at + y * stride + x;
      const p = ld(share + i), r = rim + i, s = moisture + i;
      const near = f32x4.add(f32x4.mul(rimBlur, p), f32x4.mul(around, f32x4.add(f32x4.add(ld(r - 1), ld(r + 1)), f32x4.add(ld(r - stride), ld(r + stride)))));
      st(nextA + i, v128.and(near, f32x4.ge(near, lanes(1e-6))));
      const damp = ld(s), film = ld(water + i);
      const air = f32x4.mul(f32x4.mul(dries, p), f32x4.add(f32x4.add(one, f32x4.mul(rimDries, f32x4.sub(one, near))), f32x4.mul(blotchDries, ld(blotches + bed + y * bedStride + x))));
      const dried = f32x4.pmin(film, f32x4.pmax(zero, air));
      const rest = f32x4.sub(film, dried);
      const soaked = f32x4.pmax(zero, f32x4.pmin(rest, f32x4.mul(f32x4.mul(absorbs, p), f32x4.sub(one, f32x4.mul(damp, full)))));
      st(water + i, f32x4.sub(rest, soaked));
      const l = ld(s - 1), e = ld(s + 1), t = ld(s - stride), b = ld(s + stride);
      const creeps = f32x4.add(
        f32x4.add(f32x4.mul(f32x4.pmax(damp, l), f32x4.sub(l, damp)), f32x4.mul(f32x4.pmax(damp, e), f32x4.sub(e, damp))),
        f32x4.add(f32x4.mul(f32x4.pmax(damp, t), f32x4.sub(t, damp)), f32x4.mul(f32x4.pmax(damp, b), f32x4.sub(b, damp))),
      );
      const wetted = f32x4.pmax(zero, f32x4.add(f32x4.add(damp, soaked), f32x4.mul(creep, creeps)));
      const airs = f32x4.mul(f32x4.mul(paper, f32x4.sub(one, p)), f32x4.add(lanes(0.35), f32x4.mul(f32x4.mul(lanes(0.65), wetted), full)));
      let left = f32x4.pmax(zero, f32x4.sub(wetted, airs));
      left = v128.and(left, f32x4.ge(left, lanes(1e-5)));
      st(nextB + i, left);
      gone = f32x4.add(gone, f32x4.add(dried, f32x4.sub(wetted, left)));
    }
  }
  return sum4(gone);
}

export function adoptWater(block: i32, at: i32): void {
  const stride = int(block + WATER.stride), side = int(block + WATER.side);
  const rim = int(block + WATER.rim), moisture = int(block + WATER.moisture), nextA = int(block + WATER.nextA), nextB = int(block + WATER.nextB);
  for (let y = 0; y < side; y++) {
    for (let i = at + y * stride, end = i + side; i < end; i += 4) {
      st(rim + i, ld(nextA + i));
      st(moisture + i, ld(nextB + i));
    }
  }
}

export function adoptLoad(block: i32, at: i32): void {
  const stride = int(block + WATER.stride), side = int(block + WATER.side), loads = int(block + WATER.load), nextA = int(block + WATER.nextA);
  for (let y = 0; y < side; y++) for (let i = at + y * stride, end = i + side; i < end; i += 4) st(loads + i, ld(nextA + i));
}

// @ts-ignore: decorator
@inline function unit(v: f32): f32 { return v < 0 ? 0 : v > 1 ? 1 : v; }
// @ts-ignore: decorator
@inline function ahead(most: f32, has: f32): f32 { return unit(2 * most - 1) * unit(4 * (most - has)); }

/**
 * How much deeper in a bay the next cell of a slanted front seems, because it lies nearer to it than half a cell: 0.25
 * times the rim's slope for a straight front; with 0.75 pools that run come out round on every grid (measured).
 */
const ASLANT: f32 = 0.75;
/** Sides and half of the corners of a cell that are wet beside the kink of a front; from there on it is a gap. */
const GAP: f32 = 3;

export function advanceFront(block: i32, at: i32, bed: i32, coverAt: i32, fine: i32, masking: i32, wax: i32, gains: i32): i32 {
  const stride = int(block + WATER.stride), coverStride = int(block + WATER.coverStride), side = int(block + WATER.side), factor = int(block + WATER.factor);
  const bedStride = int(block + WATER.bedStride), fineStride = int(block + WATER.fineStride);
  const depth = int(block + WATER.depth), cover = int(block + WATER.cover), share = int(block + WATER.share), moisture = int(block + WATER.moisture);
  const tooth = int(block + WATER.tooth), resistance = int(block + WATER.resistance), rim = int(block + WATER.rim), curve = get(block + WATER.curve);
  const barrierDry = get(block + WATER.barrierDry), barrierDamp = get(block + WATER.barrierDamp), full = <f32>1 / get(block + WATER.capacity);
  const roughness = get(block + WATER.barrierRough), relief = get(block + WATER.relief), tension = get(block + WATER.tension);
  const rate = get(block + WATER.frontRate), most = get(block + WATER.frontMost);
  const least = lanes(barrierDamp * <f32>0.3);
  const width = side * factor;
  let any = 0;
  for (let y = 0; y < side; y++) {
    for (let x0 = 0; x0 < side; x0 += 4) {
      const v = at + y * stride + x0, dv = depth + v;
      const part4 = f32x4.lt(ld(share + v), lanes(1));
      if (!v128.any_true(part4)) continue;
      const near4 = f32x4.pmax(f32x4.pmax(ld(dv), f32x4.pmax(ld(dv - 1), ld(dv + 1))), f32x4.pmax(ld(dv - stride), ld(dv + stride)));
      const diag4 = f32x4.pmax(f32x4.pmax(ld(dv - stride - 1), ld(dv - stride + 1)), f32x4.pmax(ld(dv + stride - 1), ld(dv + stride + 1)));
      if (!v128.any_true(v128.and(part4, f32x4.gt(f32x4.pmax(near4, diag4), least)))) continue;
      for (let x = x0; x < x0 + 4; x++) {
        const i = at + y * stride + x;
        if (get(share + i) >= 1) continue;
        const d = depth + i;
        const near = max(max(get(d), max(max(get(d - 1), get(d + 1)), max(get(d - stride), get(d + stride)))), max(max(get(d - stride - 1), get(d - stride + 1)), max(get(d + stride - 1), get(d + stride + 1))));
        if (near <= barrierDamp * <f32>0.3) continue;
        const dx = abs(get(rim + i + 1) - get(rim + i - 1)), dy = abs(get(rim + i + stride) - get(rim + i - stride));
        const q = dx * dx + dy * dy;
        const aslant = ASLANT * (sqrt<f32>(q) - max(dx, dy)) / <f32>factor;
        let t = (get(moisture + i) * full - <f32>0.25) * <f32>1.7;
        t = t < 0 ? 0 : t > 1 ? 1 : t;
        const damp = t * t * (3 - 2 * t);
        const rough = roughness * (<f32>0.1 + <f32>0.9 * damp);
        const barrier = (barrierDry + (barrierDamp - barrierDry) * damp) * (1 - rough * <f32>0.45 * get(resistance + bed + y * bedStride + x));
        for (let j = 0; j < factor; j++) {
          for (let k = 0; k < factor; k++) {
            const cell = (y * factor + j) * width + x * factor + k;
            const c = cover + coverAt + (y * factor + j) * coverStride + x * factor + k;
            const has = get(c);
            if (has >= 1) continue;
            if ((masking != 0 && get(masking + cell) > 0.5) || (wax != 0 && get(wax + cell) > 0.5)) continue;
            const edge = ahead(max(max(get(c - 1), get(c + 1)), max(get(c - coverStride), get(c + coverStride))), has);
            if (edge <= 0) continue;
            const corners = get(c - coverStride - 1) + get(c - coverStride + 1) + get(c + coverStride - 1) + get(c + coverStride + 1);
            const gap = max(<f32>0, get(c - 1) + get(c + 1) + get(c - coverStride) + get(c + coverStride) + <f32>0.5 * corners - GAP);
            const h = get(tooth + fine + (y * factor + j) * fineStride + x * factor + k);
            const rx = (<f32>k + <f32>0.5) / <f32>factor - <f32>0.5, ry = (<f32>j + <f32>0.5) / <f32>factor - <f32>0.5;
            const sx = rx < 0 ? -1 : 1, sy = ry < 0 ? -stride : stride;
            const r = rim + i, ax = abs(rx), ay = abs(ry);
            const beside = get(r) + (get(r + sx) - get(r)) * ax, below = get(r + sy) + (get(r + sy + sx) - get(r + sy)) * ax;
            const bay = beside + (below - beside) * ay - <f32>0.5 - aslant;
            const over = near - barrier * (1 + rough * relief * (h - <f32>0.5)) * max(<f32>0.05, 1 - curve * bay - tension * gap);
            if (over <= 0) continue;
            const more = min(most, rate * over) * edge;
            set(gains + cell, min(<f32>1 - has, more));
            any = 1;
          }
        }
      }
    }
  }
  return any;
}

export function coverFilm(block: i32, at: i32, coverAt: i32, gains: i32): i32 {
  const stride = int(block + WATER.stride), coverStride = int(block + WATER.coverStride), side = int(block + WATER.side), factor = int(block + WATER.factor);
  const share = int(block + WATER.share), water = int(block + WATER.water), moisture = int(block + WATER.moisture), depth = int(block + WATER.depth), cover = int(block + WATER.cover);
  const breaks = get(block + WATER.breaks), breaks4 = lanes(breaks), zero = lanes(0), one = lanes(1);
  const inverse = <f32>1 / <f32>(factor * factor);
  const width = side * factor;
  let found = 0;
  for (let y = 0; y < side; y++) {
    for (let x0 = 0; x0 < side; x0 += 4) {
      const v = at + y * stride + x0;
      const p = ld(share + v);
      const breaking = v128.and(v128.and(f32x4.gt(p, zero), f32x4.lt(ld(depth + v), breaks4)), f32x4.lt(ld(water + v), f32x4.mul(breaks4, p)));
      const growing = gains != 0 && v128.any_true(f32x4.lt(p, one));
      if (growing || v128.any_true(breaking)) {
        for (let x = x0; x < x0 + 4; x++) {
          const i = at + y * stride + x;
          const first = cover + coverAt + y * factor * coverStride + x * factor;
          const had = get(share + i);
          if (had > 0 && get(depth + i) < breaks && get(water + i) < breaks * had) {
            const keeps: f32 = get(water + i) <= 0 || had < <f32>0.02 ? 0 : 0.6;
            set(moisture + i, get(moisture + i) + get(water + i) * (1 - keeps));
            set(water + i, get(water + i) * keeps);
            for (let j = 0; j < factor; j++) for (let k = 0; k < factor; k++) set(first + j * coverStride + k, get(first + j * coverStride + k) * keeps);
            set(share + i, had * keeps);
          } else if (gains != 0 && had < 1) {
            let sum: f32 = 0;
            for (let j = 0; j < factor; j++) {
              for (let k = 0; k < factor; k++) {
                const c = first + j * coverStride + k;
                set(c, get(c) + get(gains + (y * factor + j) * width + x * factor + k));
                sum += get(c);
              }
            }
            set(share + i, sum * inverse);
          }
        }
      }
      const film = f32x4.gt(ld(share + v), zero);
      const damp = v128.andnot(f32x4.gt(ld(moisture + v), zero), film);
      const anything = v128.or(film, damp);
      if (!v128.any_true(anything)) continue;
      if (v128.any_true(film)) found |= 1;
      if (v128.any_true(damp)) found |= 2;
      if (x0 == 0 && i32x4.extract_lane(anything, 0) != 0) found |= 4;
      if (x0 == side - 4 && i32x4.extract_lane(anything, 3) != 0) found |= 8;
      if (y == 0) found |= 16;
      if (y == side - 1) found |= 32;
    }
  }
  if (gains != 0) memory.fill(<usize>gains << 2, 0, <usize>(width * width) << 2);
  return found;
}

// @ts-ignore: decorator
@inline function pairs(a: v128, b: v128): v128 { return f32x4.add(v128.shuffle<f32>(a, b, 0, 2, 4, 6), v128.shuffle<f32>(a, b, 1, 3, 5, 7)); }

/** Sums of a plane over the cells of four flow cells side by side. */
// @ts-ignore: decorator
@inline function cellsOf(first: i32, width: i32, factor: i32): v128 {
  if (factor == 1) return ld(first);
  if (factor == 2) return pairs(f32x4.add(ld(first), ld(first + width)), f32x4.add(ld(first + 4), ld(first + width + 4)));
  let a = lanes(0), b = lanes(0), c = lanes(0), d = lanes(0);
  for (let j = 0; j < 4; j++) {
    const row = first + j * width;
    a = f32x4.add(a, ld(row));
    b = f32x4.add(b, ld(row + 4));
    c = f32x4.add(c, ld(row + 8));
    d = f32x4.add(d, ld(row + 12));
  }
  return pairs(pairs(a, b), pairs(c, d));
}

export function weighPaint(block: i32, at: i32, bed: i32, list: i32, count: i32): void {
  const stride = int(block + WATER.stride), side = int(block + WATER.side), factor = int(block + WATER.factor), bedStride = int(block + WATER.bedStride);
  const width = side * factor;
  const share = int(block + WATER.share), open = int(block + WATER.open), loads = int(block + WATER.load), mass = int(block + WATER.mass), stream = int(block + WATER.stream);
  const nextA = int(block + WATER.nextA), currents = int(block + WATER.currents);
  const blur = all(block + WATER.loadBlur), around = lanes((<f32>1 - get(block + WATER.loadBlur)) * <f32>0.25), step = all(block + WATER.step);
  const inverse = lanes(<f32>1 / <f32>(factor * factor)), zero = lanes(0);
  for (let y = 0; y < side; y++) {
    for (let x = 0; x < side; x += 4) {
      const i = at + y * stride + x;
      const covered = ld(share + i);
      const there = f32x4.gt(covered, zero);
      if (!v128.any_true(there)) {
        st(mass + i, zero);
        st(stream + i, zero);
        st(nextA + i, zero);
        continue;
      }
      let sum = zero;
      for (let n = 0; n < count; n++) {
        const cells = cellsOf(int(list + 2 * n) + y * factor * width + x * factor, width, factor);
        sum = f32x4.add(sum, f32x4.mul(cells, all(list + 2 * n + 1)));
      }
      const o = open + i;
      const free = f32x4.pmin(f32x4.pmin(ld(o), ld(o - 1)), f32x4.pmin(ld(o - stride), ld(o - stride - 1)));
      st(stream + i, v128.and(there, f32x4.mul(f32x4.mul(ld(currents + bed + y * bedStride + x), free), step)));
      const weight = f32x4.div(f32x4.mul(sum, inverse), f32x4.pmax(lanes(0.2), covered));
      st(mass + i, v128.and(there, weight));
      const l = loads + i, own = ld(l);
      const left = v128.bitselect(ld(l - 1), own, f32x4.gt(ld(share + i - 1), zero));
      const right = v128.bitselect(ld(l + 1), own, f32x4.gt(ld(share + i + 1), zero));
      const top = v128.bitselect(ld(l - stride), own, f32x4.gt(ld(share + i - stride), zero));
      const bottom = v128.bitselect(ld(l + stride), own, f32x4.gt(ld(share + i + stride), zero));
      const smooth = f32x4.add(f32x4.mul(blur, weight), f32x4.mul(around, f32x4.add(f32x4.add(left, right), f32x4.add(top, bottom))));
      st(nextA + i, v128.and(v128.and(smooth, f32x4.ge(smooth, lanes(1e-9))), there));
    }
  }
}

// @ts-ignore: decorator
@inline function spreadFace(out: i32, film: i32, both: v128, steep: v128, free: v128, current: v128, rims: v128, spread: v128, most: v128): v128 {
  const mixes = f32x4.mul(f32x4.mul(free, spread), steep);
  const a = v128.and(both, f32x4.add(f32x4.add(current, rims), mixes));
  st(out, v128.and(both, limited(f32x4.add(a, ld(film)), most)));
  return f32x4.abs(a);
}

// @ts-ignore: decorator
@inline function beyond(s: v128): v128 { return f32x4.sub(s, limited(s, lanes(0.07))); }

export function pushPaint(block: i32, at: i32, bed: i32): f32 {
  const stride = int(block + WATER.stride), side = int(block + WATER.side), bedStride = int(block + WATER.bedStride);
  const share = int(block + WATER.share), open = int(block + WATER.open), loads = int(block + WATER.load), rim = int(block + WATER.rim), stream = int(block + WATER.stream);
  const u = int(block + WATER.u), v = int(block + WATER.v), paintU = int(block + WATER.paintU), paintV = int(block + WATER.paintV), permeable = int(block + WATER.permeable);
  const most = all(block + WATER.fastest), traces = all(block + WATER.traces), disperse = all(block + WATER.disperse), drifts = all(block + WATER.rimDrift);
  const lobes = int(block + WATER.lobes), fingers = all(block + WATER.fingers), rimUneven = all(block + WATER.rimUneven), spreadMost = all(block + WATER.spreadMost);
  const zero = lanes(0), one = lanes(1);
  let fastest = zero;
  for (let y = 0; y < side; y++) {
    for (let x = 0; x < side; x += 4) {
      const i = at + y * stride + x;
      const here = f32x4.gt(ld(share + i), zero);
      if (!v128.any_true(here)) {
        st(paintU + i, zero);
        st(paintV + i, zero);
        continue;
      }
      const ground = bed + y * bedStride + x, lobe = ld(lobes + ground);
      const spread = f32x4.pmin(spreadMost, f32x4.mul(f32x4.mul(disperse, ld(permeable + ground)), f32x4.pmax(lanes(0.05), f32x4.add(one, f32x4.mul(fingers, lobe)))));
      const drift = f32x4.mul(drifts, f32x4.pmax(lanes(0.1), f32x4.add(one, f32x4.mul(rimUneven, lobe))));
      const s = ld(stream + i), l = ld(loads + i), o = ld(open + i), r = ld(rim + i);
      const bothX = v128.and(here, f32x4.gt(ld(share + i - 1), zero)), bothY = v128.and(here, f32x4.gt(ld(share + i - stride), zero));
      const lx = ld(loads + i - 1), ly = ld(loads + i - stride);
      const sx = v128.and(bothX, beyond(f32x4.div(f32x4.sub(lx, l), f32x4.add(f32x4.add(lx, l), traces))));
      const sy = v128.and(bothY, beyond(f32x4.div(f32x4.sub(ly, l), f32x4.add(f32x4.add(ly, l), traces))));
      const aslant = f32x4.div(spread, f32x4.sqrt(f32x4.pmax(one, f32x4.add(f32x4.mul(sx, sx), f32x4.mul(sy, sy)))));
      fastest = f32x4.pmax(fastest, spreadFace(paintU + i, u + i, bothX, sx, f32x4.pmin(ld(open + i - 1), o), f32x4.sub(ld(stream + i + stride), s), f32x4.mul(drift, f32x4.sub(ld(rim + i - 1), r)), aslant, most));
      fastest = f32x4.pmax(fastest, spreadFace(paintV + i, v + i, bothY, sy, f32x4.pmin(ld(open + i - stride), o), f32x4.sub(s, ld(stream + i + 1)), f32x4.mul(drift, f32x4.sub(ld(rim + i - stride), r)), aslant, most));
    }
  }
  return max4(fastest);
}

// @ts-ignore: decorator
@inline function fade(depth: v128): v128 { return f32x4.pmin(lanes(1), f32x4.mul(depth, lanes(1 / FADE))); }

// @ts-ignore: decorator
@inline function apertures(rows: i32, c: i32, ml: v128, mr: v128): void {
  const film = ld(rows + 6 * ROW + c);
  const least = f32x4.pmin(ml, mr), open = f32x4.gt(least, lanes(0)), through = f32x4.mul(film, least);
  st(rows + 3 * ROW + c, v128.and(open, f32x4.div(through, ml)));
  st(rows + 4 * ROW + c, v128.and(open, f32x4.div(through, mr)));
}

// @ts-ignore: decorator
@inline function flux(a: v128, b: v128, v: v128, diffuse: v128, smear: v128): v128 {
  return f32x4.add(f32x4.mul(f32x4.add(diffuse, f32x4.mul(smear, f32x4.abs(v))), f32x4.sub(a, b)), f32x4.mul(v, f32x4.add(a, b)));
}

// @ts-ignore: decorator
@inline function tidy(v: v128): v128 { return v128.and(v, f32x4.ge(v, lanes(1e-12))); }

/** What passes through four faces, between the cells before and behind them; `r` is the address of their velocities. */
// @ts-ignore: decorator
@inline function faces4(r: usize, before: v128, behind: v128, mobile: v128, rollA: v128, rollB: v128, diffuse: v128, smear: v128): v128 {
  const v = f32x4.add(f32x4.add(f32x4.mul(mobile, v128.load(r)), f32x4.mul(rollA, v128.load(r, 4 * ROW))), f32x4.mul(rollB, v128.load(r, 8 * ROW)));
  return flux(f32x4.mul(before, v128.load(r, 12 * ROW)), f32x4.mul(behind, v128.load(r, 16 * ROW)), v, diffuse, smear);
}

/** Velocities and fades at the faces of a row along x, from its flow cells: into rows 0 and 6. @returns whether there is film */
function facesX(block: i32, rows: i32, coarse: i32, n: i32, factor: i32, cells: v128): bool {
  const paint = int(block + WATER.paintU), depth = int(block + WATER.depth);
  let any = lanes(0);
  if (factor == 2) {
    for (let c = 0, i = coarse; c <= n; c += 8, i += 4) {
      const u = f32x4.mul(ld(paint + i), cells), next = f32x4.mul(ld(paint + i + 1), cells);
      const mid = f32x4.mul(lanes(0.5), f32x4.add(u, next));
      st(rows + c, v128.shuffle<f32>(u, mid, 0, 4, 1, 5));
      st(rows + c + 4, v128.shuffle<f32>(u, mid, 2, 6, 3, 7));
      const d = ld(depth + i), before = f32x4.pmax(d, ld(depth + i - 1));
      any = f32x4.pmax(any, before);
      const within = fade(d), border = fade(before);
      st(rows + 6 * ROW + c, v128.shuffle<f32>(border, within, 0, 4, 1, 5));
      st(rows + 6 * ROW + c + 4, v128.shuffle<f32>(border, within, 2, 6, 3, 7));
    }
    return v128.any_true(f32x4.gt(any, lanes(0)));
  }
  if (factor == 1) {
    for (let c = 0, i = coarse; c <= n; c += 4, i += 4) {
      st(rows + c, f32x4.mul(ld(paint + i), cells));
      const before = f32x4.pmax(ld(depth + i), ld(depth + i - 1));
      any = f32x4.pmax(any, before);
      st(rows + 6 * ROW + c, fade(before));
    }
    return v128.any_true(f32x4.gt(any, lanes(0)));
  }
  const quarters = f32x4(0, 0.25, 0.5, 0.75);
  for (let c = 0, i = coarse; c <= n; c += 4, i++) {
    const u = all(paint + i), next = all(paint + i + 1);
    st(rows + c, f32x4.mul(f32x4.add(u, f32x4.mul(f32x4.sub(next, u), quarters)), cells));
    const d = all(depth + i), before = f32x4.pmax(d, all(depth + i - 1));
    any = f32x4.pmax(any, before);
    st(rows + 6 * ROW + c, fade(v128.shuffle<f32>(before, d, 0, 4, 5, 6)));
  }
  return v128.any_true(f32x4.gt(any, lanes(0)));
}

/** Where each pigment has paint, in and beside the tile: first and last row, into words 72 and 73 of its row. @returns whether there is any */
function extents(above: i32, n: i32, list: i32, count: i32, across: bool): bool {
  let any = false;
  for (let k = 0; k < count; k++) {
    const e = list + k * CARRIED.words, plane = int(e + CARRIED.plane), before = int(e + CARRIED.before), behind = int(e + CARRIED.behind), out = above + k * ROW + 72;
    let first = 0, last = n - 1;
    for (; first < n; first++) {
      const row = plane + first * n;
      let sum = lanes(0);
      for (let c = 0; c < n; c += 4) sum = v128.or(sum, ld(row + c));
      if (v128.any_true(sum)) break;
      if (across && ((before != 0 && get(before + first) != 0) || (behind != 0 && get(behind + first * n) != 0))) break;
    }
    for (; last > first; last--) {
      const row = plane + last * n;
      let sum = lanes(0);
      for (let c = 0; c < n; c += 4) sum = v128.or(sum, ld(row + c));
      if (v128.any_true(sum)) break;
      if (across && ((before != 0 && get(before + last) != 0) || (behind != 0 && get(behind + last * n) != 0))) break;
    }
    if (!across) {
      let sum = lanes(0);
      if (before != 0) for (let c = 0; c < n; c += 4) sum = v128.or(sum, ld(before + c));
      if (v128.any_true(sum)) {
        if (first == n) last = 0;
        first = 0;
      }
      sum = lanes(0);
      if (behind != 0) for (let c = 0; c < n; c += 4) sum = v128.or(sum, ld(behind + c));
      if (v128.any_true(sum)) last = n;
    }
    if (first < n || last == n) any = true;
    else last = -3;
    store<i32>(<usize>out << 2, first);
    store<i32>(<usize>(out + 1) << 2, last);
  }
  return any;
}

export function carryX(block: i32, at: i32, coverAt: i32, fine: i32, list: i32, count: i32, steps: f32): void {
  const stride = int(block + WATER.stride), coverStride = int(block + WATER.coverStride), fineStride = int(block + WATER.fineStride);
  const factor = int(block + WATER.factor), n = int(block + WATER.side) * factor, rows = int(block + WATER.rows);
  const cells = lanes((<f32>0.5 * get(block + WATER.cells) * steps) / get(block + WATER.step));
  const bedA = int(block + WATER.bedA), bedB = int(block + WATER.bedB), covers = int(block + WATER.cover), smear = all(block + WATER.smear);
  for (let k = 0; k < count; k++) {
    const e = list + k * CARRIED.words, save = int(e + CARRIED.save), plane = int(e + CARRIED.plane);
    if (save != 0) for (let y = 0; y < n; y++) set(save + y, get(plane + y * n + n - 1));
  }
  const above = rows + 8 * ROW;
  if (!extents(above, n, list, count, true)) return;
  for (let y = 0; y < n; y++) {
    let paint = false;
    for (let k = 0; k < count; k++) paint = paint || (y >= int(above + k * ROW + 72) && y <= int(above + k * ROW + 73));
    if (!paint) continue;
    if (!facesX(block, rows, at + (y / factor) * stride, n, factor, cells)) continue;
    const cover = covers + coverAt + y * coverStride, ground = fine + y * fineStride;
    for (let c = 0; c <= n; c += 4) {
      st(rows + ROW + c, f32x4.sub(ld(bedA + ground + c - 1), ld(bedA + ground + c)));
      st(rows + 2 * ROW + c, f32x4.sub(ld(bedB + ground + c - 1), ld(bedB + ground + c)));
      apertures(rows, c, ld(cover + c - 1), ld(cover + c));
    }
    for (let k = 0; k < count; k++) {
      if (y < int(above + k * ROW + 72) || y > int(above + k * ROW + 73)) continue;
      const e = list + k * CARRIED.words, before = int(e + CARRIED.before), behind = int(e + CARRIED.behind);
      const mobile = all(e + CARRIED.mobile), rollA = all(e + CARRIED.rollA), rollB = all(e + CARRIED.rollB), diffuse = all(e + CARRIED.diffuse);
      const first = before != 0 ? get(before + y) : 0, beyond = behind != 0 ? get(behind + y * n) : 0;
      let r = <usize>rows << 2, g = <usize>(int(e + CARRIED.plane) + y * n) << 2;
      const end = r + (<usize>n << 2);
      let last = lanes(first), cells4 = v128.load(g), passed = lanes(0);
      // each pass works out four faces, and stores the four cells before them
      for (; r <= end; r += 16, g += 16) {
        let through = faces4(r, v128.shuffle<f32>(last, cells4, 3, 4, 5, 6), cells4, mobile, rollA, rollB, diffuse, smear);
        if (r == <usize>rows << 2) {
          if (before == 0) through = f32x4.replace_lane(through, 0, 0);
        } else {
          if (r == end && behind == 0) through = f32x4.replace_lane(through, 0, 0);
          v128.store(g - 16, tidy(f32x4.sub(f32x4.add(last, passed), v128.shuffle<f32>(passed, through, 1, 2, 3, 4))));
        }
        last = cells4;
        passed = through;
        cells4 = r + 16 < end ? v128.load(g, 16) : lanes(beyond);
      }
    }
  }
}

/** The same for the faces above a row, along y. */
function facesY(block: i32, rows: i32, coarse: i32, n: i32, factor: i32, part: f32, cells: v128): void {
  const paint = int(block + WATER.paintV), depth = int(block + WATER.depth), stride = int(block + WATER.stride);
  for (let c = 0, i = coarse; c < n; c += 4 * factor, i += 4) {
    const u0 = ld(paint + i), d = ld(depth + i);
    const u = f32x4.mul(part > 0 ? f32x4.add(u0, f32x4.mul(f32x4.sub(ld(paint + i + stride), u0), lanes(part))) : u0, cells);
    const film = fade(part > 0 ? d : f32x4.pmax(d, ld(depth + i - stride)));
    if (factor == 1) {
      st(rows + c, u);
      st(rows + 6 * ROW + c, film);
    } else if (factor == 2) {
      st(rows + c, v128.shuffle<f32>(u, u, 0, 0, 1, 1));
      st(rows + c + 4, v128.shuffle<f32>(u, u, 2, 2, 3, 3));
      st(rows + 6 * ROW + c, v128.shuffle<f32>(film, film, 0, 0, 1, 1));
      st(rows + 6 * ROW + c + 4, v128.shuffle<f32>(film, film, 2, 2, 3, 3));
    } else {
      st(rows + c, lanes(f32x4.extract_lane(u, 0)));
      st(rows + c + 4, lanes(f32x4.extract_lane(u, 1)));
      st(rows + c + 8, lanes(f32x4.extract_lane(u, 2)));
      st(rows + c + 12, lanes(f32x4.extract_lane(u, 3)));
      st(rows + 6 * ROW + c, lanes(f32x4.extract_lane(film, 0)));
      st(rows + 6 * ROW + c + 4, lanes(f32x4.extract_lane(film, 1)));
      st(rows + 6 * ROW + c + 8, lanes(f32x4.extract_lane(film, 2)));
      st(rows + 6 * ROW + c + 12, lanes(f32x4.extract_lane(film, 3)));
    }
  }
}

export function carryY(block: i32, at: i32, coverAt: i32, fine: i32, list: i32, count: i32, steps: f32): void {
  const stride = int(block + WATER.stride), coverStride = int(block + WATER.coverStride), fineStride = int(block + WATER.fineStride);
  const factor = int(block + WATER.factor), n = int(block + WATER.side) * factor, rows = int(block + WATER.rows);
  const cells = lanes((<f32>0.5 * get(block + WATER.cells) * steps) / get(block + WATER.step));
  const bedA = int(block + WATER.bedA), bedB = int(block + WATER.bedB), covers = int(block + WATER.cover), smear = all(block + WATER.smear);
  for (let k = 0; k < count; k++) {
    const e = list + k * CARRIED.words, save = int(e + CARRIED.save), plane = int(e + CARRIED.plane) + (n - 1) * n;
    if (save != 0) for (let x = 0; x < n; x += 4) st(save + x, ld(plane + x));
  }
  // what came through the face above, a row for each pigment
  const above = rows + 8 * ROW;
  if (!extents(above, n, list, count, false)) return;
  for (let k = 0; k < count; k++) for (let x = 0; x < n; x += 4) st(above + k * ROW + x, lanes(0));
  for (let y = 0; y <= n; y++) {
    // beyond its first and last row nothing passes through a face
    let paint = false;
    for (let k = 0; k < count; k++) paint = paint || (y >= int(above + k * ROW + 72) && y <= int(above + k * ROW + 73) + 2);
    if (!paint) continue;
    const cover = covers + coverAt + y * coverStride, ground = fine + y * fineStride;
    facesY(block, rows, at + (y / factor) * stride, n, factor, <f32>(y % factor) / <f32>factor, cells);
    for (let c = 0; c < n; c += 4) {
      st(rows + ROW + c, f32x4.sub(ld(bedA + ground + c - fineStride), ld(bedA + ground + c)));
      st(rows + 2 * ROW + c, f32x4.sub(ld(bedB + ground + c - fineStride), ld(bedB + ground + c)));
      apertures(rows, c, ld(cover + c - coverStride), ld(cover + c));
    }
    for (let k = 0; k < count; k++) {
      if (y < int(above + k * ROW + 72) || y > int(above + k * ROW + 73) + 2) continue;
      const e = list + k * CARRIED.words, g = int(e + CARRIED.plane) + y * n, before = int(e + CARRIED.before), behind = int(e + CARRIED.behind), held = above + k * ROW;
      const upper = <usize>(y == 0 ? before : g - n) << 2, lower = <usize>(y == n ? behind : g) << 2;
      const mobile = all(e + CARRIED.mobile), rollA = all(e + CARRIED.rollA), rollB = all(e + CARRIED.rollB), diffuse = all(e + CARRIED.diffuse);
      const r = <usize>rows << 2, h = <usize>held << 2, end = <usize>n << 2;
      if (y == 0) {
        if (before != 0) for (let c: usize = 0; c < end; c += 16) v128.store(h + c, faces4(r + c, v128.load(upper + c), v128.load(lower + c), mobile, rollA, rollB, diffuse, smear));
      } else if (y == n && behind == 0) {
        for (let c: usize = 0; c < end; c += 16) v128.store(upper + c, tidy(f32x4.add(v128.load(upper + c), v128.load(h + c))));
      } else {
        for (let c: usize = 0; c < end; c += 16) {
          const there = v128.load(upper + c);
          const through = faces4(r + c, there, v128.load(lower + c), mobile, rollA, rollB, diffuse, smear);
          v128.store(upper + c, tidy(f32x4.sub(f32x4.add(there, v128.load(h + c)), through)));
          v128.store(h + c, through);
        }
      }
    }
  }
}

// @ts-ignore: decorator
@inline function widen(to: i32, factor: i32, v: v128): void {
  if (factor == 1) st(to, v);
  else if (factor == 2) {
    st(to, v128.shuffle<f32>(v, v, 0, 0, 1, 1));
    st(to + 4, v128.shuffle<f32>(v, v, 2, 2, 3, 3));
  } else {
    st(to, lanes(f32x4.extract_lane(v, 0)));
    st(to + 4, lanes(f32x4.extract_lane(v, 1)));
    st(to + 8, lanes(f32x4.extract_lane(v, 2)));
    st(to + 12, lanes(f32x4.extract_lane(v, 3)));
  }
}

export function settlePaint(block: i32, at: i32, coverAt: i32, fine: i32, list: i32, count: i32, seconds: f32, rimSettle: f32): void {
  const stride = int(block + WATER.stride), coverStride = int(block + WATER.coverStride), fineStride = int(block + WATER.fineStride);
  const factor = int(block + WATER.factor), side = int(block + WATER.side), n = side * factor, rows = int(block + WATER.rows);
  const share = int(block + WATER.share), depth = int(block + WATER.depth), rim = int(block + WATER.rim), moisture = int(block + WATER.moisture);
  const tooth = int(block + WATER.tooth), covers = int(block + WATER.cover);
  const full = lanes(<f32>1 / get(block + WATER.capacity)), zero = lanes(0), one = lanes(1), most = lanes(0.9);
  for (let y = 0; y < n; y++) {
    const coarse = at + (y / factor) * stride;
    if (y % factor == 0) {
      for (let x = 0; x < side; x += 4) {
        const i = coarse + x, d = ld(depth + i), wet = f32x4.gt(ld(share + i), zero);
        const thin = f32x4.pmax(zero, f32x4.mul(f32x4.sub(lanes(0.4), d), lanes(2.5)));
        const falls = f32x4.add(f32x4.add(one, f32x4.mul(lanes(1.2), f32x4.mul(thin, thin))), f32x4.mul(f32x4.mul(lanes(rimSettle), f32x4.sub(one, ld(rim + i))), thin));
        widen(rows + x * factor, factor, v128.and(wet, falls));
        widen(rows + ROW + x * factor, factor, v128.and(wet, f32x4.pmin(one, f32x4.mul(d, lanes(1 / <f32>0.3)))));
        const dry = f32x4.sub(one, f32x4.mul(ld(moisture + i), full));
        const fixes = f32x4.pmin(one, f32x4.mul(f32x4.add(lanes(0.004), f32x4.mul(lanes(0.07), f32x4.pmax(zero, f32x4.sub(dry, lanes(0.1))))), lanes(seconds)));
        widen(rows + 2 * ROW + x * factor, factor, v128.andnot(fixes, wet));
      }
    }
    const cover = covers + coverAt + y * coverStride, h = tooth + fine + y * fineStride;
    for (let k = 0; k < count; k++) {
      const e = list + k * SETTLED.words;
      const g = int(e + SETTLED.suspended) + y * n, d = int(e + SETTLED.settled) + y * n, under = int(e + SETTLED.under), soluble = int(e + SETTLED.soluble);
      const settle = all(e + SETTLED.settle), valley = all(e + SETTLED.valley), lift = all(e + SETTLED.lift), floor = all(e + SETTLED.floor), liftUnder = all(e + SETTLED.liftUnder), liftInk = all(e + SETTLED.liftInk);
      for (let c = 0; c < n; c += 4) {
        const floats = ld(g + c), lies = ld(d + c);
        const falls = f32x4.mul(f32x4.mul(settle, ld(rows + c)), f32x4.add(one, f32x4.mul(valley, f32x4.sub(one, f32x4.mul(lanes(2), ld(h + c))))));
        const share4 = f32x4.pmax(f32x4.pmin(most, falls), ld(rows + 2 * ROW + c));
        const down = v128.bitselect(floats, f32x4.mul(floats, share4), f32x4.lt(floats, lanes(1e-11)));
        const wet = f32x4.mul(ld(rows + ROW + c), ld(cover + c));
        const up = f32x4.mul(f32x4.pmin(most, f32x4.mul(lift, wet)), f32x4.pmax(zero, f32x4.sub(lies, floor)));
        let more = zero;
        if (under != 0) {
          const u = under + y * n + c, there = ld(u);
          const lifted = f32x4.mul(f32x4.pmin(most, f32x4.mul(liftUnder, wet)), f32x4.pmax(zero, f32x4.sub(there, floor)));
          st(u, f32x4.sub(there, lifted));
          more = lifted;
        }
        if (soluble != 0) {
          const s = soluble + y * n + c, there = ld(s);
          const taken = f32x4.mul(f32x4.pmin(most, f32x4.mul(liftInk, wet)), there);
          st(s, f32x4.sub(there, taken));
          more = f32x4.add(more, taken);
        }
        st(g + c, f32x4.add(f32x4.add(f32x4.sub(floats, down), up), more));
        st(d + c, f32x4.sub(f32x4.add(lies, down), up));
      }
    }
  }
}
