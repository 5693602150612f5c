import { CONTACT, STAIN_UM } from '@/core/kernels/contact';
import { kernelsFor, type Kernels } from '@/core/kernels/kernels';
import { BrushInterior } from './brushInterior';
import type { Footprint } from './footprint';
import type { Sample, Stamp } from '@/core/marks/path';
import { StampedStroke, type StrokeSetting } from '@/core/marks/stampedStroke';
import type { Reservoir } from './reservoir';
import { DustUp, WORKS_IN } from '@/core/marks/dry/dustUp';
import { pressFootprint, type Pressed } from './pressFootprint';
import { pullOff, type Stand } from './pullOff';
import { peel } from './rollerPeel';
import { Settling } from '@/core/marks/settling';
import type { BrushForm } from './brushForms';
import { growRect, noRect, type PixelRect } from '@/core/film/pixelRect';
import { hypot, maths } from '@/core/maths/maths';

/** Shortest distance of stamps, mm. */
const LEAST_SPACING_MM = 0.22;
/** Speed of a usual stroke, mm/s; how far one e times as fast keeps hair off, um. */
const USUAL_MM_PER_S = 100;
const HURRY_UM = 20;
/** Stiffest paint that hair keeps to itself, um. */
const HELD_UM = 7;
/** Length on which rates of the prototype units rest, mm. */
const UNIT_MM = 0.25;
/** Levelling is shown with every so many publications. */
const SETTLE_EVERY = 8;
/** Ploughed paint goes this far ahead, or aside, mm. */
const AHEAD_MM = 0.3;
const ASIDE_MM = 0.35;

/** A stroke of a brush: stamps along the path, each exchanging paint with the film, and levelling behind them. */
export class BrushStroke extends StampedStroke {
  private readonly kernels: Kernels;
  private readonly pxPerMm: number;
  /** Address of the kernel's parameters. */
  private readonly block: number;
  private readonly interior: BrushInterior;
  private readonly pressed: Pressed;
  private tow: { x: number; y: number } | undefined;
  private random: number;
  private spacingRandom: number;
  /** Speed against the usual, natural logarithm, and when the last stamp was made. */
  private haste = 0;
  private lastT: number | undefined;
  /** Where the brush stood last, if it has not been lifted since. */
  private lastDown: Stand | undefined;

  readonly staysAsShown = true;
  private readonly settling: Settling;
  private readonly dust: DustUp | undefined;
  /** Cells that only levelled since that was last shown. */
  private settled = noRect();
  private published = 0;
  /** Way so far, mm; a roller begins somewhere on its round. */
  private way: number;

  constructor(
    setting: StrokeSetting,
    private readonly form: BrushForm,
    private readonly footprint: Footprint,
    private readonly reservoir: Reservoir,
  ) {
    super(setting);
    this.dust = DustUp.over(setting, this.window);
    const { painting, settings, seed } = setting;
    const { arena } = painting;
    this.pxPerMm = 1 / painting.mmPerPx;
    this.kernels = kernelsFor(arena);
    this.block = arena.allocate(CONTACT.words * 4);
    this.interior = new BrushInterior(painting, settings, form, footprint, reservoir, seed);
    this.pressed = { kernels: this.kernels, block: this.block, footprint, window: this.window, painting };
    this.random = Math.imul(seed, 69069) | 0;
    this.spacingRandom = Math.imul(seed, 2654435761) | 0;
    this.way = seed % 100;
    this.settling = new Settling(painting, this.window, reservoir.body);
  }

  override publish(): PixelRect {
    const rect = super.publish();
    // what only levels changes little and slowly: it is shown now and then
    if (++this.published % SETTLE_EVERY === 0) this.showSettled(rect);
    return rect;
  }

  protected override touchDown(): void {
    this.pullOff();
    this.tow = undefined;
    this.interior.liftOff();
  }

  protected override finish(): void {
    if (this.interior.channels > 0) {
      this.pullOff();
      growRect(this.changed, this.settling.finish());
      super.finish();
      this.interior.unpack();
      this.showSettled(this.changed);
    }
    this.painting.arena.free(this.block, CONTACT.words * 4);
    this.interior.dispose();
  }

  private showSettled(rect: PixelRect): void {
    growRect(rect, this.settled);
    this.settled = noRect();
  }

  /** Contact length along the motion, mm. */
  private contactLength(pressure: number, cosAlong: number): number {
    const { form, settings } = this;
    const p = Math.max(0.05, pressure);
    const along = settings.sizeMm * form.aspect * maths.pow(p, 0.625);
    const round = form.shape === 'round' || form.shape === 'dome';
    const across = settings.sizeMm * (round ? maths.pow(p, 0.55) : 1);
    return Math.max(0.5, Math.sqrt((along * cosAlong) ** 2 + across * across * (1 - cosAlong * cosAlong)));
  }

