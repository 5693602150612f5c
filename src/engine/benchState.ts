import { WASH_UM } from '@/core/film/basin';
import type { Layer } from '@/core/film/layer';
import type { Painting } from '@/core/film/painting';
import { MOST_BYTES, paintingBytes } from '@/core/journal/room';
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
    onMask: painting.part === 'mask',
    selection: painting.selected ? selectionSerial(painting) : 0,
    memory: paintingBytes(painting),
    memoryMost: MOST_BYTES,
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
        wet,
        tacky,
        dry: strata > 0,
        strata,
        thicknessUm: meanThickness(painting, layer),
      };
    }),
  };
}

/** Changes whenever the selection does. */
const selectionSerial = ({ selection }: Painting): number =>
  1 + selection.tiles.reduce((sum, tile, i) => sum + (tile ? (tile.version % 1e9) * (i + 1) : 0), 0);

/** Every so manyeth cell is looked at to say how thick a layer is. */
const STEP = 37;
const thicknesses = new WeakMap<object, { version: number; um: number; cells: number }>();

/** Mean thickness of a layer's paint where there is some, um. */
function meanThickness(painting: Painting, layer: Layer): number {
  let sum = 0;
  let count = 0;
  layer.forEachTile((tile) => {
    if (!tile.volume && !tile.sealed) return;
    let known = thicknesses.get(tile);
    if (known?.version !== tile.version) {
      const { f32 } = painting.arena;
      known = { version: tile.version, um: 0, cells: 0 };
      for (let i = 0; i < 4096; i += STEP) {
        const um = (tile.volume ? f32[(tile.volume >> 2) + i] : 0) + (tile.sealed ? f32[(tile.sealed >> 2) + i] : 0);
        if (um < 1) continue;
        known.um += um;
        known.cells++;
      }
      thicknesses.set(tile, known);
    }
    sum += known!.um;
    count += known!.cells;
  });
  return count > 0 ? sum / count : 0;
}
