import { describe, expect, it } from 'vitest';
import { encodeTile } from '@/core/film/packing/tileCodec';
import { albedoOf } from '@/core/picture/layers/albedo';
import { Picture } from '@/core/picture/picture';
import { readSpot } from '@/core/picture/readings';
import { wholeRect } from '@/core/film/tilesIn';
import { commandSchema, type CommandInput } from '@/core/commands/commands';
import { digest } from '@/core/journal/digest';
import { type Studio } from '@/core/journal/studio';
import { hash, stroke, expectBalance, play, small } from '@/measure/layersBench';

/** A small painting with everything on it: wet and dry paint in several strata, dust, a dry wash. */
function rich(): Studio {
  const studio = small();
  const act = (...commands: CommandInput[]) => commands.forEach((c) => studio.apply(commandSchema.parse(c)));
  act({ do: 'tool', tool: 'flat', sizeMm: 5, thin: 0 }, { do: 'load', mixture: { PB29: 1, PW6: 1 }, amount: 1 });
  act(stroke([8, 8], [19, 10]), { do: 'dry' });
  act({ do: 'load', mixture: { PY35: 1 }, amount: 1 }, stroke([12, 6], [13, 17]), { do: 'dry' });
  act({ do: 'tool', tool: 'pastel-soft', sizeMm: 4, into: 'layer' }, stroke([9, 14], [18, 13]));
  act({ do: 'tool', tool: 'wash-round', sizeMm: 4 }, { do: 'load', mixture: { PR83: 1 }, amount: 1, water: 0.6 });
  act(stroke([10, 11], [17, 15]), { do: 'dry' });
  act({ do: 'tool', tool: 'round', sizeMm: 3 }, { do: 'load', mixture: { PG7: 1, PW6: 1 }, amount: 1 });
  act(stroke([10, 9], [16, 14], [12, 16]));
  return studio;
}

describe('turning and mirroring', () => {
  const tiles = (studio: Studio) =>
    studio.painting.layers.flatMap((layer) => {
      const found: string[] = [];
      layer.forEachTile((tile, index) => {
        if (!tile.bare)
          found.push(`${layer.id}:${index}:${hash(encodeTile(layer.capture(index, studio.painting.arena)!))}`);
      });
      return found;
    });
  const times = (n: number, command: CommandInput, studio = rich()) => {
    const before = digest(studio);
    const there = tiles(studio);
    studio.apply(commandSchema.parse(command));
    expect(tiles(studio)).not.toEqual(there);
    for (let i = 1; i < n; i++) studio.apply(commandSchema.parse(command));
    expect(tiles(studio)).toEqual(there);
    return { before, after: digest(studio) };
  };

  it('a layer turned four times, or mirrored twice, is the same bytes', () => {
    for (const command of [{ turn: 90 }, { turn: 270 }] as const) {
      const { before, after } = times(4, { do: 'transform', ...command });
      expect(after).toBe(before);
    }
    for (const command of [{ turn: 180 }, { mirror: 'across' }, { mirror: 'down' }] as const) {
      const { before, after } = times(2, { do: 'transform', ...command });
      expect(after).toBe(before);
    }
  });

  it('so is the whole painting, with its surface', () => {
    for (const [n, command] of [
      [4, { turn: 90 }],
      [2, { mirror: 'across' }],
      [2, { turn: 180 }],
    ] as const) {
      const { before, after } = times(n, { do: 'canvas', ...command });
      expect(after).toBe(before);
    }
    const studio = rich();
    const { um, size } = studio.painting.surface;
    const { width, height } = studio.painting;
    studio.apply(commandSchema.parse({ do: 'canvas', turn: 90 }));
    expect([studio.painting.width, studio.painting.height]).toEqual([height, width]);
    for (const [x, y] of [
      [0, 0],
      [7, 31],
      [50, 90],
    ]) {
      const turned = studio.painting.surface;
      expect(turned.um[y * turned.size + x]).toBe(um[((height - 1 - x) % size) * size + (y % size)]);
    }
  });

  it('is mirrored as a mirror does, and moved by whole cells exactly', () => {
    const studio = rich();
    const { painting } = studio;
    const { width } = painting;
    const before = albedoOf(painting).raster(wholeRect(painting));
    studio.apply(commandSchema.parse({ do: 'canvas', mirror: 'across' }));
    const after = albedoOf(studio.painting).raster(wholeRect(studio.painting));
    let same = 0;
    before.forEach((code, i) => {
      const [x, y] = [i % width, Math.floor(i / width)];
      if (after[y * width + width - 1 - x] === code) same++;
    });
    expect(same / before.length).toBe(1);
  });
});

describe('a piece that is laid down turned', () => {
  it('leaves nothing beyond the edge of the sheet, where a tool would find it', () => {
    for (const [x, y, turnJitter] of [
      [29, 0, 40],
      [30, 23, 170],
      [27, 24, 90],
      [14, 24, 10],
    ]) {
      const studio = small();
      play(studio, [
        { do: 'load', mixture: { PY35: 1 }, amount: 1 },
        stroke([4, 4]),
        { do: 'stamp', at: [[x, y]], turnJitter },
      ]);
      const { width, height, tilesX, arena, layers } = studio.painting;
      for (const layer of layers)
        layer.forEachTile((tile, index) => {
          const [left, top] = [(index % tilesX) * 64, Math.floor(index / tilesX) * 64];
          for (let i = 0; tile.volume && i < 4096; i++) {
            if (left + (i & 63) < width && top + (i >> 6) < height) continue;
            expect(arena.f32[(tile.volume >> 2) + i]).toBe(0);
          }
        });
      play(studio, [stroke([20, y], [28, y - 1])]);
      expectBalance(studio);
    }
  });
});

describe('scaling', () => {
  it('carries the thickness, so that mass grows with the area', () => {
    for (const [scale, seed] of [
      [1.5, 1],
      [0.6, 2],
      [0.4, 3],
    ] as const) {
      const studio = small(undefined, { seed });
      for (const c of [
        {
          do: 'silhouette',
          outline: [
            [12, 9],
            [18, 9],
            [18, 15],
            [12, 15],
          ],
          mixture: { PB29: 1, PW6: 1 },
          thicknessUm: 80,
        },
        { do: 'dry' },
        {
          do: 'silhouette',
          outline: [
            [13, 10],
            [17, 10],
            [17, 14],
            [13, 14],
          ],
          mixture: { PY35: 1 },
          thicknessUm: 50,
        },
      ] as CommandInput[])
        studio.apply(commandSchema.parse(c));
      const mass = () => {
        const { film, strata } = studio.painting.massOnCanvas();
        return { wet: film.reduce((a, b) => a + b, 0), dry: strata.reduce((a, b) => a + b, 0) };
      };
      const before = mass();
      studio.apply(
        commandSchema.parse({ do: 'transform', matrix: [scale, 0, 0, scale, 15 * (1 - scale), 12 * (1 - scale)] }),
      );
      const after = mass();
      expect(after.wet / before.wet / scale ** 2).toBeCloseTo(1, 1.7);
      expect(after.dry / before.dry / scale ** 2).toBeCloseTo(1, 1.7);
      const spot = readSpot(
        new Picture(studio.painting),
        Math.round(15 / studio.painting.mmPerPx),
        Math.round(12 / studio.painting.mmPerPx),
      );
      expect(spot.thicknessUm).toBeCloseTo(130, 0);
      expectBalance(studio);
    }
  });
});
