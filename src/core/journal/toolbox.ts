import type { Mixture } from '@/core/colour/mixture';
import { pigmentId } from '@/core/colour/pigments';
import type { Painting } from '@/core/film/painting';
import { tuftCapacityUm } from '@/core/marks/brushInterior';
import { makeFootprint, type Footprint } from '@/core/marks/footprint';
import {
  carriedMixture,
  cloneReservoir,
  emptyReservoir,
  keepShare,
  loadReservoir,
  reservoirMass,
  resizeReservoir,
  type Reservoir,
} from '@/core/marks/reservoir';
import { TOOL_IDS, toolOf, type BrushForm, type ToolId, type ToolSettings } from '@/core/marks/tools';
import type { Command } from './commands';
import { PainterError } from './errors';

/** Share of its paint that a brush keeps when it is wiped on a rag. */
const WIPED_SHARE = 0.05;

const SIZES: Record<ToolId, number> = {
  flat: 12,
  filbert: 9,
  round: 5,
  'blender-soft': 14,
  graphite: 0.7,
  eraser: 6,
};

const startSettings = (tool: ToolId): ToolSettings => {
  const t = toolOf(tool);
  return {
    tool,
    sizeMm: SIZES[tool],
    strength: 1,
    blend: t.kind === 'brush' ? t.form.naturalBlend : 0,
    body: 0.6,
    thin: 0,
    tip: 'hard',
  };
};

/** State of all tools at one moment. */
export interface ToolboxState {
  readonly inHand: ToolId;
  readonly settings: ReadonlyMap<ToolId, ToolSettings>;
  readonly reservoirs: ReadonlyMap<ToolId, Reservoir>;
}

/** The tools of a painting: which is in hand, how each is held, and the paint that is still in it. */
export class Toolbox {
  inHand: ToolId = 'flat';
  private settings = new Map<ToolId, ToolSettings>(TOOL_IDS.map((id) => [id, startSettings(id)]));
  private reservoirs = new Map<ToolId, Reservoir>();
  private readonly footprints = new Map<ToolId, { sizeMm: number; footprint: Footprint }>();

  constructor(private readonly painting: Painting) {}

  /** Settings of the tool in hand. */
  get current(): ToolSettings {
    return this.settings.get(this.inHand)!;
  }

  settingsOf(tool: ToolId): ToolSettings {
    return this.settings.get(tool)!;
  }

  /** Takes a tool in hand; what the command leaves out stays as it was. A brush of another size is loaded alike. */
  take(command: Extract<Command, { do: 'tool' }>): void {
    const { do: _, tool, ...changes } = command;
    const before = this.settings.get(tool)!;
    const given = Object.fromEntries(Object.entries(changes).filter(([, v]) => v !== undefined));
    const after: ToolSettings = { ...before, ...given };
    this.settings.set(tool, after);
    this.inHand = tool;
    const old = this.reservoirs.get(tool);
    if (old && after.sizeMm !== before.sizeMm) {
      const t = toolOf(tool);
      if (t.kind !== 'brush') return;
      const { ledger } = this.painting;
      const fresh = resizeReservoir(old, this.newReservoir(tool, t.form), this.footprint(tool, t.form).hairy);
      const had = reservoirMass(old);
      const has = reservoirMass(fresh);
      has.forEach((mass, i) => {
        if (mass > had[i]) ledger.loaded[i] += mass - had[i];
        else ledger.removed[i] += had[i] - mass;
      });
      this.reservoirs.set(tool, fresh);
    }
  }

  /** Loads the brush in hand. @throws PainterError when the tool in hand takes no paint. */
  load(command: Extract<Command, { do: 'load' }>): void {
    const { form, reservoir, footprint } = this.brushInHand();
    const before = reservoirMass(reservoir);
    const { body, thin, sizeMm } = this.current;
    loadReservoir(reservoir, {
      mixture: command.mixture,
      amount: command.amount,
      edge: command.edge?.mixture,
      body,
      thin,
      tipUm: form.tipUm,
      tuftUm: tuftCapacityUm(form, sizeMm),
      hairy: footprint.hairy,
      seed: this.seedOf(this.inHand),
    });
    const after = reservoirMass(reservoir);
    after.forEach((mass, i) => (this.painting.ledger.loaded[i] += mass - before[i]));
  }

