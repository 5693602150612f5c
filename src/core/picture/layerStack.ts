import { adjuster, fused, TABLE_STEPS, type Adjuster } from '@/core/colour/adjust';
import { BANDS } from '@/core/colour/bands';
import { blendOver, blendRow } from '@/core/colour/blendModes';
import { encodeFast } from '@/core/colour/rgbBands';
import { clipBase, coverageOf, maskOf } from '@/core/film/coverage';
import { TILE } from '@/core/film/cells';
import type { Layer } from '@/core/film/layer';
import { lookSerial, type LayerLook } from '@/core/film/layerLook';
import type { Painting } from '@/core/film/painting';
import type { Tile } from '@/core/film/tile';
import type { Kernels } from '@/core/kernels/kernels';
import { LOOPED_BLENDS } from '@/core/kernels/light';
import { BlurStages } from './blurStages';
import { ColourRun, colourTables } from './colourRun';
import { FilmRun, type SeenTile } from './filmRun';
import { SubstrateCache } from './substrateCache';

/** What one layer does to a tile. */
interface Step {
  readonly layer: Layer;
  /** Its paint; or its pixels; or what it does to colours; or its members. */
  readonly film?: SeenTile;
  readonly pixels?: Uint32Array;
  readonly adjust?: Adjuster;
  /** Other layers whose adjustments are in it. */
  readonly also?: readonly Layer[];
  readonly blur?: true;
  readonly members?: readonly Step[];
  /** Share of its effect in each cell of the tile; undefined where it is the same everywhere. */
  readonly shares: Float32Array | undefined;
  /** That share everywhere, where there are no shares; else what they are multiplied by. */
  readonly opacity: number;
}

/** A step that has paint. */
export type FilmStep = Pick<Step, 'shares' | 'opacity'> & { readonly film: SeenTile };

/** What all layers do to a tile, lowest first. */
export interface TilePlan {
  readonly index: number;
  readonly steps: readonly Step[];
  /** What is kept of its lowest steps, once that was asked for. */
  kept?: Kept;
}

/** Where the laying of a tile's rows begins. */
interface Kept {
  /** Word address of what is kept, or undefined where everything is laid from the ground up. */
  readonly at: number | undefined;
  /** The first step that is left to lay. */
  readonly next: number;
  /** Its layer, where its dry paint is kept too. */
  readonly openOnly?: Layer;
}

/**
 * How layers meet, over one run of cells at a time.
 *
 * Paint over paint is a film over a substrate, in bands. Blend modes, pixels, light and adjustments work on encoded sRGB
 * (W3C Compositing and Blending 1); paint above them lies on what they have made of the bands. Opacity, masks and clipping
 * cross-fade a layer's effect. A group fades what its members have done together.
 */
export class LayerStack {
  readonly films: FilmRun;
  readonly blurs: BlurStages;
  private readonly run: number;
  private readonly colours: ColourRun;
  private readonly substrates: SubstrateCache;
  /** Runs on which a layer with a blend mode is laid alone, over black and over white. */
  private readonly dark: ColourRun;
  private readonly light: ColourRun;
  /** The layer whose dry paint has been laid already, from what is kept. */
  private openOnly: Layer | undefined;
  /** A run as an adjustment leaves it, where it is only partly seen. */
  private readonly adjusted = new Float32Array(3 * TILE);
  private readonly fusions = new WeakMap<Adjuster, WeakMap<Adjuster, Adjuster | undefined>>();
  private readonly adjusters = new WeakMap<LayerLook, Adjuster>();

