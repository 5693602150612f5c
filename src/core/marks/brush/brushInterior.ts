import type { FilmWindow } from '@/core/film/window/window';
import type { Painting } from '@/core/film/painting';
import { maths } from '@/core/maths/maths';
import { latticeHash } from '@/core/surface/noise';
import type { Footprint } from './footprint';
import { Hair } from './hair';
import type { Reservoir } from './reservoir';
import type { BrushForm } from './brushForms';
import type { HeldTool } from '@/core/marks/heldTool';

/** Paint with which hair is wetted and reaches into the grain, um. */
const WETTED_UM = 45;
/** How much of the relief a pressed hair follows. */
const FOLLOWS = 0.92;
/** Way in which a lock of hair springs down behind a step, mm. */
const SPRING_MM = 0.35;
/** Places across and along a brush at which it feels the relief, how fast it heeds them, and the height of peaks, deviations. */
const FEELERS = 6;
const FEELS = 0.08;
const PEAKS = 1.28;
/** Way after which the paint inside the brush is redistributed, mm. */
const REDISTRIBUTE_MM = 0.5;

/**
 * The inside of a brush during a stroke. Between strokes its paint lies in a Reservoir; during one it lies in the
 * arena, channels side by side, laid out like the cells of the window, so that the kernel can exchange them.
 */
export class BrushInterior {
  /** Channels a cell; 0 while the paint is in the reservoir. */
  channels = 0;
  /** Addresses in the arena: paint outside and inside, channels interleaved for each cell of the brush. */
  tip = 0;
  tuft = 0;
  /** Sum and count of the heights felt under each cell since it last settled. */
  readonly ride: number;
  /** For each cell: height above what it rides on and that, um, and its readiness to take paint. */
  readonly height: number;
  readonly hair: Hair;
  readonly appetite: number;
  private pigments: readonly number[];
  private readonly rideLevel: Float32Array;
  private readonly greed: Float32Array;
  private freshDown = true;
  private feltPeakUm = 0;
  private sinceShift = 0;
  private shifts = 0;

  constructor(
    private readonly painting: Painting,
    private readonly settings: HeldTool,
    private readonly form: BrushForm,
    private readonly footprint: Footprint,
    private readonly reservoir: Reservoir,
    private readonly seed: number,
  ) {
    const { arena } = painting;
    const cells = reservoir.tipVolume.length;
    this.ride = arena.allocate(cells * 8);
    this.height = arena.allocate(cells * 8);
    this.hair = new Hair(arena, form, footprint, settings.sizeMm, seed);
    this.appetite = arena.allocate(cells * 4);
    this.rideLevel = new Float32Array(cells);
    // locks take paint up unequally, the more the stiffer it is
    const uneven = Math.min(1, form.unevenness * 4 * (0.1 + 1.2 * reservoir.body));
    this.greed = Float32Array.from({ length: cells }, (_, c) => {
      const i = c % reservoir.across;
      return Math.max(0.1, 1 + uneven * (2 * latticeHash(i, 71, seed) + 1.5 * latticeHash(i >> 2, 72, seed) - 1.75));
    });
    this.pigments = reservoir.pigments;
    this.withholdOwnPaint();
  }

  /** The brush is lifted: it feels the ground anew when it is set down. */
  liftOff(): void {
    this.freshDown = true;
    this.hair.setDown();
  }

  /** Gives the memory back. */
  dispose(): void {
    const { arena } = this.painting;
    const cells = this.reservoir.tipVolume.length;
    arena.free(this.ride, cells * 8);
    arena.free(this.height, cells * 8);
    this.hair.dispose();
    arena.free(this.appetite, cells * 4);
  }

  /** Share of the wet film that carries the brush: a light hand with soft hair rides on it, a hard one digs in. */
  carriedByFilm(pressure: number): number {
    const soft = 1.3 - this.reservoir.body;
    return 1 - Math.min(1, Math.max(0.06, pressure * (0.25 + 0.9 * this.form.stiffness) * (0.55 + 0.5 * soft)));
  }

  /** Toward the blend end a brush keeps its own paint to itself: that share goes from the tip into the tuft. */
  private withholdOwnPaint(): void {
    const r = this.reservoir;
    const share = Math.max(0, (this.settings.blend - this.form.naturalBlend) / (1 - this.form.naturalBlend || 1));
    if (share <= 0 || this.form.naturalBlend === 1) return;
    for (let c = 0; c < r.tipVolume.length; c++) {
      for (const [tip, tuft] of [...r.tipMass.map((m, i) => [m, r.tuftMass[i]]), [r.tipVolume, r.tuftVolume]]) {
        const d = tip[c] * share;
        tip[c] -= d;
        tuft[c] += d;
      }
    }
  }

