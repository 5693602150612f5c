import { WASH_UM } from '@/core/film/basin';
import type { Arena } from '@/core/film/arena';
import { factOfTiles, tilesSerial } from '@/core/film/layerFacts';
import { TILE_CELLS, type Tile } from '@/core/film/tile';
import { MOST_BYTES, paintingBytes } from '@/core/commands/memoryBudget';
import type { Studio } from '@/core/journal/studio';
import type { Pace } from '@/engine/time/pace';
import type { BenchState } from './protocol';
import type { WaterClock } from '@/engine/time/waterClock';

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
    canUndo: studio.timeline.canUndo,
    canRedo: studio.timeline.canRedo,
    activeLayer: painting.activeLayer,
    onMask: painting.part === 'mask',
    selection: painting.selected ? 1 + tilesSerial(painting.selection) : 0,
    memory: paintingBytes(painting),
    memoryMost: MOST_BYTES,
    strokes: studio.state.strokes,
    water: studio.time.hasWater,
    clock: clock.pace,
    clockLag: clock.lag(studio.time.wetTiles),
    tilt: painting.flow.tilt,
    brushFilmUm: tools.brushFilm * WASH_UM,
    slabUsed: studio.slab.active.tiles.some((tile) => tile?.volume),
    layers: painting.layers.map((layer) => {
      const { film, tacky, dusty, strata, tiles, thicknessUm } = paintOf(layer, painting.arena);
      return {
        id: layer.id,
        name: layer.name,
        kind: layer.kind,
        visible: layer.visible,
        opacity: layer.opacity,
        locked: layer.look.locked,
        blend: layer.look.blend,
        clip: layer.look.clip,
        group: layer.look.group,
        mask: layer.look.mask,
        onlyPaint: layer.look.onlyPaint,
        wetThrough: layer.look.wetThrough,
        impress: layer.look.impress,
        adjust: layer.look.adjust,
        dusty,
        wet: film || (layer.basin !== undefined && tiles > 0),
        tacky,
        dry: strata > 0,
        strata,
        thicknessUm,
      };
    }),
  };
}

/** Every so manyeth cell is looked at to say how thick a layer is. */
const STEP = 37;
const thicknesses = new WeakMap<Tile, { version: number; um: number; cells: number }>();

/** Thickness of a tile's paint, summed over some of its cells. */
function thickness(arena: Arena, tile: Tile): { um: number; cells: number } {
  let known = thicknesses.get(tile);
  if (known?.version === tile.version) return known;
  const { f32 } = arena;
  known = { version: tile.version, um: 0, cells: 0 };
  for (let i = 0; i < TILE_CELLS; i += STEP) {
    const um = (tile.volume ? f32[(tile.volume >> 2) + i] : 0) + (tile.sealed ? f32[(tile.sealed >> 2) + i] : 0);
    if (um < 1) continue;
    known.um += um;
    known.cells++;
  }
  thicknesses.set(tile, known);
  return known;
}

/** What kinds of paint a layer has, on how many tiles, and how thick it is where there is some, um. */
const paintOf = factOfTiles((layer, arena: Arena) => {
  const paint = { film: false, tacky: false, dusty: false, strata: 0, tiles: 0, thicknessUm: 0 };
  let sum = 0;
  let count = 0;
  layer.forEachTile((tile) => {
    paint.tiles++;
    paint.film ||= tile.volume !== 0;
    paint.tacky ||= tile.cure !== 0;
    paint.dusty ||= tile.wash?.dusty === true;
    paint.strata = Math.max(paint.strata, tile.strata.length + (tile.wash && tile.wash.pigments.length > 0 ? 1 : 0));
    if (!tile.volume && !tile.sealed) return;
    const { um, cells } = thickness(arena, tile);
    sum += um;
    count += cells;
  });
  return { ...paint, thicknessUm: count > 0 ? sum / count : 0 };
});
