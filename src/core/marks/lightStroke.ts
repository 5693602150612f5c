import { tilesIn } from '@/core/film/tilesIn';
import { TILE, TILE_CELLS } from '@/core/film/cells';
import type { Layer } from '@/core/film/layer';
import { growRect, noRect, type PixelRect } from '@/core/film/pixelRect';
import { hypot, maths } from '@/core/maths/maths';
import { latticeHash, noise2 } from '@/core/surface/noise';
import { PathBuilder, StampWalker, type Sample, type Stamp } from './path';
import { felt, type StrokeInProgress, type StrokeSetting } from './stampedStroke';

/** How a tool marks pixels and masks. */
export interface LightForm {
  /** Share of its radius over which its rim is lost, 0 hard .. 1 soft throughout. */
  readonly soft: number;
  /** How much the surface's tooth and droplets break it up, 0..1. */
  readonly grain: number;
  /** Takes off in place of laying; pushes about what is there. */
  readonly rub?: boolean;
  readonly smear?: boolean;
}

/** What is painted: colours (encoded sRGB codes) with their alpha on a layer, or a grey on its mask. */
export type LightTarget =
  | { readonly on: 'pixels'; readonly colour: readonly [r: number, g: number, b: number] }
  | { readonly on: 'mask'; readonly grey: number; readonly fill: number };

/** What one pass at full pressure and strength leaves in the middle. */
const FULL = 0.85;
/** Distance between stamps, shares of the radius: soft ones may stand farther apart. */
const SPACING = 0.16;
const SOFT_SPACING = 0.26;
/** Grain of a sprayed mark, mm. */
const GRAIN_MM = 0.17;

/**
 * Marks on what has no film: light on tone layers, pixels of pictures, masks. Within a stroke a mark builds up to what
 * its strength allows, and another stroke adds to it; a smear carries along what it finds.
 */
export class LightStroke implements StrokeInProgress {
  private readonly path: PathBuilder;
  private readonly walker: StampWalker;
  private readonly spacing: number;
  private changed = noRect();
  /** Tiles whose planes are this stroke's own; what was there before it, and how much it has laid. */
  private readonly own = new Map<number, OwnTile>();
  /** What a smear carries: premultiplied red, green, blue and alpha 0..1, or the grey. */
  private carried: [number, number, number, number] | undefined;

  constructor(
    private readonly setting: StrokeSetting,
    private readonly form: LightForm,
    private readonly target: LightTarget,
  ) {
    this.walker = new StampWalker(
      () => Math.max(0.05, this.radius(0.5) * this.spacing),
      (stamp) => {
        if (stamp.point.pressure > 0.01) this.stamp(stamp);
      },
    );
    this.spacing = form.soft > 0.7 ? SOFT_SPACING : SPACING;
    this.path = new PathBuilder((point) => this.walker.add(point));
  }

  add(sample: Sample): void {
    this.path.add({ ...sample, pressure: felt(sample.pressure, this.setting.settings) });
  }

  publish(): PixelRect {
    const rect = this.changed;
    this.changed = noRect();
    return rect;
  }

  end(): void {
    this.path.end();
    this.walker.end();
    const { layer } = this.setting;
    for (const index of this.own.keys()) {
      const tile = layer.tiles[index]!;
      if (tile.pixels && !tile.pixels.some((v) => v >= 0x01000000)) tile.pixels = undefined;
      const { target } = this;
      if (target.on === 'mask' && tile.mask?.every((v) => v === target.fill)) tile.mask = undefined;
      if (!tile.bare) continue;
      tile.dispose();
      layer.tiles[index] = undefined;
    }
  }

  private radius(pressure: number): number {
    return (this.setting.settings.sizeMm / 2) * (0.7 + 0.3 * pressure);
  }

  private tileAt(index: number) {
    const { layer, before, painting } = this.setting;
    let own = this.own.get(index);
    if (!own) {
      before(layer, index);
      const tile = layer.ensureTile(index, painting.arena);
      own = { laid: new Float32Array(TILE_CELLS), grain: this.form.grain > 0 ? this.grainOf(index) : undefined };
      if (this.target.on === 'pixels') {
        own.pixels = tile.pixels ?? new Uint32Array(TILE_CELLS);
        tile.pixels = own.pixels.slice() as Uint32Array<ArrayBuffer>;
      } else {
        own.mask = tile.mask ?? new Uint8Array(TILE_CELLS).fill(this.target.fill);
        tile.mask = own.mask.slice() as Uint8Array<ArrayBuffer>;
      }
      this.own.set(index, own);
    }
    return own;
  }

  private stamp({ point }: Stamp): void {
    const { painting, layer, settings, guard } = this.setting;
    const { mmPerPx, width, height, tilesX } = painting;
    const r = Math.max(0.7, this.radius(point.pressure) / mmPerPx);
    const [cx, cy] = [point.x / mmPerPx, point.y / mmPerPx];
    const rect = {
      left: Math.max(0, Math.floor(cx - r - 1)),
      top: Math.max(0, Math.floor(cy - r - 1)),
      right: Math.min(width, Math.ceil(cx + r + 1)),
      bottom: Math.min(height, Math.ceil(cy + r + 1)),
    };
    if (rect.right <= rect.left || rect.bottom <= rect.top) return;
    const { form } = this;
    const ceiling = settings.strength;
    const rate = 1 - maths.pow(1 - Math.min(0.99, FULL * point.pressure), this.spacing * 1.4);
    const inner = r * (1 - form.soft);
    const smear = form.smear ? this.pickUp(rect, cx, cy, r) : undefined;
    for (const { index, part } of tilesIn(rect, tilesX)) {
      const own = this.tileAt(index);
      const tile = layer.tiles[index]!;
      tile.version++;
      for (let py = part.top; py < part.bottom; py++) {
        for (let px = part.left; px < part.right; px++) {
          const d = hypot(px + 0.5 - cx, py + 0.5 - cy);
          let share = d <= inner ? 1 : (r + 0.5 - d) / Math.max(1, r - inner);
          if (share <= 0) continue;
          share = share >= 1 ? 1 : share * share * (3 - 2 * share);
          const cell = (py & 63) * TILE + (px & 63);
          if (own.grain) share *= own.grain[cell];
          const held = guard ? guard.at(px, py) : 1;
          if (held === 0) continue;
          if (smear) this.smearCell(tile, cell, smear, share * held * settings.strength * 0.5);
          else {
            // each mark closes a part of what is left up to its ceiling
            const had = own.laid[cell];
            const most = ceiling * Math.min(1, share * 1.5);
            if (had >= most) continue;
            const laid = had + (most - had) * rate * share;
            own.laid[cell] = laid;
            this.layCell(tile, own, cell, laid * held);
          }
        }
      }
    }
    growRect(this.changed, rect);
  }

