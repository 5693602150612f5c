import { useEasel } from '@/room/easel/easelStore';

/** What is done with layers from keys and from the ledge, wherever the painter is. */

const get = () => useEasel.getState();

/** Chooses the layer above or below the one that is painted on. */
export function stepLayer(by: 1 | -1): void {
  const { bench, apply } = get();
  if (!bench) return;
  const at = bench.layers.findIndex(({ id }) => id === bench.activeLayer) + by;
  if (bench.layers[at]) apply({ do: 'layer.choose', layer: bench.layers[at].id });
}

/** Adds a layer of paint beside the one that is painted on, and chooses it. */
export function addLayer(where: 'above' | 'below'): void {
  get().apply({ do: 'layer.add', kind: 'paint', ...(where === 'below' && { below: true }) });
}

/** Whether anything is drawn on that is seen. */
export const sketchShows = (): boolean =>
  get().bench?.layers.some(({ kind, visible }) => kind === 'drawing' && visible) ?? false;

/** Hides all sketches, or shows them again. */
export function toggleSketch(): void {
  const { bench, apply } = get();
  const visible = !sketchShows();
  for (const layer of bench?.layers ?? []) {
    if (layer.kind === 'drawing' && layer.visible !== visible) apply({ do: 'layer.set', layer: layer.id, visible });
  }
}

/** Leaves the layer that is painted on out of the picture for as long as this is held. */
export function lookWithout(held: boolean): void {
  const { engine, bench } = get();
  engine?.without(held && bench ? [bench.activeLayer] : []);
}
