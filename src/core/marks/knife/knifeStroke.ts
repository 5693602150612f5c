import { growRect, type PixelRect } from '@/core/film/pixelRect';
import { BLADE } from '@/core/kernels/blade';
import { kernelsFor, type Kernels } from '@/core/kernels/kernels';
import { maths } from '@/core/maths/maths';
import { noise1, noise2 } from '@/core/surface/noise';
import { BladeEdge } from './bladeEdge';
import { KnifeBead } from './knifeBead';
import { bladeWidthMm, FREE_MM, type KnifeForm } from './knifeForm';
import type { Sample, Stamp } from '@/core/marks/path';
import type { Reservoir } from '@/core/marks/brush/reservoir';
import { DustUp, WORKS_IN } from '@/core/marks/dry/dustUp';
import { Settling } from '@/core/marks/settling';
import { StampedStroke, type StrokeSetting } from '@/core/marks/stampedStroke';

const SPACING_MM = 0.2;
/** How far ahead of the edge the bead reaches, and how far behind it the blade still touches, mm. */
const AHEAD_MM = 3;
const BACK_MM = 0.25;
/** Where paint is laid, and where the blade begins to rise, mm ahead of the edge. */
const LAY_MM = 0.4;
const STANDOFF_MM = 0.125;
/** Way over which the blade forgets what it rode on, mm. */
const RIDE_MM = 2;
/** How fast paint stands free beyond the ends of the blade, um a mm. */
const BEYOND_UM_PER_MM = 900;
/** A bead as thick as this carries the blade, um over 1 mm. */
const CARRYING_UM = 1200;
/** A bead thinner than this hangs unevenly on the blade, um over 1 mm. */
const STARVED_UM = 700;
/** A blade with less than this is bare, um over 1 mm. */
const BARE_UM = 8;
/** Film that even a pressed blade leaves, um. */
const LEAST_UM = 3;
/** Beads thinner than this are not left standing, um over 1 mm. */
const LEAST_RIDGE_UM = 450;

/**
 * A stroke of a knife: a rigid edge with a bead of paint in front of it. A light hand lays a slab; more pressure
 * levels and knocks down; full pressure scrapes to the valleys of the grain. Held on its edge the blade draws a line
 * along the motion; its tip lays small touches. The pen's lean lifts one end: a feathered side.
 */
export class KnifeStroke extends StampedStroke {
  private readonly kernels: Kernels;
  private readonly width: number;
  private readonly edge: BladeEdge;
  private readonly columns: number;
  /** Word address of the kernel's parameters. */
  private readonly block: number;
  private readonly bead: KnifeBead;
  private down = false;
  private way = 0;
  private downAt = 0;
  /** Stiffness and thickness of the film under the blade. */
  private feltBody = 0.4;
  private feltUm = 0;
  private last: { x: number; y: number; cos: number; sin: number } | undefined;
  private readonly settling: Settling;
  private readonly dust: DustUp | undefined;

  constructor(
    setting: StrokeSetting,
    private readonly form: KnifeForm,
    private readonly reservoir: Reservoir,
  ) {
    super(setting);
    this.dust = DustUp.over(setting, this.window);
    const { arena } = setting.painting;
    this.kernels = kernelsFor(arena);
    this.width = bladeWidthMm(setting.settings);
    this.edge = new BladeEdge(arena, form, this.width, setting.painting.spec.seed * 71 + 5);
    this.columns = this.edge.columns;
    this.bead = new KnifeBead(setting.painting, this.edge, reservoir);
    this.block = arena.allocate(BLADE.words * 4) >> 2;
    this.settling = new Settling(setting.painting, this.window, Math.max(0.4, reservoir.body));
  }

  protected spacing(): number {
    return SPACING_MM;
  }

  protected override touchDown(): void {
    this.leaveRidge();
    this.down = false;
  }

  protected override finish(): void {
    this.leaveRidge();
    if (this.bead.channels > 0) growRect(this.changed, this.settling.finish());
    super.finish();
    this.bead.unpack();
    this.painting.arena.free(this.block << 2, BLADE.words * 4);
    this.edge.free();
  }