  /** How much of its own paint the brush gives, 1 at its natural setting and below, 0 at the blend end. */
  private get own(): number {
    const { naturalBlend } = this.form;
    if (naturalBlend === 1) return 1;
    return Math.min(1, (1 - this.settings.blend) / (1 - naturalBlend));
  }

  /** Lays the reservoir out in the arena, in a window's channels. */
  pack(window: FilmWindow): void {
    const { arena } = this.painting;
    const { reservoir: r } = this;
    const cells = r.tipVolume.length;
    this.pigments = window.pigments;
    this.channels = window.channels;
    this.tip = arena.allocate(cells * this.channels * 4);
    this.tuft = arena.allocate(cells * this.channels * 4);
    const { f32 } = arena;
    const n = this.channels;
    const lay = (at: number, masses: Float32Array[], volume: Float32Array) => {
      for (let c = 0; c < cells; c++) {
        r.pigments.forEach((p, i) => (f32[(at >> 2) + c * n + this.pigments.indexOf(p)] = masses[i][c]));
        f32[(at >> 2) + c * n + n - 1] = volume[c];
      }
    };
    lay(this.tip, r.tipMass, r.tipVolume);
    lay(this.tuft, r.tuftMass, r.tuftVolume);
  }

  /** Puts the paint back into the reservoir. */
  unpack(): void {
    const { arena } = this.painting;
    const { f32 } = arena;
    const r = this.reservoir;
    const n = this.channels;
    const cells = r.tipVolume.length;
    const take = (at: number, channel: number) => {
      const plane = new Float32Array(cells);
      for (let c = 0; c < cells; c++) plane[c] = f32[(at >> 2) + c * n + channel];
      return plane;
    };
    const tip = this.pigments.map((_, i) => take(this.tip, i));
    const tuft = this.pigments.map((_, i) => take(this.tuft, i));
    const carried = this.pigments
      .map((_, i) => i)
      .filter((i) => tip[i].some((m) => m > 0) || tuft[i].some((m) => m > 0));
    r.pigments = carried.map((i) => this.pigments[i]);
    r.tipMass = carried.map((i) => tip[i]);
    r.tuftMass = carried.map((i) => tuft[i]);
    r.tipVolume = take(this.tip, n - 1);
    r.tuftVolume = take(this.tuft, n - 1);
    arena.free(this.tip, cells * n * 4);
    arena.free(this.tuft, cells * n * 4);
    this.channels = 0;
  }

  /** Height at which each cell of the brush rides, and how ready it is to take paint. */
  prepare(window: FilmWindow, x: number, y: number, cos: number, sin: number, pressure: number, hurryUm = 0): void {
    if (this.freshDown) this.feelGround(window, x, y, cos, sin, pressure);
    const { form, reservoir: r, painting } = this;
    const { f32 } = painting.arena;
    const n = this.channels;
    const grain = painting.surface.depthUm;
    this.feelRelief(window, x, y, cos, sin);
    // hair that hardly follows the ground rides on its peaks
    const peak = Math.max(painting.surface.peakUm, this.feltPeakUm);
    const base =
      peak * this.follow(pressure) * (1 - 0.6 * pressure) - form.reach * pressure * (40 + 0.6 * grain) + hurryUm;
    this.hair.stir(pressure, r.body);
    const lift = (0.25 + 0.3 * r.body) * (1 - 0.5 * pressure);
    const wet = form.wetReach * pressure * (30 + 0.7 * grain);
    const full = 0.8 / r.tipFull;
    const heights = this.height >> 2;
    const appetites = this.appetite >> 2;
    let all = 0;
    let hairy = 0;
    for (let c = 0; c < this.rideLevel.length; c++) {
      const carried = f32[(this.tip >> 2) + c * n + n - 1];
      f32[heights + 2 * c] = base + lift * carried - wet * Math.min(1, carried / WETTED_UM);
      f32[heights + 2 * c + 1] = this.rideLevel[c];
      f32[appetites + c] = form.thirsty ? 1 : Math.max(0.25, 1 - full * carried) * this.greed[c];
      if (this.footprint.hairy[c]) {
        all += carried;
        hairy++;
      }
    }
    this.hair.carriedUm = all / Math.max(1, hairy);
  }

