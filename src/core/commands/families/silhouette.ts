import { z } from '@/core/schema';
import { defineCommand } from '@/core/commands/definition';
import { mixtureSchema, outlineSchema, unit } from '@/core/schemaParts';
import { Guard } from '@/core/film/guard';
import { washShape } from '@/core/marks/wet/shapeWash';
import { filmUm } from '@/core/tools/families/brushes';
import type { Toolbox } from '@/core/tools/toolbox';
import { cutShape, fillShape, ShapeMask } from '@/core/marks/silhouette';
import { noChange, type Change } from '@/core/commands/change';
import { fillLight } from './fillLight';
import { isOnLight, layerForTool } from '@/core/commands/target';
import type { Workplace } from '@/core/commands/workplace';
import { PainterError } from '@/core/errors';
import { needTubes } from '@/core/tools/needTubes';

const schema = z.strictObject({
  do: z
    .literal('silhouette')
    .describe('Fills a closed outline with the paint, the wash or the stick in hand, or cuts it out of the layer'),
  outline: outlineSchema,
  cut: z.boolean().optional(),
  mixture: mixtureSchema.optional().describe('What it is filled with; left out when it is cut'),
  thicknessUm: z
    .number()
    .min(1)
    .max(3000)
    .optional()
    .describe('As the tool in hand would leave it, where it is left out'),
  edgeMm: z.number().min(0).max(60).default(0).describe('Width over which the edge is lost; 0 is found'),
  streaks: unit.default(0).describe('Unevenness along its long axis'),
  water: unit.optional().describe('How wet a wash fills it: as the brush in hand where left out'),
});

const NO_MIXTURE = 'A shape is filled with a mixture: load one first.';

/** Thickness that the tool in hand leaves when it covers, um. */
export const thicknessOf = ({ definition: { fills }, current }: Toolbox): number =>
  (fills?.of === 'film' ? fills.coversUm : filmUm)(current);

/** A shape of light, or on a mask. @throws PainterError when there is nothing to fill it with */
function layLight(place: Workplace, mask: ShapeMask, { cut, mixture }: z.output<typeof schema>): Change {
  if (!cut && !mixture) throw new PainterError(NO_MIXTURE);
  if (mixture) needTubes(Object.keys(mixture));
  const { left, top, right, bottom } = mask.rect;
  const inside = (x: number, y: number) => (x >= left && x < right && y >= top && y < bottom ? mask.at(x, y) : 0);
  return fillLight(place, inside, cut ? undefined : mixture);
}

/** Fills or cuts a shape. @throws PainterError when there is nothing to fill it with, or the layer takes none of it */
function layShape(place: Workplace, command: z.output<typeof schema>): Change {
  const { painting, keep, tools } = place;
  const { outline, cut, mixture, edgeMm, streaks } = command;
  const mask = new ShapeMask(painting, outline, edgeMm);
  if (isOnLight(painting)) return layLight(place, mask, command);
  const layer = layerForTool(painting, tools);
  const settings = tools.current;
  if (cut) return { ...noChange(), rect: cutShape(painting, layer, mask, keep) };
  if (!mixture) throw new PainterError(NO_MIXTURE);
  needTubes(Object.keys(mixture));
  const { fills } = tools.definition;
  if (fills?.of === 'wash' && !fills.form.thirsty) {
    const { form } = fills;
    const guard = Guard.of(painting, layer);
    const { water = settings.water } = command;
    const wash = {
      form,
      mixture,
      strength: settings.strength,
      wetness: water,
      edgeMm,
      seed: painting.spec.seed + outline.length,
    };
    const rect = washShape(painting, layer, outline, wash, guard?.wrap(keep) ?? keep, guard);
    guard?.settle();
    return { ...noChange(), rect };
  }
  if (!fills || fills.of === 'wash') {
    throw new PainterError(
      'A shape is filled with paint, with water or with a stick: take a brush, the knife or a stick first.',
    );
  }
  const stick = fills.of === 'dust' ? fills.form : undefined;
  const um = command.thicknessUm ?? thicknessOf(tools);
  const filling = { mixture, um, body: settings.body, stick, streaks, seed: painting.spec.seed + outline.length };
  return { ...noChange(), rect: fillShape(painting, layer, mask, outline, filling, keep) };
}

export const silhouette = defineCommand({ schema, undoable: true, apply: layShape });
