import { z } from '@/core/schema';
import { defineCommand } from '@/core/commands/definition';
import { mixtureSchema, unit } from '@/core/schemaParts';
import { Guard } from '@/core/film/guard';
import { layEvenWash } from '@/core/marks/wet/preparedWash';
import { fillRegion } from '@/core/marks/silhouette';
import { noChange, type Change } from '@/core/commands/change';
import { wholeRect } from '@/core/film/tilesIn';
import { fillLight } from './fillLight';
import { isOnLight, layerForTool } from '@/core/commands/target';
import type { Workplace } from '@/core/commands/workplace';
import { PainterError } from '@/core/errors';
import { selectionRaster } from './selecting';
import { needTubes } from '@/core/tools/needTubes';

const schema = z.strictObject({
  do: z
    .literal('tone')
    .describe(
      'Lays an even glaze, wash or dust of a mixture over the layer or what is selected of it, by the tool in hand',
    ),
  mixture: mixtureSchema,
  strength: unit.default(0.3).describe('0 clear medium .. 1 half paint'),
});

/** Film that an even glaze is, um, and the share of it that is paint at full strength. */
const GLAZE_UM = 16;
const PAINT = 0.5;

/**
 * Lays an even tone over the layer in hand, or over what is selected of it, with what the tool in hand is made of: a
 * glaze of oil or acrylic, a wash, or the dust of a stick. It stays wet, so lights can be lifted out of it.
 * @throws PainterError when it is nothing of these
 */
function layTone(place: Workplace, { mixture, strength }: z.output<typeof schema>): Change {
  const { painting, keep, tools } = place;
  needTubes(Object.keys(mixture));
  if (isOnLight(painting)) return fillLight(place, () => strength, mixture);
  const layer = layerForTool(painting, tools);
  const changed = { ...noChange(), rect: wholeRect(painting) };
  const { fills } = tools.definition;
  if (fills?.of === 'wash') {
    const guard = Guard.of(painting, layer);
    layEvenWash(painting, layer, mixture, strength, painting.spec.seed, guard?.wrap(keep) ?? keep);
    guard?.settle();
    return changed;
  }
  if (!fills)
    throw new PainterError('A tone is laid with paint, water or a stick: take a brush, the knife or a stick first.');
  const stick = fills.of === 'dust' ? fills.form : undefined;
  const { width, height, spec } = painting;
  const region = painting.selected ? selectionRaster(painting) : new Uint8Array(width * height).fill(255);
  const dusty = stick && { ...stick, most: stick.most * strength };
  const filling = {
    mixture,
    um: GLAZE_UM,
    paint: stick ? 1 : PAINT * strength * strength,
    body: 0.1,
    stick: dusty,
    streaks: 0,
    seed: spec.seed,
  };
  return { ...changed, rect: fillRegion(painting, layer, region, filling, keep) };
}

export const tone = defineCommand({ schema, undoable: true, apply: layTone });
