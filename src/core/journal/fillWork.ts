import { coverageRaster } from '@/core/film/coverage';
import { holdsFilm } from '@/core/film/layerLook';
import type { Layer } from '@/core/film/layer';
import type { Painting } from '@/core/film/painting';
import { fillRegion, type Filling } from '@/core/marks/silhouette';
import type { ToolSettings } from '@/core/marks/tools';
import { enclosed, grown } from '@/core/film/regions';
import { noChange, type Change, type Workplace } from './change';
import type { Command } from './commands';
import { PainterError } from './errors';
import { allChanged, insertLayer, needLayer, tidyGroups } from './layerWork';
import { alike, cellAt, selectionRaster } from './selectWork';
import { thicknessOf } from './shapeWork';
import { needTubes } from './toolbox';

type Of<What extends Command['do']> = Extract<Command, { do: What }>;

/** Sides of the lines of a drawing: where less than this is covered, paint may go. */
const LINE = 0.25;

/** Cells that no line of a visible drawing layer covers. */
function betweenLines(painting: Painting): Uint8Array {
  const drawings = painting.layers.filter((l) => l.kind === 'drawing' && l.visible);
  if (drawings.length === 0) throw new PainterError('There are no lines to fill between: show the sketch first.');
  return Uint8Array.from(coverageRaster(painting, drawings), (cover) => (cover > LINE ? 0 : 1));
}

/** Fills the area around a spot with wet paint. @throws PainterError when there is none, or the layer takes none */
export function fillArea(
  { painting, keep }: Pick<Workplace, 'painting' | 'keep'>,
  command: Of<'fill'>,
  settings: ToolSettings,
  layer: Layer,
): Change {
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
  const filling: Filling = {
    mixture,
    um: command.thicknessUm ?? thicknessOf(settings),
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
export function newBase({ painting, keep }: Pick<Workplace, 'painting' | 'keep'>, command: Of<'layer.base'>): Change {
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
