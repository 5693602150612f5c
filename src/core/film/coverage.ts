import type { Layer } from './layer';
import { holdsPixels } from './layerLook';
import type { Painting } from './painting';
import { TILE, TILE_CELLS, type Tile } from './tile';

/** A film of this thickness covers its cell, um; a wash, coats of its pigment. */
const COVERS_UM = 10;
const COVERS_COATS = 0.04;
/** Coats of pigment that a wash must have to count at all. */
const TRACE_COATS = 5e-4;

/** Raises `out` to the share of each cell of a tile that has something on it, 0..1: film, wash, dust, or pixels. */
function coverTile(painting: Painting, tile: Tile, out: Float32Array): void {
  const { f32 } = painting.arena;
  if (tile.pixels) {
    const { pixels } = tile;
    for (let i = 0; i < TILE_CELLS; i++) out[i] = Math.max(out[i], (pixels[i] >>> 24) / 255);
    return;
  }
  for (const plane of [tile.volume, tile.sealed]) {
    if (!plane) continue;
    const at = plane >> 2;
    for (let i = 0; i < TILE_CELLS; i++) out[i] = Math.max(out[i], Math.min(1, f32[at + i] / COVERS_UM));
  }
  if (!tile.wash) return;
  const sum = new Float32Array(TILE_CELLS);
  tile.wash.forEach((plane) => {
    const at = plane >> 2;
    for (let i = 0; i < TILE_CELLS; i++) sum[i] += f32[at + i];
  });
  for (let i = 0; i < TILE_CELLS; i++) {
    if (sum[i] > TRACE_COATS) out[i] = Math.max(out[i], Math.min(1, sum[i] / COVERS_COATS));
  }
}

/** What a mask shows of a tile, 0..255 a cell; undefined where it shows all of it. */
export function maskOf(layer: Layer, index: number): Uint8Array | 0 | undefined {
  const { mask } = layer.look;
  if (!mask?.on) return undefined;
  return layer.tiles[index]?.mask ?? (mask.fill === 0 ? 0 : undefined);
}

/**
 * Share of each cell of a tile that a layer covers, 0..1: its paint or pixels, for a group those of its members, with its
 * mask; an adjustment covers everything. @returns undefined where there is nothing
 */
export function coverageOf(painting: Painting, layer: Layer, index: number): Float32Array | undefined {
  const mask = maskOf(layer, index);
  if (mask === 0) return undefined;
  let out: Float32Array | undefined;
  if (layer.kind === 'adjust') out = new Float32Array(TILE_CELLS).fill(1);
  else if (layer.kind === 'group') {
    for (const member of painting.layers) {
      if (member.look.group !== layer.id || !member.visible) continue;
      const share = coverageOf(painting, member, index);
      if (!share) continue;
      out ??= new Float32Array(TILE_CELLS);
      for (let i = 0; i < TILE_CELLS; i++) out[i] = Math.max(out[i], share[i]);
    }
  } else {
    const tile = layer.tiles[index];
    if (!tile || (holdsPixels(layer.kind) ? !tile.pixels : tile.bare)) return undefined;
    coverTile(painting, tile, (out = new Float32Array(TILE_CELLS)));
  }
  if (out && mask) for (let i = 0; i < TILE_CELLS; i++) out[i] *= mask[i] / 255;
  return out;
}

/** The layer that a clipped one is seen on: the nearest one below it, in the same group, that is not clipped itself. */
export function clipBase(painting: Painting, layer: Layer): Layer | undefined {
  const { layers } = painting;
  for (let i = layers.indexOf(layer) - 1; i >= 0; i--) {
    if (layers[i].look.group === layer.look.group && !layers[i].look.clip) return layers[i];
  }
  return undefined;
}

/** How much of each cell of the sheet any of some layers covers, 0..1. */
export function coverageRaster(painting: Painting, layers: readonly Layer[]): Float32Array {
  const { width, height, tilesX } = painting;
  const out = new Float32Array(width * height);
  for (const layer of layers) {
    layer.forEachTile((_, index) => {
      const cover = coverageOf(painting, layer, index);
      if (!cover) return;
      const [left, top] = [(index % tilesX) * TILE, Math.floor(index / tilesX) * TILE];
      for (let y = 0; y < Math.min(TILE, height - top); y++) {
        for (let x = 0; x < Math.min(TILE, width - left); x++) {
          const at = (top + y) * width + left + x;
          out[at] = Math.max(out[at], cover[y * TILE + x]);
        }
      }
    });
  }
  return out;
}
