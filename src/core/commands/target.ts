import type { Layer } from '@/core/film/layer';
import { holdsFilm, holdsPixels } from '@/core/film/layerLook';
import type { Painting } from '@/core/film/painting';
import type { Toolbox } from '@/core/tools/toolbox';
import { PainterError } from '@/core/errors';

/** On which layer the tool in hand works. */

/** @throws PainterError when a layer is hidden or locked */
function shown(layer: Layer): Layer {
  if (!layer.visible) throw new PainterError(`"${layer.name}" is hidden: show it before painting on it.`);
  if (layer.look.locked) throw new PainterError(`"${layer.name}" is locked: unlock it before painting on it.`);
  return layer;
}

/** Whether what is in hand has no film: a mask, light, a picture. */
export const isOnLight = ({ active, part }: Painting): boolean => part === 'mask' || !holdsFilm(active.kind);

/** The layer on which the tool in hand works. @throws PainterError when there is none that it can work on */
export function layerForTool(painting: Painting, tools: Toolbox): Layer {
  const { active } = painting;
  const { draws, sketches } = tools.definition;
  if (sketches && tools.current.into === 'sketch' && active.kind !== 'drawing') {
    const sketch = painting.layers.find((l) => l.kind === 'drawing' && l.visible);
    if (!sketch) throw new PainterError('There is no sketch to draw on: show one or add one in Layers.');
    return shown(sketch);
  }
  return draws ? shown(active) : layerForPaint(painting, tools);
}

/** The layer in hand, for paint. @throws PainterError when it takes none now */
export function layerForPaint({ active }: Painting, tools: Toolbox): Layer {
  if (active.kind === 'drawing') {
    throw new PainterError(`"${active.name}" takes sticks and ink only: choose a paint layer for the ${tools.inHand}.`);
  }
  return shown(active);
}

/** The layer on which light, pixels or a mask are painted. @throws PainterError when there is nothing to paint on */
export function layerForLight({ active, part }: Painting, tools: Toolbox): Layer {
  if (part === 'layer' && !holdsPixels(active.kind)) {
    throw new PainterError(
      active.kind === 'group'
        ? `"${active.name}" is a group: choose one of its layers to paint on.`
        : `"${active.name}" is an adjustment: give it a mask to paint where it works.`,
    );
  }
  if (!tools.definition.light) {
    throw new PainterError(`There is no paint on "${active.name}" for the ${tools.inHand}: take a brush or the spray.`);
  }
  return shown(active);
}

/** The slab, for the tool in hand. @throws PainterError when it is none to mix with */
export function layerOfSlab(slab: Painting, tools: Toolbox): Layer {
  if (!tools.definition.mixes) {
    throw new PainterError('That is no tool for the slab: mix with a brush or the knife.');
  }
  return slab.active;
}
