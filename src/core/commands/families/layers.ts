import { z } from '@/core/schema';
import { defineCommand } from '@/core/commands/definition';
import { blendMode as blend, layerId, layerName, mixtureSchema, unit } from '@/core/schemaParts';
import { PREPARED_STYLES } from '@/core/marks/wet/preparedWash';
import type { Adjustment, AdjustmentKind } from '@/core/colour/adjust';
import { adjustmentSchema } from '@/core/colour/adjust';
import type { BlendMode } from '@/core/colour/blendModes';
import type { Layer } from '@/core/film/layer';
import type { LayerKind, LayerLook } from '@/core/film/layerLook';
import type { Painting } from '@/core/film/painting';
import { layPreparedWash } from '@/core/marks/wet/preparedWash';
import { noChange, type Change } from '@/core/commands/change';
import { wholeRect } from '@/core/film/tilesIn';
import type { Workplace } from '@/core/commands/workplace';
import { PainterError } from '@/core/errors';
import { needTubes } from '@/core/tools/needTubes';

const addSchema = z.strictObject({
  do: z.literal('layer.add').describe('Adds a layer above the one that is painted on, and chooses it'),
  kind: z.enum(['paint', 'drawing', 'tone', 'adjust', 'group']).default('paint'),
  name: layerName.optional(),
  blend: blend.optional(),
  adjust: adjustmentSchema.optional().describe('What an adjustment layer does'),
  group: layerId.optional().describe('Group that it is put into'),
  below: z.boolean().optional().describe('Below the layer that is painted on instead'),
});
const chooseSchema = z.strictObject({
  do: z.literal('layer.choose').describe('Chooses the layer that is painted on, or its mask'),
  layer: layerId,
  part: z.enum(['layer', 'mask']).optional(),
});
const setSchema = z.strictObject({
  do: z.literal('layer.set').describe('Says how a layer is seen, named and painted on'),
  layer: layerId,
  visible: z.boolean().optional(),
  opacity: unit.optional(),
  name: layerName.optional(),
  locked: z.boolean().optional(),
  blend: blend.optional(),
  clip: z.boolean().optional().describe('Seen only where the layer below has something'),
  onlyPaint: z.boolean().optional().describe('Takes paint only where it has some'),
  wetThrough: z.boolean().optional().describe('A brush takes up wet paint from the layer below'),
  impress: z.boolean().optional().describe('Relief of the layers below catches a dry brush'),
  adjust: adjustmentSchema.optional(),
  maskOn: z.boolean().optional(),
});
const moveSchema = z.strictObject({
  do: z
    .literal('layer.move')
    .describe('Puts a layer at a place in the stack, 0 = lowest; a group takes its members along'),
  layer: layerId,
  to: z.number().int().min(0).max(1000),
  group: layerId.nullable().optional().describe('Group that it is put into; null for none'),
});
const removeSchema = z.strictObject({
  do: z.literal('layer.remove').describe('Removes a layer with its paint'),
  layer: layerId,
});
const softenSchema = z.strictObject({
  do: z
    .literal('layer.soften')
    .describe('A softened copy of all that is seen, behind a mask that is painted white where it should show'),
  radiusMm: z.number().min(0.05).max(30).default(1.5),
});
const valuesSchema = z.strictObject({
  do: z
    .literal('layer.values')
    .describe('Values first: a tone layer that lays colour over what is seen and keeps its values'),
  name: layerName.default('Colour over values'),
});
const prepareSchema = z.strictObject({
  do: z
    .literal('layer.prepare')
    .describe('Washes the whole sheet on a layer of its own under the work, and dries it; or lays such a layer anew'),
  layer: layerId.optional().describe('A layer that was laid so before: what is on it goes'),
  style: z.enum(PREPARED_STYLES).default('variegated'),
  mixtures: z.array(mixtureSchema).min(1).max(3),
  seed: z
    .number()
    .int()
    .min(0)
    .max(2 ** 31 - 1)
    .default(1),
  strength: unit.default(0.4),
  texture: unit.default(0.5),
});

type Place = Pick<Workplace, 'painting' | 'keep'>;

/** Everything on the canvas may look different, and the layers are others. */
export const allChanged = (painting: Painting): Change => ({ ...noChange(), rect: wholeRect(painting), layers: true });

/** The layer of an id. @throws PainterError when it is not there */
export function needLayer(painting: Painting, id: string): Layer {
  const layer = painting.layer(id);
  if (!layer) throw new PainterError(`There is no layer "${id}".`);
  return layer;
}

/** A layer that may be changed. @throws PainterError when it is not there or locked */
export function needOpen(painting: Painting, id: string): Layer {
  const layer = needLayer(painting, id);
  if (layer.look.locked) throw new PainterError(`"${layer.name}" is locked: unlock it in Layers first.`);
  return layer;
}

