import { z } from '@/core/schema';
import { defineCommand } from '@/core/commands/definition';
import { layerId, layerName, mixtureSchema, packed } from '@/core/schemaParts';
import { unzlibSync } from 'fflate';
import { normalise, type Mixture } from '@/core/colour/mixture';
import { pigmentIndex } from '@/core/colour/pigments';
import { TILE } from '@/core/film/cells';
import { growRect, noRect } from '@/core/film/pixelRect';
import { recolourTile } from '@/core/film/carrying/recolour';
import { Wash } from '@/core/film/wash';
import { blowOff, fix } from '@/core/flow/dust';
import { fullWash, washRates } from '@/core/flow/washRates';
import { STICKS } from '@/core/marks/dry/stickForms';
import { noChange, type Change } from '@/core/commands/change';
import { tileRect, wholeRect } from '@/core/film/tilesIn';
import type { Workplace } from '@/core/commands/workplace';
import { PainterError } from '@/core/errors';
import { needOpen } from './layers';
import { needTubes } from '@/core/tools/needTubes';

const fixSchema = z.strictObject({
  do: z.literal('fix').describe('Fixes the dust of sticks on the layer: nothing smears it any more'),
});
const blowSchema = z.strictObject({
  do: z.literal('blow').describe('Blows off the dust that the tooth of the layer does not hold'),
});
const recolourSchema = z.strictObject({
  do: z.literal('layer.recolour').describe('Gives all lines of a drawing layer another colour'),
  layer: layerId,
  mixture: mixtureSchema,
});
const bringSchema = z.strictObject({
  do: z.literal('layer.bring').describe('Brings a drawing in as a layer of its own, its white paper left out'),
  name: layerName.default('Drawing'),
  widthPx: z.number().int().min(1).max(4096),
  heightPx: z.number().int().min(1).max(4096),
  dark: packed('How dark each pixel is, 0 paper .. 255, row by row', 24_000_000),
  mixture: mixtureSchema.optional().describe('What it is drawn with; graphite'),
});

/** Darkest line of a drawing that is brought in, washes of full strength. */
const DARKEST = 1.6;

/** Blows dust off the layer in hand, or fixes it. @throws PainterError when there is none */
function settleDust({ painting, keep }: Workplace, what: 'fix' | 'blow'): Change {
  needOpen(painting, painting.activeLayer);
  const tiles = (what === 'fix' ? fix : blowOff)(painting, painting.active, keep);
  if (tiles.length === 0) {
    throw new PainterError(`There is no dust on "${painting.active.name}" to ${what === 'fix' ? 'fix' : 'blow off'}.`);
  }
  const rect = noRect();
  for (const index of tiles) growRect(rect, tileRect(painting, index));
  return { ...noChange(), rect };
}

/** Coats of each pigment of a mixture in a mark of one strength. */
function lineColour(mixture: Mixture): Map<number, number> {
  const parts = new Map(Object.entries(normalise(mixture)).map(([id, part]) => [pigmentIndex(id), part]));
  const full = fullWash(parts);
  return new Map([...parts].map(([pigment, part]) => [pigment, part * full]));
}

/** Gives all lines of a drawing layer another colour. @throws PainterError when it is no drawing */
function recolourLines({ painting, keep }: Workplace, command: z.output<typeof recolourSchema>): Change {
  const layer = needOpen(painting, command.layer);
  if (layer.kind !== 'drawing') throw new PainterError(`"${layer.name}" is no drawing: replace its tubes instead.`);
  needTubes(Object.keys(command.mixture));
  const colour = lineColour(command.mixture);
  const { ledger, cellArea } = painting;
  layer.forEachTile((tile, index) => {
    keep(layer, index);
    const { gone, come } = recolourTile(painting.arena, tile, colour, (p) => washRates(p).unit);
    gone.forEach((sum, pigment) => (ledger.removed[pigment] += sum * cellArea));
    come.forEach((sum, pigment) => (ledger.loaded[pigment] += sum * cellArea));
  });
  return { ...noChange(), rect: wholeRect(painting) };
}

