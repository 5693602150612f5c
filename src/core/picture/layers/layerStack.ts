import { TABLE_STEPS, type Adjuster } from '@/core/colour/adjust';
import { BANDS } from '@/core/colour/bands';
import { blendOver, blendRow } from '@/core/colour/blendModes';
import { encodeFast } from '@/core/colour/rgbBands';
import { TILE, TILE_CELLS } from '@/core/film/cells';
import type { Layer } from '@/core/film/layer';
import type { Painting } from '@/core/film/painting';
import type { Tile } from '@/core/film/tile';
import type { Kernels } from '@/core/kernels/kernels';
import { LOOPED_BLENDS } from '@/core/kernels/light';
import { BLOCK, eachBlock, type Block } from './block';
import { BlurStages } from './blurStages';
import { ColourRun, colourTables } from './colourRun';
import { FilmRun, type SeenTile } from './filmRun';
import type { PaintOptics } from './filmTables';
import { SubstrateCache } from './substrateCache';
import type { ViewOptions } from '@/core/picture/viewOptions';
import { LayerPlan, type Kept, type Step, type TilePlan } from './layerPlan';

/**
 * How layers meet, over one block of cells at a time.
 *
 * Paint over paint is a film over a substrate, in bands. Blend modes, pixels, light and adjustments work on encoded sRGB
 * (W3C Compositing and Blending 1); paint above them lies on what they have made of the bands. Opacity, masks and clipping
 * cross-fade a layer's effect. A group fades what its members have done together.
 */
export class LayerStack {
  readonly films: FilmRun;
  readonly blurs: BlurStages;
  readonly plans: LayerPlan;
  private readonly run: number;
  private readonly colours: ColourRun;
  private readonly substrates: SubstrateCache;
  /** Runs on which a layer with a blend mode is laid alone, over black and over white. */
  private readonly dark: ColourRun;
  private readonly light: ColourRun;
  /** The layer whose dry paint has been laid already, from what is kept. */
  private openOnly: Layer | undefined;
  /** A block as an adjustment leaves it, where it is only partly seen. */
  private readonly adjusted = new Float32Array(3 * BLOCK);

  /** Word addresses of what is on its way to the loops: pixels, and the share of each. */
  private readonly pixels: number;
  private readonly shares: number;
  /** Places for the tables of adjusters in the arena: word addresses, and whose stand there. */
  private readonly places: { readonly at: number; of?: Adjuster }[];
  private nextPlace = 0;

  /** @param run word address of the bands to work in */
  constructor(
    private readonly painting: Painting,
    private readonly kernels: Kernels,
    run: number,
    optics: PaintOptics,
  ) {
    const { memory } = painting;
    this.run = run;
    this.films = new FilmRun(painting, kernels, optics);
    const tables = colourTables(memory);
    const bands = () => memory.allocate(BLOCK * 4 * BANDS.count) >> 2;
    this.colours = new ColourRun(memory, kernels, run, tables);
    this.dark = new ColourRun(memory, kernels, bands(), tables);
    this.light = new ColourRun(memory, kernels, bands(), tables);
    this.pixels = memory.allocate(BLOCK * 4) >> 2;
    this.shares = memory.allocate(BLOCK * 4) >> 2;
    this.places = [0, 1, 2, 3].map(() => ({ at: memory.allocate(3 * (TABLE_STEPS + 2) * 4) >> 2 }));
    this.substrates = new SubstrateCache(memory);
    this.blurs = new BlurStages(painting);
    this.plans = new LayerPlan(painting, this.films, this.blurs);
  }

  /** The bands of the block that was laid say how it looks, whatever it went through. */
  settle(block: Block): void {
    this.colours.leave(block);
  }

  /** Whether a block that was laid stands as colours, and not as bands. */
  get asColours(): boolean {
    return this.colours.active;
  }

  /** Codes of the block that was laid, where it stands as colours. @param out word address; its rows are `outRow` apart */
  toCodes(block: Block, out: number, outRow: number): void {
    this.colours.toCodes(block, out, outRow);
  }

