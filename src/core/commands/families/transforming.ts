import { z } from '@/core/schema';
import { defineCommand } from '@/core/commands/definition';
import { layerId, place } from '@/core/schemaParts';
import type { Layer } from '@/core/film/layer';
import { holdsFilm, holdsPixels } from '@/core/film/layerLook';
import type { Painting } from '@/core/film/painting';
import { isEmpty, type PixelRect } from '@/core/film/pixelRect';
import { flowOf } from '@/core/flow/flowing';
import { inverse3, Mesh, pivotOf, project, toCorners, turnedAbout, type Affine } from '@/core/film/carrying/warp';
import { maths } from '@/core/maths/maths';
import { randomFrom } from '@/core/surface/noise';
import type { Change } from '@/core/commands/change';
import type { Workplace } from '@/core/commands/workplace';
import { PainterError } from '@/core/errors';
import { booked } from './joining';
import { extent, fade, layOn, lifted, sheetOf } from './pieceOnLayer';
import { allChanged, needOpen, withMembers } from './layers';
import { type Carrying, carried, samplesFor, affine } from './carrying';

const transformSchema = z.strictObject({
  do: z.literal('transform').describe('Moves, scales, turns, skews or bends layers, or what is selected of them'),
  layers: z.array(layerId).min(1).max(64).optional().describe('The layer in hand where left out'),
  turn: z
    .union([z.literal(90), z.literal(180), z.literal(270)])
    .optional()
    .describe('Clockwise, about the middle of what is there: exact'),
  mirror: z.enum(['across', 'down']).optional().describe('Left for right, or top for bottom: exact'),
  matrix: z
    .array(z.number().min(-1e4).max(1e4))
    .length(6)
    .optional()
    .describe('[a, b, c, d, e, f]: x = a x + c y + e, y = b x + d y + f, mm'),
  from: z
    .array(place)
    .length(4)
    .optional()
    .describe('Corners of a rectangle: upper left, upper right, lower right, lower left'),
  corners: z.array(place).length(4).optional().describe('Where these corners go'),
  mesh: z
    .strictObject({
      columns: z.number().int().min(2).max(12),
      rows: z.number().int().min(2).max(12),
      points: z.array(place).min(4).max(144),
    })
    .optional()
    .describe('Points of a grid laid over `from`, row by row, where they go'),
  copy: z.boolean().optional().describe('What was there stays'),
});
const stampSchema = z.strictObject({
  do: z.literal('stamp').describe('Lays copies of what is selected of the layer in hand at other places'),
  at: z.array(place).min(1).max(2000).describe('Where the middle of each copy comes'),
  turnJitter: z.number().min(0).max(180).default(0).describe('Degrees to either side'),
  sizeJitter: z.number().min(0).max(0.9).default(0),
  size: z.number().min(0.05).max(10).default(1),
  seed: z
    .number()
    .int()
    .min(0)
    .max(2 ** 31 - 1)
    .default(1),
});

type Place = Pick<Workplace, 'painting' | 'keep'>;

function carryingOf(painting: Painting, command: z.output<typeof transformSchema>, box: PixelRect): Carrying {
  const { mmPerPx } = painting;
  const px = (mm: readonly number[]) => mm.map((v) => v / mmPerPx);
  // a half turn takes cells to cells about the middle of any box, and leaves it where it is
  if (command.turn === 180) return { cells: (x, y) => [box.left + box.right - 1 - x, box.top + box.bottom - 1 - y] };
  if (command.turn) return { cells: turnedAbout(command.turn, ...pivotOf(box)) };
  if (command.mirror === 'across') return { cells: (x, y) => [box.left + box.right - 1 - x, y] };
  if (command.mirror === 'down') return { cells: (x, y) => [x, box.top + box.bottom - 1 - y] };
  if (command.matrix) {
    const [a, b, c, d, e, f] = command.matrix;
    return affine([a, b, c, d, e / mmPerPx, f / mmPerPx]);
  }
  const from = command.from?.map(px);
  const area = from
    ? { left: from[0][0], top: from[0][1], right: from[2][0], bottom: from[2][1] }
    : { left: box.left, top: box.top, right: box.right, bottom: box.bottom };
  if (area.right <= area.left || area.bottom <= area.top) {
    throw new PainterError('The rectangle that is moved must go from upper left to lower right.');
  }
  const inBox = (place: readonly [number, number] | undefined) =>
    place && place[0] >= area.left && place[0] <= area.right && place[1] >= area.top && place[1] <= area.bottom
      ? place
      : undefined;
  const size = (area.right - area.left) * (area.bottom - area.top);
  if (command.corners) {
    const corners = command.corners.map((p) => px(p) as [number, number]);
    const back = inverse3(toCorners(area, corners));
    const turn = (i: number) => {
      const [p, q, r] = [corners[i], corners[(i + 1) & 3], corners[(i + 2) & 3]];
      return (q[0] - p[0]) * (r[1] - q[1]) - (q[1] - p[1]) * (r[0] - q[0]);
    };
    const turns = [0, 1, 2, 3].map(turn);
    if (!back || !(turns.every((t) => t > 0) || turns.every((t) => t < 0))) {
      throw new PainterError('These corners fold the piece over: pull them apart.');
    }
    const covered =
      Math.abs(corners.reduce((sum, [x, y], i) => sum + x * corners[(i + 1) & 3][1] - y * corners[(i + 1) & 3][0], 0)) /
      2;
    return { places: (x, y) => inBox(project(back, x, y)), samples: samplesFor(Math.sqrt(size / covered)) };
  }
  if (command.mesh) {
    const { columns, rows, points } = command.mesh;
    if (points.length !== columns * rows) {
      throw new PainterError(`A mesh of ${columns} by ${rows} has ${columns * rows} points, not ${points.length}.`);
    }
    const mesh = new Mesh(
      area,
      columns,
      rows,
      points.map((p) => px(p) as [number, number]),
    );
    return { places: mesh.from(), samples: samplesFor(1 / Math.sqrt(Math.max(1e-6, mesh.growth))) };
  }
  throw new PainterError('Say how it is to be moved: turn, mirror, matrix, corners or mesh.');
}