  /** Feels how high the peaks under the brush stand: those of the ground, or of dried paint on it. */
  private feelRelief(window: FilmWindow, x: number, y: number, cos: number, sin: number): void {
    const { footprint, painting } = this;
    const { f32 } = painting.arena;
    let [sum, squares, count] = [0, 0, 0];
    for (let j = 0; j < FEELERS; j++) {
      for (let i = 0; i < FEELERS; i++) {
        // set unevenly, so that they do not beat with a weave
        const u = (((i + latticeHash(i, j, this.shifts)) / FEELERS) * 2 - 1) * footprint.halfWidth;
        const v = (((j + latticeHash(j, i, this.shifts + 7)) / FEELERS) * 2 - 1) * footprint.halfLength;
        const px = Math.floor(x + cos * u - sin * v);
        const py = Math.floor(y + sin * u + cos * v);
        if (
          px < 0 ||
          py < 0 ||
          px >= painting.width ||
          py >= painting.height ||
          !window.contains(px, py, px + 1, py + 1)
        )
          continue;
        const h = f32[(window.relief >> 2) + (py - window.y0) * window.width + px - window.x0];
        sum += h;
        squares += h * h;
        count++;
      }
    }
    if (count < 2) return;
    const peak = PEAKS * Math.sqrt(Math.max(0, squares / count - (sum / count) ** 2));
    this.feltPeakUm += (peak - this.feltPeakUm) * (this.feltPeakUm === 0 ? 1 : FEELS);
  }

  /**
   * Share of the relief that hair with little paint does not follow: a light hand rides on the tops, a pressing one
   * bends every hair into the ground.
   */
  follow(pressure: number): number {
    return Math.max(0.25, 1 - FOLLOWS * pressure * (1.35 - 0.45 * this.form.stiffness));
  }

  /** Touch-down: what lies under each cell of the brush. */
  private feelGround(window: FilmWindow, x: number, y: number, cos: number, sin: number, pressure: number): void {
    const { footprint, reservoir: r, painting } = this;
    const { f32 } = painting.arena;
    const n = this.channels;
    const sink = Math.fround(this.carriedByFilm(pressure));
    const step = Math.max(1, Math.round(0.75 / painting.mmPerPx));
    let all = 0;
    let felt = 0;
    for (let c = 0; c < this.rideLevel.length; c++) {
      const u = ((((c % r.across) + 0.5) / r.across) * 2 - 1) * footprint.halfWidth;
      const v = (((Math.floor(c / r.across) + 0.5) / r.along) * 2 - 1) * footprint.halfLength;
      let sum = 0;
      let count = 0;
      for (let j = -step; j <= step; j += step) {
        for (let i = -step; i <= step; i += step) {
          const px = Math.round(x + cos * u - sin * v + i);
          const py = Math.round(y + sin * u + cos * v + j);
          if (px < 0 || py < 0 || px >= painting.width || py >= painting.height) continue;
          const wx = px - window.x0;
          const wy = py - window.y0;
          if (wx < 0 || wy < 0 || wx >= window.width || wy >= window.height) continue;
          const cell = wy * window.width + wx;
          sum += f32[(window.relief >> 2) + cell] + sink * f32[(window.film >> 2) + 2 * cell * n + n - 1];
          count++;
        }
      }
      this.rideLevel[c] = count ? sum / count : NaN;
      if (count) {
        all += sum / count;
        felt++;
      }
    }
    for (let c = 0; c < this.rideLevel.length; c++) {
      if (Number.isNaN(this.rideLevel[c])) this.rideLevel[c] = felt ? all / felt : 0;
    }
    this.freshDown = false;
  }

