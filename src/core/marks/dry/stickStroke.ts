import { normalise, type Mixture } from '@/core/colour/mixture';
import { pigmentIndex } from '@/core/colour/pigments';
import { solidUnder } from '@/core/film/packing/solid';
import type { Tile } from '@/core/film/tile';
import { Wash } from '@/core/film/wash';
import { dustCoats, dustUm } from '@/core/flow/washRates';
import { hypot, maths } from '@/core/maths/maths';
import { fineTooth, type FineTooth } from '@/core/surface/fineTooth';
import { depthOf, meeting } from '@/core/marks/partContact';
import type { Sample, Stamp } from '@/core/marks/path';
import { PlainStroke } from '@/core/marks/plainStroke';
import { StickFace, type Held } from './stickFace';
import type { StickForm } from './stickForms';
import { StickRide } from './stickRide';
import { dropEmptyDust, STANDS } from './dustContact';
import type { StrokeSetting } from '@/core/marks/stampedStroke';

/** A wet film thicker than this takes the dust into itself, um. */
const WET_UM = 3;
/** Dust of which less than this share can be this stick's own is another's. */
const OWN = 0.6;
/** A point whose half width this is, mm, is pressed in as its form says; a broader one less, by this power of the width. */
const POINT_MM = 0.2;
const SPREADS = 0.9;
const SPREAD_OUT = 0.33;
/** How much deeper the tip or the edge of a stick is pressed in than its side. */
const TIPPED = 1.25;
/** How the load grows with the pressure of the pen. */
const PRESSING = 1.25;
/** Share of what it gives off that a stick gives off where it is hardly pressed. */
const LIGHTLY = 0.3;
/** How much less takes hold on a tooth that is full of other dust. */
const SLIDES = 1;
/** A side that leans lies off at one end by so much, um, and by as much as the load presses it in. */
const LEANS_UM = 8;
/** Width of a point and of an edge, and thickness of a side, shares of the length of a stick. */
const POINT = 0.3;
const EDGE = 0.1;
const SIDE = 0.22;

/** Addresses (words) of what a tile has, while a stamp works on it. */
interface Planes {
  /** Dust there: of every pigment, loose and pressed, the height of a coat, and coats in a um of this stick's dust. */
  readonly dust: readonly {
    readonly loose: number;
    readonly pressed: number;
    readonly um: number;
    readonly coats: number;
  }[];
  readonly wet:
    | {
        readonly volume: number;
        readonly skin: number;
        readonly masses: readonly { mass: number; skin: number; coats: number }[];
      }
    | undefined;
  /** Dry paint under it, which it rides on. */
  readonly solid: readonly { readonly plane: number; readonly share: number }[];
  readonly wax: number;
  readonly masking: number;
}

/**
 * A dry stick drawn over the tooth (see partContact.ts, stickFace.ts, stickRide.ts). It fills the tooth with its dust:
 * each bit of its way it leaves a share of what still finds hold there, so that a tone builds up within a scribble as it
 * does over strokes, and ends where the tooth is full. Dust of another stick comes to lie under its own; where paint is
 * wet, it goes into the paint. What it leaves is entered in the ledger as loaded, for a stick is not filled but worn.
 */
export class StickStroke extends PlainStroke {
  /** Pigments of the stick, with their coats in a um of its dust. */
  private readonly parts: readonly { readonly pigment: number; readonly coats: number }[];
  /** Whether it is drawn with its side, which lies across the way. */
  private readonly side: boolean;
  private readonly tooth: FineTooth;
  private readonly face: StickFace;
  private readonly ride = new StickRide();
  /** Deviation of the heights that meet within a cell: the sheet's and the stick's own, um. */
  private readonly spread: number;
  private readonly given: Float64Array;

  constructor(
    setting: StrokeSetting,
    private readonly form: StickForm,
    mixture: Mixture,
  ) {
    super(setting);
    const parts = Object.entries(normalise(mixture))
      .map(([id, part]) => ({ pigment: pigmentIndex(id), part }))
      .filter(({ part }) => part > 0)
      .sort((a, b) => a.pigment - b.pigment);
    const coats = dustCoats(parts);
    this.parts = parts.map(({ pigment }, k) => ({ pigment, coats: coats[k] }));
    this.given = new Float64Array(parts.length);
    this.side = !form.pointed && setting.settings.hold === 'flat';
    this.tooth = fineTooth(setting.painting.surface, setting.painting.mmPerPx);
    this.spread = hypot(this.tooth.withinUm, 0.6 * form.rough);
    this.face = new StickFace(form, setting.seed, setting.settings.sizeMm);
  }

  override end(): void {
    super.end();
    dropEmptyDust(this.setting);
  }

  protected spacing(point: Sample): number {
    const { sizeMm } = this.setting.settings;
    return this.side ? Math.max(0.15, SIDE * sizeMm * 0.3) : Math.max(0.08, this.radius(point) * 0.35);
  }

