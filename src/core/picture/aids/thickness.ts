import { TILE } from '@/core/film/cells';
import type { Painting } from '@/core/film/painting';
import type { LookingAid } from './definition';

/** Thickness at which each step of the map begins, um: bare, a stain, a thin coat, a coat, body, impasto, ridges. */
export const THICKNESS_STEPS = [
  { um: 0, tint: [94, 92, 88], says: 'bare' },
  { um: 3, tint: [126, 112, 128], says: 'a stain' },
  { um: 20, tint: [112, 120, 158], says: 'thin' },
  { um: 60, tint: [96, 148, 160], says: 'a coat' },
  { um: 150, tint: [132, 178, 132], says: 'body' },
  { um: 400, tint: [216, 196, 108], says: 'impasto' },
  { um: 1000, tint: [246, 236, 208], says: 'ridges' },
] as const;

/** All paint above the ground at a cell, wet and dry, um. */
export function thicknessAt({ layers, tilesX, arena: { f32 } }: Painting, x: number, y: number): number {
  const index = (y >> 6) * tilesX + (x >> 6);
  const cell = (y & 63) * TILE + (x & 63);
  let um = 0;
  for (const layer of layers) {
    const tile = layer.tiles[index];
    if (!tile || !layer.visible) continue;
    if (tile.volume) um += f32[(tile.volume >> 2) + cell];
    if (tile.sealed) um += f32[(tile.sealed >> 2) + cell];
  }
  return um;
}

function tintOf(um: number): number {
  let step = THICKNESS_STEPS.length - 1;
  while (step > 0 && um < THICKNESS_STEPS[step].um) step--;
  const [r, g, b] = THICKNESS_STEPS[step].tint;
  return (0xff000000 | (b << 16) | (g << 8) | r) >>> 0;
}

export const thickness: LookingAid = {
  name: 'Thickness',
  hint: 'See how thick the paint lies, step by step from bare to ridges',
  lined: ({ contours }) => contours === true,
  see: (_, painting, x, y) => tintOf(thicknessAt(painting, x, y)),
};
