import type { Layer } from '@/core/film/layer';
import type { LayerLook } from '@/core/film/layerLook';
import type { Ledger } from '@/core/film/ledger';
import type { FlowState, Painting } from '@/core/film/painting';
import { TILE, type TileImage } from '@/core/film/tile';
import type { Command } from '@/core/commands/commands';
import type { ToolboxState } from '@/core/tools/toolbox';

/** Who is in the stack, in which order. */
export interface Structure {
  readonly painting: Painting;
  readonly layers: readonly { layer: Layer; look: LayerLook }[];
  readonly activeLayer: string;
  readonly part: 'layer' | 'mask';
  readonly layersMade: number;
}

/** Enough of a state to come back to it from the state after the next change. */
export interface Moment {
  readonly tiles: Map<Layer, Map<number, TileImage | undefined>>;
  readonly structure: Structure;
  readonly ledger: Ledger;
  readonly tools: ToolboxState;
  readonly strokes: number;
  readonly clock: number;
  readonly flow: FlowState;
  /** How many commands had been applied. */
  readonly timeline: number;
}

/** What redo needs: the commands, and the moments before and after them where those were kept. */
export interface Undone {
  readonly commands: readonly Command[];
  /** Length of the timeline at which they start. */
  readonly at: number;
  /** How many of them were done once more after they were taken back: those of the hand, where it stays. */
  readonly carried: number;
  readonly kept?: { readonly base: Moment; readonly after: Moment };
}

const planesOf = ({ planes, skin = [], wash }: TileImage): number =>
  planes.length + skin.length + (wash ? Object.values(wash.coats).flat().filter(Boolean).length : 0);

/** Bytes of a copy of a tile; its strata are shared with others and not counted. */
export const imageBytes = (image: TileImage): number =>
  planesOf(image) * TILE * TILE * 4 + (image.water?.planes.reduce((sum, p) => sum + p.byteLength, 0) ?? 0);

/** Bytes that a moment keeps alive beyond what the painting shares with it. */
export function momentBytes(moment: Moment): number {
  let bytes = 0;
  for (const tiles of moment.tiles.values()) {
    for (const image of tiles.values()) bytes += image ? imageBytes(image) : 0;
  }
  return bytes;
}

/**
 * A moment of one painting as a moment of another that has come to the same state.
 * @param layer finds the other's layer of an id
 * @returns undefined where it lies on another canvas, or has to do with a layer that is not there
 */
export function momentOn(
  moment: Moment,
  from: Painting,
  to: Painting,
  layer: (id: string) => Layer | undefined,
): Moment | undefined {
  const { structure } = moment;
  if (structure.painting !== from) return undefined;
  const tiles: Moment['tiles'] = new Map();
  for (const [of, images] of moment.tiles) {
    const there = layer(of.id);
    if (!there) return undefined;
    tiles.set(there, images);
  }
  const layers: Structure['layers'][number][] = [];
  for (const { layer: of, look } of structure.layers) {
    const there = layer(of.id);
    if (!there) return undefined;
    layers.push({ layer: there, look });
  }
  return { ...moment, tiles, structure: { ...structure, painting: to, layers } };
}