  /** Half the width of a point or an edge, mm; a leaning pencil draws with the side of its lead. */
  private radius(point: Sample): number {
    const { sizeMm, hold } = this.setting.settings;
    const lean = Math.min(1, hypot(point.tiltX, point.tiltY) / 60);
    const wide = this.form.pointed ? 1 : hold === 'edge' ? EDGE : POINT;
    return (sizeMm / 2) * wide * (0.6 + 0.4 * point.pressure) * (1 + (this.form.pointed ? 2.5 : 1) * lean);
  }

  private held(point: Sample): Held {
    if (!this.side) {
      const radius = this.radius(point);
      return { side: false, halfWide: radius, halfLong: radius };
    }
    const { sizeMm } = this.setting.settings;
    return { side: true, halfWide: sizeMm / 2, halfLong: (SIDE * sizeMm) / 2 };
  }

  /** Mean depth to which the hand presses it in, um: its force over the area of the contact. */
  private load(pressure: number, halfWide: number): number {
    const { form, side } = this;
    let spread = side ? 1 : TIPPED;
    if (form.pointed) spread = Math.max(SPREAD_OUT, maths.pow(POINT_MM / Math.max(halfWide, 0.5 * POINT_MM), SPREADS));
    return (form.rests + form.presses * maths.pow(pressure, PRESSING)) * spread;
  }

  /** Heights of the ground where it is set down, a few hundred at most, um. */
  private heightsAt(point: Sample, reach: number): number[] {
    const { painting, layer } = this.setting;
    const { mmPerPx, surface, width, height, tilesX, arena } = painting;
    const { size } = surface;
    const n = Math.max(1, Math.ceil(reach / mmPerPx));
    const step = Math.max(1, n >> 4);
    const [cx, cy] = [Math.floor(point.x / mmPerPx), Math.floor(point.y / mmPerPx)];
    const heights: number[] = [];
    for (let y = cy - n; y <= cy + n; y += step) {
      for (let x = cx - n; x <= cx + n; x += step) {
        let um = this.tooth.um[(((y % size) + size) % size) * size + (((x % size) + size) % size)];
        if (x >= 0 && y >= 0 && x < width && y < height) {
          const cell = (y & 63) * 64 + (x & 63);
          for (const { plane, share } of solidUnder(painting, layer, (y >> 6) * tilesX + (x >> 6)))
            um += share * arena.f32[(plane >> 2) + cell];
        }
        heights.push(um);
      }
    }
    return heights;
  }