/**
 * Brings a drawing in from elsewhere as a layer of its own, as large as it fits the sheet; its paper is left out.
 * @throws PainterError when what was sent is no such picture
 */
function bringDrawing({ painting, keep }: Workplace, command: z.output<typeof bringSchema>): Change {
  const { widthPx, heightPx, dark, name, mixture } = command;
  if (mixture) needTubes(Object.keys(mixture));
  let values: Uint8Array;
  try {
    const packed = Uint8Array.from(atob(dark), (c) => c.charCodeAt(0));
    // room for exactly one picture of this size: whatever claims to be larger is cut off here
    values = unzlibSync(packed, { out: new Uint8Array(widthPx * heightPx) });
  } catch {
    throw new PainterError('The drawing is damaged.');
  }
  if (values.length !== widthPx * heightPx) throw new PainterError('The drawing is not of the size it says.');
  const layer = painting.addLayer('drawing', name);
  const colour = lineColour(mixture ?? STICKS.graphite.mixture);
  const { width, height, tilesX, tilesY, arena, ledger, cellArea } = painting;
  const scale = Math.min(width / widthPx, height / heightPx);
  const [left, top] = [(width - widthPx * scale) / 2, (height - heightPx * scale) / 2];
  const darkness = (x: number, y: number): number => {
    const u = (x + 0.5 - left) / scale - 0.5;
    const v = (y + 0.5 - top) / scale - 0.5;
    if (u < -0.5 || v < -0.5 || u > widthPx - 0.5 || v > heightPx - 0.5) return 0;
    const i = Math.max(0, Math.min(widthPx - 2, Math.floor(u)));
    const j = Math.max(0, Math.min(heightPx - 2, Math.floor(v)));
    const [a, b] = [Math.max(0, Math.min(1, u - i)), Math.max(0, Math.min(1, v - j))];
    const at = (di: number, dj: number) =>
      values[Math.min(heightPx - 1, j + dj) * widthPx + Math.min(widthPx - 1, i + di)] / 255;
    return (at(0, 0) * (1 - a) + at(1, 0) * a) * (1 - b) + (at(0, 1) * (1 - a) + at(1, 1) * a) * b;
  };
  for (let ty = 0; ty < tilesY; ty++) {
    for (let tx = 0; tx < tilesX; tx++) {
      const index = ty * tilesX + tx;
      const lines = new Float32Array(TILE * TILE);
      let any = false;
      for (let y = ty * TILE; y < Math.min(height, (ty + 1) * TILE); y++) {
        for (let x = tx * TILE; x < Math.min(width, (tx + 1) * TILE); x++) {
          const d = darkness(x, y) * DARKEST;
          if (d <= 0.02) continue;
          lines[(y & 63) * TILE + (x & 63)] = d;
          any = true;
        }
      }
      if (!any) continue;
      keep(layer, index);
      const tile = layer.ensureTile(index, arena);
      const wash = (tile.wash = new Wash(arena));
      for (const [pigment, coats] of colour) {
        const plane = wash.plane('loose', pigment) >> 2;
        let sum = 0;
        lines.forEach((d, i) => {
          arena.f32[plane + i] = d * coats;
          sum += d * coats;
        });
        ledger.loaded[pigment] += sum * cellArea;
      }
      tile.version++;
    }
  }
  painting.order++;
  return { ...noChange(), rect: wholeRect(painting), layers: true };
}

/** Fixes the dust of sticks. */
export const fixDust = defineCommand({ schema: fixSchema, undoable: true, apply: (place) => settleDust(place, 'fix') });

/** Blows off what the tooth does not hold. */
export const blowDust = defineCommand({
  schema: blowSchema,
  undoable: true,
  apply: (place) => settleDust(place, 'blow'),
});

export const recolour = defineCommand({ schema: recolourSchema, undoable: true, apply: recolourLines });

export const bring = defineCommand({ schema: bringSchema, undoable: true, addsLayer: true, apply: bringDrawing });
