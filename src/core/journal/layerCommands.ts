import { z } from '@/core/schema';
import { adjustmentSchema } from '@/core/colour/adjust';
import { BLEND_MODES } from '@/core/colour/blendModes';
import { PREPARED_STYLES } from '@/core/marks/preparedWash';
import { mixtureSchema, outlineSchema, unit } from './parts';

const layerId = z.string().min(1).max(40);
const layerName = z.string().trim().min(1).max(60);
const blend = z.enum(BLEND_MODES).describe('Blend mode of the W3C compositing standard');
const packed = (what: string, most: number) => z.string().max(most).describe(`${what}; zlib, base64`);

/** Everything that happens to layers as such. */
export const layerCommands = [
  z.strictObject({
    do: z.literal('layer.add').describe('Adds a layer above the one that is painted on, and chooses it'),
    kind: z.enum(['paint', 'drawing', 'tone', 'adjust', 'group']).default('paint'),
    name: layerName.optional(),
    blend: blend.optional(),
    adjust: adjustmentSchema.optional().describe('What an adjustment layer does'),
    group: layerId.optional().describe('Group that it is put into'),
  }),
  z.strictObject({
    do: z.literal('layer.choose').describe('Chooses the layer that is painted on, or its mask'),
    layer: layerId,
    part: z.enum(['layer', 'mask']).optional(),
  }),
  z.strictObject({
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
  }),
  z.strictObject({
    do: z.literal('layer.recolour').describe('Gives all lines of a drawing layer another colour'),
    layer: layerId,
    mixture: mixtureSchema,
  }),
  z.strictObject({
    do: z.literal('layer.bring').describe('Brings a drawing in as a layer of its own, its white paper left out'),
    name: layerName.default('Drawing'),
    widthPx: z.number().int().min(1).max(4096),
    heightPx: z.number().int().min(1).max(4096),
    dark: packed('How dark each pixel is, 0 paper .. 255, row by row', 24_000_000),
    mixture: mixtureSchema.optional().describe('What it is drawn with; graphite'),
  }),
  z.strictObject({
    do: z.literal('layer.picture').describe('Brings a photo or a texture as a picture layer, and chooses it'),
    name: layerName.default('Picture'),
    widthPx: z.number().int().min(1).max(8192),
    heightPx: z.number().int().min(1).max(8192),
    rgba: packed('Red, green, blue and alpha of each pixel, row by row', 200_000_000),
    fit: z.enum(['whole', 'cover', 'tile']).default('cover').describe('Whole on the canvas, covering it, or repeated'),
    tileMm: z.number().min(1).max(5000).optional().describe('Width of one piece where it is repeated'),
    blend: blend.optional(),
    opacity: unit.optional(),
    under: z.boolean().optional().describe('Lowest of all: a photographed ground'),
  }),
  z.strictObject({
    do: z.literal('layer.move').describe('Puts a layer at a place in the stack, 0 = lowest; a group takes its members along'),
    layer: layerId,
    to: z.number().int().min(0).max(1000),
    group: layerId.nullable().optional().describe('Group that it is put into; null for none'),
  }),
  z.strictObject({ do: z.literal('layer.remove').describe('Removes a layer with its paint'), layer: layerId }),
  z.strictObject({ do: z.literal('layer.duplicate').describe('Copies a layer with its paint'), layer: layerId }),
  z.strictObject({
    do: z.literal('layer.merge').describe('Lays a layer onto the one below: paint on paint, pixels on pixels'),
    layer: layerId,
  }),
  z.strictObject({
    do: z.literal('layer.copy-all').describe('Copies the whole picture, unlit, as one picture layer on top'),
    name: layerName.default('Copy of all'),
    grey: z.boolean().optional().describe('In greys of the same value'),
  }),
  z.strictObject({
    do: z.literal('layer.mask').describe('Gives a layer a mask, changes it or takes it off'),
    layer: layerId,
    how: z
      .enum(['show', 'hide', 'selection', 'invert', 'remove'])
      .describe('All shown, all hidden, as selected; the mask turned round; taken off'),
  }),
  z.strictObject({
    do: z.literal('layer.soften').describe('A softened copy of all that is seen, behind a mask that is painted white where it should show'),
    radiusMm: z.number().min(0.05).max(30).default(1.5),
  }),
  z.strictObject({
    do: z.literal('layer.base').describe('A new paint layer under another, filled where the layers from there up cover'),
    layer: layerId.describe('The finished layer that it goes under'),
    mixture: mixtureSchema,
    thicknessUm: z.number().min(1).max(3000).default(60),
  }),
  z.strictObject({
    do: z.literal('layer.values').describe('Values first: a tone layer that lays colour over what is seen and keeps its values'),
    name: layerName.default('Colour over values'),
  }),
  z.strictObject({
    do: z
      .literal('layer.prepare')
      .describe('Washes the whole sheet on a layer of its own under the work, and dries it; or lays such a layer anew'),
    layer: layerId.optional().describe('A layer that was laid so before: what is on it goes'),
    style: z.enum(PREPARED_STYLES).default('variegated'),
    mixtures: z.array(mixtureSchema).min(1).max(3),
    seed: z.number().int().min(0).max(2 ** 31 - 1).default(1),
    strength: unit.default(0.4),
    texture: unit.default(0.5),
  }),
] as const; // prettier-ignore

