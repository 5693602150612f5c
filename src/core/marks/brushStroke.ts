import { noise1 } from '@/core/surface/noise';
import type { Layer } from '@/core/film/layer';
import type { Painting } from '@/core/film/painting';
import { FilmWindow, type BeforeTile } from '@/core/film/window';
import { CONTACT } from '@/core/kernels/contact';
import { kernelsFor, type Kernels } from '@/core/kernels/kernels';
import { PRESS_UM, type Footprint } from './footprint';
import { PathBuilder, StampWalker, type Sample, type Stamp } from './path';
import type { Reservoir } from './reservoir';
import type { BrushForm, ToolSettings } from './tools';
import { growRect, noRect, type PixelRect } from '@/core/film/pixelRect';

/** A stroke while it is being made: samples go in, the paint changes. */
export interface StrokeInProgress {
  /** Takes the next sample. */
  add(sample: Sample): void;
  /** Makes what was painted since last time visible in the tiles, and says where that is. */
  publish(): PixelRect;
  /** The tool is lifted. */
  end(): void;
}

/** Shortest distance of stamps, mm. */
const LEAST_SPACING_MM = 0.22;
/** Way after which the paint inside the brush is redistributed, mm. */
const REDISTRIBUTE_MM = 0.5;
/** Length on which rates of the prototype units rest, mm. */
const UNIT_MM = 0.25;
/** Levelling is shown with every so many publications. */
const SETTLE_EVERY = 8;
/** Ploughed paint goes this far ahead, or aside, mm. */
const AHEAD_MM = 0.3;
const ASIDE_MM = 0.35;

/**
 * A stroke of a brush. Between strokes the paint in the brush lies in a Reservoir; during one it lies in the arena,
 * channels side by side, laid out like the cells of the window.
 */
export class BrushStroke implements StrokeInProgress {
  private readonly window: FilmWindow;
  private readonly kernels: Kernels;
  private readonly path: PathBuilder;
  private readonly walker: StampWalker;
  private readonly pxPerMm: number;
  /** Addresses in the arena. */
  private readonly block: number;
  private readonly ride: number;
  private readonly height: number;
  private readonly appetite: number;
  private tip = 0;
  private tuft = 0;
  private channels = 0;
  private pigments: readonly number[];

  private readonly rideLevel: Float32Array;
  private readonly wiggle: Float32Array;
  private freshDown = true;
  private way = 0;
  private sinceShift = 0;
  private shifts = 0;
  private tow: { x: number; y: number } | undefined;
  private random: number;
  private spacingRandom: number;

  /** Levelling: passes each cell gets, and the areas stamped during the last few passes. */
  private readonly passes: number;
  private readonly rate: number;
  private recent: PixelRect[] = [noRect()];
  private sinceLevel = 0;
  private changed = noRect();
  private settling = noRect();
  private published = 0;
  private static readonly LAG = 3;

  constructor(
    private readonly painting: Painting,
    layer: Layer,
    private readonly settings: ToolSettings,
    private readonly form: BrushForm,
    private readonly footprint: Footprint,
    private readonly reservoir: Reservoir,
    private readonly seed: number,
    before: BeforeTile,
  ) {
    const { arena } = painting;
    this.pxPerMm = 1 / painting.mmPerPx;
    this.window = new FilmWindow(painting, layer, before);
    this.kernels = kernelsFor(arena);
    const cells = reservoir.tipVolume.length;
    this.block = arena.allocate(CONTACT.words * 4);
    this.ride = arena.allocate(cells * 8);
    this.height = arena.allocate(cells * 4);
    this.appetite = arena.allocate(cells * 4);
    this.rideLevel = new Float32Array(cells);
    this.wiggle = new Float32Array(reservoir.across);
    this.pigments = reservoir.pigments;
    this.random = Math.imul(seed, 69069) | 0;
    this.spacingRandom = Math.imul(seed, 2654435761) | 0;
    const s = UNIT_MM / painting.mmPerPx;
    const fluid = reservoir.body < 0.3 ? 2 : 1;
    const base = Math.max(2, Math.round(3 * Math.pow(s, 1.2)));
    this.passes = base * fluid;
    this.rate = Math.min(0.5, (0.22 * 3 * s * s) / base);
    this.withholdOwnPaint();
    this.walker = new StampWalker(
      (p, dx, dy) => this.spacing(p, dx, dy),
      (stamp) => this.stamp(stamp),
    );
    this.path = new PathBuilder((p) => this.walker.add(p));
  }

