import { flowOf, type Flow } from '@/core/flow/flowing';
import { STEP_SECONDS } from '@/core/flow/washRates';
import { growRect, noRect, type PixelRect } from '@/core/film/pixelRect';
import { hypot, maths } from '@/core/maths/maths';
import { noise1, randomFrom } from '@/core/surface/noise';
import { DabWalker } from '@/core/marks/brush/dabbing';
import { PathBuilder, StampWalker, type Sample, type Stamp } from '@/core/marks/path';
import { emptyReservoir, reservoirMass, type Reservoir } from '@/core/marks/brush/reservoir';
import { felt, type StrokeInProgress, type StrokeSetting } from '@/core/marks/stampedStroke';
import type { WashForm } from './washForms';
import { WashInHand } from './washLoad';
import type { Touch } from './washFace';
import { WashTip } from './washTip';

const STEP_MS = STEP_SECONDS * 1000;
/** Distance of touches, in radii. */
const SPACING = 0.18;
/** Distance of the dabs of a sponge, in radii, and how far they stray. */
const DABS = 0.8;
const DAB_STRAYS = 0.45;
/** Way over which the belly gives to a change of pressure, in sizes of the brush; how wide it is when it lands. */
const GIVES = 0.3;
const LANDS = 0.5;
/** Unsteadiness of the width of a stroke, and over which way, mm. */
const UNSTEADY = 0.045;
const UNSTEADY_MM = 6;
/** Speed of a touch before which there was none, mm/s. */
const USUAL_SPEED = 35;
/** Readings closer than this are one place, mm. */
const STILL_MM = 0.01;

/** A stroke on wet paper: while the hand moves, the water goes on flowing, by the times of the readings. */
export class WashStroke implements StrokeInProgress {
  protected readonly tip: WashTip;
  protected readonly load: WashInHand;
  protected readonly random: () => number;
  private readonly flow: Flow;
  private readonly path: PathBuilder;
  private readonly walker: StampWalker | DabWalker;
  private clock: number | undefined;
  private last: Sample | undefined;
  private changed = noRect();
  /** When the last touch was, ms; way of the stroke so far, mm. */
  private before = 0;
  private way = 0;
  /** Pressure that the belly has given to; where in the hairs' unevenness the stroke began. */
  private soft: number | undefined;
  private phase: number | undefined;

  constructor(
    protected readonly setting: StrokeSetting,
    protected readonly form: WashForm,
    reservoir: Reservoir,
  ) {
    const { painting, layer, before, settings, seed } = setting;
    this.load = new WashInHand(reservoir, form);
    this.flow = flowOf(painting);
    this.random = randomFrom(seed);
    // hairs and pores are the brush's own, whatever the stroke
    const hairs = painting.spec.seed * 31 + form.holds;
    this.tip = new WashTip(
      painting,
      layer,
      before,
      form,
      this.load,
      hairs,
      settings.strength,
      settings.blend,
      setting.guard,
    );
    const spacing = (point: Sample) => this.spacing(point);
    const stamp = (s: Stamp) => {
      this.timeTo(s.point.t);
      if (s.point.pressure > 0.01) this.stamp(s);
    };
    this.walker =
      settings.touch === 'dab'
        ? new DabWalker(settings.sizeMm, seed, spacing, () => {}, stamp)
        : new StampWalker(spacing, stamp);
    this.path = new PathBuilder((point) => this.walker.add(point));
  }

  add(sample: Sample): void {
    const { settings } = this.setting;
    this.clock ??= sample.t;
    const { last } = this;
    this.last = sample;
    this.path.add({ ...sample, pressure: felt(sample.pressure, settings) });
    // a hand that rests lets time pass all the same
    if (last && hypot(sample.x - last.x, sample.y - last.y) < STILL_MM) this.timeTo(sample.t);
  }

  publish(): PixelRect {
    growRect(this.changed, this.tip.takeTouched());
    const rect = this.changed;
    this.changed = noRect();
    return rect;
  }

