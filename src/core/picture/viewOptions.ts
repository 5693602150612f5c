import type { Layer } from '@/core/film/layer';
import type { LayerLook } from '@/core/film/layerLook';

/**
 * How a painting is looked at, beside its state: an argument of whatever renders it, never a part of the painting. Commands
 * and files render plainly, whatever the painter is looking at.
 */
export interface ViewOptions {
  /** Ids of layers that are left out. */
  readonly without: readonly string[];
  /** Looks that are tried on layers, by id; each an object of its own, for caches. */
  readonly looks: ReadonlyMap<string, LayerLook>;
}

/** The painting as it is. */
export const PLAIN_VIEW: ViewOptions = { without: [], looks: new Map() };

/** Whether the painting is shown as it is. */
export const isPlain = ({ without, looks }: ViewOptions): boolean => without.length === 0 && looks.size === 0;

/** How a layer is seen; undefined when nothing of it is. */
export function seenLook(layer: Layer, { without, looks }: ViewOptions): LayerLook | undefined {
  const look = looks.get(layer.id) ?? layer.look;
  return look.visible && look.opacity > 0 && !without.includes(layer.id) ? look : undefined;
}
