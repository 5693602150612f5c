import { normalise, type Mixture } from '@/core/colour/mixture';
import { pigmentIndex } from '@/core/colour/pigments';
import { PLANE_BYTES } from '@/core/film/cells';
import type { Tile } from '@/core/film/tile';
import { Wash } from '@/core/film/wash';
import { dustCoats, dustUm } from '@/core/flow/washRates';
import { hypot, maths } from '@/core/maths/maths';
import { latticeHash, noise1, noise2 } from '@/core/surface/noise';
import type { Sample, Stamp } from './path';
import { PlainStroke } from './plainStroke';
import type { StickForm } from './stickForms';
import { dropEmptyDust } from './dustContact';
import type { StrokeSetting } from './stampedStroke';

/** A wet film thicker than this takes the dust into itself, um. */
const WET_UM = 3;
/** Dust of the same stick, judged by its parts, goes on lying with what is there. */
const SAME = 0.06;
/** Size of a crumb, mm. */
const CRUMB_MM = 0.17;
/** Width of a point and of an edge, and thickness of a side, shares of the length of a stick. */
const POINT = 0.3;
const EDGE = 0.1;
const SIDE = 0.22;

/** Addresses (words) of what a tile has, while a stamp works on it. */
interface Planes {
  readonly laid: number;
  /** Dust there: of every pigment, loose and pressed, the height of a coat, and coats in a um of this stick's dust. */
  readonly dust: readonly { readonly loose: number; readonly pressed: number; readonly um: number; readonly coats: number }[];
  readonly wet: { readonly volume: number; readonly skin: number; readonly masses: readonly { mass: number; skin: number; coats: number }[] } | undefined;
  readonly wax: number;
} // prettier-ignore

/**
 * A dry stick drawn over the tooth. It meets the peaks, reaches down as it is pressed, and leaves dust until the tooth
 * is full and nothing holds any more. Dust of another stick comes to lie under its own; where paint is wet, it goes
 * into the paint. What it leaves is entered in the ledger as loaded, for a stick is not filled but worn.
 */
export class StickStroke extends PlainStroke {
  /** Pigments of the stick, with their coats in a um of its dust. */
  private readonly parts: readonly { readonly pigment: number; readonly coats: number }[];
  private readonly seed: number;
  /** Whether it is drawn with its side, which lies across the way. */
  private readonly side: boolean;

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
    this.seed = setting.seed;
    this.side = !form.pointed && setting.settings.hold === 'flat';
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

