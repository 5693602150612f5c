/**
 * The kernel of the knife: one position of a rigid edge over the film.
 *
 * The blade stands `stand` um above what it rides on, and rises ahead of its edge. What stands higher than the blade
 * goes into the bead in front of the edge, kept in columns along it; where the film lies lower than the blade, the
 * bead fills it as far as its wedge reaches. Under the edge the film is sheared, and changes places with the bead. Beyond the ends of the edge paint stands free: hence the ridges.
 * Everything taken from one side is given to the other. Plain loops: the oracle of the compiled twin.
 */

/** Layout of the parameter block, in 4-byte words: floats, then integers (word addresses and sizes). Lengths in cells. */
export const BLADE = {
  cos: 0, // of the edge's direction
  sin: 1,
  x: 2, // middle of the edge, window coordinates
  y: 3,
  half: 4, // half the width that is looked at, free ends included
  edge: 5, // half the width of the blade
  column: 6, // width of a column
  back: 7, // how far behind the edge is still under the blade
  ahead: 8, // how far the bead reaches
  stand: 9, // um above the ride
  nickScale: 10, // um for a nick of 1
  chatter: 11, // um, of this stamp
  slope: 12, // um a cell, rise of the blade ahead of its edge
  beyondSlope: 13, // um a cell, freedom beyond its ends
  lean: 14, // um a cell, one end lifted
  leanBase: 15, // um
  fill: 16, // share of the room filled in one stamp
  fillZone: 17, // how far ahead of the edge paint is laid
  ceiling: 18, // strength 0..1
  ownBody: 19, // stiffness of the bead
  passes: 20, // levelling passes that a touched cell will get
  least: 21, // um that even a pressed blade leaves
  carryOff: 22, // share of what stands above the blade that goes along
  bodySum: 23, // out: stiffness felt, and over how many cells
  bodyCount: 24,
  channels: 25,
  film: 26,
  relief: 27,
  body: 28,
  laid: 29,
  fresh: 30,
  cure: 31,
  bead: 32, // channels interleaved for each column, amounts times cells
  ride: 33, // um for each column
  nick: 34, // four for each column
  felt: 35, // out: sum and maximum of heights, and count, for each column
  columns: 36,
  width: 37, // cells in a row of the window
  x0: 38, // cells to look at
  y0: 39,
  x1: 40,
  y1: 41,
  standoff: 42, // float: distance at which the blade begins to rise
  filmSum: 43, // out: thickness felt, over bodyCount cells
  stir: 44, // float: share of the film under the edge that changes places with the bead in one stamp
  buoyancy: 45, // float: share of the wet film that carries the blade
  words: 46,
} as const;

/** How deep a wedge must overlap the gap before it fills it, um. */
const SOFTNESS_UM = 35;
/**
 * Roughness of bead and ground within a cell, um: where the bead stands no higher above the gap than that, it touches
 * part of the cell, and leaves so much less.
 */
const WITHIN_UM = 60;

