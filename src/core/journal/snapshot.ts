import { z } from '@/core/schema';
import { findPigment, pigmentId } from '@/core/colour/pigments';
import { adjustmentSchema } from '@/core/colour/adjust';
import { BLEND_MODES } from '@/core/colour/blendModes';
import { Layer } from '@/core/film/layer';
import { Ledger } from '@/core/film/ledger';
import type { FlowState, Painting, PaintingSpec } from '@/core/film/painting';
import { LAYER_KINDS, PLAIN_LOOK, type LayerLook } from '@/core/film/layerLook';
import type { Reservoir } from '@/core/marks/brush/reservoir';
import { startSettings, TOOL_IDS, toolOf, type ToolId, type ToolSettings } from '@/core/tools/tools';
import { loadCommand, toolCommand } from '@/core/tools/toolCommands';
import type { Moment, Structure } from './moment';
import { needSize } from '@/core/commands/memoryBudget';
import type { Studio } from './studio';
import type { ToolboxState } from '@/core/tools/toolbox';

/**
 * Everything of a studio but the tiles, as JSON: with the tiles it is the whole state, byte for byte. Floats are
 * written by JSON in full (shortest form that reads back the same).
 */
const amount = z.number().min(-1e9).max(1e9);
const plane = z.array(amount);
const reservoirState = z
  .strictObject({
    across: z.number().int().min(1).max(128),
    along: z.number().int().min(1).max(64),
    cellMm2: z.number(),
    pigments: z.array(z.string().refine((id) => findPigment(id) !== undefined)).max(128),
    tipMass: z.array(plane),
    tuftMass: z.array(plane),
    tipVolume: plane,
    tuftVolume: plane,
    body: amount,
    thin: amount,
    tipFull: amount,
    amount,
  })
  .refine(({ across, along, pigments, tipMass, tuftMass, tipVolume, tuftVolume }) => {
    const cells = across * along;
    return (
      tipMass.length === pigments.length &&
      tuftMass.length === pigments.length &&
      [...tipMass, ...tuftMass, tipVolume, tuftVolume].every((cellsOf) => cellsOf.length === cells)
    );
  }, 'a reservoir has a plane for each pigment, all of its size');

/** Amounts by the id of a paint that there is. */
const amounts = z.record(
  z.string().refine((id) => findPigment(id) !== undefined),
  z.number().min(-1e15).max(1e15),
);

/** How a tool is held; what an older snapshot does not know is as at first. */
const settingsState = z
  .looseObject({ tool: z.enum(TOOL_IDS) })
  .transform(({ tool, ...held }, context) => {
    const read = toolCommand.safeParse({ ...startSettings(tool), ...held, tool, do: 'tool' });
    if (read.success) return read.data;
    context.addIssue({ code: 'custom', message: `"${tool}" cannot be held so` });
    return z.NEVER;
  })
  .transform(({ do: _, ...settings }) => settings as ToolSettings);

/** What the water of a painting has in common; absent where there never was any. */
const flowState = z.strictObject({
  steps: z.number().int().min(0),
  tilt: z.tuple([z.number(), z.number()]),
  salt: z.array(
    z.strictObject({
      layer: z.string(),
      x: z.number(),
      y: z.number(),
      radiusMm: z.number(),
      until: z.number(),
      seed: z.number(),
    }),
  ),
  water: z.strictObject({ loaded: amount, removed: amount, evaporated: amount }),
});

/** What is not plain in how a layer looks; an older snapshot knows nothing of it. */
const lookState = {
  locked: z.boolean().optional(),
  blend: z.enum(BLEND_MODES).optional(),
  clip: z.boolean().optional(),
  group: z.string().optional(),
  mask: z.strictObject({ fill: z.union([z.literal(0), z.literal(255)]), on: z.boolean() }).optional(),
  onlyPaint: z.boolean().optional(),
  wetThrough: z.boolean().optional(),
  impress: z.boolean().optional(),
  adjust: adjustmentSchema.optional(),
};

/** What differs in a look from a plain one. */
const spokenLook = (look: LayerLook): Partial<LayerLook> =>
  Object.fromEntries(
    (Object.keys(lookState) as (keyof typeof lookState)[])
      .filter((key) => look[key] !== PLAIN_LOOK[key])
      .map((key) => [key, look[key]]),
  );

/** The canvas, once it was cut, extended, turned or mirrored: mm, and where its cells lay at first. */
const canvasState = z.strictObject({
  widthMm: z.number().positive().max(20_000),
  heightMm: z.number().positive().max(20_000),
  placed: z.array(z.number().int()).length(6).optional(),
});