  add(sample: Sample): void {
    this.path.add(sample);
  }

  publish(): PixelRect {
    this.window.publish();
    const rect = this.changed;
    this.changed = noRect();
    // what only levels changes little and slowly: it is shown now and then
    if (++this.published % SETTLE_EVERY === 0) this.showSettled(rect);
    return rect;
  }

  private showSettled(rect: PixelRect): void {
    growRect(rect, this.settling);
    this.settling = noRect();
  }

  end(): void {
    this.path.end();
    this.walker.end();
    if (this.channels > 0) {
      for (let i = 0; i < this.passes + BrushStroke.LAG; i++) this.level();
      this.window.flush();
      this.unpack();
      this.showSettled(this.changed);
    }
    const { arena } = this.painting;
    const cells = this.reservoir.tipVolume.length;
    arena.free(this.block, CONTACT.words * 4);
    arena.free(this.ride, cells * 8);
    arena.free(this.height, cells * 4);
    arena.free(this.appetite, cells * 4);
    this.window.dispose();
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

  /** Contact length along the motion, mm. */
  private contactLength(pressure: number, cosAlong: number): number {
    const { form, settings } = this;
    const p = Math.max(0.05, pressure);
    const along = settings.sizeMm * form.aspect * Math.pow(p, 0.625);
    const round = form.shape === 'round' || form.shape === 'dome';
    const across = settings.sizeMm * (round ? Math.pow(p, 0.55) : 1);
    return Math.max(0.5, Math.sqrt((along * cosAlong) ** 2 + across * across * (1 - cosAlong * cosAlong)));
  }

  private spacing(point: Sample, dx: number, dy: number): number {
    const { form, settings } = this;
    let cosAlong = 1;
    if (this.tow) {
      const angle = this.angleAt(point, dx, dy);
      cosAlong = Math.abs(-Math.sin(angle) * dx + Math.cos(angle) * dy);
    }
    const most = form.spacingMaxMm + form.spacingMaxPerWidth * settings.sizeMm;
    const even = Math.min(
      most,
      Math.max(LEAST_SPACING_MM, form.spacing * this.contactLength(point.pressure, cosAlong)),
    );
    this.spacingRandom = (Math.imul(this.spacingRandom, 1664525) + 1013904223) | 0;
    // uneven by 18 %, so that no period can show
    return even * (0.82 + (0.36 * ((this.spacingRandom >>> 16) & 255)) / 255);
  }

  /** Angle of the brush's width: the tuft is towed like a trailer, and the pen's twist turns it. */
  private angleAt(point: Sample, dx: number, dy: number): number {
    const tow = this.tow!;
    const ux = point.x - tow.x;
    const uy = point.y - tow.y;
    const heading = ux || uy ? Math.atan2(uy, ux) : Math.atan2(dy, dx);
    return heading - Math.PI / 2 + (point.twist * Math.PI) / 180;
  }

  private stamp({ point, dx, dy, wayMm }: Stamp): void {
    const { form, footprint, settings } = this;
    const pressure = Math.min(1, point.pressure);
    const towLength = 0.75 + 0.22 * settings.sizeMm * (1.25 - 0.5 * form.stiffness);
    if (!this.tow) this.tow = { x: point.x - dx * towLength, y: point.y - dy * towLength };
    else {
      const ux = point.x - this.tow.x;
      const uy = point.y - this.tow.y;
      const length = Math.hypot(ux, uy) || 1;
      this.tow = { x: point.x - (ux / length) * towLength, y: point.y - (uy / length) * towLength };
    }
    if (pressure <= 0.01) return;
    const angle = this.angleAt(point, dx, dy);
    const x = point.x * this.pxPerMm;
    const y = point.y * this.pxPerMm;
    const cos = Math.cos(angle);
    const sin = Math.sin(angle);
    const reachX = Math.abs(cos) * footprint.halfWidth + Math.abs(sin) * footprint.halfLength;
    const reachY = Math.abs(sin) * footprint.halfWidth + Math.abs(cos) * footprint.halfLength;
    // paint is pushed this much farther than the brush reaches
    const margin = Math.ceil((AHEAD_MM + ASIDE_MM) * this.pxPerMm * 0.6) + 2;
    const rect: PixelRect = {
      left: Math.max(0, Math.floor(x - reachX) - margin),
      top: Math.max(0, Math.floor(y - reachY) - margin),
      right: Math.min(this.painting.width, Math.ceil(x + reachX) + margin),
      bottom: Math.min(this.painting.height, Math.ceil(y + reachY) + margin),
    };
    if (rect.right <= rect.left || rect.bottom <= rect.top) return;
    this.bringWindow(rect);

    const cosAlong = Math.abs(-sin * dx + cos * dy);
    const lengthMm = this.contactLength(pressure, cosAlong);
    this.setBlock(pressure, wayMm, lengthMm, dx, dy, cos, sin);
    this.prepareCells(x, y, cos, sin, pressure);
    this.rows(point, x, y, cos, sin, dx, dy, pressure, reachY);
    this.shiftInside(wayMm, lengthMm);
    this.way += wayMm;

    growRect(this.recent[this.recent.length - 1], rect);
    growRect(this.changed, rect);
    const { window } = this;
    window.touch(rect.left - window.x0, rect.top - window.y0, rect.right - 1 - window.x0, rect.bottom - 1 - window.y0);
    this.sinceLevel += wayMm;
    if (this.sinceLevel >= lengthMm / BrushStroke.LAG) {
      this.sinceLevel = 0;
      this.level();
    }
  }

  /** Brings the window to a stamp, and the reservoir into the window's channels. */
  private bringWindow(r: PixelRect): void {
    const { window } = this;
    if (window.contains(r.left, r.top, r.right, r.bottom)) return;
    if (this.channels > 0) this.unpack();
    // what still levels stays in reach
    const all = { ...r };
    for (const rect of this.recent) growRect(all, rect);
    window.moveTo(all.left, all.top, all.right, all.bottom, this.reservoir.pigments);
    this.pack();
  }

  private pack(): void {
    const { arena } = this.painting;
    const { reservoir: r, window } = this;
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

  private unpack(): void {
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

  private setBlock(
    pressure: number,
    wayMm: number,
    lengthMm: number,
    dx: number,
    dy: number,
    cos: number,
    sin: number,
  ) {
    const { form, reservoir, footprint, window, settings } = this;
    const { f32, i32 } = this.painting.arena;
    const b = this.block >> 2;
    const k = wayMm / lengthMm;
    const soft = 1.3 - reservoir.body;
    const body = reservoir.body;
    // lay to blend: less of its own, more of what it finds
    const blend = settings.blend;
    const gain = (0.35 + 2.17 * blend) / (0.35 + 2.17 * form.naturalBlend);
    const deposit = form.deposit * settings.strength;
    f32[b + CONTACT.roughness] = form.roughnessUm * (1 - 0.55 * pressure) * (0.65 + 0.85 * body * body + 0.2 * body);
    f32[b + CONTACT.hang] = 0.9 * (0.65 + 0.35 * soft) * (1 + 0.8 * reservoir.thin);
    f32[b + CONTACT.softness] = form.softnessUm;
    const sink = Math.min(1, Math.max(0.06, pressure * (0.25 + 0.9 * form.stiffness) * (0.55 + 0.5 * soft)));
    f32[b + CONTACT.sink] = 1 - sink;
    f32[b + CONTACT.give] = 1 - Math.exp(-3 * deposit * k);
    f32[b + CONTACT.take] = 1 - Math.exp(-3 * form.pickup * gain * settings.strength * k);
    const units = wayMm / UNIT_MM;
    f32[b + CONTACT.plough] =
      form.plough * (1 - Math.exp((-2.2 * units * (0.35 + 0.65 * pressure)) / (1 + 0.05 * (lengthMm / UNIT_MM))));
    f32[b + CONTACT.cellAreaInverse] = 1 / footprint.cellArea;
    f32[b + CONTACT.stiffness] = body;
    f32[b + CONTACT.ceiling] = settings.strength;
    f32[b + CONTACT.passes] = this.passes + BrushStroke.LAG;
    i32[b + CONTACT.channels] = this.channels;
    i32[b + CONTACT.film] = window.film >> 2;
    i32[b + CONTACT.relief] = window.relief >> 2;
    i32[b + CONTACT.body] = window.body >> 2;
    i32[b + CONTACT.laid] = window.laid >> 2;
    i32[b + CONTACT.fresh] = window.fresh >> 2;
    i32[b + CONTACT.tip] = this.tip >> 2;
    i32[b + CONTACT.profile] = footprint.profile >> 2;
    i32[b + CONTACT.cells] = footprint.cells >> 2;
    i32[b + CONTACT.ride] = this.ride >> 2;
    i32[b + CONTACT.height] = this.height >> 2;
    i32[b + CONTACT.appetite] = this.appetite >> 2;
    i32[b + CONTACT.mapWidth] = footprint.mapWidth;
    this.aimPlough(i32, b + CONTACT.aside, dx, dy, cos, sin);
  }

  /** Where pushed paint goes, dithered for each stamp: otherwise ridges grow beads on the grid. */
  private aimPlough(i32: Int32Array, at: number, dx: number, dy: number, cos: number, sin: number): void {
    this.random = (Math.imul(this.random, 1664525) + 1013904223) | 0;
    const jx = ((this.random >>> 8) & 0xfff) / 4096 - 0.5;
    const jy = ((this.random >>> 20) & 0xfff) / 4096 - 0.5;
    for (let side = -1; side <= 1; side++) {
      const ahead = (side ? 0.42 : 1) * AHEAD_MM * this.pxPerMm;
      const fx = dx * ahead + cos * side * ASIDE_MM * this.pxPerMm;
      const fy = dy * ahead + sin * side * ASIDE_MM * this.pxPerMm;
      let ix = Math.round(fx + jx);
      let iy = Math.round(fy + jy);
      if (ix === 0 && iy === 0) {
        // never onto itself: the cell is written back afterwards
        if (Math.abs(fx) > Math.abs(fy)) ix = fx > 0 ? 1 : -1;
        else iy = fy > 0 ? 1 : -1;
      }
      i32[at + side + 1] = iy * this.window.width + ix;
    }
  }

  /** Height at which each cell of the brush rides, and how ready it is to take paint. */
  private prepareCells(x: number, y: number, cos: number, sin: number, pressure: number): void {
    if (this.freshDown) this.feelGround(x, y, cos, sin);
    const { form, reservoir: r, painting } = this;
    const { f32 } = painting.arena;
    const n = this.channels;
    const grain = painting.surface.depthUm;
    const base = painting.surface.peakUm - form.reach * pressure * (40 + 0.6 * grain);
    const lift = (0.25 + 0.3 * r.body) * (1 - 0.5 * pressure);
    const wet = form.wetReach * pressure * (30 + 0.7 * grain);
    const full = 0.8 / r.tipFull;
    for (let i = 0; i < r.across; i++) {
      const single =
        noise1(this.way / 6.75 + (this.seed % 997) + i * 0.618, 1000 + i + (this.seed & 0xffff) * 64) - 0.5;
      const clump = noise1(this.way / 22.5 + (this.seed % 997) + (i >> 1) * 0.377, 3000 + (i >> 1)) - 0.5;
      this.wiggle[i] = form.wiggleUm * 2 * (single + 0.6 * clump);
    }
    const heights = this.height >> 2;
    const appetites = this.appetite >> 2;
    for (let c = 0, i = 0; c < this.rideLevel.length; c++) {
      const carried = f32[(this.tip >> 2) + c * n + n - 1];
      f32[heights + c] = this.rideLevel[c] + base + lift * carried - wet * Math.min(1, carried / 100) + this.wiggle[i];
      f32[appetites + c] = Math.max(0.25, 1 - full * carried);
      if (++i === r.across) i = 0;
    }
  }

  /** Touch-down: what lies under each cell of the brush. */
  private feelGround(x: number, y: number, cos: number, sin: number): void {
    const { footprint, reservoir: r, window, painting } = this;
    const { f32 } = painting.arena;
    const n = this.channels;
    const sink = f32[(this.block >> 2) + CONTACT.sink];
    const step = Math.max(1, Math.round(0.75 * this.pxPerMm));
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
          sum += f32[(window.relief >> 2) + cell] + sink * f32[(window.film >> 2) + cell * n + n - 1];
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

  /** The rows of the turned footprint, from the front of the motion backwards so that pushed paint moves once. */
  private rows(
    point: Sample,
    x: number,
    y: number,
    cos: number,
    sin: number,
    dx: number,
    dy: number,
    pressure: number,
    reachY: number,
  ) {
    const { footprint, window, painting } = this;
    const { halfWidth, halfLength, perPx } = footprint;
    // a tilted handle presses one side deeper and lifts the other
    const tiltX = Math.tan((clampTilt(point.tiltX) * Math.PI) / 180);
    const tiltY = Math.tan((clampTilt(point.tiltY) * Math.PI) / 180);
    const lean = Math.min(1, Math.hypot(tiltX, tiltY)) * ((1.5 * PRESS_UM) / halfWidth) * (0.35 + 0.65 * pressure);
    const norm = Math.hypot(tiltX, tiltY) || 1;
    const leanX = (lean * tiltX) / norm;
    const leanY = (lean * tiltY) / norm;

    const step = dx > 0 ? -1 : 1;
    const top = Math.max(0, Math.ceil(y - reachY - 0.5));
    const bottom = Math.min(painting.height - 1, Math.floor(y + reachY - 0.5));
    const du = cos * perPx * step;
    const dv = -sin * perPx * step;
    for (let k = 0; k <= bottom - top; k++) {
      const py = dy > 0 ? bottom - k : top + k;
      const Y = py + 0.5 - y;
      let from = -1e6;
      let to = 1e6;
      if (Math.abs(cos) > 1e-4) {
        const p = (-halfWidth - sin * Y) / cos;
        const q = (halfWidth - sin * Y) / cos;
        from = Math.max(from, Math.min(p, q));
        to = Math.min(to, Math.max(p, q));
      } else if (Math.abs(sin * Y) >= halfWidth) continue;
      if (Math.abs(sin) > 1e-4) {
        const p = (cos * Y - halfLength) / sin;
        const q = (cos * Y + halfLength) / sin;
        from = Math.max(from, Math.min(p, q));
        to = Math.min(to, Math.max(p, q));
      } else if (Math.abs(cos * Y) >= halfLength) continue;
      const left = Math.max(0, Math.ceil(x + from - 0.5));
      const right = Math.min(painting.width - 1, Math.floor(x + to - 0.5));
      const count = right - left + 1;
      if (count <= 0) continue;
      const px = step < 0 ? right : left;
      const X = px + 0.5 - x;
      this.kernels.contactRow(
        this.block,
        (py - window.y0) * window.width + px - window.x0,
        count,
        step,
        (cos * X + sin * Y + halfWidth) * perPx,
        (-sin * X + cos * Y + halfLength) * perPx,
        du,
        dv,
        pressure * PRESS_UM + leanX * X + leanY * Y,
        leanX * step,
      );
    }
  }

  /** Inside the brush: it settles on the ground, the tuft feeds the tip, the heel gets dirty, bristles share paint. */
  private shiftInside(wayMm: number, lengthMm: number): void {
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
    const forget = 1 - Math.exp(-way / Math.min(form.rideMm, Math.max(1, 0.3 * this.settings.sizeMm)));
    const feed = (1 - Math.exp(-2.2 * k)) * this.own;
    const soil = 1 - Math.exp(-form.soiling * k);
    const capacity = this.tuftCapacity;

    for (let c = 0; c < cells; c++) {
      const count = f32[ride + 2 * c + 1];
      if (count > 0) {
        rideLevel[c] += (f32[ride + 2 * c] / count - rideLevel[c]) * forget;
        f32[ride + 2 * c] = 0;
        f32[ride + 2 * c + 1] = 0;
      }
      if (!footprint.hairy[c]) continue;
      const a = tip + c * n;
      const b = tuft + c * n;
      const T = f32[b + n - 1];
      const V = f32[a + n - 1];
      const level = T > 0 ? T / capacity : 0;
      const want = r.tipFull * Math.min(1, 1.25 * Math.pow(level, 0.75));
      if (V < want && T > 1e-4) move(f32, b, a, Math.min(((want - V) * feed) / T, 0.5), n);
      else if (V > r.tipFull && T < capacity) move(f32, a, b, Math.min(((V - r.tipFull) * feed * 0.5) / V, 0.5), n);
      if (soil > 0) swap(f32, a, b, soil * this.own, n);
    }
    const along = 0.3 * (1 - Math.exp(-1.2 * k));
    const aside = 0.3 * (1 - Math.exp(-0.03 * k));
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

  private get tuftCapacity(): number {
    return tuftCapacityUm(this.form, this.settings.sizeMm);
  }

  /** One levelling pass over everything stamped lately. */
  private level(): void {
    const { window } = this;
    const area = noRect();
    for (const r of this.recent) growRect(area, r);
    this.recent.push(noRect());
    if (this.recent.length > this.passes + BrushStroke.LAG) this.recent.shift();
    const x0 = Math.max(0, area.left - window.x0);
    const y0 = Math.max(0, area.top - window.y0);
    const x1 = Math.min(window.width, area.right - window.x0, this.painting.width - window.x0);
    const y1 = Math.min(window.height, area.bottom - window.y0, this.painting.height - window.y0);
    if (x1 <= x0 || y1 <= y0) return;
    this.kernels.levelPass(
      window.film >> 2,
      window.relief >> 2,
      window.body >> 2,
      window.fresh >> 2,
      this.channels,
      window.width,
      this.passes,
      this.rate,
      this.painting.mmPerPx / UNIT_MM,
      x0,
      y0,
      x1,
      y1,
    );
    window.touch(x0, y0, x1 - 1, y1 - 1);
    growRect(this.changed, {
      left: x0 + window.x0,
      top: y0 + window.y0,
      right: x1 + window.x0,
      bottom: y1 + window.y0,
    });
  }
}

/** Paint that the inside of a brush holds, um: small tufts are long for their width. */
export const tuftCapacityUm = (form: BrushForm, sizeMm: number): number =>
  form.tuftUm * Math.pow(Math.min(5, Math.max(1, 15 / sizeMm)), 0.8);

const clampTilt = (degrees: number) => Math.max(-80, Math.min(80, degrees));

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