const place = z.tuple([z.number().min(-1e4).max(1e4), z.number().min(-1e4).max(1e4)]);

/** Selecting, moving, cutting the canvas, filling areas, repeating pieces. */
export const pictureCommands = [
  z.strictObject({
    do: z.literal('select').describe('Selects a part of the picture: everything then happens only there'),
    how: z
      .enum(['all', 'none', 'invert', 'rectangle', 'ellipse', 'outline', 'colour', 'painted', 'soften', 'grow'])
      .describe('By shape, by similar colour, what is painted on a layer; or changes what is selected'),
    mode: z.enum(['new', 'add', 'subtract', 'within']).default('new'),
    from: place.optional().describe('Corner of a rectangle or an ellipse, mm; the spot of a colour'),
    to: place.optional().describe('The other corner'),
    outline: outlineSchema.optional(),
    edgeMm: z.number().min(0).max(60).default(0),
    tolerance: z.number().min(0).max(100).default(10).describe('Delta E 2000 up to which a colour is similar'),
    touching: z.boolean().default(true).describe('Only what hangs together with the spot'),
    layer: layerId.optional(),
    byMm: z.number().min(-60).max(60).default(1).describe('How far to soften or to grow; grown by less than 0 it shrinks'),
  }),
  z.strictObject({
    do: z.literal('transform').describe('Moves, scales, turns, skews or bends layers, or what is selected of them'),
    layers: z.array(layerId).min(1).max(64).optional().describe('The layer in hand where left out'),
    turn: z.union([z.literal(90), z.literal(180), z.literal(270)]).optional().describe('Clockwise, about the middle of what is there: exact'),
    mirror: z.enum(['across', 'down']).optional().describe('Left for right, or top for bottom: exact'),
    matrix: z.array(z.number().min(-1e4).max(1e4)).length(6).optional().describe('[a, b, c, d, e, f]: x = a x + c y + e, y = b x + d y + f, mm'),
    from: z.array(place).length(4).optional().describe('Corners of a rectangle: upper left, upper right, lower right, lower left'),
    corners: z.array(place).length(4).optional().describe('Where these corners go'),
    mesh: z
      .strictObject({ columns: z.number().int().min(2).max(12), rows: z.number().int().min(2).max(12), points: z.array(place).min(4).max(144) })
      .optional()
      .describe('Points of a grid laid over `from`, row by row, where they go'),
    copy: z.boolean().optional().describe('What was there stays'),
  }),
  z.strictObject({
    do: z.literal('canvas').describe('Cuts or extends the canvas, or turns or mirrors the whole painting'),
    turn: z.union([z.literal(90), z.literal(180), z.literal(270)]).optional(),
    mirror: z.enum(['across', 'down']).optional(),
    leftMm: z.number().min(-5000).max(5000).default(0).describe('How much comes on at the left; less than 0 is cut off'),
    topMm: z.number().min(-5000).max(5000).default(0),
    rightMm: z.number().min(-5000).max(5000).default(0),
    bottomMm: z.number().min(-5000).max(5000).default(0),
  }),
  z.strictObject({
    do: z.literal('fill').describe('Fills the area around a spot with wet paint, as far as its colour goes or lines close it'),
    at: place,
    mixture: mixtureSchema,
    by: z.enum(['colour', 'lines']).default('colour'),
    tolerance: z.number().min(0).max(100).default(12),
    gapMm: z.number().min(0).max(30).default(1).describe('Gaps in the border up to this width are closed'),
    growMm: z.number().min(0).max(10).default(0.3).describe('How far the paint goes under the lines'),
    thicknessUm: z.number().min(1).max(3000).optional(),
  }),
  z.strictObject({
    do: z.literal('stamp').describe('Lays copies of what is selected of the layer in hand at other places'),
    at: z.array(place).min(1).max(2000).describe('Where the middle of each copy comes'),
    turnJitter: z.number().min(0).max(180).default(0).describe('Degrees to either side'),
    sizeJitter: z.number().min(0).max(0.9).default(0),
    size: z.number().min(0.05).max(10).default(1),
    seed: z.number().int().min(0).max(2 ** 31 - 1).default(1),
  }),
] as const; // prettier-ignore