  /**
   * Lays a block of cells of a tile: from the ground up through every layer, or up to one of them.
   * @param stop a step that is not laid any more
   */
  lay(plan: TilePlan, block: Block, stop?: Layer): void {
    const { cell, rows } = block;
    const { arena, ground } = this.painting;
    const { run } = this;
    this.colours.active = false;
    this.openOnly = undefined;
    const kept = stop ? undefined : (plan.kept ??= this.keptOf(plan));
    const { f32 } = arena;
    const words = rows * TILE;
    if (kept?.at === undefined) {
      for (let b = 0; b < BANDS.count; b++) f32.fill(ground[b], run + b * BLOCK, run + b * BLOCK + words);
    } else {
      for (let b = 0; b < BANDS.count; b++) {
        const from = kept.at + b * TILE_CELLS + cell;
        f32.copyWithin(run + b * BLOCK, from, from + words);
      }
      this.openOnly = kept.openOnly;
    }
    this.laySteps(plan.steps, kept?.next ?? 0, plan.index, block, stop);
  }

  /** @returns whether it came to the step at which it should stop */
  private laySteps(steps: readonly Step[], first: number, index: number, block: Block, stop?: Layer): boolean {
    for (let k = first; k < steps.length; k++) {
      const step = steps[k];
      if (step.layer === stop) return true;
      if (step.members) {
        const before = step.shares || step.opacity < 1 ? this.remember(block) : undefined;
        if (this.laySteps(step.members, 0, index, block, stop)) return true;
        if (before) this.fade(before, step, block);
      } else if (step.film) this.layFilm(step, step.film, index, block);
      else this.layColours(step, index, block);
    }
    return false;
  }

  private layFilm(step: Step, film: SeenTile, index: number, block: Block): void {
    if (step.look.blend !== 'normal') {
      this.blendFilm(step, film, index, block);
      return;
    }
    this.colours.leave(block);
    const before = step.shares || step.opacity < 1 ? this.remember(block) : undefined;
    if (this.openOnly === step.layer) {
      this.films.layOpen(film.tile, film.wash, index, block, this.run);
      this.openOnly = undefined;
    } else this.films.lay(film, index, block, this.run);
    if (before) this.fade(before, step, block);
  }

  /** A layer of paint with a blend mode: how it looks alone over black and over white says its colour and how it covers. */
  private blendFilm(step: Step, film: SeenTile, index: number, block: Block): void {
    const { arena } = this.painting;
    const { dark, light, colours } = this;
    for (const [side, ground] of [
      [dark, 0],
      [light, 1],
    ] as const) {
      arena.f32.fill(ground, side.run, side.run + BLOCK * BANDS.count);
      this.films.lay(film, index, block, side.run);
      side.active = false;
      side.enter(block);
    }
    colours.enter(block);
    const { f32 } = arena;
    const [d, l] = [dark.linear, light.linear].map((at) => f32.subarray(at, at + 3 * BLOCK));
    const planes = colours.planes();
    const { cell, count, rows } = block;
    for (let i = 0; i < rows * TILE; i++) {
      if ((i & 63) >= count) continue;
      const white =
        (l[i] + l[BLOCK + i] + l[2 * BLOCK + i] - d[i] - d[BLOCK + i] - d[2 * BLOCK + i]) / (3 * WHITE_RANGE);
      const alpha = Math.max(0, Math.min(1, 1 - white));
      if (alpha <= 0.002) continue;
      const own = (c: number) => encodeFast(d[c * BLOCK + i] / alpha);
      const share = alpha * step.opacity * (step.shares ? step.shares[cell + i] : 1);
      blendOver(step.look.blend, planes, i, BLOCK, own(0), own(1), own(2), share);
    }
  }

  private layColours(step: Step, index: number, block: Block): void {
    const { colours } = this;
    const { cell, count, rows } = block;
    const { look, pixels, adjust, blur, shares, opacity } = step;
    colours.enter(block);
    const { blend } = look;
    if (pixels) {
      this.layPixels(step, pixels, block);
      return;
    }
    if (adjust?.tables && blend === 'normal' && !shares && opacity === 1) {
      this.kernels.throughTables(count, rows, colours.rgb, BLOCK, this.placeOf(adjust), TABLE_STEPS);
      return;
    }
    for (let row = 0; row < rows; row++) {
      const from = cell + row * TILE;
      const own = colours.planes(row);
      let to: Float32Array | undefined = this.adjusted;
      if (adjust) {
        to.set(own);
        adjust(to, BLOCK, count);
      } else to = this.blurs.row(blur!, index, from, count, BLOCK, to);
      if (!to) return;
      for (let x = 0; x < count; x++) {
        const share = shares ? opacity * shares[from + x] : opacity;
        if (share > 0) blendOver(blend, own, x, BLOCK, to[x], to[BLOCK + x], to[2 * BLOCK + x], share);
      }
    }
  }

