import { unzlibSync, zlibSync } from 'fflate';
import { z } from '@/core/schema';
import { FIRST_OWN, pigmentId, pigmentIndex } from '@/core/colour/pigments';
import type { Change } from '@/core/commands/change';
import { defineCommand } from '@/core/commands/definition';
import { needRoom } from '@/core/commands/memoryBudget';
import type { Workplace } from '@/core/commands/workplace';
import { PainterError } from '@/core/errors';
import { OWN_ID } from '@/core/colour/ownPaints';
import { TILE, TILE_CELLS } from '@/core/film/cells';
import { holdsFilm, holdsPixels } from '@/core/film/layerLook';
import type { Painting } from '@/core/film/painting';
import { growRect, isEmpty, noRect, type PixelRect } from '@/core/film/pixelRect';
import { planesOf } from '@/core/film/packing/planeSet';
import { checkTile } from '@/core/film/packing/tileBounds';
import { undated } from '@/core/film/packing/stratum';
import { decodeTile, encodeTile } from '@/core/film/packing/tileCodec';
import type { TileImage } from '@/core/film/tile';
import { flowOf } from '@/core/flow/flowing';
import { place } from '@/core/schemaParts';
import { needTubes } from '@/core/tools/needTubes';
import { affine, carried } from './carrying';
import { booked } from './joining';
import { allChanged, needOpen } from './layers';
import { layOn, lifted } from './pieceOnLayer';
import { withOwnIndices } from './ownIndices';

/** Bytes of tiles in a piece at most, before they are packed; and characters of what they are packed into. */
const MOST_BYTES = 400 * 2 ** 20;
const MOST_TEXT = 48 * 2 ** 20;

/** A piece of a painting: tiles of one layer as they lay there, with what they need to be laid elsewhere. */
export const pieceSchema = z.strictObject({
  ppi: z.number().min(30).max(1200),
  width: z.number().int().min(1).max(100_000).describe('Cells of the painting it comes from'),
  height: z.number().int().min(1).max(100_000),
  holds: z.enum(['film', 'pixels']),
  own: z
    .array(z.strictObject({ index: z.number().int().min(FIRST_OWN), id: z.string().regex(OWN_ID) }))
    .max(48)
    .default([])
    .describe('Own paints in it, by the index that they have in its tiles'),
  bytes: z.number().int().min(8).max(MOST_BYTES).describe('Of the tiles, unpacked'),
  tiles: z
    .string()
    .max(MOST_TEXT)
    .describe('zlib in base64; for each tile its place in rows (u32), its length (u32) and its bytes as in files'),
});
export type Piece = z.output<typeof pieceSchema>;

const schema = z.strictObject({
  do: z.literal('paste').describe('Lays a piece of this painting, or of another, onto the layer in hand'),
  piece: pieceSchema,
  at: place.optional().describe('Where its middle comes, mm; where it was, where this is left out'),
});

/** A copy of what is on the layer in hand, or of what is selected of it. @throws PainterError when there is nothing */
export function copyPiece(painting: Painting): Piece {
  const layer = needOpen(painting, painting.activeLayer);
  const holds = holdsPixels(layer.kind) ? 'pixels' : holdsFilm(layer.kind) ? 'film' : undefined;
  if (!holds) throw new PainterError(`"${layer.name}" has nothing of its own that could be copied.`);
  const parts: Uint8Array[] = [];
  const own = new Set<number>();
  for (const [index, image] of lifted(painting, layer, painting.selected)) {
    // water stays in the sheet, a mask belongs to the layer, and it dries anew where it comes to lie
    const tile = encodeTile({ ...image, strata: undated(image.strata), water: undefined, mask: undefined });
    const head = new Uint8Array(8);
    new DataView(head.buffer).setUint32(0, index, true);
    new DataView(head.buffer).setUint32(4, tile.length, true);
    parts.push(head, tile);
    const all = [...image.pigments, ...image.strata.flatMap((s) => s.pigments), ...(image.wash?.pigments ?? [])];
    for (const pigment of all) if (pigment >= FIRST_OWN) own.add(pigment);
  }
  const bytes = parts.reduce((sum, part) => sum + part.length, 0);
  if (bytes === 0) throw new PainterError('There is nothing on the layer, or in the selection, that could be copied.');
  const { width, height, spec } = painting;
  if (bytes > MOST_BYTES) throw new PainterError('This piece is too large to be copied: select less of it.');
  const raw = new Uint8Array(bytes);
  let at = 0;
  for (const part of parts) {
    raw.set(part, at);
    at += part.length;
  }
  const tiles = toBase64(zlibSync(raw, { level: 6 }));
  if (tiles.length > MOST_TEXT) throw new PainterError('This piece is too large to be copied: select less of it.');
  return {
    ppi: spec.ppi,
    width,
    height,
    holds,
    own: [...own].map((index) => ({ index, id: pigmentId(index) })),
    bytes,
    tiles,
  };
}