  /** Wipes the brush in hand; with `rinse` it comes out clean. Tools that carry nothing are left as they are. */
  clean(rinse: boolean): void {
    const reservoir = this.reservoirs.get(this.inHand);
    if (!reservoir) return;
    const before = reservoirMass(reservoir);
    keepShare(reservoir, rinse ? 0 : WIPED_SHARE);
    const after = reservoirMass(reservoir);
    before.forEach((mass, i) => (this.painting.ledger.removed[i] += mass - after[i]));
  }

  /** The brush in hand with everything a stroke needs. @throws PainterError when it is no brush. */
  brushInHand(): { form: BrushForm; reservoir: Reservoir; footprint: Footprint; settings: ToolSettings } {
    const tool = toolOf(this.inHand);
    if (tool.kind !== 'brush') throw new PainterError(`The ${this.inHand} takes no paint: choose a brush first.`);
    let reservoir = this.reservoirs.get(this.inHand);
    if (!reservoir) {
      reservoir = this.newReservoir(this.inHand, tool.form);
      this.reservoirs.set(this.inHand, reservoir);
    }
    return { form: tool.form, reservoir, footprint: this.footprint(this.inHand, tool.form), settings: this.current };
  }

  seedOf(tool: ToolId): number {
    return this.painting.spec.seed * 31 + TOOL_IDS.indexOf(tool) + 2;
  }

  /** Pigment in all tools, coats times mm2. */
  mass(): Float64Array {
    const sum = reservoirMass(emptyReservoir(1, 1, 1, 1));
    for (const reservoir of this.reservoirs.values()) reservoirMass(reservoir, sum);
    return sum;
  }

  /** How full the brush in hand is (1 = as loaded with amount 1), and the mixture it carries. */
  carried(): { level: number; mixture: Mixture } {
    const reservoir = this.reservoirs.get(this.inHand);
    const tool = toolOf(this.inHand);
    if (!reservoir || tool.kind !== 'brush') return { level: 0, mixture: {} };
    const sum = (plane: Float32Array) => plane.reduce((a, b) => a + b, 0);
    const hairy = this.footprint(this.inHand, tool.form).hairy.reduce((a, b) => a + b, 0);
    const full = hairy * (tool.form.tipUm + tuftCapacityUm(tool.form, this.current.sizeMm));
    const level = (sum(reservoir.tipVolume) + sum(reservoir.tuftVolume)) / full;
    const masses = [...carriedMixture(reservoir)].filter(([, m]) => m > 0);
    return { level, mixture: Object.fromEntries(masses.map(([p, m]) => [pigmentId(p), m])) };
  }

  capture(): ToolboxState {
    return {
      inHand: this.inHand,
      settings: new Map(this.settings),
      reservoirs: new Map([...this.reservoirs].map(([id, r]) => [id, cloneReservoir(r)])),
    };
  }

  restore(state: ToolboxState): void {
    this.inHand = state.inHand;
    this.settings = new Map(state.settings);
    this.reservoirs = new Map([...state.reservoirs].map(([id, r]) => [id, cloneReservoir(r)]));
  }

  private newReservoir(tool: ToolId, form: BrushForm): Reservoir {
    const f = this.footprint(tool, form);
    return emptyReservoir(f.across, f.along, f.cellArea * this.painting.cellArea, form.tipUm);
  }

  private footprint(tool: ToolId, form: BrushForm): Footprint {
    const { sizeMm } = this.settings.get(tool)!;
    const known = this.footprints.get(tool);
    if (known?.sizeMm === sizeMm) return known.footprint;
    known?.footprint.dispose();
    const footprint = makeFootprint(this.painting.arena, form, sizeMm, this.painting.mmPerPx, this.seedOf(tool));
    this.footprints.set(tool, { sizeMm, footprint });
    return footprint;
  }
}
