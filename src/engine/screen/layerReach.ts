import type { Painting } from '@/core/film/painting';
import { growRect, noRect, type PixelRect } from '@/core/film/pixelRect';
import { tileRect, wholeRect } from '@/core/film/tilesIn';

/** Cells whose picture may be another when layers are left out of it or come back: where they have anything. */
export function layerReach(painting: Painting, ids: readonly string[]): PixelRect {
  const rect = noRect();
  for (const layer of painting.layers) {
    if (!ids.includes(layer.id)) continue;
    // these act on what others have
    if (layer.kind === 'adjust' || layer.kind === 'group') return wholeRect(painting);
    layer.forEachTile((_, index) => growRect(rect, tileRect(painting, index)));
  }
  return rect;
}