  protected stamp({ point, dx, dy, wayMm }: Stamp): void {
    const { painting, settings } = this.setting;
    const { arena, mmPerPx, surface } = painting;
    const { form, side, ride, face, spread, given } = this;
    const { pressure } = point;
    const held = this.held(point);
    const { halfWide, halfLong } = held;
    const least = 0.3 * this.spacing(point);
    const load = this.load(pressure, halfWide);
    if (!ride.isDown) ride.setDown(this.heightsAt(point, halfWide), load, spread);
    face.hold(held, ride.drawnMm);
    // a leaning side presses with one end more than with the other
    const tip = side ? Math.max(-0.6, Math.min(0.6, (point.tiltX * -dy + point.tiltY * dx) / 60)) : 0;
    const leans = (tip * (LEANS_UM + load)) / halfWide;
    const full = form.most * form.fills;
    // a share of what finds hold is given off on the length of the contact; towards the blend end it rubs more than it leaves
    const gives = settings.strength * (1 - settings.blend) * (LIGHTLY + (1 - LIGHTLY) * pressure);
    const part = 1 - maths.exp((-form.wears * gives * Math.max(wayMm, least)) / (1.6 * halfLong * form.fills));
    const crumbs = form.crumbs * Math.sqrt(pressure);
    const tooth = this.tooth.um;
    given.fill(0);
    let planes: Planes;
    this.area(
      point.x,
      point.y,
      hypot(halfWide, halfLong * (side ? 1.3 : 1)),
      (tile, index) => {
        planes = this.planesOf(tile, index);
        return true;
      },
      (cell, px, py) => {
        const mx = (px + 0.5) * mmPerPx;
        const my = (py + 0.5) * mmPerPx;
        const ex = mx - point.x;
        const ey = my - point.y;
        const across = ey * dx - ex * dy;
        const along = ex * dx + ey * dy;
        const far = hypot(ex, ey);
        const edge = side ? Math.min(halfWide - Math.abs(across), 1.3 * halfLong - Math.abs(along)) : halfWide - far;
        const inside = Math.min(1, edge / mmPerPx + 0.5) * Math.min(1, halfWide / (0.5 * mmPerPx));
        if (inside <= 0) return;
        const { f32 } = arena;
        const { dust, wet, solid, masking } = planes;
        let ground = tooth[(py % surface.size) * surface.size + (px % surface.size)];
        for (const { plane, share } of solid) ground += share * f32[plane + cell];
        let top = 0;
        let under = 0;
        let own = Infinity;
        for (const { loose, pressed, um, coats } of dust) {
          const here = f32[loose + cell];
          top += um * here;
          if (pressed) under += um * f32[pressed + cell];
          if (coats > 0) own = Math.min(own, here / coats);
        }
        const grain = face.grainAt(mx, my);
        const above =
          ground + STANDS * (top + under) - ride.face - face.hollow(across, along, far, grain) + leans * across;
        const depth = depthOf(above, spread);
        ride.bears(above, depth, inside);
        // crumbs fall here and there, into valleys too
        const falls = crumbs * Math.max(0, 2.4 * grain - 1.3);
        const meets = meeting(depth / form.soft);
        const open = masking ? 1 - f32[masking + cell] : 1;
        const holds = full * Math.min(1, meets + falls * (1 - meets)) * open;
        if (holds <= 0) return;
        let um: number;
        if (wet && f32[wet.volume + cell] > WET_UM) {
          um = holds * part * inside;
          f32[wet.volume + cell] += um;
          if (wet.skin) f32[wet.skin + cell] += um;
          for (const { mass, skin, coats } of wet.masses) {
            f32[mass + cell] += um * coats;
            if (skin) f32[skin + cell] += um * coats;
          }
        } else {
          if (top > 0 && own < OWN * top) {
            this.settleUnder(cell, dust);
            under += top;
            top = 0;
          }
          if (holds <= top) return;
          um = ((holds - top) * part * inside) / (1 + (SLIDES * under) / full);
          if (under > 0) this.dragUp(cell, dust, um / form.most);
          for (const { loose, coats } of dust) if (coats > 0) f32[loose + cell] += um * coats;
        }
        if (planes.wax) f32[planes.wax + cell] = Math.min(1, f32[planes.wax + cell] + um / form.most);
        for (let k = 0; k < given.length; k++) given[k] += um * this.parts[k].coats;
      },
    );
    ride.follow(point.t, wayMm, least, load);
    this.parts.forEach(({ pigment }, k) => (painting.ledger.loaded[pigment] += given[k] * painting.cellArea));
  }

  /** Another stick's dust comes to lie under. */
  private settleUnder(cell: number, dust: Planes['dust']): void {
    const { f32 } = this.setting.painting.arena;
    for (const { loose, pressed } of dust) {
      if (!pressed) continue;
      f32[pressed + cell] += f32[loose + cell];
      f32[loose + cell] = 0;
    }
  }

  /** Of the dust below, a little is dragged up. */
  private dragUp(cell: number, dust: Planes['dust'], rubs: number): void {
    const { f32 } = this.setting.painting.arena;
    const up = Math.min(1, this.form.drags * rubs);
    for (const { loose, pressed } of dust) {
      if (!pressed) continue;
      const moved = f32[pressed + cell] * up;
      f32[pressed + cell] -= moved;
      f32[loose + cell] += moved;
    }
  }

  private planesOf(tile: Tile, index: number): Planes {
    const { painting, layer } = this.setting;
    const { arena } = painting;
    const had = tile.wash?.dusty === true;
    const wash = (tile.wash ??= new Wash(arena));
    for (const { pigment } of this.parts) wash.plane('loose', pigment);
    if (had) {
      wash.pigments.forEach((pigment, k) => {
        if (!wash.coats.loose[k] && !wash.coats.pressed[k]) return;
        wash.plane('loose', pigment);
        wash.plane('pressed', pigment);
      });
    }
    if (tile.volume) for (const { pigment } of this.parts) tile.massPlane(pigment);
    const coatsOf = (pigment: number) => this.parts.find((p) => p.pigment === pigment)?.coats ?? 0;
    const { loose, pressed } = wash.coats;
    return {
      solid: solidUnder(painting, layer, index).map(({ plane, share }) => ({ plane: plane >> 2, share })),
      masking: wash.resist.masking >> 2,
      dust: wash.pigments.flatMap((pigment, k) =>
        loose[k]
          ? [{ loose: loose[k] >> 2, pressed: pressed[k] >> 2, um: dustUm(pigment), coats: coatsOf(pigment) }]
          : [],
      ),
      wet: tile.volume
        ? {
            volume: tile.volume >> 2,
            skin: tile.skinVolume >> 2,
            masses: this.parts.map(({ pigment, coats }) => {
              const k = tile.pigments.indexOf(pigment);
              return { mass: tile.mass[k] >> 2, skin: tile.skinVolume ? tile.skin[k] >> 2 : 0, coats };
            }),
          }
        : undefined,
      wax: this.form.waxy ? wash.resistPlane('wax') >> 2 : 0,
    };
  }
}