  protected stamp({ point, dx, dy, wayMm }: Stamp): void {
    const { window } = this;
    const pressure = Math.min(1, point.pressure);
    if (pressure <= 0.01) {
      this.touchDown();
      return;
    }
    const { cos, sin } = this.facing(point, dx, dy);
    const half = this.width / 2 + FREE_MM;
    const rect = this.reach(
      point.x,
      point.y,
      Math.abs(cos) * half + Math.abs(sin) * AHEAD_MM,
      Math.abs(sin) * half + Math.abs(cos) * AHEAD_MM,
    );
    if (!rect) return;
    if (!window.contains(rect.left, rect.top, rect.right, rect.bottom)) {
      this.bead.unpack();
      const all = { ...rect };
      growRect(all, this.settling.area);
      window.moveTo(
        all.left,
        all.top,
        all.right,
        all.bottom,
        this.dust ? [...this.reservoir.pigments, ...this.dust.pigments] : this.reservoir.pigments,
      );
      // towards the blend end what is on the blade is kept off its edge
      this.bead.pack(window, this.down ? 0 : Math.max(0, (this.settings.blend - 0.3) / 0.7));
      if (this.way === 0) this.bead.makeLumpy(this.seed);
    }
    if (!this.down) this.feelGround(point, cos, sin);
    // towards the blend end it stays where it is
    this.bead.feed(wayMm, Math.min(1, (1 - this.settings.blend) / 0.7));
    this.setBlock(point, pressure, cos, sin, wayMm, rect);
    this.kernels.bladeStamp(this.block);
    const mm = this.painting.mmPerPx;
    this.dust?.stamped(point.x / mm, point.y / mm, half / mm, 1 - maths.exp((-WORKS_IN * wayMm) / AHEAD_MM), rect);
    this.settle(wayMm);
    this.way += wayMm;
    this.last = { x: point.x, y: point.y, cos, sin };
    this.touch(rect);
    const levelled = this.settling.stamped(rect, wayMm, AHEAD_MM);
    if (levelled) growRect(this.changed, levelled);
  }

  /** Direction of the blade's front: across the motion, turned by the pen's twist. */
  private facing(point: Sample, dx: number, dy: number): { cos: number; sin: number } {
    const angle = maths.atan2(dy, dx) - Math.PI / 2 + (point.twist * Math.PI) / 180;
    let cos = maths.cos(angle);
    let sin = maths.sin(angle);
    // what lies ahead of the blade is on the side to which it moves
    if (cos * dy - sin * dx < 0) {
      cos = -cos;
      sin = -sin;
    }
    return { cos, sin };
  }