/** Moves, scales, turns or bends layers, or what is selected of them. @throws PainterError when nothing is there to move */
function transformLayers({ painting, keep }: Place, command: z.output<typeof transformSchema>): Change {
  const ids = command.layers ?? [painting.activeLayer];
  const layers = [...new Set(ids.flatMap((id) => withMembers(painting, needOpen(painting, id))))].filter(
    (l) => l.kind !== 'group',
  );
  for (const layer of layers) if (layer.basin) flowOf(painting).dry(keep, layer);
  const { selected, selection } = painting;
  let box = extent(painting, layers, false);
  if (selected) {
    const limits = extent(painting, [selection], true);
    box = limits;
  }
  const masks = layers.some((l) => l.look.mask);
  if (isEmpty(box) && !masks) throw new PainterError('There is nothing on the layer to move.');
  const how = carryingOf(painting, command, isEmpty(box) ? extent(painting, layers, true) : box);
  booked(painting, 'added', () => {
    for (const layer of layers) {
      const piece = lifted(painting, layer, selected);
      const moved = carried(painting, sheetOf(painting, piece, layer.look.mask?.fill ?? 255), how);
      if (!command.copy) takeAway(painting, layer, selected, keep);
      if (selected || command.copy) layOn(painting, layer, moved, keep);
      else {
        for (const [index, image] of moved) {
          keep(layer, index);
          layer.restore(index, image, painting.arena, () => painting.newBasin());
        }
      }
    }
  });
  if (selected) moveSelection(painting, how, keep);
  painting.order++;
  return allChanged(painting);
}

/** Takes off a layer what has been lifted. */
function takeAway(painting: Painting, layer: Layer, selected: boolean, keep: Workplace['keep']): void {
  layer.forEachTile((tile, index) => {
    const mask = selected ? painting.selection.tiles[index]?.mask : undefined;
    if (selected && !mask) return;
    keep(layer, index);
    if (mask)
      fade(
        painting,
        layer,
        index,
        Float32Array.from(mask, (v) => 1 - v / 255),
      );
    else {
      tile.dispose();
      layer.tiles[index] = undefined;
    }
  });
}

function moveSelection(painting: Painting, how: Carrying, keep: Workplace['keep']): void {
  const { selection, arena } = painting;
  const images = lifted(painting, selection, false);
  const moved = carried(painting, sheetOf(painting, images, 0), how);
  for (const index of new Set([...images.keys(), ...moved.keys()])) {
    keep(selection, index);
    selection.restore(index, moved.get(index), arena, () => painting.newBasin());
  }
}

/** Copies what is selected of the layer in hand (or all of it) to other places. @throws PainterError when nothing is there */
function stampPiece({ painting, keep }: Place, command: z.output<typeof stampSchema>): Change {
  const layer = needOpen(painting, painting.activeLayer);
  if (!holdsFilm(layer.kind) && !holdsPixels(layer.kind)) {
    throw new PainterError(`"${layer.name}" has nothing of its own that could be repeated.`);
  }
  if (layer.basin) flowOf(painting).dry(keep, layer);
  const { selected, selection, mmPerPx } = painting;
  const box = selected ? extent(painting, [selection], true) : extent(painting, [layer], false);
  const piece = lifted(painting, layer, selected);
  if (isEmpty(box) || piece.size === 0) throw new PainterError('Nothing is selected that could be repeated.');
  const middle = [(box.left + box.right) / 2, (box.top + box.bottom) / 2];
  const random = randomFrom(command.seed);
  booked(painting, 'added', () => {
    for (const [x, y] of command.at) {
      const angle = ((random() * 2 - 1) * command.turnJitter * Math.PI) / 180;
      const size = command.size * (1 + (random() * 2 - 1) * command.sizeJitter);
      const [cos, sin] = [maths.cos(angle) * size, maths.sin(angle) * size];
      const [tx, ty] = [x / mmPerPx, y / mmPerPx];
      const matrix: Affine = [
        cos,
        sin,
        -sin,
        cos,
        tx - cos * middle[0] + sin * middle[1],
        ty - sin * middle[0] - cos * middle[1],
      ];
      layOn(painting, layer, carried(painting, sheetOf(painting, piece, 255), affine(matrix, box)), keep);
    }
  });
  painting.order++;
  return allChanged(painting);
}

export const transform = defineCommand({ schema: transformSchema, undoable: true, apply: transformLayers });

export const stamp = defineCommand({ schema: stampSchema, undoable: true, apply: stampPiece });
