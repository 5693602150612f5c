import { adjuster, fused, type Adjuster } from '@/core/colour/adjust';
import { TILE } from '@/core/film/cells';
import { clipBase, coverageOf, maskOf } from '@/core/film/coverage';
import type { Layer } from '@/core/film/layer';
import { lookSerial, type LayerLook } from '@/core/film/layerLook';
import type { Painting } from '@/core/film/painting';
import { PLAIN_VIEW, seenLook, type ViewOptions } from '@/core/picture/viewOptions';
import type { BlurStages } from './blurStages';
import type { FilmRun, SeenTile } from './filmRun';

/** What one layer does to a tile. */
export interface Step {
  readonly layer: Layer;
  /** How it is looked at. */
  readonly look: LayerLook;
  /** Its paint; or its pixels; or what it does to colours; or its members. */
  readonly film?: SeenTile;
  readonly pixels?: Uint32Array;
  readonly adjust?: Adjuster;
  /** Other steps whose adjustments are in it. */
  readonly also?: readonly Step[];
  /** Name of the stage of a layer that blurs. */
  readonly blur?: string;
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
  /** Whether it is only looked at in passing: no other tile is given up for it. */
  readonly inPassing?: boolean;
  /** What is kept of its lowest steps, once that was asked for. */
  kept?: Kept;
}

/** Where the laying of a tile's rows begins. */
export interface Kept {
  /** Word address of what is kept, or undefined where everything is laid from the ground up. */
  readonly at: number | undefined;
  /** The first step that is left to lay. */
  readonly next: number;
  /** Its layer, where its dry paint is kept too. */
  readonly openOnly?: Layer;
}

/** Says what every layer does to a tile, lowest first; and in what state the layers are that do it. */
export class LayerPlan {
  private readonly fusions = new WeakMap<Adjuster, WeakMap<Adjuster, Adjuster | undefined>>();
  private readonly adjusters = new WeakMap<LayerLook, Adjuster>();
  /** Says in what state the optics of paint are: what was kept under another is not as it looks now. */
  optics = '';

  constructor(
    private readonly painting: Painting,
    private readonly films: FilmRun,
    private readonly blurs: BlurStages,
  ) {}

  /** What there is to do on a tile. */
  of(index: number, options = PLAIN_VIEW, inPassing = false): TilePlan {
    return { index, steps: this.stepsOf(undefined, index, options), inPassing };
  }

  private stepsOf(group: string | undefined, index: number, options: ViewOptions): Step[] {
    const steps: Step[] = [];
    for (const layer of this.painting.layers) {
      if (layer.look.group !== group) continue;
      const look = seenLook(layer, options);
      const step = look && this.stepOf(layer, look, index, options);
      const last = steps.at(-1);
      const both = step && last && this.together(last, step);
      if (both) steps[steps.length - 1] = both;
      else if (step) steps.push(step);
    }
    return steps;
  }

  /** One step for two adjustments that follow each other and are seen in full. */
  private together(low: Step, high: Step): Step | undefined {
    const plain = (s: Step) => s.adjust && !s.shares && s.opacity === 1 && s.look.blend === 'normal';
    if (!plain(low) || !plain(high) || low.layer === this.painting.active) return undefined;
    let known = this.fusions.get(low.adjust!);
    if (!known) this.fusions.set(low.adjust!, (known = new WeakMap()));
    if (!known.has(high.adjust!)) known.set(high.adjust!, fused(low.adjust!, high.adjust!));
    const adjust = known.get(high.adjust!);
    return adjust && { ...high, adjust, also: [...(low.also ?? []), low] };
  }

  private stepOf(layer: Layer, look: LayerLook, index: number, options: ViewOptions): Step | undefined {
    const mask = maskOf(layer, index);
    if (mask === 0) return undefined;
    const shares = this.sharesOf(layer, index, mask, options);
    if (shares === null) return undefined;
    const { opacity } = look;
    const seen = { layer, look, shares, opacity };
    const tile = layer.tiles[index];
    switch (layer.kind) {
      case 'group': {
        const members = this.stepsOf(layer.id, index, options);
        return members.length > 0 ? { ...seen, members } : undefined;
      }
      case 'adjust': {
        if (!look.adjust) return undefined;
        if (look.adjust.kind === 'blur') return { ...seen, blur: this.blurs.nameOf(layer, options) };
        return { ...seen, adjust: this.adjusterOf(look) };
      }
      case 'picture':
      case 'tone':
        return tile?.pixels && { ...seen, pixels: tile.pixels };
      default:
        if (!tile || (!tile.volume && !tile.wash && tile.strata.length === 0)) return undefined;
        return { ...seen, film: this.films.prepare(layer, tile, index) };
    }
  }

  /** Mask and clipping of a layer on a tile; null where nothing of it is seen. */
  private sharesOf(
    layer: Layer,
    index: number,
    mask: Uint8Array | undefined,
    { without }: ViewOptions,
  ): Float32Array | undefined | null {
    const base = layer.look.clip ? clipBase(this.painting, layer) : undefined;
    if (!mask && !base) return undefined;
    const cover = base && coverageOf(this.painting, base, index);
    if (base && (!cover || !base.visible || without.includes(base.id))) return null;
    const shares = cover ?? new Float32Array(TILE * TILE).fill(1);
    if (mask) for (let i = 0; i < shares.length; i++) shares[i] *= mask[i] / 255;
    return shares;
  }

  private adjusterOf(look: LayerLook): Adjuster {
    let made = this.adjusters.get(look);
    if (!made) this.adjusters.set(look, (made = adjuster(look.adjust!)!));
    return made;
  }

  /** Steps with paint, in groups as well, lowest first. */
  filmsOf({ steps }: Pick<TilePlan, 'steps'>): FilmStep[] {
    return steps.flatMap((step) =>
      step.members ? this.filmsOf({ steps: step.members }) : step.film ? [step as FilmStep] : [],
    );
  }

  /** The state of what lies below a layer on a tile; see `keyOf`. */
  keyBelow({ index, steps }: TilePlan, layer: Layer): string {
    const k = steps.findIndex((step) => step.layer === layer || step.members?.some((m) => m.layer === layer));
    // in a group, what its other members do counts as well
    return this.keyOf({ index, steps: steps.slice(0, k < 0 ? undefined : steps[k].members ? k + 1 : k) });
  }

  /** Says in what state the layers of a plan are: as long as it is the same, so is what they look like. */
  keyOf(plan: TilePlan): string {
    return this.optics + this.keyOfSteps(plan);
  }

  private keyOfSteps({ index, steps }: TilePlan): string {
    return steps
      .map(({ layer, look, members, blur, also = [] }) => {
        const version = blur ? this.blurs.madeAt(blur, index) : (layer.tiles[index]?.version ?? 0);
        const inner = members ? `(${this.keyOfSteps({ index, steps: members })})` : '';
        const others = also.map((low) => `${low.layer.id}.${lookSerial(low.look)} `).join('');
        return `${others}${layer.id}.${version}.${lookSerial(look)}${inner}`;
      })
      .join(' ');
  }

  /** How many steps lie below a layer, or below the group that it is in; on the tile it may have nothing yet. */
  countBelow(steps: readonly Step[], layer: Layer): number {
    const { layers } = this.painting;
    let outer = layer;
    for (let up: Layer | undefined = layer; up; up = up.look.group ? this.painting.layer(up.look.group) : undefined)
      outer = up;
    const place = layers.indexOf(outer);
    const above = steps.findIndex((step) => layers.indexOf(step.layer) >= place);
    return above < 0 ? steps.length : above;
  }
}