  /** Inside the brush: it settles on the ground, the tuft feeds the tip, the heel gets dirty, bristles share paint. */
  advance(wayMm: number, lengthMm: number): void {
    this.hair.advance(wayMm);
    this.sinceShift += wayMm;
    if (this.sinceShift < Math.min(REDISTRIBUTE_MM, 0.12 * lengthMm)) return;
    const way = this.sinceShift;
    this.sinceShift = 0;
    const { form, footprint, reservoir: r, rideLevel } = this;
    const { f32 } = this.painting.arena;
    const n = this.channels;
    const cells = rideLevel.length;
    const tip = this.tip >> 2;
    const tuft = this.tuft >> 2;
    const ride = this.ride >> 2;
    const k = way / lengthMm;
    const forget = 1 - maths.exp(-way / Math.min(form.rideMm, Math.max(1, 0.3 * this.settings.sizeMm)));
    // off a step hair springs down, each lock in its own time
    const grain = 10 + 0.3 * this.painting.surface.depthUm;
    const feed = (1 - maths.exp(-2.2 * k)) * this.own;
    const soil = 1 - maths.exp(-form.soiling * k);
    const capacity = tuftCapacityUm(form, this.settings.sizeMm);

    for (let c = 0; c < cells; c++) {
      const count = f32[ride + 2 * c + 1];
      if (count > 0) {
        const d = f32[ride + 2 * c] / count - rideLevel[c];
        const drop = -d - grain;
        const spring =
          drop > 0 ? 1 - maths.exp(-way / (SPRING_MM * (0.5 + latticeHash(c, this.shifts, this.seed)))) : 0;
        rideLevel[c] += d * Math.max(forget, (spring * drop) / (drop + 15));
        f32[ride + 2 * c] = 0;
        f32[ride + 2 * c + 1] = 0;
      }
      if (!footprint.hairy[c]) continue;
      const a = tip + c * n;
      const b = tuft + c * n;
      const T = f32[b + n - 1];
      const V = f32[a + n - 1];
      const level = T > 0 ? T / capacity : 0;
      const want = r.tipFull * Math.min(1, 1.45 * maths.pow(level, 0.6));
      if (V < want && T > 1e-4) move(f32, b, a, Math.min(((want - V) * feed) / T, 0.5), n);
      else if (V > r.tipFull && T < capacity) move(f32, a, b, Math.min(((V - r.tipFull) * feed * 0.5) / V, 0.5), n);
      if (soil > 0) swap(f32, a, b, soil * this.own, n);
    }
    const along = 0.3 * (1 - maths.exp(-1.2 * k));
    const aside = 0.3 * (1 - maths.exp(-form.sharing * k));
    const spill = r.tipFull * 1.6;
    const { across } = r;
    for (let c = 0; c + across < cells; c++) {
      if (!footprint.hairy[c] || !footprint.hairy[c + across]) continue;
      mingle(f32, tip + c * n, tip + (c + across) * n, along, n);
      mingle(f32, tuft + c * n, tuft + (c + across) * n, along, n);
    }
    for (let c = 0; c + 1 < cells; c++) {
      if ((c + 1) % across === 0) continue;
      const a = tip + c * n;
      const b = a + n;
      if (footprint.hairy[c] && footprint.hairy[c + 1]) {
        if (aside > 0.002 || (c & 3) === (this.shifts & 3)) {
          mingle(f32, a, b, aside, n);
          mingle(f32, tuft + c * n, tuft + c * n + n, aside, n);
        }
        const va = f32[a + n - 1];
        const vb = f32[b + n - 1];
        const high = Math.max(va, vb);
        if (high > spill) {
          const share = (0.25 * (high - Math.max(Math.min(va, vb), spill))) / high;
          if (va > vb) move(f32, a, b, share, n);
          else move(f32, b, a, share, n);
        }
      }
      settle(rideLevel, c, c + 1, form.rideStiffness);
    }
    for (let c = 0; c + across < cells; c++) settle(rideLevel, c, c + across, form.rideStiffness);
    this.shifts++;
  }
}

/** Paint that the inside of a brush holds, um: small tufts are long for their width. */
export const tuftCapacityUm = (form: BrushForm, sizeMm: number): number =>
  form.tuftUm * maths.pow(Math.min(5, Math.max(1, 15 / sizeMm)), 0.8);

/** Moves a share of everything in cell `a` to cell `b`. */
function move(f32: Float32Array, a: number, b: number, share: number, n: number): void {
  for (let i = 0; i < n; i++) {
    const d = f32[a + i] * share;
    f32[a + i] -= d;
    f32[b + i] += d;
  }
}

/** Evens two cells out by a share of their difference. */
function mingle(f32: Float32Array, a: number, b: number, share: number, n: number): void {
  for (let i = 0; i < n; i++) {
    const d = (f32[a + i] - f32[b + i]) * share;
    f32[a + i] -= d;
    f32[b + i] += d;
  }
}

/** Swaps equal volumes of two cells. */
function swap(f32: Float32Array, a: number, b: number, rate: number, n: number): void {
  const va = f32[a + n - 1];
  const vb = f32[b + n - 1];
  if (va < 1e-4 || vb < 1e-4) return;
  const volume = rate * Math.min(va, vb);
  for (let i = 0; i < n; i++) {
    const d = f32[a + i] * (volume / va) - f32[b + i] * (volume / vb);
    f32[a + i] -= d;
    f32[b + i] += d;
  }
}

function settle(levels: Float32Array, a: number, b: number, share: number): void {
  const d = (levels[a] - levels[b]) * share;
  levels[a] -= d;
  levels[b] += d;
}