const NAMES: Partial<Record<LayerKind, string>> = {
  paint: 'Paint',
  drawing: 'Sketch',
  tone: 'Shade',
  group: 'Group',
  picture: 'Picture',
};
const ADJUSTMENTS: Record<AdjustmentKind, string> = {
  levels: 'Levels',
  curves: 'Curves',
  hue: 'Hue',
  warmth: 'Warmth',
  blur: 'Blur',
};
const GLOWS: readonly BlendMode[] = ['screen', 'soft-light', 'color-dodge', 'lighten', 'overlay'];

/** Adds an empty layer at a place of the stack and chooses it. */
export function insertLayer(painting: Painting, kind: LayerKind, name: string, at: number): Layer {
  const layer = painting.addLayer(kind, name);
  painting.layers.pop();
  painting.layers.splice(at, 0, layer);
  return layer;
}

/** Puts the members of each group right under it. */
export function tidyGroups(painting: Painting): void {
  const { layers } = painting;
  const put = (group: string | undefined): Layer[] =>
    layers.filter((l) => l.look.group === group).flatMap((l) => (l.kind === 'group' ? [...put(l.id), l] : [l]));
  const ordered = put(undefined);
  painting.layers = ordered.length === layers.length ? ordered : layers;
  painting.order++;
}

/** @throws PainterError when a layer cannot be in that group */
function needGroup(painting: Painting, id: string, member?: Layer): string {
  const group = needLayer(painting, id);
  if (group.kind !== 'group') throw new PainterError(`"${group.name}" is no group.`);
  for (let up: Layer | undefined = group; up; up = up.look.group ? painting.layer(up.look.group) : undefined) {
    if (up === member) throw new PainterError('A group cannot lie in itself.');
  }
  return id;
}

function add({ painting }: Place, command: z.output<typeof addSchema>): Change {
  const { kind, blend, adjust } = command;
  const at = painting.layers.indexOf(painting.active);
  const count = painting.layers.filter((l) => l.kind === kind).length + 1;
  const change: Adjustment | undefined =
    kind === 'adjust' ? (adjust ?? adjustmentSchema.parse({ kind: 'levels' })) : undefined;
  const plain = change
    ? ADJUSTMENTS[change.kind]
    : kind === 'tone' && blend && GLOWS.includes(blend)
      ? 'Glow'
      : NAMES[kind]!;
  const group = command.group ? needGroup(painting, command.group) : painting.active.look.group;
  const name = command.name ?? (kind === 'paint' || kind === 'drawing' ? `${plain} ${count}` : plain);
  const layer = insertLayer(painting, kind, name, command.below ? at : at + 1);
  layer.look = {
    ...layer.look,
    group,
    blend: blend ?? (kind === 'tone' ? 'multiply' : 'normal'),
    adjust: change,
  };
  painting.choose(layer.id);
  tidyGroups(painting);
  return allChanged(painting);
}

function set({ painting }: Place, command: z.output<typeof setSchema>): Change {
  const { do: _, layer: id, maskOn, ...changes } = command;
  const layer = needLayer(painting, id);
  const given = Object.fromEntries(Object.entries(changes).filter(([, v]) => v !== undefined)) as Partial<LayerLook>;
  if (given.adjust && layer.kind !== 'adjust') {
    throw new PainterError(`"${layer.name}" is no adjustment: add one in Layers.`);
  }
  if (layer.look.locked && Object.keys(given).some((key) => !['locked', 'name', 'visible'].includes(key))) {
    throw new PainterError(`"${layer.name}" is locked: unlock it in Layers first.`);
  }
  const before = layer.look;
  layer.look = {
    ...before,
    ...given,
    ...(maskOn !== undefined && before.mask && { mask: { ...before.mask, on: maskOn } }),
  };
  const shows = ['visible', 'opacity', 'blend', 'clip', 'adjust', 'mask'] as const;
  if (shows.every((key) => before[key] === layer.look[key])) return { ...noChange(), layers: true };
  painting.order++;
  return allChanged(painting);
}

function move({ painting }: Place, command: z.output<typeof moveSchema>): Change {
  const layer = needLayer(painting, command.layer);
  if (command.group !== undefined) {
    const group = command.group === null ? undefined : needGroup(painting, command.group, layer);
    layer.look = { ...layer.look, group };
  }
  const rest = painting.layers.filter((l) => l !== layer);
  rest.splice(Math.min(command.to, rest.length), 0, layer);
  painting.layers = rest;
  tidyGroups(painting);
  return allChanged(painting);
}

