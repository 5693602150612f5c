import { TILE } from '@/core/film/cells';
import type { Painting } from '@/core/film/painting';
import { cellToView, type View } from '@/core/picture/view';

/** Tiles that are prepared at most. */
const MOST = 500;

/** Tiles of a painting that are seen, those in the middle of the view last. */
export function tilesInView({ tilesX, tilesY }: Pick<Painting, 'tilesX' | 'tilesY'>, view: View): number[] {
  const found: { index: number; far: number }[] = [];
  const reach = TILE * view.zoom;
  for (let index = 0; index < tilesX * tilesY; index++) {
    const x = ((index % tilesX) + 0.5) * TILE;
    const y = (Math.floor(index / tilesX) + 0.5) * TILE;
    const at = cellToView(view, x, y);
    if (at.x < -reach || at.y < -reach || at.x > view.width + reach || at.y > view.height + reach) continue;
    found.push({ index, far: Math.hypot(at.x - view.width / 2, at.y - view.height / 2) });
  }
  return found
    .sort((a, b) => a.far - b.far)
    .slice(0, MOST)
    .reverse()
    .map(({ index }) => index);
}
