import { isColoured, pigmentId, TABLE_COUNT } from '@/core/colour/pigments';
import { TILE } from '@/core/film/tile';
import { CLOSED_UM } from '@/core/kernels/colour';
import type { Picture } from '@/core/picture/picture';
import { thicknessAt } from '@/core/picture/readings';
import { encodePng, type Raster } from './png';
import { reliefUm } from './solids/reliefOf';

/** The whole picture as 8-bit sRGB, lit or unlit. */
export function pictureRaster(picture: Picture, lit: boolean): Raster {
  const { arena, width, height } = picture.painting;
  const from = lit ? picture.lit : picture.albedo;
  const data = new Uint8Array(width * height * 3);
  for (let i = 0; i < width * height; i++) {
    const v = arena.u32[from + i];
    data[3 * i] = v & 255;
    data[3 * i + 1] = (v >>> 8) & 255;
    data[3 * i + 2] = (v >>> 16) & 255;
  }
  return { width, height, channels: 3, data };
}

/** Unit of one step of a plane: value = step * unit + zero. */
export interface PlaneUnit {
  readonly unit: number;
  readonly zero: number;
  readonly quantity: string;
}

/** 16-bit PNGs of the state: albedo, thickness, wetness, surface, relief, and the mass of every pigment present. */
export function encodePlanes(picture: Picture): {
  files: Record<string, Uint8Array>;
  units: Record<string, PlaneUnit>;
} {
  const { painting } = picture;
  const { width, height, surface } = painting;
  const cells = width * height;
  const files: Record<string, Uint8Array> = {};
  const units: Record<string, PlaneUnit> = {};
  const write = (name: string, quantity: string, values: Float32Array) => {
    let lo = Infinity;
    let hi = -Infinity;
    for (const v of values) {
      if (v < lo) lo = v;
      if (v > hi) hi = v;
    }
    const zero = Math.min(0, lo);
    const unit = (hi - zero) / 65535 || 1;
    const data = new Uint16Array(cells);
    for (let i = 0; i < cells; i++) data[i] = Math.round((values[i] - zero) / unit);
    files[name] = encodePng({ width, height, channels: 1, data }, painting.spec.ppi);
    units[name] = { unit, zero, quantity };
  };

  const albedo = new Uint16Array(cells * 3);
  const unlit = pictureRaster(picture, false).data;
  for (let i = 0; i < albedo.length; i++) albedo[i] = unlit[i] * 257;
  files.albedo = encodePng({ width, height, channels: 3, data: albedo }, painting.spec.ppi);
  units.albedo = { unit: 1 / 65535, zero: 0, quantity: 'sRGB code, unlit' };

  const thickness = new Float32Array(cells);
  const wetness = new Float32Array(cells);
  const ground = new Float32Array(cells);
  const relief = reliefUm(picture);
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      const i = y * width + x;
      const { dry, wet, water } = thicknessAt(picture, x, y);
      thickness[i] = dry + wet;
      wetness[i] = Math.max(water, Math.min(1, wet / CLOSED_UM));
      ground[i] = surface.um[(y % surface.size) * surface.size + (x % surface.size)];
    }
  }
  write('thickness', 'um of paint, wet and dry', thickness);
  write('wetness', 'share, 1 = wet', wetness);
  write('surface', 'um, height of the support', ground);
  write('relief', 'um, height of support and paint', relief);

  const masses = massPlanes(picture);
  masses.forEach((plane, pigment) => write(`mass-${pigmentId(pigment)}`, 'coats, wet and dry', plane));
  return { files, units };
}

function massPlanes(picture: Picture): Map<number, Float32Array> {
  const { painting } = picture;
  const { arena, tilesX, width, height } = painting;
  const planes = new Map<number, Float32Array>();
  for (let pigment = 0; pigment < TABLE_COUNT; pigment++) {
    if (!isColoured(pigment)) continue;
    let plane: Float32Array | undefined;
    for (const layer of painting.layers) {
      if (!layer.visible) continue;
      layer.forEachTile((tile, index) => {
        const wet = tile.pigments.indexOf(pigment);
        const dry = tile.strata.filter((s) => s.pigments.includes(pigment));
        const k = tile.wash?.pigments.indexOf(pigment) ?? -1;
        const washes =
          k < 0 ? [] : Object.values(tile.wash!.coats).flatMap((planes) => (planes[k] ? [planes[k] >> 2] : []));
        if (wet < 0 && dry.length === 0 && washes.length === 0) return;
        plane ??= new Float32Array(width * height);
        const left = (index % tilesX) * TILE;
        const top = Math.floor(index / tilesX) * TILE;
        for (let y = top; y < Math.min(height, top + TILE); y++) {
          for (let x = left; x < Math.min(width, left + TILE); x++) {
            const cell = (y - top) * TILE + x - left;
            let coats = wet < 0 ? 0 : arena.f32[(tile.mass[wet] >> 2) + cell];
            for (const plane of washes) coats += arena.f32[plane + cell];
            for (const s of dry) {
              const k = s.pigments.indexOf(pigment);
              coats += s.mass[k][cell] * s.massStep[k];
            }
            plane[y * width + x] += coats;
          }
        }
      });
    }
    if (plane) planes.set(pigment, plane);
  }
  return planes;
}