  /** How much of a mark comes through mist or tooth in the cells of a tile, 0..1. */
  private grainOf(index: number): Float32Array {
    const { painting, seed } = this.setting;
    const cells = Math.max(1, GRAIN_MM / painting.mmPerPx);
    const [left, top] = [(index % painting.tilesX) * TILE, Math.floor(index / painting.tilesX) * TILE];
    const out = new Float32Array(TILE_CELLS);
    for (let i = 0; i < TILE_CELLS; i++) {
      const [px, py] = [left + (i & 63), top + (i >> 6)];
      const fine = latticeHash(Math.floor(px / cells), Math.floor(py / cells), seed);
      out[i] = 1 - this.form.grain * (0.5 * fine + 0.5 * noise2(px / (3 * cells), py / (3 * cells), seed + 5));
    }
    return out;
  }

  /** A cell with so much of the mark over what was there before the stroke. */
  private layCell(tile: LayerTile, own: OwnTile, cell: number, laid: number): void {
    const { target, form } = this;
    if (target.on === 'mask') {
      const was = own.mask![cell];
      const to = form.rub ? target.fill : 255 * target.grey;
      tile.mask![cell] = Math.round(was + laid * (to - was));
      return;
    }
    const code = own.pixels![cell];
    const alpha = (code >>> 24) / 255;
    if (form.rub) {
      tile.pixels![cell] = ((code & 0xffffff) | (Math.round(255 * alpha * (1 - laid)) << 24)) >>> 0;
      return;
    }
    const all = laid + alpha * (1 - laid);
    if (all <= 0) return;
    const [r, g, b] = target.colour;
    const kept = (1 - laid) * alpha;
    const red = Math.round((laid * r + kept * (code & 255)) / all);
    const green = Math.round((laid * g + kept * ((code >>> 8) & 255)) / all);
    const blue = Math.round((laid * b + kept * ((code >>> 16) & 255)) / all);
    tile.pixels![cell] = (red | (green << 8) | (blue << 16) | (Math.round(255 * all) << 24)) >>> 0;
  }

  /** Takes up the mean of what lies under the tip, and carries part of what it had. */
  private pickUp(rect: PixelRect, cx: number, cy: number, r: number): [number, number, number, number] {
    const { layer, painting } = this.setting;
    const sum = [0, 0, 0, 0];
    let n = 0;
    for (let py = rect.top; py < rect.bottom; py++) {
      for (let px = rect.left; px < rect.right; px++) {
        if (hypot(px + 0.5 - cx, py + 0.5 - cy) > r * 0.7) continue;
        n++;
        const tile = layer.tiles[(py >> 6) * painting.tilesX + (px >> 6)];
        const cell = (py & 63) * TILE + (px & 63);
        if (this.target.on === 'mask') sum[3] += (tile?.mask?.[cell] ?? this.target.fill) / 255;
        else if (tile?.pixels) {
          const code = tile.pixels[cell];
          const a = (code >>> 24) / 255;
          sum[3] += a;
          for (let c = 0; c < 3; c++) sum[c] += (a * ((code >>> (8 * c)) & 255)) / 255;
        }
      }
    }
    const here = sum.map((v) => v / Math.max(1, n)) as [number, number, number, number];
    this.carried = this.carried
      ? (this.carried.map((v, c) => v * 0.86 + here[c] * 0.14) as [number, number, number, number])
      : here;
    return this.carried;
  }

  private smearCell(tile: LayerTile, cell: number, [r, g, b, a]: readonly number[], share: number): void {
    if (this.target.on === 'mask') {
      tile.mask![cell] = Math.round(tile.mask![cell] + share * (255 * a - tile.mask![cell]));
      return;
    }
    const code = tile.pixels![cell];
    const alpha = (code >>> 24) / 255;
    const all = alpha + share * (a - alpha);
    if (all <= 1 / 512) {
      tile.pixels![cell] = 0;
      return;
    }
    const own = (c: number, to: number) => {
      const was = (alpha * ((code >>> (8 * c)) & 255)) / 255;
      return Math.round((255 * (was + share * (to - was))) / all);
    };
    tile.pixels![cell] =
      (Math.min(255, own(0, r)) |
        (Math.min(255, own(1, g)) << 8) |
        (Math.min(255, own(2, b)) << 16) |
        (Math.round(255 * all) << 24)) >>>
      0;
  }
}

type LayerTile = NonNullable<Layer['tiles'][number]>;

/** What a stroke has of a tile: how it was before, how much has been laid on it, and what its tooth lets through. */
interface OwnTile {
  pixels?: Uint32Array;
  mask?: Uint8Array;
  readonly laid: Float32Array;
  readonly grain: Float32Array | undefined;
}
