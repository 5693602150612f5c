import type { Mixture } from '@/core/colour/mixture';
import { isColoured, pigmentId } from '@/core/colour/pigments';
import type { Painting } from '@/core/film/painting';
import type { BrushForm } from '@/core/marks/brush/brushForms';
import { makeFootprint, type Footprint } from '@/core/marks/brush/footprint';
import { takeUp as takeUpPaint, takeUpWash } from '@/core/marks/brush/takeUp';
import { isEmpty, type PixelRect } from '@/core/film/pixelRect';
import type { BeforeTile } from '@/core/film/window/window';
import {
  carriedMixture,
  cloneReservoir,
  dampen,
  emptyReservoir,
  keepShare,
  loadReservoir,
  reservoirMass,
  resizeReservoir,
  type Carrier,
  type Reservoir,
} from '@/core/marks/brush/reservoir';
import { loadWash, squeezeOut, WashInHand, waterOf } from '@/core/marks/wet/washLoad';
import { filmOf, type WashForm } from '@/core/marks/wet/washForms';
import { needTubes } from './needTubes';
import { FIRST_IN_HAND, TOOLS, type ToolId, type ToolSettings } from './tools';
import type { InHand, ToolDefinition } from './definition';
import type { ToolSet } from './toolSet';
import type { LoadCommand, ToolCommand } from './toolCommands';
import { PainterError } from '@/core/errors';

/** Share of its paint that a brush keeps when it is wiped on a rag. */
const WIPED_SHARE = 0.003;

/** State of all tools at one moment. */
export interface ToolboxState {
  readonly inHand: ToolId;
  readonly settings: ReadonlyMap<ToolId, ToolSettings>;
  readonly reservoirs: ReadonlyMap<ToolId, Reservoir>;
  /** What each was loaded with last: a tool that keeps loaded takes it again. */
  readonly loads: ReadonlyMap<ToolId, LoadCommand>;
}

/** The tools of a painting: which is in hand, how each is held, and the paint that is still in it. */
export class Toolbox implements InHand {
  inHand: ToolId = FIRST_IN_HAND;
  private settings: Map<ToolId, ToolSettings>;
  private reservoirs = new Map<ToolId, Reservoir>();
  private loads = new Map<ToolId, LoadCommand>();
  private readonly footprints = new Map<ToolId, { sizeMm: number; form: BrushForm; footprint: Footprint }>();

  /** @param set the tools that there are */
  constructor(
    private painting: Painting,
    private readonly set: ToolSet<ToolId> = TOOLS,
  ) {
    this.settings = new Map(set.all.map(([tool, { first }]) => [tool, { tool, ...first }]));
  }

  /** What the house knows of the tool in hand. */
  get definition(): ToolDefinition {
    return this.set.of(this.inHand);
  }

  /** From now on the tools work on another canvas, with the same ledger and cells. */
  moveTo(painting: Painting): void {
    this.painting = painting;
  }

  /** What the tool in hand was loaded with last; undefined where it never was, or with water alone. */
  get lastMixture(): Mixture | undefined {
    const mixture = this.loads.get(this.inHand)?.mixture;
    return mixture && Object.values(mixture).some((part) => part > 0) ? mixture : undefined;
  }

  /** Settings of the tool in hand. */
  get current(): ToolSettings {
    return this.settings.get(this.inHand)!;
  }

  settingsOf(tool: ToolId): ToolSettings {
    return this.settings.get(tool)!;
  }

  /** Takes a tool in hand; what the command leaves out stays as it was. A brush of another size is loaded alike. */
  take(command: ToolCommand): void {
    const { do: _, tool, ...changes } = command;
    const before = this.settings.get(tool)!;
    const given = Object.fromEntries(Object.entries(changes).filter(([, v]) => v !== undefined));
    const after: ToolSettings = { ...before, ...given };
    this.settings.set(tool, after);
    this.inHand = tool;
    const old = this.reservoirs.get(tool);
    if (!old || (after.sizeMm === before.sizeMm && after.hair === before.hair)) return;
    if (this.definition.wash) {
      this.scale(old, (after.sizeMm / before.sizeMm) ** 2);
      return;
    }
    const carrier = this.carrier!;
    const { ledger } = this.painting;
    const fresh = resizeReservoir(old, this.newReservoir(carrier), carrier.hairy);
    const had = reservoirMass(old);
    const has = reservoirMass(fresh);
    has.forEach((mass, i) => {
      if (mass > had[i]) ledger.loaded[i] += mass - had[i];
      else ledger.removed[i] += had[i] - mass;
    });
    this.reservoirs.set(tool, fresh);
  }