  protected stamp({ point, dx, dy, wayMm }: Stamp): void {
    const { painting, settings } = this.setting;
    const { arena, mmPerPx, surface } = painting;
    const { form, side } = this;
    const halfWide = side ? settings.sizeMm / 2 : this.radius(point);
    const halfLong = side ? (SIDE * settings.sizeMm) / 2 : halfWide;
    const way = Math.max(wayMm, 0.3 * this.spacing(point));
    const rate = 1 - maths.exp((-form.wears * 1.6 * way) / Math.max(2 * halfLong * 0.8, 0.2));
    const { pressure } = point;
    // a leaning side presses with one end more than with the other
    const tip = side ? Math.max(-0.6, Math.min(0.6, (point.tiltX * -dy + point.tiltY * dx) / 60)) : 0;
    const deep = surface.depthUm + 4;
    // towards the blend end it rubs more than it leaves
    const most = form.most * settings.strength * (1 - settings.blend);
    const laidAll = new Float64Array(this.parts.length);
    let planes: Planes;
    this.area(
      point.x,
      point.y,
      hypot(halfWide, halfLong),
      (tile) => {
        planes = this.planesOf(tile);
        return true;
      },
      (cell, px, py) => {
        const ex = (px + 0.5) * mmPerPx - point.x;
        const ey = (py + 0.5) * mmPerPx - point.y;
        const across = ey * dx - ex * dy;
        const along = ex * dx + ey * dy;
        const edge = side ? Math.min(halfWide - Math.abs(across), halfLong - Math.abs(along)) : halfWide - hypot(ex, ey); // prettier-ignore
        const inside = Math.min(1, edge / mmPerPx + 0.5) * Math.min(1, halfWide / (0.5 * mmPerPx));
        if (inside <= 0) return;
        const { f32 } = arena;
        const { dust, laid, wet } = planes;
        let there = 0;
        for (const { loose, pressed, um } of dust)
          there += um * (f32[loose + cell] + (pressed ? f32[pressed + cell] : 0));
        const height = surface.um[(py % surface.size) * surface.size + (px % surface.size)] + there;
        const lean = 1 + (tip * across) / halfWide;
        const plane = surface.peakUm - (form.rests + form.presses * pressure * Math.max(0.1, lean)) * deep;
        // no stick is quite even, and none lies quite flat
        const streak = form.uneven * (noise1((across / halfWide) * 7 + 31, this.seed) + noise2(px * 0.7, py * 0.7, this.seed + 1) - 1); // prettier-ignore
        const over = height - plane + form.soft * (streak + 0.15);
        // dust fills up to a crest over the peaks; the sharpest peaks hold some too
        const room = Math.max(surface.peakUm + form.crest - height, 0.6 * form.crest - there);
        if (room <= 0 && !wet) return;
        const meets = over > 0 ? over / (over + form.soft) : 0;
        // crumbs fall here and there, into valleys too
        const speck = latticeHash(Math.floor((px + 0.5) * mmPerPx / CRUMB_MM), Math.floor((py + 0.5) * mmPerPx / CRUMB_MM), this.seed); // prettier-ignore
        const falls = speck < form.crumbs * pressure ? 0.5 : 0;
        const wanted = most * inside * Math.min(1, meets + falls) - f32[laid + cell];
        if (wanted <= 0) return;
        const um = Math.min(wanted * rate, wet ? wanted : room);
        if (wet && f32[wet.volume + cell] > WET_UM) {
          f32[wet.volume + cell] += um;
          if (wet.skin) f32[wet.skin + cell] += um;
          for (const { mass, skin, coats } of wet.masses) {
            f32[mass + cell] += um * coats;
            if (skin) f32[skin + cell] += um * coats;
          }
        } else {
          if (room <= 0) return;
          if (there > 0) this.settleUnder(cell, dust, f32[laid + cell] === 0, um / form.most);
          for (const { loose, coats } of dust) if (coats > 0) f32[loose + cell] += um * coats;
        }
        if (planes.wax) f32[planes.wax + cell] = Math.min(1, f32[planes.wax + cell] + um / form.most);
        f32[laid + cell] += um;
        for (let k = 0; k < laidAll.length; k++) laidAll[k] += um * this.parts[k].coats;
      },
    );
    this.parts.forEach(({ pigment }, k) => (painting.ledger.loaded[pigment] += laidAll[k] * painting.cellArea));
  }

  /** Another stick's dust comes to lie under; of what is under, a little is dragged up. */
  private settleUnder(cell: number, dust: Planes['dust'], first: boolean, rubs: number): void {
    const { f32 } = this.setting.painting.arena;
    if (first) {
      let loose = 0;
      for (const d of dust) loose += d.um * f32[d.loose + cell];
      let other = 0;
      if (loose > 0) for (const d of dust) other += Math.abs(f32[d.loose + cell] / loose - d.coats) * d.um;
      if (other > SAME) {
        for (const d of dust) {
          f32[d.pressed + cell] += f32[d.loose + cell];
          f32[d.loose + cell] = 0;
        }
      }
    }
    const up = this.form.drags * rubs;
    for (const { loose, pressed } of dust) {
      if (!pressed) continue;
      const moved = f32[pressed + cell] * up;
      f32[pressed + cell] -= moved;
      f32[loose + cell] += moved;
    }
  }

  private planesOf(tile: Tile): Planes {
    const { arena } = this.setting.painting;
    const had = tile.wash?.dusty === true;
    const wash = (tile.wash ??= new Wash(arena));
    tile.laid ||= arena.allocate(PLANE_BYTES);
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
      laid: tile.laid >> 2,
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
