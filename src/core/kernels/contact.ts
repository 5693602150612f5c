/**
 * The kernel of painting: one row of cells under a brush, exchanging paint with it.
 *
 * For every cell, in the order in which the brush leaves them:
 *  1. gap: how far the bristle above it is from the dry relief; contact grows with film and carried paint over gap;
 *  2. the brush gives (only what fits under the bristle: valleys fill, peaks stay thin) and takes (not the last film,
 *     and less when the bristle is full);
 *  3. what no longer fits is ploughed aside, ahead, or towards the higher bristle: ridges and furrows.
 * Paint that has begun to dry gives itself up less and less, and is pushed about less; when it is tacky it grabs what
 * a brush carries. Fresh paint on it softens it again by its share.
 * Paint is laid on paint: what a stroke leaves lies on top of what was there (the skin, the second half of a cell's
 * channels, always part of the first) until it is worked in. A brush takes from the top first. Fresh paint buries the
 * skin that was there before it.
 *
 * One amount is taken from one side and given to the other, so paint is conserved to rounding.
 *
 * Plain TypeScript over one memory and a block of parameters, all by address: the oracle of its compiled twin.
 * Channels of a cell are padded to a multiple of four (see FilmWindow.channels).
 */

/** Layout of the parameter block, in 4-byte words: floats, then integers (word addresses and sizes). */
export const CONTACT = {
  roughness: 0, // um, bristle unevenness under this pressure
  hang: 1, // how far carried paint hangs below the bristle, share of its thickness
  softness: 2, // um
  sink: 3, // share of the wet film that carries the brush
  give: 4, // share given per stamp at full contact
  take: 5, // share taken per stamp at full contact
  plough: 6, // share of the surplus moved per stamp
  cellAreaInverse: 7, // 1 / reservoir cell area in painting cells
  stiffness: 8, // stiffness of the carried paint 0..1
  ceiling: 9, // strength 0..1
  passes: 10, // levelling passes that a touched cell will get
  channels: 11,
  film: 12,
  relief: 13,
  body: 14,
  laid: 15,
  fresh: 16,
  tip: 17, // channels interleaved for each reservoir cell
  profile: 18,
  cells: 19,
  ride: 20, // [sum, count] for each reservoir cell
  height: 21, // for each reservoir cell [um above what it rides on, what it rides on]
  appetite: 22, // readiness to take for each reservoir cell
  mapWidth: 23,
  aside: 24, // three cell offsets: left, ahead, right
  cure: 27, // how far the film has dried, 0..1
  stain: 28, // float: film that cannot be taken up again, um
  shear: 29, // float: share of the fresh paint on top that is worked in by a stamp at full contact
  onTop: 30, // float: share of what is given that stays on top at first
  hair: 31, // um that each hair (column of the maps) stands off at this moment
  follow: 32, // float: share of the ground's relief that a hair with little paint does not follow
  hold: 33, // float: paint that hair keeps to itself, um
  words: 34,
} as const;

/** Film that a pressed bristle still leaves on a peak, um. */
const LEAST_ROOM_UM = 18;
/** Film that a brush cannot take up again, um. */
export const STAIN_UM = 5;
/** Paint on top that a brush takes from rather than from below, um. */
const TOP_UM = 40;
/** How much more tacky paint takes from a brush, at its tackiest (half dry). */
const GRAB = 4;
/** A bundle of hair carrying this much bridges the valleys of the ground and fills them, um. */
const BRIDGING_UM = 125;
/** Bristles farther away than this cannot touch, um. */
const OUT_OF_REACH_UM = 320;

/**
 * Works on `count` cells of a row, from cell `cell0` (index in the window) in direction `step` (+1, -1).
 * (u0, v0) is the place in the footprint's maps, with its change per cell; `depth0` is how far the tuft is pressed, um.
 * @returns how many cells were touched.
 */