  /** Loads the tool in hand. @throws PainterError when it takes no paint. */
  load(command: LoadCommand): void {
    const tool = this.inHand;
    const { takesPaint, holds, wash } = this.definition;
    needTubes([...Object.keys(command.mixture), ...Object.keys(command.edge?.mixture ?? {})]);
    if (!takesPaint) throw new PainterError(`The ${tool} takes no paint: choose a brush or the knife first.`);
    if (!wash && !Object.values(command.mixture).some((part) => part > 0)) {
      throw new PainterError('A mixture needs a part of at least one tube.');
    }
    if (command.water !== undefined && holds === 'reservoir') {
      throw new PainterError(`The ${tool} takes no water: choose a watercolour brush, such as the mop or wash-round.`);
    }
    this.loads.set(tool, command);
    if (holds === 'made') return; // a pen is dipped as it goes, a stick is worn
    if (wash) {
      this.fill(wash, command.mixture, command.amount, command.water ?? this.current.water);
      return;
    }
    const reservoir = this.reservoir();
    this.booking(reservoir, 'loaded', () =>
      loadReservoir(reservoir, {
        mixture: command.mixture,
        amount: command.amount,
        edge: command.edge,
        make: this.current,
        carrier: this.carrier!,
        seed: this.seed,
      }),
    );
  }

  /** Fills a watercolour brush. */
  private fill(form: WashForm, mixture: Mixture, amount: number, wetness: number): void {
    const reservoir = this.reservoir();
    const had = reservoir.tuftVolume[0];
    // what is in it goes first: a brush is rinsed before it takes another wash
    this.booking(reservoir, 'removed', () => void squeezeOut(reservoir, 0));
    const { water } = this.painting.ledger;
    water.removed += had / 1000;
    this.booking(reservoir, 'loaded', () => loadWash(reservoir, form, this.current.sizeMm, mixture, amount, wetness));
    water.loaded += reservoir.tuftVolume[0] / 1000;
  }

  /** Squeezes a share out of the watercolour brush in hand. */
  private squeeze(reservoir: Reservoir, keeps: number): void {
    this.booking(reservoir, 'removed', () => {
      this.painting.ledger.water.removed += squeezeOut(reservoir, keeps) / 1000;
    });
  }

  /** A watercolour brush of another size holds as much for its size, of the same. */
  private scale(reservoir: Reservoir, share: number): void {
    const { water } = this.painting.ledger;
    const had = reservoir.tuftVolume[0];
    this.booking(reservoir, share > 1 ? 'loaded' : 'removed', () => {
      squeezeOut(reservoir, share);
      reservoir.tipFull *= share;
    });
    if (share > 1) water.loaded += (reservoir.tuftVolume[0] - had) / 1000;
    else water.removed += (had - reservoir.tuftVolume[0]) / 1000;
  }

  /** The belly of a watercolour tool, ready for a stroke: a thirsty one is squeezed out, and only damp. */
  belly(form: WashForm): Reservoir {
    const reservoir = this.reservoir();
    if (form.thirsty) {
      const { amount } = reservoir;
      this.fill(form, {}, 0, Math.min(0.25, this.current.water));
      if (amount > 0 && amount < reservoir.amount) reservoir.amount = amount;
    }
    return reservoir;
  }

  /** Water in all tools, microlitres. */
  water(): number {
    let sum = 0;
    for (const [tool, reservoir] of this.reservoirs) if (this.set.of(tool).wash) sum += reservoir.tuftVolume[0];
    return sum / 1000;
  }

  /** Depth of film that the watercolour brush in hand would leave, washes; 0 for other tools and empty ones. */
  get brushFilm(): number {
    const reservoir = this.reservoirs.get(this.inHand);
    const { wash } = this.definition;
    if (!wash) return 0;
    return reservoir ? new WashInHand(reservoir, wash).film : filmOf(this.current.water);
  }

  /** Presses the tool in hand into the paint of a slab. @throws PainterError when it takes none, or none is there. */
  takeUp(slab: Painting, x: number, y: number, before: BeforeTile): PixelRect {
    const tool = this.inHand;
    const { takesUp, wash } = this.definition;
    if (!takesUp) throw new PainterError('That tool takes nothing up: choose a brush or the knife.');
    const held = this.reservoirs.has(tool);
    const dip = { x, y, reachMm: Math.min(9, Math.max(2.5, this.current.sizeMm / 2)) };
    const reservoir = this.reservoir();
    // a watercolour brush goes by the water first
    if (wash && reservoir.tuftVolume[0] <= 0) this.fill(wash, {}, 0, this.current.water);
    const rect = wash
      ? takeUpWash(slab, reservoir, wash, dip, before)
      : takeUpPaint(slab, reservoir, this.carrier!, dip, before);
    if (isEmpty(rect)) {
      if (!held) this.reservoirs.delete(tool);
      throw new PainterError('There is no paint to take up there, or the brush is full.');
    }
    return rect;
  }

  /** A tool that keeps loaded takes what it had last. */
  reloadByItself(): void {
    const load = this.loads.get(this.inHand);
    if (this.current.keepLoaded && load) this.load(load);
  }