  end(): void {
    this.path.end();
    this.walker.end();
    if (this.last) this.timeTo(this.last.t);
    this.load.close();
  }

  /** Half the width of the touch at a pressure, mm. */
  protected radius(pressure: number): number {
    const { least } = this.form;
    return (this.setting.settings.sizeMm / 2) * (least + (1 - least) * pressure);
  }

  /** Whether it touches in dabs, as a sponge does. */
  private get dabs(): boolean {
    return this.form.shape === 'pores' && !this.form.thirsty;
  }

  protected spacing(point: Sample): number {
    if (this.dabs) return DABS * this.radius(point.pressure);
    const thick = this.form.shape === 'bar' ? 2 * this.form.thick : 1;
    return Math.max(0.12, this.radius(point.pressure) * SPACING * Math.min(1, Math.max(0.5, thick)));
  }

  protected stamp({ point, dx, dy, wayMm }: Stamp): void {
    const seconds = this.between(point.t);
    const speed = seconds > 0 ? wayMm / seconds : USUAL_SPEED;
    const touch = { x: point.x, y: point.y, pressure: point.pressure, dx, dy, speed };
    if (this.dabs) this.dab(touch);
    else this.draw(touch, wayMm);
  }

  /** A sponge is dabbed, turned a little each time. */
  private dab(touch: Omit<Touch, 'radius'>): void {
    const turn = 2 * Math.PI * this.random();
    const radius = this.radius(touch.pressure);
    const strays = () => DAB_STRAYS * radius * (2 * this.random() - 1);
    const x = touch.x + strays();
    const y = touch.y + strays();
    this.tip.touch({ ...touch, x, y, dx: maths.cos(turn), dy: maths.sin(turn), radius, phase: 100 * this.random() });
  }

  /** A brush is drawn: its belly lags behind the pressure, and no hand is quite steady. */
  private draw(touch: Omit<Touch, 'radius'>, wayMm: number): void {
    const { form, setting } = this;
    const pointed = form.point > 0;
    this.phase ??= 100 * this.random();
    this.way += wayMm;
    const gives = 1 - maths.exp(-wayMm / (GIVES * setting.settings.sizeMm));
    this.soft ??= LANDS * touch.pressure;
    this.soft += (touch.pressure - this.soft) * gives;
    const shakes = form.streaky > 0 ? UNSTEADY * (pointed ? 1 : 0.35) : 0;
    const steady = 1 + shakes * (2 * noise1(this.way / UNSTEADY_MM + this.phase, setting.seed) - 1);
    const radius = steady * this.radius(pointed ? this.soft : touch.pressure);
    this.tip.touch({ ...touch, radius, way: this.way, phase: this.phase });
  }

  /** Seconds since the stamp before. */
  private between(t: number): number {
    const seconds = (t - this.before) / 1000;
    this.before = t;
    return seconds;
  }

  protected timeTo(t: number): void {
    this.clock ??= t;
    const step = STEP_MS / this.setting.pace;
    while (this.clock + step <= t) {
      if (this.flow.active) this.flow.step(this.setting.before);
      this.clock += step;
    }
  }
}

/** Time from one drop to the next where a pipette is held still, ms; way after which it is not still, sizes. */
const DROP_MS = 200;
const DROP_STILL = 0.05;
/** Depth, in washes, above which no further drop stays where it falls. */
const DROP_STANDS = 9;

/** Drops from a full brush or a pipette: one where it is set down, more as it is drawn along or held still. */
export class DropStroke extends WashStroke {
  /** Where it is held, and since when for the next drop. */
  private held: Sample | undefined;
  /** The first drop has fallen: where the hand comes down, before the path says so. */
  private begun = false;
  /** Way of the hand so far, mm: until it is long enough for a second drop, the path only repeats the first. */
  private moved = 0;