export function contactRow(
  f32: Float32Array,
  i32: Int32Array,
  block: number,
  cell0: number,
  count: number,
  step: number,
  u0: number,
  v0: number,
  du: number,
  dv: number,
  depth0: number,
  dDepth: number,
): number {
  const p = block >> 2;
  const roughness = f32[p + CONTACT.roughness];
  const hang = f32[p + CONTACT.hang];
  const softness = f32[p + CONTACT.softness];
  const sink = f32[p + CONTACT.sink];
  const give = f32[p + CONTACT.give];
  const take = f32[p + CONTACT.take];
  const plough = f32[p + CONTACT.plough];
  const areaInverse = f32[p + CONTACT.cellAreaInverse];
  const carriedBody = f32[p + CONTACT.stiffness];
  const ceiling = f32[p + CONTACT.ceiling];
  const passes = f32[p + CONTACT.passes];
  const stain = f32[p + CONTACT.stain];
  const shear = f32[p + CONTACT.shear];
  const onTop = f32[p + CONTACT.onTop];
  const hair = i32[p + CONTACT.hair];
  const follow = f32[p + CONTACT.follow];
  const hold = f32[p + CONTACT.hold];
  const n = i32[p + CONTACT.channels];
  const film = i32[p + CONTACT.film];
  const relief = i32[p + CONTACT.relief];
  const body = i32[p + CONTACT.body];
  const laid = i32[p + CONTACT.laid];
  const fresh = i32[p + CONTACT.fresh];
  const tip = i32[p + CONTACT.tip];
  const profile = i32[p + CONTACT.profile];
  const cells = i32[p + CONTACT.cells];
  const ride = i32[p + CONTACT.ride];
  const height = i32[p + CONTACT.height];
  const appetite = i32[p + CONTACT.appetite];
  const mapWidth = i32[p + CONTACT.mapWidth];
  const aside = p + CONTACT.aside;
  const cure = i32[p + CONTACT.cure];
  const vol = n - 1;
  let touched = 0;

  for (let k = 0; k < count; k++) {
    // positions from the row's start, so that no rounding adds up
    const cell = cell0 + k * step;
    const u = u0 + du * k;
    const v = v0 + dv * k;
    const depth = depth0 + dDepth * k;
    const ui = u | 0;
    const at = (Math.imul(v | 0, mapWidth) + ui) | 0;
    const z = profile + (at << 1);
    let lift = f32[z] - depth;
    if (lift > OUT_OF_REACH_UM) continue;
    if (lift < 0) lift = 0;
    const code = i32[cells + at];
    const c = code >> 2;
    const o = film + Math.imul(cell, 2 * n);
    const q = tip + Math.imul(c, n);
    const t = f32[o + vol];
    const carried = f32[q + vol];
    const h = f32[relief + cell];
    const r = ride + (c << 1);
    f32[r] += h + sink * t;
    f32[r + 1] += 1;

    const bristle = f32[z + 1];
    const off = f32[hair + ui];
    const stiff = carried < BRIDGING_UM ? follow + ((1 - follow) * carried) / BRIDGING_UM : 1;
    let gap =
      lift +
      (bristle + (u - ui) * (f32[z + 3] - bristle)) * roughness +
      (off + (u - ui) * (f32[hair + ui + 1] - off)) +
      f32[height + (c << 1)] +
      stiff * (f32[height + (c << 1) + 1] - h);
    if (gap < 0) gap = 0;
    const overlap = t + hang * carried - gap;
    if (overlap <= 0) continue;
    touched++;
    // a dry bristle touches crisply
    const contact = overlap / (overlap + (carried < 100 ? softness * (0.15 + 0.0085 * carried) : softness));

    const fits = gap + LEAST_ROOM_UM + 0.1 * carried;
    const set = f32[cure + cell];
    const open = 1 - set;
    let fd = carried > hold ? give * contact * (1 - hold / carried) : 0;
    if (set > 0) fd = Math.min(0.95, fd * (1 + GRAB * set * open));
    const full = fd * carried;
    if (full > fits - t) {
      // wet into wet the exchange never stops; the surplus is ploughed away
      fd = fits - t > 0.5 * full ? (fits - t) / carried : 0.5 * fd;
    }
    let given = fd * carried;
    const own = f32[laid + cell];
    if (ceiling < 1) {
      const left = ceiling * fits - own;
      if (given > left) {
        given = left > 0 ? left : 0;
        fd = carried > 0 ? given / carried : 0;
      }
    }
    f32[laid + cell] = own + given;
    const free = t - stain;
    const fp = free > 0 ? (take * f32[appetite + c] * contact * free * open * open * open) / t : 0;
    const t2 = t + given - fp * t;

    let fr = 0;
    const surplus = t2 - gap - stain;
    if (surplus > 2) {
      fr = (plough * surplus * open) / t2;
      if (fr > 0.6) fr = 0.6;
    }
    if (given > 0) f32[body + cell] += ((carriedBody - f32[body + cell]) * given) / (t2 + 1e-4);
    if (set > 0) f32[cure + cell] = t2 > 0 ? (set * (t - fp * t)) / t2 : 0;
    f32[fresh + cell] = passes;

    // from the top first, as far as there is any
    const top = f32[o + n + vol];
    const taken = fp * t;
    let w = top / (top + TOP_UM);
    if (w * taken > 0.9 * top) w = taken > 0 ? (0.9 * top) / taken : 0;
    const deep = fp * (1 - w);
    const skim = top > 0 ? (w * taken) / top : 0;
    // what lay on top before is buried by what comes, and all of it is worked in
    let keep = 1 - shear * contact;
    const older = top - own;
    if (older > 0 && given > 0) keep *= 1 - ((older / top) * given) / (given + older + 1);
    const skin = (1 - deep - skim) * keep;

    const lands = fd * (1 - fr);
    const stay = 1 - fr;
    const rest = 1 - fd * areaInverse;
    if (fr > 0) {
      const target = cell + i32[aside + (code & 3)];
      const w2 = film + Math.imul(target, 2 * n);
      const movesTip = fd * fr;
      f32[fresh + target] = passes;
      // ploughed paint brings its stiffness along
      const moved = fr * (t - taken) + movesTip * carried;
      const share = moved / (f32[w2 + vol] + moved + 1e-4);
      f32[body + target] += (f32[body + cell] - f32[body + target]) * share;
      f32[cure + target] += (f32[cure + cell] - f32[cure + target]) * share;
      for (let i = 0; i < n; i++) {
        const s = f32[o + n + i];
        const b = f32[q + i];
        const lifted = deep * f32[o + i] + skim * s;
        const a = f32[o + i] - lifted;
        f32[w2 + i] += fr * a + movesTip * b;
        f32[w2 + n + i] += fr * skin * s + onTop * movesTip * b;
        f32[o + i] = stay * a + lands * b;
        f32[o + n + i] = stay * skin * s + onTop * lands * b;
        f32[q + i] = rest * b + areaInverse * lifted;
      }
    } else {
      for (let i = 0; i < n; i++) {
        const s = f32[o + n + i];
        const b = f32[q + i];
        const lifted = deep * f32[o + i] + skim * s;
        f32[o + i] += lands * b - lifted;
        f32[o + n + i] = skin * s + onTop * lands * b;
        f32[q + i] = rest * b + areaInverse * lifted;
      }
    }
  }
  return touched;
}