  private setBlock(point: Sample, pressure: number, cos: number, sin: number, wayMm: number, rect: PixelRect): void {
    const { painting, window, settings, form, reservoir } = this;
    const { f32, i32 } = painting.arena;
    const mm = painting.mmPerPx;
    const b = this.block;
    // held on its edge or tip, the blade is drawn under more pressure and stands steeper
    const stands = { flat: 1, tip: 0.55, edge: 0.3 }[settings.hold];
    const held =
      stands * form.standUm * maths.pow(1 - pressure, 1.5) +
      stands * form.liftUm * this.feltBody * Math.sqrt(1 - pressure);
    // a bead carries the blade; without one it sinks into the film that it finds, the deeper the harder it is pressed
    const beadUm = this.beadUm();
    const carried = Math.min(1, beadUm / CARRYING_UM);
    const hangs = settings.hold === 'flat' && form.leaves > 0 ? Math.min(1, beadUm / BARE_UM) : 0;
    const starved = hangs * Math.max(0, 1 - beadUm / STARVED_UM);
    // on its edge an empty blade cuts down to the ground
    const cuts = settings.hold === 'edge' ? 0.15 : 1;
    const sunk = cuts * Math.min(held, this.feltUm * (1.05 - maths.pow(pressure, 1.2)));
    const stand =
      carried * held + (1 - carried) * sunk - form.dig * painting.surface.depthUm * pressure * pressure * pressure;
    const chatter =
      (noise1((this.way * 4) / 3.1, this.seed) - 0.5) * 10 + (noise1((this.way * 4) / 17, this.seed + 1) - 0.5) * 35;
    // the pen's lean along the edge lifts its other end
    const lean = maths.tan((clamp(cos * point.tiltX + sin * point.tiltY) * Math.PI) / 180);
    const leanUm = (-lean * 420) / (this.width / 2);
    // the wrist lets the ends of the blade wander
    const { way } = this;
    const s = this.seed & 0xffff;
    const drift = (k: number) => (noise1(way / 2.3, s + k) - 0.5) * 0.5 + (noise1(way / 0.6, s + k + 1) - 0.5) * 0.34;
    const wander = Math.min(1, this.width / 6);
    const [one, other] = [wander * drift(31), wander * drift(41)];
    const shift = (one - other) / 2;
    const span = this.width / 2 + (one + other) / 2;
    f32.set(
      [cos, sin, (point.x + cos * shift) / mm - window.x0, (point.y + sin * shift) / mm - window.y0],
      b + BLADE.cos,
    );
    this.edge.roughen(stand, starved, way, way - this.downAt, s);
    this.edge.clearFelt();
    f32.set(
      [
        (this.width / 2 + FREE_MM) / mm,
        span / mm,
        this.edge.columnMm / mm,
        BACK_MM / mm,
        AHEAD_MM / mm,
        stand,
        this.edge.nickUm(stand),
        chatter * Math.min(1, Math.max(0, stand / 100)),
        form.slopeUmPerMm * mm,
        BEYOND_UM_PER_MM * mm,
        leanUm * mm,
        Math.abs(lean) * 80,
        1 - maths.exp((-2.2 * wayMm) / 0.25),
        LAY_MM / mm,
        settings.strength,
        reservoir.body,
        this.settling.mark,
        LEAST_UM,
        0.92,
      ],
      b + BLADE.half,
    );
    i32.set(
      [
        window.channels,
        window.film >> 2,
        window.relief >> 2,
        window.body >> 2,
        window.laid >> 2,
        window.fresh >> 2,
        window.cure >> 2,
        this.bead.address,
        this.edge.ride,
        this.edge.rough,
        this.edge.felt,
        this.columns,
        window.width,
        rect.left - window.x0,
        rect.top - window.y0,
        rect.right - window.x0,
        rect.bottom - window.y0,
      ],
      b + BLADE.channels,
    );
    f32[b + BLADE.standoff] = STANDOFF_MM / mm;
    // a light hand with a full blade floats on wet paint; pressed or empty it goes through
    f32[b + BLADE.buoyancy] = form.floats * (settings.hold === 'edge' ? 0.15 : 1) * carried * (1 - pressure ** 2);
    f32[b + BLADE.stir] = 0.3 * pressure * (0.1 + 2 * settings.blend) * (1 - maths.exp((-2.2 * wayMm) / 0.25));
  }

  /** After a stamp: the blade settles on the ground it felt, and the bead runs along it from high to low. */
  private settle(wayMm: number): void {
    const { f32 } = this.painting.arena;
    const forget = 1 - maths.exp(-wayMm / RIDE_MM);
    this.edge.settle(forget);
    const cells = f32[this.block + BLADE.bodyCount];
    if (cells > 4) {
      this.feltBody += (f32[this.block + BLADE.bodySum] / cells - this.feltBody) * forget;
      this.feltUm += (f32[this.block + BLADE.filmSum] / cells - this.feltUm) * forget;
    }
    this.bead.level(wayMm);
  }

  /** Mean bead along the blade, um over 1 mm. */
  private beadUm(): number {
    return (this.bead.volume() * this.painting.cellArea) / this.width;
  }

