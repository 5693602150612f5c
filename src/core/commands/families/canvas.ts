import { z } from '@/core/schema';
import { defineCommand } from '@/core/commands/definition';
import { Layer } from '@/core/film/layer';
import { gridOf, Painting, type PaintingSpec } from '@/core/film/painting';
import { permuteTile, type FromCell, type Sheet } from '@/core/film/carrying/resample';
import type { TileImage } from '@/core/film/tile';
import { TILE } from '@/core/film/cells';
import { flowOf } from '@/core/flow/flowing';
import { allChanged } from './layers';
import type { Workplace } from '@/core/commands/workplace';
import { MAX_CELLS } from '@/core/commands/memoryBudget';
import { PainterError } from '@/core/errors';
import { booked } from './joining';

const schema = z.strictObject({
  do: z.literal('canvas').describe('Cuts or extends the canvas, or turns or mirrors the whole painting'),
  turn: z.union([z.literal(90), z.literal(180), z.literal(270)]).optional(),
  mirror: z.enum(['across', 'down']).optional(),
  leftMm: z.number().min(-5000).max(5000).default(0).describe('How much comes on at the left; less than 0 is cut off'),
  topMm: z.number().min(-5000).max(5000).default(0),
  rightMm: z.number().min(-5000).max(5000).default(0),
  bottomMm: z.number().min(-5000).max(5000).default(0),
});
type CanvasCommand = z.output<typeof schema>;

/** The identity, as `placed` says it. */
const PLAIN: readonly number[] = [1, 0, 0, 1, 0, 0];
/** Smallest canvas, cells. */
const LEAST = 16;

/** First through one map of cells, then through another. */
const after = ([a, b, c, d, e, f]: readonly number[], [p, q, r, s, t, u]: readonly number[]): number[] => [
  a * p + c * q,
  b * p + d * q,
  a * r + c * s,
  b * r + d * s,
  a * t + c * u + e,
  b * t + d * u + f,
];

/** Where the cells of the new canvas lie on the old one, and how large it is. */
function layout({ width, height, mmPerPx }: Painting, command: CanvasCommand) {
  const cells = (mm: number) => Math.round(mm / mmPerPx);
  const [left, top] = [cells(command.leftMm), cells(command.topMm)];
  let size = { width: width + left + cells(command.rightMm), height: height + top + cells(command.bottomMm) };
  let map: number[] = [1, 0, 0, 1, -left, -top];
  const [w, h] = [size.width, size.height];
  const { turn, mirror } = command;
  if (turn === 90) map = after(map, [0, -1, 1, 0, 0, h - 1]);
  if (turn === 180) map = after(map, [-1, 0, 0, -1, w - 1, h - 1]);
  if (turn === 270) map = after(map, [0, 1, -1, 0, w - 1, 0]);
  if (turn === 90 || turn === 270) size = { width: h, height: w };
  if (mirror === 'across') map = after(map, [-1, 0, 0, 1, size.width - 1, 0]);
  if (mirror === 'down') map = after(map, [1, 0, 0, -1, 0, size.height - 1]);
  return { map, size };
}

/**
 * The painting on another canvas: cut, extended, turned or mirrored, with every cell as it was.
 * @returns a painting of its own in the same memory; the old one is left empty
 * @throws PainterError when it would be too small or too large
 */
function onOtherCanvas({ painting, keep, begun }: Workplace, command: CanvasCommand): Painting {
  const { map, size } = layout(painting, command);
  if (size.width < LEAST || size.height < LEAST) throw new PainterError('Nothing would be left of the canvas.');
  if (size.width * size.height > MAX_CELLS) {
    throw new PainterError(`That is more than ${MAX_CELLS / 1e6} million cells; extend it less.`);
  }
  const { mmPerPx, spec, arena, ledger } = painting;
  const placed = after(spec.placed ?? PLAIN, map);
  const first = gridOf(begun);
  const back = placed.every((v, i) => v === PLAIN[i]) && size.width === first.width && size.height === first.height;
  const next: PaintingSpec = back
    ? { ...spec, widthMm: begun.widthMm, heightMm: begun.heightMm, placed: undefined }
    : { ...spec, widthMm: size.width * mmPerPx, heightMm: size.height * mmPerPx, placed };
  for (const layer of painting.layers) if (layer.basin) flowOf(painting).dry(keep, layer);
  const fresh = new Painting(next, arena, ledger);
  const [a, b, c, d, e, f] = map;
  const from: FromCell = (x, y) => [a * x + c * y + e, b * x + d * y + f];
  booked(painting, 'removed', () => {
    const lay = (layer: Layer, into: Layer) => {
      const images = new Map<number, TileImage>();
      layer.forEachTile((_, index) => {
        keep(layer, index);
        images.set(index, layer.capture(index, arena)!);
      });
      painting.disposeLayer(layer);
      const sheet: Sheet = {
        tilesX: painting.tilesX,
        width: painting.width,
        height: painting.height,
        maskFill: layer.look.mask?.fill ?? (layer === painting.selection ? 0 : 255),
        tile: (index) => images.get(index),
      };
      for (let index = 0; images.size > 0 && index < fresh.tilesX * fresh.tilesY; index++) {
        const [left, top] = [(index % fresh.tilesX) * TILE, Math.floor(index / fresh.tilesX) * TILE];
        const image = permuteTile(sheet, left, top, fresh, from, index);
        if (image) into.restore(index, image, arena, () => fresh.newBasin());
      }
    };
    fresh.layers = painting.layers.map((layer) => {
      const into = new Layer(layer.id, layer.name, layer.kind, fresh.tilesX * fresh.tilesY);
      into.look = layer.look;
      lay(layer, into);
      return into;
    });
    lay(painting.selection, fresh.selection);
    // what the ledger counts lies on the new canvas now
    painting.layers = fresh.layers;
  });
  fresh.layersMade = painting.layersMade;
  fresh.choose(painting.activeLayer, painting.part);
  fresh.flow = { ...painting.flow, salt: [] };
  return fresh;
}

/** Cuts, extends, turns or mirrors the canvas. */
export const canvas = defineCommand({
  schema,
  undoable: true,
  apply(place, command) {
    const fresh = onOtherCanvas(place, command);
    place.setCanvas(fresh);
    return { ...allChanged(fresh), canvas: true };
  },
});
