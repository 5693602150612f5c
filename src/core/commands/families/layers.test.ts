import { zlibSync } from 'fflate';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { deltaE2000 } from '@/core/colour/deltaE2000';
import { decodeTile, encodeTile } from '@/core/film/packing/tileCodec';
import { albedoOf } from '@/core/picture/layers/albedo';
import { Picture } from '@/core/picture/picture';
import { line, loaded, paint, studioFor } from '@/measure/bench';
import { runs } from '@/measure/thorough';
import { wholeRect } from '@/core/film/tilesIn';
import { commandSchema, type CommandInput } from '@/core/commands/commands';
import { digest } from '@/core/journal/digest';
import { encodeStudioState, restoreStudioState, studioStateSchema } from '@/core/journal/snapshot';
import { type Studio } from '@/core/journal/studio';
import { hash, stroke, expectBalance, play, id, small } from '@/measure/layersBench';

const base64 = (bytes: Uint8Array) => Buffer.from(bytes).toString('base64');

/** A small picture whose pixels are given by a function. */
const picture = (
  widthPx: number,
  heightPx: number,
  pixel: (x: number, y: number) => number[],
  rest = {},
): CommandInput => {
  const bytes = new Uint8Array(widthPx * heightPx * 4);
  for (let y = 0; y < heightPx; y++) for (let x = 0; x < widthPx; x++) bytes.set(pixel(x, y), (y * widthPx + x) * 4);
  return { do: 'layer.picture', widthPx, heightPx, rgba: base64(zlibSync(bytes)), ...rest };
};

const gradient = picture(8, 8, (x, y) => [x * 36, y * 36, 128, 255]);

const xy = fc.tuple(fc.double({ min: -2, max: 32, noNaN: true }), fc.double({ min: -2, max: 26, noNaN: true }));

const anyAct: fc.Arbitrary<CommandInput> = fc.oneof(
  { weight: 5, arbitrary: fc.array(xy, { minLength: 1, maxLength: 4 }).map((places) => stroke(...places)) },
  {
    weight: 3,
    arbitrary: fc.constantFrom<CommandInput>(
      { do: 'tool', tool: 'flat', sizeMm: 8 },
      { do: 'tool', tool: 'knife', sizeMm: 8 },
      { do: 'tool', tool: 'spray', sizeMm: 12 },
      { do: 'tool', tool: 'eraser', sizeMm: 5 },
      { do: 'tool', tool: 'pastel-soft', sizeMm: 6 },
      { do: 'tool', tool: 'wash-round', sizeMm: 6, grey: 0.3 },
      { do: 'load', mixture: { PB29: 1, PW6: 2 }, amount: 1 },
      { do: 'load', mixture: { PY35: 1 }, amount: 1 },
    ),
  },
  {
    weight: 5,
    arbitrary: fc.oneof(
      fc.constantFrom<CommandInput>(
        { do: 'layer.add' },
        { do: 'layer.add', kind: 'tone' },
        { do: 'layer.add', kind: 'group' },
        { do: 'layer.add', kind: 'adjust', adjust: { kind: 'blur', radiusMm: 1 } },
        { do: 'layer.add', kind: 'adjust', adjust: { kind: 'levels', all: { black: 0.1, gamma: 1.4 } } },
        gradient,
        { do: 'layer.copy-all' },
        { do: 'layer.soften' },
        { do: 'layer.values' },
        { do: 'undo' },
        { do: 'redo' },
        { do: 'dry' },
      ),
      id.chain((layer) =>
        fc.constantFrom<CommandInput>(
          { do: 'layer.choose', layer },
          { do: 'layer.choose', layer, part: 'mask' },
          { do: 'layer.duplicate', layer },
          { do: 'layer.merge', layer },
          { do: 'layer.remove', layer },
          { do: 'layer.move', layer, to: 1 },
          { do: 'layer.mask', layer, how: 'hide' },
          { do: 'layer.mask', layer, how: 'selection' },
          { do: 'layer.mask', layer, how: 'invert' },
          { do: 'layer.mask', layer, how: 'remove' },
          { do: 'layer.set', layer, clip: true, opacity: 0.5, blend: 'multiply' },
          { do: 'layer.set', layer, onlyPaint: true, wetThrough: true, impress: false },
          { do: 'layer.set', layer, locked: true },
          { do: 'layer.base', layer, mixture: { PY43: 1 } },
        ),
      ),
    ),
  },
  {
    weight: 4,
    arbitrary: fc.oneof(
      fc.tuple(xy, xy).map(([from, to]): CommandInput => ({ do: 'select', how: 'ellipse', from, to, edgeMm: 2 })),
      fc.constantFrom<CommandInput>(
        { do: 'select', how: 'none' },
        { do: 'select', how: 'invert' },
        { do: 'select', how: 'painted' },
        { do: 'select', how: 'grow', byMm: 1 },
        { do: 'select', how: 'soften', byMm: 1 },
        { do: 'transform', turn: 90 },
        { do: 'transform', mirror: 'across' },
        { do: 'transform', matrix: [0.8, 0.3, -0.2, 1.1, 3, 1] },
        { do: 'transform', matrix: [1, 0, 0, 1, 4, -3], copy: true },
        { do: 'canvas', turn: 90 },
        { do: 'canvas', leftMm: 3, topMm: -2, rightMm: -1 },
      ),
      xy.map((at): CommandInput => ({ do: 'fill', at, mixture: { PG7: 1 } })),
      fc.array(xy, { minLength: 1, maxLength: 3 }).map((at): CommandInput => ({ do: 'stamp', at, turnJitter: 40 })),
    ),
  },
);

