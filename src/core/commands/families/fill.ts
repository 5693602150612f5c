import { z } from '@/core/schema';
import { defineCommand } from '@/core/commands/definition';
import { layerId, mixtureSchema, place } from '@/core/schemaParts';
import { coverageRaster } from '@/core/film/coverage';
import { holdsFilm } from '@/core/film/layerLook';
import type { Painting } from '@/core/film/painting';
import { fillRegion, type Filling } from '@/core/marks/silhouette';
import { enclosed, grown } from '@/core/film/carrying/regions';
import { noChange, type Change } from '@/core/commands/change';
import { fillLight } from './fillLight';
import { isOnLight, layerForLight, layerForPaint } from '@/core/commands/target';
import type { Workplace } from '@/core/commands/workplace';
import { PainterError } from '@/core/errors';
import { allChanged, insertLayer, needLayer, tidyGroups } from './layers';
import { alike, cellAt, selectionRaster } from './selecting';
import { thicknessOf } from './silhouette';
import { needTubes } from '@/core/tools/needTubes';

const fillSchema = z.strictObject({
  do: z
    .literal('fill')
    .describe('Fills the area around a spot with wet paint, as far as its colour goes or lines close it'),
  at: place,
  mixture: mixtureSchema,
  by: z.enum(['colour', 'lines']).default('colour'),
  tolerance: z.number().min(0).max(100).default(12),
  gapMm: z.number().min(0).max(30).default(1).describe('Gaps in the border up to this width are closed'),
  growMm: z.number().min(0).max(10).default(0.3).describe('How far the paint goes under the lines'),
  thicknessUm: z.number().min(1).max(3000).optional(),
});
const baseSchema = z.strictObject({
  do: z.literal('layer.base').describe('A new paint layer under another, filled where the layers from there up cover'),
  layer: layerId.describe('The finished layer that it goes under'),
  mixture: mixtureSchema,
  thicknessUm: z.number().min(1).max(3000).default(60),
});

/** Sides of the lines of a drawing: where less than this is covered, paint may go. */
const LINE = 0.25;

/** Cells that no line of a visible drawing layer covers. */
function betweenLines(painting: Painting): Uint8Array {
  const drawings = painting.layers.filter((l) => l.kind === 'drawing' && l.visible);
  if (drawings.length === 0) throw new PainterError('There are no lines to fill between: show the sketch first.');
  return Uint8Array.from(coverageRaster(painting, drawings), (cover) => (cover > LINE ? 0 : 1));
}

/** Fills the area around a spot with wet paint. @throws PainterError when there is none, or the layer takes none */
function fillArea(place: Workplace, command: z.output<typeof fillSchema>): Change {
  const { painting, keep, tools } = place;
  const onLight = isOnLight(painting);
  const layer = (onLight ? layerForLight : layerForPaint)(painting, tools);
  const settings = tools.current;
  const { at, mixture, by, tolerance, gapMm, growMm } = command;
  needTubes(Object.keys(mixture));
  const { width, height, mmPerPx } = painting;
  const [x, y] = cellAt(painting, at);
  const open = by === 'lines' ? betweenLines(painting) : alike(painting, x, y, tolerance);
  if (!open[y * width + x]) throw new PainterError('That spot lies on a line: choose one inside the area.');
  let region = enclosed(open, width, height, x, y, gapMm / mmPerPx);
  region = grown(region, width, height, growMm / mmPerPx);
  if (painting.selected) {
    const selected = selectionRaster(painting);
    region = region.map((v, i) => Math.min(v, selected[i]));
  }
  if (!region.some((v) => v > 0)) throw new PainterError('There is no area around that spot.');
  if (onLight) return fillLight(place, (px, py) => region[py * width + px] / 255, mixture);
  const filling: Filling = {
    mixture,
    um: command.thicknessUm ?? thicknessOf(tools),
    body: settings.body,
    streaks: 0,
    seed: painting.spec.seed,
  };
  return { ...noChange(), rect: fillRegion(painting, layer, region, filling, keep) };
}

/**
 * A new base under finished work: a paint layer below another one, filled where the layers from there up have paint.
 * @throws PainterError when they have none
 */
function newBase({ painting, keep }: Workplace, command: z.output<typeof baseSchema>): Change {
  const finished = needLayer(painting, command.layer);
  needTubes(Object.keys(command.mixture));
  const from = painting.layers.indexOf(finished);
  const covering = painting.layers.slice(from).filter((l) => l.visible && holdsFilm(l.kind));
  const region = Uint8Array.from(coverageRaster(painting, covering), (cover) => Math.round(255 * cover));
  if (!region.some((v) => v > 0)) {
    throw new PainterError(`There is no paint from "${finished.name}" up that a base could lie under.`);
  }
  const layer = insertLayer(painting, 'paint', 'New base', from);
  layer.look = { ...layer.look, group: finished.look.group };
  const { mixture, thicknessUm } = command;
  const filling: Filling = { mixture, um: thicknessUm, body: 0.5, streaks: 0, seed: painting.spec.seed };
  fillRegion(painting, layer, region, filling, keep);
  painting.choose(layer.id);
  tidyGroups(painting);
  return allChanged(painting);
}

export const fill = defineCommand({ schema: fillSchema, undoable: true, apply: fillArea });

export const base = defineCommand({ schema: baseSchema, undoable: true, addsLayer: true, apply: newBase });
