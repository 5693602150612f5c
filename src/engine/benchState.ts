import { WASH_UM } from '@/core/film/basin';
import type { Studio } from '@/core/journal/studio';
import type { Pace } from './pace';
import type { BenchState } from './protocol';
import type { WaterClock } from './waterClock';

/** What the page shows of the tools, the layers and the water. */
export function benchState(studio: Studio, pace: Pace, clock: WaterClock): BenchState {
  const { painting, tools } = studio;
  const { level, mixture } = tools.carried();
  return {
    tool: tools.current,
    tools: [...tools.capture().settings.values()],
    level,
    mixture,
    pace: pace.of(tools.current),
    canUndo: studio.canUndo,
    canRedo: studio.canRedo,
    activeLayer: painting.activeLayer,
    memory: painting.arena.used,
    strokes: studio.strokes,
    water: studio.hasWater,
    clock: clock.pace,
    clockLag: clock.lag(studio.wetTiles),
    tilt: painting.flow.tilt,
    brushFilmUm: tools.brushFilm * WASH_UM,
    slabUsed: studio.slab.active.tiles.some((tile) => tile?.volume),
    layers: painting.layers.map((layer) => {
      let wet = false;
      let tacky = false;
      let strata = 0;
      let dusty = false;
      layer.forEachTile((tile) => {
        wet ||= tile.volume !== 0 || layer.basin !== undefined;
        tacky ||= tile.cure !== 0;
        dusty ||= tile.wash?.dusty === true;
        strata = Math.max(strata, tile.strata.length + (tile.wash && tile.wash.pigments.length > 0 ? 1 : 0));
      });
      return {
        id: layer.id,
        name: layer.name,
        kind: layer.kind,
        visible: layer.visible,
        opacity: layer.opacity,
        dusty,
        wet,
        tacky,
        dry: strata > 0,
        strata,
      };
    }),
  };
}