const anyJournal = fc.array(anyAct, { minLength: 6, maxLength: 22 });

describe('any journal of layers, selections and transforms', () => {
  it('keeps the mass of every pigment', () => {
    fc.assert(
      fc.property(anyJournal, (journal) => {
        const studio = small();
        play(studio, journal);
        expectBalance(studio);
      }),
      { numRuns: runs(25) },
    );
  });

  it('gives the same bytes twice, and after being undone and done again', () => {
    fc.assert(
      fc.property(anyJournal, (journal) => {
        const studio = small();
        const done = play(studio, journal);
        const end = digest(studio);
        const again = small();
        for (const command of done) again.apply(command);
        expect(digest(again)).toBe(end);
        let steps = 0;
        while (studio.timeline.canUndo && steps < 40) {
          studio.apply({ do: 'undo' });
          steps++;
        }
        for (let i = 0; i < steps; i++) studio.apply({ do: 'redo' });
        // the tools, and what is chosen, are not part of a step
        const picture = (s: Studio) => [...albedoOf(s.painting).raster(wholeRect(s.painting))].join();
        expect(picture(studio)).toBe(picture(again));
        expect(studio.massBalance()).toEqual(again.massBalance());
      }),
      { numRuns: runs(20) },
    );
  });

  it('is not touched by a command that is refused, with a wet wash on it', () => {
    const studio = small();
    play(studio, [
      { do: 'tool', tool: 'wash-round', sizeMm: 6 },
      { do: 'load', mixture: { PB29: 1 }, amount: 1 },
      stroke([4, 4], [20, 12]),
    ]);
    const [before, came] = [digest(studio), studio.history.length];
    const refused: CommandInput[] = [
      { do: 'select', how: 'ellipse', from: [27, 20], to: [29, 23] },
      { do: 'stamp', at: [[6, 6]] },
      {
        do: 'transform',
        corners: [
          [0, 0],
          [9, 9],
          [9, 0],
          [0, 9],
        ],
      },
      { do: 'select', how: 'none' },
    ];
    const done = play(studio, refused);
    expect(done.map((c) => c.do)).toEqual(['select', 'select']);
    expect(studio.time.hasWater).toBe(true);
    expect(digest(studio)).toBe(before);
    for (let i = came; i < studio.history.length;) studio.apply({ do: 'undo' });
    expect(digest(studio)).toBe(before);
  });

  it('is put back from a snapshot to the same bytes', () => {
    fc.assert(
      fc.property(anyJournal, (journal) => {
        const studio = small();
        play(studio, journal);
        const state = studioStateSchema.parse(JSON.parse(JSON.stringify(encodeStudioState(studio))));
        const again = small();
        restoreStudioState(again, state);
        const { arena } = studio.painting;
        for (const layer of studio.allLayers) {
          layer.forEachTile((tile, index) => {
            if (tile.bare) return;
            const bytes = encodeTile(layer.capture(index, arena)!);
            const { painting } = again;
            again.layer(layer.id)!.restore(index, decodeTile(bytes), painting.arena, () => painting.newBasin());
          });
        }
        expect(digest(again)).toBe(digest(studio));
      }),
      { numRuns: runs(15) },
    );
  });
});