export const studioStateSchema = z.strictObject({
  canvas: canvasState.optional(),
  clock: z.number().min(0).max(1e15),
  strokes: z.number().int().min(0),
  layersMade: z.number().int().min(0),
  activeLayer: z.string(),
  part: z.literal('mask').optional(),
  layers: z
    .array(
      z.strictObject({
        id: z.string(),
        name: z.string(),
        kind: z.enum(LAYER_KINDS),
        visible: z.boolean(),
        opacity: z.number().min(0).max(1).optional(),
        ...lookState,
      }),
    )
    .min(1)
    .max(1000)
    .refine((layers) => new Set(layers.map(({ id }) => id)).size === layers.length, 'each layer is there once'),
  loaded: amounts,
  removed: amounts,
  added: amounts.optional(),
  inHand: z.enum(TOOL_IDS),
  tools: z.array(settingsState).max(200),
  reservoirs: z.partialRecord(z.enum(TOOL_IDS), reservoirState),
  loads: z.partialRecord(z.enum(TOOL_IDS), loadCommand).optional(),
  flow: flowState.optional(),
});

export type StudioState = z.infer<typeof studioStateSchema>;

const byId = (amounts: Float64Array) =>
  Object.fromEntries([...amounts].map((v, i) => [pigmentId(i), v] as const).filter(([, v]) => v !== 0));

/** Of what a state is told, beside its tiles. */
interface StateFacts {
  readonly begun: PaintingSpec;
  readonly spec: PaintingSpec;
  readonly clock: number;
  readonly strokes: number;
  readonly layersMade: number;
  readonly activeLayer: string;
  readonly part: 'layer' | 'mask';
  readonly layers: readonly { readonly layer: Layer; readonly look: LayerLook }[];
  readonly ledger: Ledger;
  readonly flow: FlowState;
  readonly tools: ToolboxState;
}

export function encodeStudioState(studio: Studio): StudioState {
  const { painting, begun, clock, strokes } = studio.state;
  const { spec, layersMade, activeLayer, part, ledger, flow } = painting;
  const layers = painting.layers.map((layer) => ({ layer, look: layer.look }));
  return encodeState({
    begun,
    spec,
    clock,
    strokes,
    layersMade,
    activeLayer,
    part,
    layers,
    ledger,
    flow,
    tools: studio.tools.capture(),
  });
}

/** A moment in a studio's past, without its tiles. */
export function encodeMoment(
  { begun }: Studio,
  { structure, clock, strokes, ledger, flow, tools }: Moment,
): StudioState {
  const { painting, ...stack } = structure;
  return encodeState({ begun, spec: painting.spec, clock, strokes, ledger, flow, tools, ...stack });
}

function encodeState(facts: StateFacts): StudioState {
  const { begun, ledger, tools } = facts;
  const reservoir = (r: Reservoir): z.infer<typeof reservoirState> => ({
    ...r,
    pigments: r.pigments.map(pigmentId),
    tipMass: r.tipMass.map((p) => [...p]),
    tuftMass: r.tuftMass.map((p) => [...p]),
    tipVolume: [...r.tipVolume],
    tuftVolume: [...r.tuftVolume],
  });
  const { widthMm, heightMm, placed } = facts.spec;
  const same = !placed && widthMm === begun.widthMm && heightMm === begun.heightMm;
  return {
    ...(!same && { canvas: { widthMm, heightMm, ...(placed && { placed: [...placed] }) } }),
    clock: facts.clock,
    strokes: facts.strokes,
    layersMade: facts.layersMade,
    activeLayer: facts.activeLayer,
    ...(facts.part === 'mask' && { part: 'mask' as const }),
    layers: facts.layers.map(({ layer: { id, kind }, look }) => ({
      id,
      name: look.name,
      kind,
      visible: look.visible,
      ...(look.opacity < 1 && { opacity: look.opacity }),
      ...spokenLook(look),
    })),
    loaded: byId(ledger.loaded),
    removed: byId(ledger.removed),
    ...(ledger.added.some((v) => v !== 0) && { added: byId(ledger.added) }),
    inHand: tools.inHand,
    tools: TOOL_IDS.map((id) => tools.settings.get(id)!)
      .filter(worthTelling)
      .map(spoken),
    reservoirs: Object.fromEntries(
      TOOL_IDS.filter((id) => tools.reservoirs.has(id)).map((id) => [id, reservoir(tools.reservoirs.get(id)!)]),
    ),
    loads: Object.fromEntries(TOOL_IDS.filter((id) => tools.loads.has(id)).map((id) => [id, tools.loads.get(id)!])),
    ...encodeFlow(facts),
  };
}

function encodeFlow({ flow, ledger }: StateFacts): Pick<StudioState, 'flow'> {
  const [x, y] = flow.tilt;
  if (flow.steps === 0 && x === 0 && y === 0 && flow.salt.length === 0 && ledger.water.loaded === 0) return {};
  return { flow: { steps: flow.steps, tilt: [x, y], salt: [...flow.salt], water: { ...ledger.water } } };
}

/** Whether something is told of a tool: of those that the first paintings did not know only when it is held otherwise. */
const worthTelling = (held: ToolSettings): boolean =>
  !toolOf(held.tool).unspoken || JSON.stringify(held) !== JSON.stringify(startSettings(held.tool));