  override add(sample: Sample): void {
    const { held } = this;
    const { settings } = this.setting;
    if (!this.begun && sample.pressure > 0.01) {
      this.begun = true;
      this.fall({ ...sample, pressure: felt(sample.pressure, settings) });
    }
    const strays = held ? hypot(sample.x - held.x, sample.y - held.y) : 0;
    if (held && strays < DROP_STILL * settings.sizeMm) {
      this.dropWhileStill(held, sample);
      // a hand that trembles has not moved
      super.add({ ...sample, x: held.x, y: held.y });
      return;
    }
    this.moved += strays;
    this.held = { ...sample, t: sample.t + DROP_MS / 2 };
    super.add(sample);
  }

  /** Drops by time from what is held to a reading at the same place. */
  private dropWhileStill(held: Sample, now: Sample): void {
    let { t } = held;
    for (; t + DROP_MS <= now.t; t += DROP_MS) {
      this.timeTo(t + DROP_MS);
      this.fall({ ...held, pressure: felt(now.pressure, this.setting.settings) }, DROP_STANDS);
    }
    this.held = { ...held, t };
  }

  protected override spacing(): number {
    return Math.max(0.5, this.setting.settings.sizeMm * 1.6);
  }

  protected override radius(pressure: number): number {
    return (this.setting.settings.sizeMm / 2) * (0.55 + 0.9 * pressure);
  }

  protected override stamp({ point }: Stamp): void {
    // a drop that falls into others takes nothing back
    if (this.moved >= this.spacing()) this.fall(point, DROP_STANDS);
  }

  private fall(point: Sample, stands?: number): void {
    if (point.pressure <= 0.01 || this.load.water <= 0) return;
    const film = 1.1 + 0.65 * point.pressure;
    this.tip.touch({ ...point, dx: 1, dy: 0, speed: 0, radius: this.radius(point.pressure), film, stands });
  }
}

/** Mean number of drops for each mm of way, of drops 1 mm wide. */
const DROPS_PER_MM = 4;

/** Drops flung from a full brush: larger ones are rarer, and they scatter with the distance. */
export class SplatterStroke extends WashStroke {
  protected override spacing(): number {
    return 1;
  }

  protected override stamp({ point, dx, dy, wayMm }: Stamp): void {
    const { sizeMm, distanceMm } = this.setting.settings;
    let drops = (DROPS_PER_MM * Math.max(0.4, wayMm) * point.pressure) / Math.max(1, sizeMm ** 2);
    const reach = 0.11 * distanceMm;
    for (; drops > 0 && this.load.water > 0; drops--) {
      if (drops < 1 && this.random() > drops) break;
      const along = this.gauss() * reach;
      const aside = this.gauss() * reach;
      const width = Math.max(0.25, sizeMm * maths.exp(0.55 * this.gauss() - 0.3) * (0.5 + 0.5 * point.pressure));
      this.tip.touch({
        x: point.x + dx * along - dy * aside,
        y: point.y + dy * along + dx * aside,
        pressure: 1,
        dx: 1,
        dy: 0,
        speed: 0,
        radius: width / 2,
        film: 0.7 + 0.5 * this.random(),
      });
    }
  }

  /** A normally distributed number (Box and Muller 1958), within three deviations. */
  private gauss(): number {
    const r = Math.sqrt(-2 * maths.log(1 - this.random()));
    return Math.max(-3, Math.min(3, r * maths.cos(2 * Math.PI * this.random())));
  }
}

/** A rag or tissue on wet paper: it drinks water and takes paint with it, which is gone. */
export class BlotStroke extends WashStroke {
  private readonly drunk: Reservoir;

  constructor(setting: StrokeSetting, form: WashForm) {
    const dry = emptyReservoir(1, 1, 1, 0);
    dry.amount = 0.02;
    super(setting, form, dry);
    this.drunk = dry;
  }

  override end(): void {
    super.end();
    const { ledger } = this.setting.painting;
    reservoirMass(this.drunk, ledger.removed);
    ledger.water.removed += this.drunk.tuftVolume[0] / 1000;
  }
}