/** A layer and, where it is a group, everything in it. */
export const withMembers = (painting: Painting, layer: Layer): Layer[] => [
  layer,
  ...painting.layers.filter((l) => l.look.group === layer.id).flatMap((l) => withMembers(painting, l)),
];

function remove({ painting, keep }: Place, command: z.output<typeof removeSchema>): Change {
  const layer = needOpen(painting, command.layer);
  const gone = withMembers(painting, layer);
  if (!painting.layers.some((l) => l.kind === 'paint' && !gone.includes(l))) {
    throw new PainterError('A painting needs one paint layer: add another before removing this one.');
  }
  const at = painting.layers.indexOf(layer);
  for (const each of gone) takeOff(painting, each, keep);
  const near = painting.layers.slice(0, at).reverse().concat(painting.layers.slice(at));
  painting.layers = painting.layers.filter((l) => !gone.includes(l));
  if (gone.some((l) => l.id === painting.activeLayer)) {
    const left = near.filter((l) => !gone.includes(l));
    painting.choose((left.find((l) => l.kind === 'paint') ?? left[0]).id);
  }
  painting.order++;
  return allChanged(painting);
}

/** Takes everything off a layer, and enters it in the ledger. */
export function takeOff(painting: Painting, layer: Layer, keep: Workplace['keep']): void {
  layer.forEachTile((_, index) => keep(layer, index));
  const before = painting.massOnCanvas();
  const water = painting.waterOnCanvas();
  painting.disposeLayer(layer);
  const after = painting.massOnCanvas();
  painting.ledger.removed.forEach((_, i) => {
    for (const where of ['film', 'settled', 'strata'] as const) {
      painting.ledger.removed[i] += before[where][i] - after[where][i];
    }
  });
  painting.ledger.water.removed += water - painting.waterOnCanvas();
}

/** Washes a layer under the work, new or again. */
function prepare({ painting, keep }: Place, command: z.output<typeof prepareSchema>): Change {
  command.mixtures.forEach((mixture) => needTubes(Object.keys(mixture)));
  let layer = command.layer === undefined ? undefined : painting.layer(command.layer);
  if (command.layer !== undefined && layer?.kind !== 'paint') {
    throw new PainterError(`There is no paint layer "${command.layer}" to wash.`);
  }
  if (layer) takeOff(painting, needOpen(painting, layer.id), keep);
  else {
    const under = painting.layers.findIndex((l) => l.kind === 'paint');
    layer = insertLayer(painting, 'paint', 'Prepared paper', Math.max(0, under));
  }
  layPreparedWash(painting, layer, command, keep);
  painting.order++;
  return allChanged(painting);
}

/**
 * Values first, colour after: a layer of light in blend mode "color" over everything, or, where paint should carry
 * the colour, whatever is painted on it keeps the luminosity of what lies below.
 */
function overValues({ painting }: Place, { name }: z.output<typeof valuesSchema>): Change {
  const layer = insertLayer(painting, 'paint', name, painting.layers.length);
  layer.look = { ...layer.look, blend: 'color' };
  painting.choose(layer.id);
  painting.order++;
  return allChanged(painting);
}

function soften({ painting }: Place, { radiusMm }: z.output<typeof softenSchema>): Change {
  const layer = insertLayer(painting, 'adjust', 'Softened', painting.layers.length);
  layer.look = { ...layer.look, adjust: { kind: 'blur', radiusMm }, mask: { fill: 0, on: true } };
  painting.choose(layer.id, 'mask');
  painting.order++;
  return allChanged(painting);
}

/** @throws PainterError when the layer is one that is made of others, and has no paint to choose */
function choose({ painting }: Place, { layer: id, part }: z.output<typeof chooseSchema>): Change {
  const layer = needLayer(painting, id);
  if (part === 'mask' && !layer.look.mask) throw new PainterError(`"${layer.name}" has no mask: give it one first.`);
  painting.choose(id, part);
  return { ...noChange(), layers: true };
}

export const addLayer = defineCommand({ schema: addSchema, undoable: true, addsLayer: true, apply: add });

export const chooseLayer = defineCommand({ schema: chooseSchema, undoable: false, apply: choose });

export const setLayer = defineCommand({ schema: setSchema, undoable: true, apply: set });

export const moveLayer = defineCommand({ schema: moveSchema, undoable: true, apply: move });

export const removeLayer = defineCommand({ schema: removeSchema, undoable: true, apply: remove });

export const softenAll = defineCommand({ schema: softenSchema, undoable: true, addsLayer: true, apply: soften });

export const colourOverValues = defineCommand({
  schema: valuesSchema,
  undoable: true,
  addsLayer: true,
  apply: overValues,
});

export const prepareSheet = defineCommand({ schema: prepareSchema, undoable: true, addsLayer: true, apply: prepare });