  /** Touch-down: the blade comes to rest on what stands highest under it. */
  private feelGround(point: Sample, cos: number, sin: number): void {
    const { painting, window } = this;
    const { f32 } = painting.arena;
    const mm = painting.mmPerPx;
    let film = 0;
    let cells = 0;
    const ground = Array.from({ length: this.columns }, (_, c) => {
      const u = (c + 0.5) * this.edge.columnMm - this.width / 2 - FREE_MM;
      let sum = 0;
      let most = -Infinity;
      let count = 0;
      for (let v = 0; v < 2; v += 0.25) {
        const px = Math.round((point.x + cos * u - sin * v) / mm) - window.x0;
        const py = Math.round((point.y + sin * u + cos * v) / mm) - window.y0;
        if (px < 0 || py < 0 || px >= window.width || py >= window.height) continue;
        const h = f32[(window.relief >> 2) + py * window.width + px];
        sum += h;
        most = Math.max(most, h);
        count++;
        film += f32[(window.film >> 2) + (py * window.width + px) * window.stride + this.bead.channels - 1];
        cells++;
      }
      return count > 0 ? { mean: sum / count, most } : undefined;
    });
    this.edge.setDown(ground);
    this.feltUm = cells > 0 ? film / cells : 0;
    this.downAt = this.way;
    this.down = true;
  }

  /** What is left of the bead where the knife is lifted: a ridge across the end of the slab. */
  private leaveRidge(): void {
    const { last, window, form, columns, bead } = this;
    const n = bead.channels;
    this.last = undefined;
    if (!last || n === 0 || form.leaves === 0) return;
    const { f32 } = this.painting.arena;
    const mm = this.painting.mmPerPx;
    const column = this.edge.columnMm;
    // how far ahead each column's ridge reaches; 0 where the bead is too thin to stand
    const lengths = Array.from({ length: columns }, (_, c) => {
      const um = ((f32[bead.address + (c + 1) * n - 1] * mm * mm) / column) * form.leaves;
      return um < LEAST_RIDGE_UM ? 0 : Math.min(3.5, Math.max(0.5, Math.sqrt((2 * um) / form.slopeUmPerMm)));
    });
    const reach = this.width / 2 + FREE_MM + 3.5;
    const rect = this.reach(last.x, last.y, reach);
    if (!rect) return;
    const cells: { cell: number; c: number; weight: number }[] = [];
    const totals = new Float64Array(columns);
    for (let py = Math.max(rect.top, window.y0); py < Math.min(rect.bottom, window.y0 + window.height); py++) {
      for (let px = Math.max(rect.left, window.x0); px < Math.min(rect.right, window.x0 + window.width); px++) {
        const X = (px + 0.5) * mm - last.x;
        const Y = (py + 0.5) * mm - last.y;
        const u = last.cos * X + last.sin * Y + this.width / 2 + FREE_MM;
        const c = Math.floor(u / column);
        const v = last.cos * Y - last.sin * X;
        if (c < 0 || c >= columns || v < 0) continue;
        // it parts raggedly, and runs on from column to column
        const f = u / column - 0.5;
        const c0 = Math.max(0, Math.floor(f));
        const mixed = lengths[c0] + (lengths[Math.min(columns - 1, c0 + 1)] - lengths[c0]) * Math.max(0, f - c0);
        const s = this.seed & 0xffff;
        const parts = Math.min(1, Math.max(0, 4 * noise1(u / 1.9, s + 60) - 1.3));
        const length = mixed * parts * (0.45 + 0.7 * noise1(u / 0.8, s + 57) + 0.35 * noise1(u / 0.3, s + 58));
        if (lengths[c] <= 0 || v >= length) continue;
        const weight =
          (0.4 + Math.min(1, (2 * v) / length)) * (1 - v / length) * (0.6 + 0.8 * noise2(u / 0.9, v / 0.4, s + 59));
        cells.push({ cell: (py - window.y0) * window.width + px - window.x0, c, weight });
        totals[c] += weight;
      }
    }
    for (const { cell, c, weight } of cells) {
      const at = (window.film >> 2) + cell * window.stride;
      const share = (form.leaves * weight) / totals[c];
      for (let i = 0; i < n; i++) {
        const left = f32[bead.address + c * n + i] * share;
        f32[at + i] += left;
        f32[at + n + i] += left;
      }
      f32[(window.body >> 2) + cell] = this.reservoir.body;
      f32[(window.fresh >> 2) + cell] = this.settling.mark;
    }
    for (let c = 0; c < columns; c++) {
      if (totals[c] > 0) for (let i = 0; i < n; i++) f32[bead.address + c * n + i] *= 1 - form.leaves;
    }
  }
}

const clamp = (degrees: number) => Math.max(-75, Math.min(75, degrees));