  /** Word addresses of rows on their way to the loops: pixels, and the share of each. */
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
  ) {
    const { arena } = painting;
    this.run = run;
    this.films = new FilmRun(painting, kernels);
    const tables = colourTables(arena);
    const bands = () => arena.allocate(TILE * 4 * BANDS.count) >> 2;
    this.colours = new ColourRun(arena, kernels, run, tables);
    this.dark = new ColourRun(arena, kernels, bands(), tables);
    this.light = new ColourRun(arena, kernels, bands(), tables);
    this.pixels = arena.allocate(TILE * 4) >> 2;
    this.shares = arena.allocate(TILE * 4) >> 2;
    this.places = [0, 1, 2, 3].map(() => ({ at: arena.allocate(3 * (TABLE_STEPS + 2) * 4) >> 2 }));
    this.substrates = new SubstrateCache(arena);
    this.blurs = new BlurStages(painting);
  }

  /** Steps with paint, in groups as well, lowest first. */
  filmsOf({ steps }: Pick<TilePlan, 'steps'>): FilmStep[] {
    return steps.flatMap((step) =>
      step.members ? this.filmsOf({ steps: step.members }) : step.film ? [step as FilmStep] : [],
    );
  }

  /** The bands of the run that was laid say how it looks, whatever it went through. */
  settle(count: number): void {
    this.colours.leave(count);
  }

  /** Whether a run that was laid stands as colours, and not as bands. */
  get asColours(): boolean {
    return this.colours.active;
  }

  /** Codes of the run that was laid, where it stands as colours. @param out word address */
  toCodes(count: number, out: number): void {
    this.colours.toCodes(count, out);
  }

  /** The state of what lies below a layer on a tile; see `keyOf`. */
  keyBelow({ index, steps }: TilePlan, layer: Layer): string {
    const k = steps.findIndex((step) => step.layer === layer || step.members?.some((m) => m.layer === layer));
    // in a group, what its other members do counts as well
    return this.keyOf({ index, steps: steps.slice(0, k < 0 ? undefined : steps[k].members ? k + 1 : k) });
  }

  /** What there is to do on a tile. */
  plan(index: number): TilePlan {
    return { index, steps: this.stepsOf(undefined, index) };
  }

  private stepsOf(group: string | undefined, index: number): Step[] {
    const steps: Step[] = [];
    for (const layer of this.painting.layers) {
      if (
        layer.look.group !== group ||
        !layer.visible ||
        layer.opacity === 0 ||
        this.painting.without.includes(layer.id)
      )
        continue;
      const step = this.stepOf(layer, index);
      const last = steps.at(-1);
      const both = step && last && this.together(last, step);
      if (both) steps[steps.length - 1] = both;
      else if (step) steps.push(step);
    }
    return steps;
  }

  /** One step for two adjustments that follow each other and are seen in full. */
  private together(low: Step, high: Step): Step | undefined {
    const plain = (s: Step) => s.adjust && !s.shares && s.opacity === 1 && s.layer.look.blend === 'normal';
    if (!plain(low) || !plain(high) || low.layer === this.painting.active) return undefined;
    let known = this.fusions.get(low.adjust!);
    if (!known) this.fusions.set(low.adjust!, (known = new WeakMap()));
    if (!known.has(high.adjust!)) known.set(high.adjust!, fused(low.adjust!, high.adjust!));
    const adjust = known.get(high.adjust!);
    return adjust && { ...high, adjust, also: [...(low.also ?? []), low.layer] };
  }

  private stepOf(layer: Layer, index: number): Step | undefined {
    const mask = maskOf(layer, index);
    if (mask === 0) return undefined;
    const shares = this.sharesOf(layer, index, mask);
    if (shares === null) return undefined;
    const { opacity } = layer;
    const tile = layer.tiles[index];
    switch (layer.kind) {
      case 'group': {
        const members = this.stepsOf(layer.id, index);
        return members.length > 0 ? { layer, members, shares, opacity } : undefined;
      }
      case 'adjust': {
        const { adjust } = layer.look;
        if (!adjust) return undefined;
        if (adjust.kind === 'blur') return { layer, blur: true, shares, opacity };
        return { layer, adjust: this.adjusterOf(layer.look), shares, opacity };
      }
      case 'picture':
      case 'tone':
        return tile?.pixels && { layer, pixels: tile.pixels, shares, opacity };
      default:
        if (!tile || (!tile.volume && !tile.wash && tile.strata.length === 0)) return undefined;
        return { layer, film: this.films.prepare(layer, tile, index), shares, opacity };
    }
  }

  /** Mask and clipping of a layer on a tile; null where nothing of it is seen. */
  private sharesOf(layer: Layer, index: number, mask: Uint8Array | undefined): Float32Array | undefined | null {
    const base = layer.look.clip ? clipBase(this.painting, layer) : undefined;
    if (!mask && !base) return undefined;
    const cover = base && coverageOf(this.painting, base, index);
    if (base && (!cover || !base.visible || this.painting.without.includes(base.id))) return null;
    const shares = cover ?? new Float32Array(TILE * TILE).fill(1);
    if (mask) for (let i = 0; i < shares.length; i++) shares[i] *= mask[i] / 255;
    return shares;
  }

  private adjusterOf(look: LayerLook): Adjuster {
    let made = this.adjusters.get(look);
    if (!made) this.adjusters.set(look, (made = adjuster(look.adjust!)!));
    return made;
  }

  /**
   * Lays a run of cells of one row of a tile: from the ground up through every layer, or up to one of them.
   * @param stop a step that is not laid any more
   */
  lay(plan: TilePlan, cell: number, count: number, stop?: Layer): void {
    const { arena, ground } = this.painting;
    const { run } = this;
    this.colours.active = false;
    this.openOnly = undefined;
    const kept = stop ? undefined : (plan.kept ??= this.keptOf(plan));
    if (kept?.at === undefined) {
      for (let b = 0; b < BANDS.count; b++) arena.f32.fill(ground[b], run + b * TILE, run + b * TILE + count);
    } else {
      const from = this.substrates.row(kept.at, cell >> 6) + (cell & 63);
      arena.f32.copyWithin(run, from, from + (BANDS.count - 1) * TILE + count);
      this.openOnly = kept.openOnly;
    }
    this.laySteps(plan.steps, kept?.next ?? 0, plan.index, cell, count, stop);
  }

  /** @returns whether it came to the step at which it should stop */
  private laySteps(
    steps: readonly Step[],
    first: number,
    index: number,
    cell: number,
    count: number,
    stop?: Layer,
  ): boolean {
    for (let k = first; k < steps.length; k++) {
      const step = steps[k];
      if (step.layer === stop) return true;
      if (step.members) {
        const before = step.shares || step.opacity < 1 ? this.remember(count) : undefined;
        if (this.laySteps(step.members, 0, index, cell, count, stop)) return true;
        if (before) this.fade(before, step, cell, count);
      } else if (step.film) this.layFilm(step, step.film, index, cell, count);
      else this.layColours(step, index, cell, count);
    }
    return false;
  }

  private layFilm(step: Step, film: SeenTile, index: number, cell: number, count: number): void {
    if (step.layer.look.blend !== 'normal') {
      this.blendFilm(step, film, index, cell, count);
      return;
    }
    this.colours.leave(count);
    const before = step.shares || step.opacity < 1 ? this.remember(count) : undefined;
    if (this.openOnly === step.layer) {
      this.films.layOpen(film.tile, film.wash, index, cell, count, this.run);
      this.openOnly = undefined;
    } else this.films.lay(film, index, cell, count, this.run);
    if (before) this.fade(before, step, cell, count);
  }

  /** A layer of paint with a blend mode: how it looks alone over black and over white says its colour and how it covers. */
  private blendFilm(step: Step, film: SeenTile, index: number, cell: number, count: number): void {
    const { arena } = this.painting;
    const { dark, light, colours } = this;
    for (const [side, ground] of [[dark, 0], [light, 1]] as const) {
      for (let b = 0; b < BANDS.count; b++) arena.f32.fill(ground, side.run + b * TILE, side.run + b * TILE + count);
      this.films.lay(film, index, cell, count, side.run);
      side.active = false;
      side.enter(count);
    } // prettier-ignore
    colours.enter(count);
    const { f32 } = arena;
    const [d, l] = [dark.linear, light.linear].map((at) => f32.subarray(at, at + 3 * TILE));
    const { rows } = colours;
    for (let x = 0; x < count; x++) {
      const white = (l[x] + l[TILE + x] + l[2 * TILE + x] - d[x] - d[TILE + x] - d[2 * TILE + x]) / (3 * WHITE_RANGE);
      const alpha = Math.max(0, Math.min(1, 1 - white));
      if (alpha <= 0.002) continue;
      const own = (c: number) => encodeFast(d[c * TILE + x] / alpha);
      const share = alpha * step.opacity * (step.shares ? step.shares[cell + x] : 1);
      blendOver(step.layer.look.blend, rows, x, TILE, own(0), own(1), own(2), share);
    }
  }

  private layColours(step: Step, index: number, cell: number, count: number): void {
    const { colours } = this;
    const { layer, pixels, adjust, shares, opacity } = step;
    colours.enter(count);
    const { blend } = layer.look;
    if (pixels) {
      this.layPixels(step, pixels, cell, count);
      return;
    }
    let after = step.blur && this.blurs.row(layer, index, cell, count);
    if (step.blur && !after) return;
    if (adjust?.tables && blend === 'normal' && !shares && opacity === 1) {
      this.kernels.throughTables(count, colours.rgb, TILE, this.placeOf(adjust), TABLE_STEPS);
      return;
    }
    const { rows } = colours;
    if (adjust) {
      this.adjusted.set(rows);
      adjust(this.adjusted, TILE, count);
      after = this.adjusted;
    }
    const to = after!;
    for (let x = 0; x < count; x++) {
      const share = shares ? opacity * shares[cell + x] : opacity;
      if (share > 0) blendOver(blend, rows, x, TILE, to[x], to[TILE + x], to[2 * TILE + x], share);
    }
  }

  private layPixels({ layer, shares, opacity }: Step, pixels: Uint32Array, cell: number, count: number): void {
    const { colours, painting } = this;
    const { blend } = layer.look;
    const loop = (LOOPED_BLENDS as readonly string[]).indexOf(blend);
    if (loop < 0) {
      blendRow(blend, colours.rows, TILE, count, pixels, cell, opacity, shares);
      return;
    }
    const { f32, u32 } = painting.arena;
    u32.set(pixels.subarray(cell, cell + count), this.pixels);
    if (shares) f32.set(shares.subarray(cell, cell + count), this.shares);
    this.kernels.blendPixels(count, loop, colours.rgb, TILE, this.pixels, shares ? this.shares : 0, opacity);
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

  /** Says in what state the layers of a plan are: as long as it is the same, so is what they look like. */
  private keyOf({ index, steps }: TilePlan): string {
    return steps
      .map(({ layer, members, blur, also = [] }) => {
        const version = blur ? this.blurs.madeAt(layer, index) : (layer.tiles[index]?.version ?? 0);
        const inner = members ? `(${this.keyOf({ index, steps: members })})` : '';
        const others = also.map((l) => `${l.id}.${lookSerial(l.look)} `).join('');
        return `${others}${layer.id}.${version}.${lookSerial(layer.look)}${inner}`;
      })
      .join(' ');
  }

  /** Lays what is under the layer in hand on a tile, so that it is there when a stroke comes. */
  warm(index: number): void {
    this.keptOf(this.plan(index));
  }

  /** How the run looks now. */
  private remember(count: number): Float32Array {
    this.colours.leave(count);
    return this.painting.arena.f32.slice(this.run, this.run + BANDS.count * TILE);
  }

  /** Fades what has come since `before` by a step's share. */
  private fade(before: Float32Array, { shares, opacity }: Step, cell: number, count: number): void {
    this.colours.leave(count);
    const { f32 } = this.painting.arena;
    for (let b = 0; b < BANDS.count; b++) {
      for (let x = 0; x < count; x++) {
        const at = b * TILE + x;
        const share = shares ? opacity * shares[cell + x] : opacity;
        f32[this.run + at] = before[at] + share * (f32[this.run + at] - before[at]);
      }
    }
  }

  /** What is kept of the layers below the one that is painted on, and of its own dry paint; made where it is missing. */
  private keptOf(plan: TilePlan): Kept {
    const { active, arena } = this.painting;
    const nothing = { at: undefined, next: 0 };
    const next = plan.steps.findIndex(
      ({ layer, members }) => layer === active || members?.some((m) => m.layer === active),
    );
    if (next < 0) return nothing;
    const own = plan.steps[next];
    const plain = own.film && !own.shares && own.opacity === 1 && own.layer.look.blend === 'normal';
    const dry = plain && !own.film.tile.rubbing && own.film.tile.strata.length > 0 ? own.film.tile : undefined;
    if (next === 0 && !dry) return nothing;
    const below = { index: plan.index, steps: plan.steps.slice(0, next) };
    const key = this.keyOf(below) + (dry ? ` on ${strataSerial(dry)}` : '');
    let at = this.substrates.find(plan.index, key);
    if (at === undefined) {
      at = this.substrates.make(plan.index, key);
      for (let row = 0; row < TILE; row++) {
        this.lay(below, row * TILE, TILE, active);
        this.colours.leave(TILE);
        if (dry) this.films.layStrata(dry, row * TILE, TILE, this.run);
        arena.f32.copyWithin(this.substrates.row(at, row), this.run, this.run + BANDS.count * TILE);
      }
    }
    return { at, next, ...(dry && { openOnly: own.layer }) };
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