  private layPixels(
    { look: { blend }, shares, opacity }: Step,
    pixels: Uint32Array,
    { cell, count, rows }: Block,
  ): void {
    const { colours, painting } = this;
    const loop = (LOOPED_BLENDS as readonly string[]).indexOf(blend);
    if (loop < 0) {
      for (let row = 0; row < rows; row++) {
        blendRow(blend, colours.planes(row), BLOCK, count, pixels, cell + row * TILE, opacity, shares);
      }
      return;
    }
    const { f32, u32 } = painting.arena;
    const words = rows * TILE;
    u32.set(pixels.subarray(cell, cell + words), this.pixels);
    if (shares) f32.set(shares.subarray(cell, cell + words), this.shares);
    this.kernels.blendPixels(count, rows, loop, colours.rgb, BLOCK, this.pixels, shares ? this.shares : 0, opacity);
  }

  /** Word address of an adjuster's tables. */
  private placeOf(adjust: Adjuster): number {
    let place = this.places.find(({ of }) => of === adjust);
    if (!place) {
      place = this.places[this.nextPlace++ % this.places.length];
      place.of = adjust;
      const { f32 } = this.painting.arena;
      adjust.tables!.forEach((table, c) => f32.set(table, place!.at + c * (TABLE_STEPS + 2)));
    }
    return place.at;
  }

  /** Lays what is under the layer in hand on a tile, so that it is there when a stroke comes. */
  warm(index: number, options: ViewOptions): void {
    this.keptOf(this.plans.of(index, options));
  }

  /** How the block looks now. */
  private remember(block: Block): Float32Array {
    this.colours.leave(block);
    return this.painting.arena.f32.slice(this.run, this.run + BANDS.count * BLOCK);
  }

  /** Fades what has come since `before` by a step's share. */
  private fade(before: Float32Array, { shares, opacity }: Step, block: Block): void {
    this.colours.leave(block);
    const { cell, rows } = block;
    const { f32 } = this.painting.arena;
    for (let b = 0; b < BANDS.count; b++) {
      for (let i = 0; i < rows * TILE; i++) {
        const at = b * BLOCK + i;
        const share = shares ? opacity * shares[cell + i] : opacity;
        f32[this.run + at] = before[at] + share * (f32[this.run + at] - before[at]);
      }
    }
  }

  /** What is kept of the layers below the one that is painted on, and of its own dry paint; made where it is missing. */
  private keptOf(plan: TilePlan): Kept {
    const { active, arena } = this.painting;
    const nothing = { at: undefined, next: 0 };
    const next = this.plans.countBelow(plan.steps, active);
    const own = plan.steps.at(next);
    const plain = own?.layer === active && !own.shares && own.opacity === 1 && own.look.blend === 'normal';
    const dry =
      plain && own.film && !own.film.tile.rubbing && own.film.tile.strata.length > 0 ? own.film.tile : undefined;
    if (next === 0 && !dry) return nothing;
    const below = { index: plan.index, steps: plan.steps.slice(0, next) };
    const key = `${this.plans.keyOf(below)}${dry ? ` on ${strataSerial(dry)}` : ''}`;
    let at = this.substrates.find(plan.index, key);
    if (at === undefined && plan.inPassing && !this.substrates.hasRoom(plan.index)) return nothing;
    if (at === undefined) {
      at = this.substrates.make(plan.index, key);
      const to = at;
      eachBlock(0, TILE, TILE, (block) => {
        this.lay(below, block, active);
        this.colours.leave(block);
        if (dry) this.films.layStrata(dry, block, this.run);
        for (let b = 0; b < BANDS.count; b++) {
          const from = this.run + b * BLOCK;
          arena.f32.copyWithin(to + b * TILE_CELLS + block.cell, from, from + BLOCK);
        }
      });
    }
    return { at, next, ...(dry && { openOnly: active }) };
  }
}

/** Linear light of white over that of black, as a film over them has it. */
const WHITE_RANGE = 0.96;

const serials = new WeakMap<readonly unknown[], number>();
let nextSerial = 1;
/** A number for the dry paint of a tile, which is never changed in place. */
function strataSerial({ strata }: Tile): number {
  let serial = serials.get(strata);
  if (!serial) serials.set(strata, (serial = nextSerial++));
  return serial;
}
