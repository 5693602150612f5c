import { noChange, wholeRect, type Change, type Workplace } from './change';
import type { Command } from './commands';
import { PainterError } from './errors';
import { needTubes } from './toolbox';
import type { Layer } from '@/core/film/layer';
import type { Painting } from '@/core/film/painting';
import { layPreparedWash } from '@/core/marks/preparedWash';

/** Washes a layer under the work, new or again. @throws PainterError when the layer is not there or takes no paint */
function prepare(
  { painting, keep }: Pick<Workplace, 'painting' | 'keep'>,
  command: Extract<Command, { do: 'layer.prepare' }>,
): Change {
  command.mixtures.forEach((mixture) => needTubes(Object.keys(mixture)));
  let layer = command.layer === undefined ? undefined : painting.layer(command.layer);
  if (command.layer !== undefined && layer?.kind !== 'paint') {
    throw new PainterError(`There is no paint layer "${command.layer}" to wash.`);
  }
  if (layer) {
    takeOff(painting, layer, keep);
  } else {
    layer = painting.addLayer('paint', 'Prepared paper');
    painting.layers.pop();
    const under = painting.layers.findIndex((l) => l.kind === 'paint');
    painting.layers.splice(Math.max(0, under), 0, layer);
  }
  layPreparedWash(painting, layer, command, keep);
  painting.order++;
  return { ...noChange(), rect: wholeRect(painting), layers: true };
}

/** Takes everything off a layer, and enters it in the ledger. */
function takeOff(painting: Painting, layer: Layer, keep: Workplace['keep']): void {
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

/** Adds, chooses, sets, moves or removes a layer. @throws PainterError when it is not there, or is needed */
export function changeLayers(
  { painting, keep }: Workplace,
  command: Exclude<Extract<Command, { do: `layer.${string}` }>, { do: 'layer.recolour' | 'layer.bring' }>,
): Change {
  const everything: Change = { ...noChange(), rect: wholeRect(painting), layers: true };
  if (command.do === 'layer.add') {
    const at = painting.layers.indexOf(painting.active);
    const count = painting.layers.filter((l) => l.kind === command.kind).length + 1;
    const name = command.name ?? (command.kind === 'paint' ? `Paint ${count}` : `Sketch ${count}`);
    const layer = painting.addLayer(command.kind, name);
    painting.layers.pop();
    painting.layers.splice(at + 1, 0, layer);
    painting.activeLayer = layer.id;
    return everything;
  }
  if (command.do === 'layer.prepare') return prepare({ painting, keep }, command);
  const layer = painting.layer(command.layer);
  if (!layer) throw new PainterError(`There is no layer "${command.layer}".`);
  switch (command.do) {
    case 'layer.choose':
      painting.activeLayer = layer.id;
      return { ...noChange(), layers: true };
    case 'layer.set': {
      if (command.name !== undefined) layer.name = command.name;
      const { visible = layer.visible, opacity = layer.opacity } = command;
      if (visible === layer.visible && opacity === layer.opacity) return { ...noChange(), layers: true };
      layer.visible = visible;
      layer.opacity = opacity;
      painting.order++;
      return everything;
    }
    case 'layer.move': {
      const rest = painting.layers.filter((l) => l !== layer);
      rest.splice(Math.min(command.to, rest.length), 0, layer);
      painting.layers = rest;
      painting.order++;
      return everything;
    }
    case 'layer.remove': {
      if (painting.layers.filter((l) => l.kind === 'paint').length === 1 && layer.kind === 'paint') {
        throw new PainterError('A painting needs one paint layer: add another before removing this one.');
      }
      takeOff(painting, layer, keep);
      const at = painting.layers.indexOf(layer);
      painting.layers = painting.layers.filter((l) => l !== layer);
      if (painting.activeLayer === layer.id) {
        const near = painting.layers.slice(0, at).reverse().concat(painting.layers.slice(at));
        painting.activeLayer = (near.find((l) => l.kind === 'paint') ?? painting.layers[0]).id;
      }
      painting.order++;
      return everything;
    }
  }
}