/** Tiles of a piece, with the indices that its paints have here. @throws PainterError when it is damaged */
function tilesOf({ tiles, bytes, own, width, height }: Piece): Map<number, TileImage> {
  needTubes(own.map(({ id }) => id));
  const here = new Map(own.map(({ index, id }) => [index, pigmentIndex(id)]));
  const found = new Map<number, TileImage>();
  const most = Math.ceil(width / TILE) * Math.ceil(height / TILE);
  try {
    // room for exactly what it says: whatever claims to be larger is cut off here
    const raw = unzlibSync(fromBase64(tiles), { out: new Uint8Array(bytes) });
    if (raw.length !== bytes) throw new RangeError('The piece is damaged.');
    const view = new DataView(raw.buffer, raw.byteOffset, raw.byteLength);
    for (let at = 0; at < raw.length;) {
      const [index, length] = [view.getUint32(at, true), view.getUint32(at + 4, true)];
      at += 8;
      if (index >= most || at + length > raw.length) throw new RangeError('The piece is damaged.');
      const image = decodeTile(raw.slice(at, at + length));
      checkTile(image);
      found.set(index, withOwnIndices(image, here));
      at += length;
    }
  } catch {
    throw new PainterError('The piece is damaged.');
  }
  return found;
}

/** Cells on which a piece has something. */
function boxOf(tiles: ReadonlyMap<number, TileImage>, tilesX: number): PixelRect {
  const box = noRect();
  for (const [index, image] of tiles) {
    const [left, top] = [(index % tilesX) * TILE, Math.floor(index / tilesX) * TILE];
    const there = new Uint8Array(TILE_CELLS);
    for (const plane of planesOf(image).values()) plane.forEach((v, i) => v > 0 && (there[i] = 1));
    there.forEach((v, i) => {
      if (!v) return;
      const [x, y] = [left + (i & 63), top + (i >> 6)];
      growRect(box, { left: x, top: y, right: x + 1, bottom: y + 1 });
    });
  }
  return box;
}

function pastePiece({ painting, keep }: Workplace, { piece, at }: z.output<typeof schema>): Change {
  const layer = needOpen(painting, painting.activeLayer);
  const fits = piece.holds === 'pixels' ? holdsPixels(layer.kind) : holdsFilm(layer.kind);
  if (!fits) {
    throw new PainterError(
      piece.holds === 'pixels'
        ? `This piece is a picture: choose a picture layer for it instead of "${layer.name}".`
        : `This piece is paint: choose a layer of paint for it instead of "${layer.name}".`,
    );
  }
  needRoom(painting, piece.bytes);
  const tiles = tilesOf(piece);
  const tilesX = Math.ceil(piece.width / TILE);
  const box = boxOf(tiles, tilesX);
  if (isEmpty(box)) throw new PainterError('There is nothing in this piece.');
  const scale = painting.spec.ppi / piece.ppi;
  const middle = [(box.left + box.right) / 2, (box.top + box.bottom) / 2];
  const to = at?.map((mm) => mm / painting.mmPerPx) ?? middle.map((v) => v * scale);
  const [dx, dy] = [to[0] - middle[0] * scale, to[1] - middle[1] * scale];
  const how = affine([scale, 0, 0, scale, dx, dy], box);
  const { width, height } = piece;
  const moved = carried(painting, { tilesX, width, height, maskFill: 255, tile: (index) => tiles.get(index) }, how);
  if (moved.size === 0) throw new PainterError('This piece would lie beside the canvas.');
  if (layer.basin) flowOf(painting).dry(keep, layer);
  booked(painting, 'added', () => layOn(painting, layer, moved, keep));
  painting.order++;
  return allChanged(painting);
}

function toBase64(bytes: Uint8Array): string {
  let text = '';
  for (let i = 0; i < bytes.length; i += 0x8000) text += String.fromCharCode(...bytes.subarray(i, i + 0x8000));
  return btoa(text);
}

const fromBase64 = (text: string): Uint8Array => Uint8Array.from(atob(text), (c) => c.charCodeAt(0));

export const paste = defineCommand({
  schema,
  undoable: true,
  tubes: ({ piece }) => piece.own.map(({ id }) => id),
  apply: pastePiece,
});
