import type { Painting } from '@/core/film/painting';
import { TILE } from '@/core/film/tile';
import { TACKY } from '@/core/flow/drying';
import { CLOSED_UM } from '@/core/kernels/colour';
import { greyOfCode } from './valueView';
import { waterAtCell } from '@/core/picture/layers/washFilm';

/** Tints of what is wet and what is tacky, packed as 0xBBGGRR: water blue-green and amber. */
const WET = [38, 116, 128];
const TACKY_TINT = [186, 132, 38];
const WATER = [40, 92, 168];
const DAMP = [122, 138, 190];

/** What is wet, and how: greys where the painting is dry or bare, a tint where it is wet, another where it is tacky. */
export function wetCode(painting: Painting, code: number, x: number, y: number): number {
  const grey = greyOfCode(code);
  const index = (y >> 6) * painting.tilesX + (x >> 6);
  const cell = (y & 63) * TILE + (x & 63);
  const { f32 } = painting.arena;
  for (let k = painting.layers.length - 1; k >= 0; k--) {
    const layer = painting.layers[k];
    const tile = layer.tiles[index];
    if (!tile || !layer.visible || layer.kind !== 'paint') continue;
    const water = waterAtCell(painting, layer, x, y);
    const um = tile.volume ? f32[(tile.volume >> 2) + cell] : 0;
    if (water.looks > 0.02) return tinted(grey, waterTint(water), 0.3 + 0.42 * Math.min(1, water.um / 160));
    if (um < 1) continue;
    const tacky = tile.cure !== 0 && f32[(tile.cure >> 2) + cell] >= TACKY;
    const share = 0.62 * Math.min(1, um / CLOSED_UM);
    const tint = tacky ? TACKY_TINT : WET;
    return tinted(grey, tint, share);
  }
  return grey;
}

function tinted(grey: number, tint: readonly number[], share: number): number {
  let out = 0xff000000;
  for (let c = 0; c < 3; c++) {
    const g = (grey >>> (8 * c)) & 255;
    out |= Math.round(g + (tint[c] * (0.45 + (0.75 * g) / 255) - g) * share) << (8 * c);
  }
  return out >>> 0;
}

/** Water shows by how much there is: a film that shines, and paper that is damp. */
const waterTint = ({ um }: { um: number }): readonly number[] => (um > 40 ? WATER : DAMP);