/** Works on the cells of the block's rectangle. `block` is a word address. */
export function bladeStamp(f32: Float32Array, i32: Int32Array, block: number): void {
  const f = (k: number) => f32[block + k];
  const i = (k: number) => i32[block + k];
  const [cos, sin, x, y] = [f(BLADE.cos), f(BLADE.sin), f(BLADE.x), f(BLADE.y)];
  const [half, edge, column] = [f(BLADE.half), f(BLADE.edge), f(BLADE.column)];
  const [back, ahead, standoff] = [f(BLADE.back), f(BLADE.ahead), f(BLADE.standoff)];
  const [stand, nickScale, chatter] = [f(BLADE.stand), f(BLADE.nickScale), f(BLADE.chatter)];
  const [slope, beyondSlope, lean, leanBase] = [f(BLADE.slope), f(BLADE.beyondSlope), f(BLADE.lean), f(BLADE.leanBase)];
  const [fill, fillZone, ceiling, ownBody] = [f(BLADE.fill), f(BLADE.fillZone), f(BLADE.ceiling), f(BLADE.ownBody)];
  const [stir, buoyancy] = [f(BLADE.stir), f(BLADE.buoyancy)];
  const [passes, least, carryOff] = [f(BLADE.passes), f(BLADE.least), f(BLADE.carryOff)];
  const [n, film, relief, body] = [i(BLADE.channels), i(BLADE.film), i(BLADE.relief), i(BLADE.body)];
  const [laid, fresh, cure, bead] = [i(BLADE.laid), i(BLADE.fresh), i(BLADE.cure), i(BLADE.bead)];
  const [ride, nick, felt, columns, width] = [
    i(BLADE.ride),
    i(BLADE.nick),
    i(BLADE.felt),
    i(BLADE.columns),
    i(BLADE.width),
  ];
  const [x0, y0, x1, y1] = [i(BLADE.x0), i(BLADE.y0), i(BLADE.x1), i(BLADE.y1)];
  const vol = n - 1;
  let bodySum = 0;
  let bodyCount = 0;
  let filmSum = 0;

  for (let py = y0; py < y1; py++) {
    const Y = py + 0.5 - y;
    for (let px = x0; px < x1; px++) {
      const X = px + 0.5 - x;
      const v = cos * Y - sin * X;
      if (v < -back || v > ahead) continue;
      const u = cos * X + sin * Y;
      if (u < -half || u >= half) continue;
      const fc = (u + half) / column;
      const c = Math.min(columns - 1, fc | 0);
      const cell = py * width + px;
      const o = film + 2 * cell * n;
      const t = f32[o + vol];
      const h = f32[relief + cell];
      const beyond = Math.abs(u) - edge;
      if (beyond < 0) {
        const w = felt + c * 3;
        // the slab that it lays does not lift it
        const under = h + buoyancy * Math.max(0, t - f32[laid + cell]);
        f32[w] += under;
        if (under > f32[w + 1]) f32[w + 1] = under;
        f32[w + 2] += 1;
      }
      const c2 = c + 1 < columns ? c + 1 : c;
      const share = Math.max(0, fc - c - 0.5);
      const raised = lean * u + leanBase;
      let gap =
        stand +
        nickScale * f32[nick + ((fc * 4) | 0)] +
        chatter +
        (v > standoff ? slope * (v - standoff) : 0) +
        (beyond > 0 ? beyondSlope * beyond : 0) +
        (raised > 0 ? raised : 0) +
        f32[ride + c] +
        (f32[ride + c2] - f32[ride + c]) * share -
        h;
      if (gap < 0) gap = 0;
      gap += least;
      if (t > 10) {
        bodySum += f32[body + cell];
        bodyCount++;
        filmSum += t;
      }
      const q = bead + c * n;
      const carried = f32[q + vol];
      if (v < fillZone && beyond < 0 && t > 10 && carried > t && stir > 0) {
        const open = 1 - f32[cure + cell];
        const share = stir * open * open;
        const back = (share * t) / carried;
        for (let k = 0; k < n; k++) {
          const b = f32[q + k];
          const m = f32[o + k] * share - b * back;
          f32[o + k] -= m;
          f32[q + k] += m;
          f32[o + n + k] = f32[o + n + k] * (1 - share) + b * back;
        }
      }
      if (t > gap) {
        const open = 1 - f32[cure + cell];
        const off = ((t - gap) / t) * carryOff * open * open;
        if (off <= 0) continue;
        for (let k = 0; k < n; k++) {
          const m = f32[o + k] * off;
          f32[o + k] -= m;
          f32[o + n + k] *= 1 - off;
          f32[q + k] += m;
        }
        f32[fresh + cell] = passes;
      } else if (v < fillZone && carried > 0.02 * column) {
        const high = Math.sqrt((2 * carried * slope) / column);
        const overlap = t + high - gap;
        const above = high - gap;
        if (overlap <= 0 || above <= 0) continue;
        const touched = (above * above) / (above * above + WITHIN_UM * WITHIN_UM);
        let d = Math.min(0.25 * carried, (gap * touched - t) * (overlap / (overlap + SOFTNESS_UM)) * fill);
        const own = f32[laid + cell];
        if (ceiling < 1) d = Math.min(d, ceiling * gap - own);
        if (d <= 0) continue;
        f32[laid + cell] = own + d;
        const given = d / carried;
        // what lay on top before is buried
        const top = f32[o + n + vol];
        const older = top - own;
        const keep = older > 0 ? 1 - ((older / top) * d) / (d + older + 1) : 1;
        for (let k = 0; k < n; k++) {
          const m = f32[q + k] * given;
          f32[q + k] -= m;
          f32[o + k] += m;
          f32[o + n + k] = f32[o + n + k] * keep + m;
        }
        const mixed = d / (f32[o + vol] + 1e-4);
        f32[body + cell] += (ownBody - f32[body + cell]) * mixed;
        f32[cure + cell] -= f32[cure + cell] * mixed;
        f32[fresh + cell] = passes;
      }
    }
  }
  f32[block + BLADE.bodySum] = bodySum;
  f32[block + BLADE.bodyCount] = bodyCount;
  f32[block + BLADE.filmSum] = filmSum;
}