  /** Wipes the tool in hand; rinsed it comes out clean, and damp with solvent by a share. */
  clean(rinse: boolean, damp = 0): void {
    const reservoir = this.reservoirs.get(this.inHand);
    const { wash } = this.definition;
    if (wash) {
      if (rinse) this.fill(wash, {}, 0, damp);
      else if (reservoir) this.squeeze(reservoir, WIPED_SHARE);
      return;
    }
    if (!reservoir && damp === 0) return;
    if (reservoir) this.booking(reservoir, 'removed', () => keepShare(reservoir, rinse ? 0 : WIPED_SHARE));
    const { carrier } = this;
    if (damp === 0 || !carrier) return;
    const wet = this.reservoir();
    this.booking(wet, 'loaded', () => dampen(wet, carrier, damp));
  }

  /** Does something to the paint in a tool and enters the difference in the ledger. */
  private booking(reservoir: Reservoir, side: 'loaded' | 'removed', work: () => void): void {
    const before = reservoirMass(reservoir);
    work();
    const after = reservoirMass(reservoir);
    const { [side]: ledger } = this.painting.ledger;
    after.forEach((mass, i) => (ledger[i] += side === 'loaded' ? mass - before[i] : before[i] - mass));
  }

  /** The paint in the tool in hand, which must be one that can hold some. */
  reservoir(): Reservoir {
    let reservoir = this.reservoirs.get(this.inHand);
    if (!reservoir) {
      reservoir = this.newReservoir(this.carrier!);
      this.reservoirs.set(this.inHand, reservoir);
    }
    return reservoir;
  }

  /** Which bristles the tool in hand has, on this painting. */
  private get seed(): number {
    return this.painting.spec.seed * 31 + this.definition.seed;
  }

  /** Pigment in all tools, coats times mm2. */
  mass(): Float64Array {
    const sum = reservoirMass(emptyReservoir(1, 1, 1, 1));
    for (const reservoir of this.reservoirs.values()) reservoirMass(reservoir, sum);
    return sum;
  }

  /** How full the tool in hand is (1 = as loaded with amount 1), and the mixture it carries. */
  carried(): { level: number; mixture: Mixture } {
    const { carries, wash } = this.definition;
    const always = carries?.(this);
    if (always) return { level: 1, mixture: always };
    const reservoir = this.reservoirs.get(this.inHand);
    const { carrier } = this;
    if (!reservoir || !carrier) return { level: 0, mixture: {} };
    if (wash) {
      const masses = reservoir.pigments.map((p, i) => [pigmentId(p), reservoir.tuftMass[i][0]] as const);
      // one that was never loaded may have taken something up
      const full = Math.max(reservoir.tipFull, waterOf(wash, this.current.sizeMm, 0));
      const level = reservoir.tuftVolume[0] / full;
      return { level, mixture: Object.fromEntries(masses.filter(([, m]) => m > 0)) };
    }
    const sum = (plane: Float32Array | Uint8Array) => {
      let total = 0;
      for (const v of plane) total += v;
      return total;
    };
    const full = sum(carrier.hairy) * (carrier.tipUm + carrier.tuftUm);
    const level = (sum(reservoir.tipVolume) + sum(reservoir.tuftVolume)) / full;
    const masses = [...carriedMixture(reservoir)].filter(([p, m]) => m > 0 && isColoured(p));
    return { level, mixture: Object.fromEntries(masses.map(([p, m]) => [pigmentId(p), m])) };
  }

  capture(): ToolboxState {
    return {
      inHand: this.inHand,
      settings: new Map(this.settings),
      reservoirs: new Map([...this.reservoirs].map(([id, r]) => [id, cloneReservoir(r)])),
      loads: new Map(this.loads),
    };
  }

  restore(state: ToolboxState): void {
    this.inHand = state.inHand;
    this.settings = new Map(state.settings);
    this.reservoirs = new Map([...state.reservoirs].map(([id, r]) => [id, cloneReservoir(r)]));
    this.loads = new Map(state.loads);
  }

  private newReservoir({ across, along, cellMm2, tipUm }: Carrier): Reservoir {
    return emptyReservoir(across, along, cellMm2, tipUm);
  }

  /** Where the tool in hand holds its paint; undefined for tools that hold none. */
  private get carrier(): Carrier | undefined {
    return this.definition.carrier?.(this.current, this, this.painting.cellArea);
  }

  /** Gives the memory of the footprints back. */
  dispose(): void {
    for (const { footprint } of this.footprints.values()) footprint.dispose();
    this.footprints.clear();
  }

  /** The hair of the tool in hand, at its size. */
  footprint(form: BrushForm): Footprint {
    const tool = this.inHand;
    const { sizeMm } = this.current;
    const known = this.footprints.get(tool);
    if (known?.sizeMm === sizeMm && known.form === form) return known.footprint;
    known?.footprint.dispose();
    const footprint = makeFootprint(this.painting.arena, form, sizeMm, this.painting.mmPerPx, this.seed);
    this.footprints.set(tool, { sizeMm, form, footprint });
    return footprint;
  }
}
