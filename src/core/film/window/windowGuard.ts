import type { Guard } from '@/core/film/guard';
import type { Painting } from '@/core/film/painting';
import { TILE } from '@/core/film/tile';
import type { WindowPlanes } from './windowPlanes';

/** Puts back what the tool did in cells that are shut, and enters what it laid there as removed. */
export function holdBack(
  w: WindowPlanes,
  painting: Painting,
  guard: Guard,
  rubbing: boolean,
  tx: number,
  ty: number,
): void {
  const { channels: n, stride } = w;
  const index = ty * painting.tilesX + tx;
  const shares = guard.shares(index);
  if (shares?.every((v) => v === 255)) return;
  const { pigments, planes, skin } = guard.film(index);
  const { f32 } = painting.arena;
  const places = w.pigments.map((p) => pigments.indexOf(p));
  for (let i = 0; i < TILE * TILE; i++) {
    const share = shares ? shares[i] / 255 : 0;
    const cell = (ty * TILE - w.y0 + (i >> 6)) * w.width + tx * TILE - w.x0 + (i & 63);
    if (rubbing) f32[(w.laid >> 2) + cell] *= share;
    if (share > 0) continue;
    const o = (w.film >> 2) + cell * stride;
    w.pigments.forEach((pigment, k) => {
      const was = places[k] < 0 ? 0 : planes[places[k]][i];
      painting.ledger.removed[pigment] += (f32[o + k] - was) * painting.cellArea;
      f32[o + k] = was;
      f32[o + n + k] = places[k] < 0 ? 0 : (skin[places[k]]?.[i] ?? 0);
    });
    f32[o + n - 1] = planes[pigments.length]?.[i] ?? 0;
    f32[o + 2 * n - 1] = skin[pigments.length]?.[i] ?? 0;
    f32[(w.body >> 2) + cell] = planes[pigments.length + 1]?.[i] ?? 0;
    f32[(w.cure >> 2) + cell] = planes[pigments.length + 2]?.[i] ?? 0;
    f32[(w.laid >> 2) + cell] = 0;
  }
}
