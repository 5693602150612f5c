import { noChange, wholeRect, type Change, type Workplace } from './change';
import type { Command } from './commands';
import { PainterError } from './errors';

/** Adds, chooses, sets, moves or removes a layer. @throws PainterError when it is not there, or is needed */
export function changeLayers(
  { painting, keep }: Workplace,
  command: Extract<Command, { do: `layer.${string}` }>,
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
  const layer = painting.layer(command.layer);
  if (!layer) throw new PainterError(`There is no layer "${command.layer}".`);
  switch (command.do) {
    case 'layer.choose':
      painting.activeLayer = layer.id;
      return { ...noChange(), layers: true };
    case 'layer.set':
      if (command.name !== undefined) layer.name = command.name;
      if (command.visible === undefined || command.visible === layer.visible) return { ...noChange(), layers: true };
      layer.visible = command.visible;
      painting.order++;
      return everything;
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
      layer.forEachTile((_, index) => keep(layer, index));
      const before = painting.massOnCanvas();
      painting.disposeLayer(layer);
      const after = painting.massOnCanvas();
      painting.ledger.removed.forEach((_, i) => {
        painting.ledger.removed[i] += before.film[i] - after.film[i] + before.strata[i] - after.strata[i];
      });
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
