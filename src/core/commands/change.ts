import { noRect, type PixelRect } from '@/core/film/pixelRect';

/** What a command changed. */
export interface Change {
  /** Cells whose paint may differ; empty when none. */
  readonly rect: PixelRect;
  /** Cells of the slab whose paint may differ. */
  readonly slab: PixelRect;
  /** Tiles of the painting in which water has moved. */
  readonly flowed: ReadonlySet<number>;
  /** Layers were added, removed, ordered, hidden, shown, renamed or chosen. */
  readonly layers: boolean;
  /** The canvas is another one: of another size, or turned. */
  readonly canvas?: boolean;
}

export const noChange = (): Change => ({ rect: noRect(), slab: noRect(), flowed: new Set(), layers: false });