  protected spacing(point: Sample, dx: number, dy: number): number {
    const { form, settings } = this;
    let cosAlong = 1;
    if (this.tow) {
      const angle = this.angleAt(point, dx, dy);
      cosAlong = Math.abs(-maths.sin(angle) * dx + maths.cos(angle) * dy);
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
    const heading = ux || uy ? maths.atan2(uy, ux) : maths.atan2(dy, dx);
    return heading - Math.PI / 2 + (point.twist * Math.PI) / 180;
  }

  protected stamp({ point, dx, dy, wayMm }: Stamp): void {
    const { form, footprint, settings, window } = this;
    const pressure = Math.min(1, point.pressure);
    const towLength = 0.75 + 0.22 * settings.sizeMm * (1.25 - 0.5 * form.stiffness);
    if (!this.tow) this.tow = { x: point.x - dx * towLength, y: point.y - dy * towLength };
    else {
      const ux = point.x - this.tow.x;
      const uy = point.y - this.tow.y;
      const length = hypot(ux, uy) || 1;
      this.tow = { x: point.x - (ux / length) * towLength, y: point.y - (uy / length) * towLength };
    }
    if (pressure <= 0.01) {
      this.lastDown = undefined; // lifted as it went
      return;
    }
    const angle = this.angleAt(point, dx, dy);
    const x = point.x * this.pxPerMm;
    const y = point.y * this.pxPerMm;
    const cos = maths.cos(angle);
    const sin = maths.sin(angle);
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
    window.takeFromBelow(x, y, Math.max(footprint.halfWidth, footprint.halfLength) * (0.4 + 0.6 * pressure), rect);

    const cosAlong = Math.abs(-sin * dx + cos * dy);
    const lengthMm = this.contactLength(pressure, cosAlong);
    this.way += wayMm;
    footprint.rollTo(this.way);
    const hurryUm = this.hurry(point.t, wayMm);
    this.setBlock(pressure, wayMm, lengthMm, dx, dy, cos, sin);
    this.interior.prepare(window, x, y, cos, sin, pressure, hurryUm);
    if (form.thirsty && settings.solvent > 0) this.dissolve(rect, x, y, wayMm, lengthMm);
    pressFootprint(this.pressed, point, x, y, cos, sin, dx, dy, pressure, reachY);
    if (form.shape === 'roller') this.peel(rect, x, y, cos, sin, dx, dy, wayMm, lengthMm);
    this.dust?.stamped(
      x,
      y,
      Math.max(footprint.halfWidth, footprint.halfLength),
      1 - maths.exp((-WORKS_IN * wayMm) / lengthMm),
      rect,
    );
    this.interior.advance(wayMm, lengthMm);
    this.lastDown = { x, y, cos, sin, dx, dy, pressure, rect };

    this.touch(rect);
    const levelled = this.settling.stamped(rect, wayMm, lengthMm);
    if (levelled) growRect(this.settled, levelled);
  }

  /** The brush is taken off where it stands. */
  private pullOff(): void {
    const at = this.lastDown;
    this.lastDown = undefined;
    const { form, footprint, reservoir, window, interior, seed, settings } = this;
    if (!at || at.pressure < 0.08 || interior.channels === 0 || form.shape === 'roller') return;
    const clings = reservoir.body * Math.sqrt(reservoir.body) * Math.min(1, form.plough * 1.5) * settings.strength;
    const { arena } = this.painting;
    const pointed = form.shape === 'round' || form.shape === 'dome';
    const mm = this.painting.mmPerPx;
    pullOff({ arena, window, footprint, interior, seed, mm, pointed, mark: this.settling.mark }, at, clings);
  }

  private peel(
    rect: PixelRect,
    x: number,
    y: number,
    cos: number,
    sin: number,
    dx: number,
    dy: number,
    wayMm: number,
    lengthMm: number,
  ) {
    const { window, footprint, painting } = this;
    const mm = painting.mmPerPx;
    const band = {
      x,
      y,
      dx,
      dy,
      cos,
      sin,
      halfWidth: footprint.halfWidth,
      behind: (0.5 * lengthMm) / mm,
      way: wayMm / mm,
      rect,
    };
    peel(painting.arena, window, this.interior.channels, mm, painting.spec.seed & 0xffff, band);
  }

  /** How far a quick hand keeps the hair off the ground, um: it has no time to follow, and paint drags it up. */
  private hurry(t: number, wayMm: number): number {
    const ms = this.lastT === undefined ? 0 : t - this.lastT;
    this.lastT = t;
    if (ms > 0) {
      const speed = Math.max(0.1, Math.min(20, (wayMm * 1000) / ms / USUAL_MM_PER_S));
      this.haste += (maths.log(speed) - this.haste) * Math.min(1, wayMm / 3);
    }
    return HURRY_UM * this.haste * Math.min(1, this.form.wiggleUm / 6);
  }

  /** Solvent on a rag opens paint that has begun to dry. */
  private dissolve(rect: PixelRect, x: number, y: number, wayMm: number, lengthMm: number): void {
    const { window, footprint, settings } = this;
    const { f32 } = this.painting.arena;
    const keep = maths.exp((-1.5 * settings.solvent * wayMm) / lengthMm);
    for (let py = rect.top; py < rect.bottom; py++) {
      const cell = (window.cure >> 2) + (py - window.y0) * window.width - window.x0;
      for (let px = rect.left; px < rect.right; px++) {
        if (hypot(px + 0.5 - x, py + 0.5 - y) < footprint.halfWidth) f32[cell + px] *= keep;
      }
    }
  }

  /** Brings the window to a stamp, and the reservoir into the window's channels. */
  private bringWindow(r: PixelRect): void {
    const { window } = this;
    if (window.contains(r.left, r.top, r.right, r.bottom)) return;
    if (this.interior.channels > 0) this.interior.unpack();
    // what still levels stays in reach
    const all = { ...r };
    growRect(all, this.settling.area);
    window.moveTo(
      all.left,
      all.top,
      all.right,
      all.bottom,
      this.dust ? [...this.reservoir.pigments, ...this.dust.pigments] : this.reservoir.pigments,
    );
    this.interior.pack(window);
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
    const { form, reservoir, footprint, interior, window, settings } = this;
    const { f32, i32 } = this.painting.arena;
    const b = this.block >> 2;
    const k = wayMm / lengthMm;
    const soft = 1.3 - reservoir.body;
    const body = reservoir.body;
    // lay to blend: less of its own, more of what it finds
    const blend = settings.blend;
    const gain = (0.35 + 2.17 * blend) / (0.35 + 2.17 * form.naturalBlend);
    const deposit = form.deposit * settings.strength;
    f32[b + CONTACT.roughness] = form.roughnessUm * (1 - 0.55 * pressure) * (0.3 + 0.85 * body * body + 0.55 * body);
    f32[b + CONTACT.hang] = 0.9 * (0.65 + 0.35 * soft) * (1 + 0.8 * reservoir.thin);
    f32[b + CONTACT.softness] = form.softnessUm;
    f32[b + CONTACT.sink] = interior.carriedByFilm(pressure);
    // a quick brush has less time to wet the ground
    f32[b + CONTACT.give] = 1 - maths.exp(-3 * deposit * k * maths.exp(-0.3 * this.haste));
    f32[b + CONTACT.follow] = interior.follow(pressure);
    f32[b + CONTACT.hold] = form.thirsty ? 0 : HELD_UM * (0.4 + body);
    // a rag wet with solvent takes more, and the stain too
    const dissolves = form.thirsty ? settings.solvent : 0;
    f32[b + CONTACT.take] = 1 - maths.exp(-3 * form.pickup * (1 + dissolves) * gain * settings.strength * k);
    // stiff hair pressed hard works fresh paint into what is below; a light hand leaves it lying on top
    const works = form.working * (0.15 + 0.85 * pressure * pressure) * (0.1 + 3 * blend) * (1.25 - 0.5 * body);
    f32[b + CONTACT.shear] = 1 - maths.exp(-works * k);
    f32[b + CONTACT.onTop] = 1 - (1 - maths.exp(-works)) ** 2;
    f32[b + CONTACT.stain] = STAIN_UM * (1 - 0.85 * dissolves);
    const units = wayMm / UNIT_MM;
    f32[b + CONTACT.plough] =
      form.plough * (1 - maths.exp((-2.2 * units * (0.35 + 0.65 * pressure)) / (1 + 0.05 * (lengthMm / UNIT_MM))));
    f32[b + CONTACT.cellAreaInverse] = 1 / footprint.cellArea;
    f32[b + CONTACT.stiffness] = body;
    f32[b + CONTACT.ceiling] = settings.strength;
    f32[b + CONTACT.passes] = this.settling.mark;
    i32[b + CONTACT.channels] = interior.channels;
    i32[b + CONTACT.film] = window.film >> 2;
    i32[b + CONTACT.relief] = window.relief >> 2;
    i32[b + CONTACT.body] = window.body >> 2;
    i32[b + CONTACT.laid] = window.laid >> 2;
    i32[b + CONTACT.fresh] = window.fresh >> 2;
    i32[b + CONTACT.cure] = window.cure >> 2;
    i32[b + CONTACT.tip] = interior.tip >> 2;
    i32[b + CONTACT.profile] = footprint.profile >> 2;
    i32[b + CONTACT.cells] = footprint.cells >> 2;
    i32[b + CONTACT.ride] = interior.ride >> 2;
    i32[b + CONTACT.height] = interior.height >> 2;
    i32[b + CONTACT.appetite] = interior.appetite >> 2;
    i32[b + CONTACT.hair] = interior.hair.address >> 2;
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
}