describe('copying and merging', () => {
  const two = (dryFirst: boolean) => {
    const studio = studioFor(30, 24, { surface: { kind: 'smooth' } });
    paint(studio, ...loaded('flat', 10, { PB29: 1, PW6: 2 }), line(4, 12, 26, 12));
    if (dryFirst) studio.apply({ do: 'dry' });
    studio.apply(commandSchema.parse({ do: 'layer.add' }));
    paint(studio, ...loaded('flat', 8, { PY35: 1 }, { thin: 0.7 }), line(12, 4, 14, 20));
    return studio;
  };

  it('two wet layers become one, and each pigment is still there', () => {
    for (const dry of [false, true]) {
      const studio = two(dry);
      const before = studio.painting.massOnCanvas();
      studio.apply({ do: 'layer.merge', layer: 'L3' });
      const after = studio.painting.massOnCanvas();
      before.film.forEach((v, i) => {
        const [was, is] = [v + before.strata[i], after.film[i] + after.strata[i]];
        expect(Math.abs(is - was)).toBeLessThanOrEqual(1e-4 * was);
      });
      expect(studio.painting.layers).toHaveLength(2);
      expectBalance(studio);
    }
  });

  it('sealed layers look the same merged', () => {
    const studio = two(true);
    studio.apply({ do: 'dry' });
    const colours = () => {
      const p = new Picture(studio.painting);
      return Array.from({ length: 400 }, (_, i) => p.labAt(10 + (i % 20) * 7, 10 + Math.floor(i / 20) * 5));
    };
    const before = colours();
    studio.apply({ do: 'layer.merge', layer: 'L3' });
    const worst = Math.max(...colours().map((lab, i) => deltaE2000(lab, before[i])));
    expect(worst).toBeLessThan(0.5);
  });

  it('a copy is the same picture and is entered in the ledger as added', () => {
    const studio = two(false);
    studio.apply({ do: 'layer.duplicate', layer: 'L3' });
    const { added } = studio.painting.ledger;
    expect(added.some((v) => v > 0)).toBe(true);
    expectBalance(studio);
    const [, , first, second] = studio.painting.layers;
    const bytes = (layer: typeof first) =>
      layer.tiles.map((t, i) => t && hash(encodeTile(layer.capture(i, studio.painting.arena)!)));
    expect(bytes(second)).toEqual(bytes(first));
    studio.apply({ do: 'undo' });
    expect(studio.painting.layers).toHaveLength(3);
    expect(studio.painting.ledger.added.every((v) => v === 0)).toBe(true);
  });

  it('says why two layers cannot be merged', () => {
    const studio = two(false);
    studio.apply(commandSchema.parse(gradient));
    expect(() => studio.apply({ do: 'layer.merge', layer: 'L4' })).toThrow(/paint merges with paint/);
    expect(() => studio.apply({ do: 'layer.merge', layer: 'L1' })).toThrow(/nothing below/);
  });
});

describe('locked, hidden, masked', () => {
  it('refuses to paint, and changes nothing', () => {
    const studio = studioFor(20, 20);
    paint(studio, ...loaded('flat', 6, { PB29: 1 }), line(4, 10, 16, 10));
    for (const [look, why] of [
      [{ locked: true }, /is locked/],
      [{ visible: false }, /is hidden/],
    ] as const) {
      studio.apply({ do: 'layer.set', layer: 'L2', ...look });
      const before = digest(studio);
      expect(() => studio.apply(commandSchema.parse(stroke([4, 4], [9, 9])))).toThrow(why);
      expect(() => studio.apply(commandSchema.parse({ do: 'fill', at: [2, 2], mixture: { PY35: 1 } }))).toThrow(why);
      expect(digest(studio)).toBe(before);
      studio.apply({ do: 'layer.set', layer: 'L2', locked: false, visible: true });
    }
    studio.apply({ do: 'layer.set', layer: 'L2', locked: true });
    for (const c of [
      { do: 'layer.remove', layer: 'L2' },
      { do: 'transform', turn: 90 },
      { do: 'layer.merge', layer: 'L2' },
    ] as CommandInput[]) {
      expect(() => studio.apply(commandSchema.parse(c))).toThrow(/is locked/);
    }
  });

  it('a mask hides paint and leaves it there', () => {
    const studio = studioFor(20, 20);
    paint(studio, ...loaded('flat', 8, { PB29: 1 }), line(4, 10, 16, 10));
    const bare = new Picture(studio.painting).labAt(5, 5);
    const mass = studio.painting.massOnCanvas().film.slice();
    studio.apply({ do: 'layer.mask', layer: 'L2', how: 'hide' });
    const middle = Math.round(10 / studio.painting.mmPerPx);
    expect(deltaE2000(new Picture(studio.painting).labAt(middle, middle), bare)).toBeLessThan(0.01);
    expect(studio.painting.massOnCanvas().film).toEqual(mass);
    // painted white where it should show again
    studio.apply(commandSchema.parse({ do: 'tool', tool: 'round', sizeMm: 6, grey: 1, strength: 1 }));
    paint(studio, line(8, 10, 12, 10), line(8, 10, 12, 10), line(8, 10, 12, 10));
    expect(deltaE2000(new Picture(studio.painting).labAt(middle, middle), bare)).toBeGreaterThan(30);
    expect(studio.painting.massOnCanvas().film).toEqual(mass);
  });
});
