import { bounceMap, lightOutlines, type Outlines } from './bounce';
import { shareMap, type BoardGrid } from './shareMap';
import type { Scene } from './scene';

/** What is known of a board: for each light, the share of it that every point sees. */
export interface LightMap extends BoardGrid {
  readonly scene: Scene;
  /** In the order of the scene's sources. */
  readonly shares: readonly Float32Array[];
  /** What falls on outlines, and what they give back; only where it was asked for. */
  readonly outlines?: Outlines;
  readonly bounced?: { readonly map: Float32Array; readonly width: number; readonly height: number };
}

/** Pixels between the points at which bounced light is worked out. */
const BOUNCE_STEP = 16;

/** A first look, without what is bounced: for grids as coarse as they are quick. */
export const firstLook = (scene: Scene, grid: BoardGrid): LightMap => ({
  ...grid,
  scene,
  shares: scene.sources.map((source) => shareMap(scene, source, grid)),
});

/** All of it. */
export function fullLook(scene: Scene, grid: BoardGrid): LightMap {
  const width = Math.ceil(grid.width / BOUNCE_STEP);
  const height = Math.ceil(grid.height / BOUNCE_STEP);
  const outlines = lightOutlines(scene);
  return {
    ...grid,
    scene,
    shares: scene.sources.map((source) => shareMap(scene, source, grid)),
    outlines,
    bounced: { map: bounceMap(scene, outlines, width, height, BOUNCE_STEP * grid.mmPerPx), width, height },
  };
}

/** Bounced light along a row, between the points where it is known; what is solid has no say. @param out three numbers a point */
export function bouncedRow({ bounced, width }: LightMap, y: number, out: Float64Array): void {
  out.fill(0);
  if (!bounced) return;
  const { map } = bounced;
  const v = Math.max(0, Math.min(bounced.height - 1, (y + 0.5) / BOUNCE_STEP - 0.5));
  const top = Math.floor(v);
  const bottom = Math.min(bounced.height - 1, top + 1);
  for (let x = 0; x < width; x++) {
    const u = Math.max(0, Math.min(bounced.width - 1, (x + 0.5) / BOUNCE_STEP - 0.5));
    const left = Math.floor(u);
    const right = Math.min(bounced.width - 1, left + 1);
    let weights = 0;
    for (let k = 0; k < 4; k++) {
      const at = 3 * ((k < 2 ? top : bottom) * bounced.width + (k & 1 ? right : left));
      const weight = (k & 1 ? u - left : 1 - u + left) * (k < 2 ? 1 - v + top : v - top);
      if (weight === 0 || map[at] !== map[at]) continue;
      out[3 * x] += weight * map[at];
      out[3 * x + 1] += weight * map[at + 1];
      out[3 * x + 2] += weight * map[at + 2];
      weights += weight;
    }
    if (weights > 0 && weights < 1) for (let c = 0; c < 3; c++) out[3 * x + c] /= weights;
  }
}