/** What is 0 goes without saying where it was 0 at first, too. */
const spoken = ({ water, grade, into, grey, ...held }: ToolSettings): StudioState['tools'][number] => {
  const first = startSettings(held.tool);
  return {
    ...held,
    ...((water !== 0 || first.water !== 0) && { water }),
    ...((grade !== 0 || first.grade !== 0) && { grade }),
    ...((grey !== 0 || first.grey !== 0) && { grey }),
    ...(into !== first.into && { into }),
  } as StudioState['tools'][number];
};

/**
 * Puts a state into a fresh studio, whose layers are then empty: their tiles follow.
 * @throws PainterError when its canvas is too large
 */
export function restoreStudioState(studio: Studio, state: StudioState): void {
  if (state.canvas) {
    const spec = { ...studio.begun, ...state.canvas };
    needSize(spec);
    studio.state.layOut(spec);
  }
  const { painting } = studio;
  painting.layers = state.layers.map(({ id, kind, ...look }) => {
    const layer = new Layer(id, look.name, kind, painting.tilesX * painting.tilesY);
    layer.look = { ...PLAIN_LOOK, ...look };
    return layer;
  });
  painting.layersMade = state.layersMade;
  painting.choose(painting.layer(state.activeLayer) ? state.activeLayer : painting.layers[0].id, state.part);
  painting.order++;
  studio.state.clock = state.clock;
  studio.state.strokes = state.strokes;
  tellLedger(painting.ledger, state);
  if (state.flow) painting.flow = flowIn(state);
  studio.tools.restore(toolsIn(state));
}

/**
 * A moment in the past of a studio, as it was written down.
 * @param moment what is not in the state: its tiles, its place in the history, and the layers that it may name
 * @returns undefined where it has to do with a layer that is not there
 */
export function decodeMoment(
  state: StudioState,
  moment: Pick<Moment, 'tiles' | 'timeline'> & {
    readonly painting: Painting;
    readonly known: readonly Structure['layers'][number][];
  },
): Moment | undefined {
  const layers: Structure['layers'][number][] = [];
  for (const { id, kind, ...told } of state.layers) {
    const known = moment.known.filter(({ layer }) => layer.id === id && layer.kind === kind);
    if (known.length === 0) return undefined;
    const look: LayerLook = { ...PLAIN_LOOK, ...told };
    // what looks the same is the same look: then nothing of the picture has to be made anew
    layers.push(known.find((one) => sameLook(one.look, look)) ?? { layer: known[0].layer, look });
  }
  const { painting, tiles, timeline } = moment;
  const ledger = new Ledger();
  tellLedger(ledger, state);
  const { clock, strokes, activeLayer, layersMade, part = 'layer' } = state;
  const structure: Structure = { painting, layers, activeLayer, part, layersMade };
  return { tiles, structure, ledger, tools: toolsIn(state), strokes, clock, flow: flowIn(state), timeline };
}

const sameLook = (a: LayerLook, b: LayerLook): boolean =>
  a.name === b.name &&
  a.visible === b.visible &&
  a.opacity === b.opacity &&
  JSON.stringify(spokenLook(a)) === JSON.stringify(spokenLook(b));

/** Writes what a state tells of paint and water into a fresh book. */
function tellLedger(ledger: Ledger, state: StudioState): void {
  for (const [id, v] of Object.entries(state.loaded)) ledger.loaded[findPigment(id)!] = v;
  for (const [id, v] of Object.entries(state.removed)) ledger.removed[findPigment(id)!] = v;
  for (const [id, v] of Object.entries(state.added ?? {})) ledger.added[findPigment(id)!] = v;
  if (state.flow) Object.assign(ledger.water, state.flow.water);
}

function flowIn({ flow }: StudioState): FlowState {
  return flow ? { steps: flow.steps, tilt: flow.tilt, salt: flow.salt } : { steps: 0, tilt: [0, 0], salt: [] };
}

function toolsIn(state: StudioState): ToolboxState {
  const reservoirs = new Map<ToolId, Reservoir>();
  for (const [id, r] of Object.entries(state.reservoirs)) {
    reservoirs.set(id as ToolId, {
      ...r,
      pigments: r.pigments.map((p) => findPigment(p)!),
      tipMass: r.tipMass.map((p) => Float32Array.from(p)),
      tuftMass: r.tuftMass.map((p) => Float32Array.from(p)),
      tipVolume: Float32Array.from(r.tipVolume),
      tuftVolume: Float32Array.from(r.tuftVolume),
    });
  }
  const settings = new Map<ToolId, ToolSettings>(TOOL_IDS.map((id) => [id, startSettings(id)]));
  for (const held of state.tools) settings.set(held.tool, held);
  const loads = new Map(Object.entries(state.loads ?? {}).map(([id, load]) => [id as ToolId, load]));
  return { inHand: state.inHand, settings, reservoirs, loads };
}
