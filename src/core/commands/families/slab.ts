import { z } from '@/core/schema';
import { defineCommand } from '@/core/commands/definition';
import { finite, mixtureSchema } from '@/core/schemaParts';
import { growRect, noRect } from '@/core/film/pixelRect';
import { squeeze } from '@/core/marks/brush/squeeze';
import { startSettings } from '@/core/tools/tools';
import { noChange, type Change } from '@/core/commands/change';
import { tileRect } from '@/core/film/tilesIn';
import type { Workplace } from '@/core/commands/workplace';
import { PainterError } from '@/core/errors';
import { needTubes } from '@/core/tools/needTubes';

const squeezeSchema = z.strictObject({
  do: z.literal('slab.squeeze').describe('Squeezes a bead of tube paint onto the slab'),
  mixture: mixtureSchema,
  at: z.tuple([finite, finite]).describe('Middle of the bead, mm from the corner of the slab'),
  sizeMm: z.number().min(1).max(60).default(12),
  vehicle: z.enum(['oil', 'acrylic']).default('oil'),
});
const takeSchema = z.strictObject({
  do: z
    .literal('slab.take')
    .describe('Presses the tool in hand into the paint on the slab: it takes up what it can hold'),
  at: z.tuple([finite, finite]),
});
const scrapeSchema = z.strictObject({ do: z.literal('slab.scrape').describe('Scrapes the slab clean') });

/** Squeezes a bead of paint onto the slab. @throws PainterError beside it, or when a tube is not there */
function squeezeOnSlab(
  { slab, keep }: Workplace,
  { mixture, at, sizeMm, vehicle }: z.output<typeof squeezeSchema>,
): Change {
  const [x, y] = at;
  if (x < 0 || y < 0 || x > slab.spec.widthMm || y > slab.spec.heightMm) {
    throw new PainterError('That is beside the slab.');
  }
  needTubes(Object.keys(mixture));
  const make = { ...startSettings('knife'), vehicle };
  return { ...noChange(), slab: squeeze(slab, { mixture, x, y, sizeMm, make }, keep) };
}

/** Takes everything off the slab. */
function scrapeSlab({ slab, keep }: Workplace): Change {
  slab.massOnCanvas().film.forEach((mass, i) => (slab.ledger.removed[i] += mass));
  const rect = noRect();
  const [layer] = slab.layers;
  layer.forEachTile((tile, index) => {
    keep(layer, index);
    tile.dispose();
    layer.tiles[index] = undefined;
    growRect(rect, tileRect(slab, index));
  });
  return { ...noChange(), slab: rect };
}

export const squeezeTube = defineCommand({ schema: squeezeSchema, undoable: true, apply: squeezeOnSlab });

export const takeFromSlab = defineCommand({
  schema: takeSchema,
  undoable: true,
  apply: ({ tools, slab, keep }, { at }) => ({ ...noChange(), slab: tools.takeUp(slab, ...at, keep) }),
});

export const scrape = defineCommand({ schema: scrapeSchema, undoable: true, apply: scrapeSlab });
