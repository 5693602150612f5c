import { FRAME } from '@/core/film/basin';
import type { Layer } from '@/core/film/layer';
import type { Painting } from '@/core/film/painting';
import { flowOf, type BeforeTile } from './flowing';

/** Film that a full mist adds where there is film, washes; share of what the paper holds that it is wetted to. */
const FILM = 0.25;
const DAMPS = 0.8;

/** Sprays clear water over a layer: films get deeper, bare paper gets damp. */
export function mist(painting: Painting, layer: Layer, amount: number, before: BeforeTile): void {
  const flow = flowOf(painting);
  const basin = flow.basin(layer);
  const { arena, width, height } = painting;
  let added = 0;
  for (let index = 0; index < basin.state.length; index++) {
    before(layer, index);
    flow.dampen(layer, index);
    const { f32 } = arena;
    const { side, factor } = basin;
    const tx = index % basin.tilesX;
    const ty = Math.floor(index / basin.tilesX);
    for (let y = 0; y < side; y++) {
      if ((ty * side + y) * factor >= height) break;
      for (let x = 0; x < side; x++) {
        if ((tx * side + x) * factor >= width) break;
        const i = (ty * side + y + 1) * basin.stride + tx * side + x + FRAME;
        const share = f32[basin.at.share + i];
        const film = FILM * amount * share;
        const damp = f32[basin.at.moisture + i];
        const soaked = Math.max(0, DAMPS * amount * flow.bed.capacity - damp) * (1 - share);
        f32[basin.at.water + i] += film;
        f32[basin.at.moisture + i] += soaked;
        added += film + soaked;
      }
    }
  }
  painting.ledger.water.loaded += added * flow.microlitres;
}
