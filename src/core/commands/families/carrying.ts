import { TILE } from '@/core/film/cells';
import type { Painting } from '@/core/film/painting';
import { growRect, noRect, type PixelRect } from '@/core/film/pixelRect';
import {
  permuteTile,
  planeLookup,
  resampleTile,
  type From,
  type FromCell,
  type Sheet,
} from '@/core/film/carrying/resample';
import type { TileImage } from '@/core/film/tile';
import { apply, inverse, type Affine } from '@/core/film/carrying/warp';
import { hypot } from '@/core/maths/maths';
import { PainterError } from '@/core/errors';

/** How paint is carried to where a transform puts it: by whole cells, or sampled. */

/** Most places that are looked at along a side of a cell when things get smaller. */
const MOST_SAMPLES = 6;

/** How cells are carried: whole ones to whole ones, or between. */
export type Carrying =
  { readonly cells: FromCell } | { readonly places: From; readonly samples: number; readonly to?: PixelRect };

/** Tiles of a sheet carried elsewhere. @returns those on which there is something */
export function carried(painting: Painting, sheet: Sheet, how: Carrying): Map<number, TileImage> {
  const { tilesX, tilesY } = painting;
  const planes = planeLookup(sheet);
  const out = new Map<number, TileImage>();
  for (let index = 0; index < tilesX * tilesY; index++) {
    const [left, top] = [(index % tilesX) * TILE, Math.floor(index / tilesX) * TILE];
    const to = 'places' in how ? how.to : undefined;
    if (to && (left >= to.right || top >= to.bottom || left + TILE <= to.left || top + TILE <= to.top)) continue;
    const image =
      'cells' in how
        ? permuteTile(sheet, left, top, painting, how.cells, index)
        : resampleTile(sheet, planes, left, top, painting, how.places, how.samples);
    if (image) out.set(index, image);
  }
  return out;
}

export const samplesFor = (shrink: number) => Math.max(1, Math.min(MOST_SAMPLES, Math.ceil(shrink - 0.01)));

/** Through a matrix, in cells; a move by whole cells takes cells as they are. @param box what is moved, where it is known */
export function affine(matrix: Affine, box?: PixelRect): Carrying {
  const [a, b, c, d, e, f] = matrix;
  if (a === 1 && d === 1 && b === 0 && c === 0) {
    const [dx, dy] = [Math.round(e), Math.round(f)];
    return { cells: (x, y) => [x - dx, y - dy] };
  }
  const back = inverse(matrix);
  if (!back) throw new PainterError('That would press everything onto a line.');
  const to = box && noRect();
  if (to) {
    for (const x of [box.left - 1, box.right + 1]) {
      for (const y of [box.top - 1, box.bottom + 1]) {
        const [u, v] = apply(matrix, x, y);
        growRect(to, { left: u, top: v, right: u, bottom: v });
      }
    }
  }
  return {
    to,
    places: (x, y) => apply(back, x, y),
    samples: samplesFor(Math.max(hypot(back[0], back[1]), hypot(back[2], back[3]))),
  };
}
