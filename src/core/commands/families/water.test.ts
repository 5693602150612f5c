import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { decodeTile, encodeTile } from '@/core/film/packing/tileCodec';
import type { CommandInput } from '@/core/commands/commands';
import { readStigmosFile } from '@/core/formats/readStigmosFile';
import { encodeStigmosFile } from '@/core/formats/stigmosFile';
import { paint, studioFor } from '@/measure/bench';
import { coats, dipped, massError, meanCoats, through, washed, waterError } from '@/measure/water/washBench';
import { runs } from '@/measure/thorough';
import { digest } from '@/core/journal/digest';
import { PainterError } from '@/core/errors';
import { encodeStudioState, restoreStudioState, studioStateSchema } from '@/core/journal/snapshot';
import { Studio } from '@/core/journal/studio';

const sheet = (kind: 'paper-cold' | 'paper-rough' | 'paper-hot' = 'paper-cold', seed = 4) =>
  studioFor(44, 30, { ppi: 110, seed, surface: { kind } });

/** A wash that flows, with a drop in it. */
const FLOWING: CommandInput[] = [
  ...washed([4, 4, 34, 20], 6, { PB29: 1 }),
  ...dipped('dropper', 4, { PBr7BS: 1 }),
  { do: 'stroke', samples: [[0, 20, 14, 0.7]] },
];

describe('a flowing wash', () => {
  it('is the same bytes after undo and redo in the middle of it, whatever has flowed since', () => {
    const studio = sheet();
    paint(studio, ...FLOWING, { do: 'wait', seconds: 1.35 });
    const before = digest(studio);
    const [tool, load, stroke] = [
      ...dipped('wash-round', 5, { PY43: 1 }),
      through([
        [6, 20],
        [36, 10],
      ]),
    ];
    paint(studio, tool, load);
    const loaded = digest(studio);
    paint(studio, stroke, { do: 'wait', seconds: 0.4 });
    paint(studio, { do: 'wait', seconds: 2 });
    const after = digest(studio);
    paint(studio, { do: 'undo' });
    expect(digest(studio)).toBe(loaded);
    expect(loaded).not.toBe(before);
    paint(studio, { do: 'redo' });
    expect(digest(studio)).toBe(after);
    paint(studio, { do: 'undo' });
    expect(digest(studio)).toBe(loaded);
  });

  it('goes on alike from the same state: undone, painted again, and from the beginning', () => {
    const [a, b] = [sheet(), sheet()];
    const more: CommandInput[] = [
      through([
        [6, 20],
        [36, 10],
      ]),
      { do: 'wait', seconds: 3 },
    ];
    paint(a, ...FLOWING, ...dipped('mop', 5, { PV19: 1 }), ...more, { do: 'undo' }, ...more, { do: 'dry' });
    paint(b, ...FLOWING, ...dipped('mop', 5, { PV19: 1 }), ...more, { do: 'dry' });
    expect(digest(a)).toBe(digest(b));
  });

  it.each(['wash-round', 'wash-flat', 'mop', 'dry-brush', 'sponge-natural', 'gouache'] as const)(
    'keeps what a %s that has run dry does not have',
    (tool) => {
      const studio = sheet();
      paint(studio, ...dipped(tool, 6, { PB29: 1, PBr7BS: 1 }));
      for (let i = 0; i < 34; i++) {
        paint(
          studio,
          through([
            [4, 4 + ((i * 7) % 22)],
            [40, 5 + ((i * 5) % 20)],
          ]),
        );
        expect(massError(studio)).toBeLessThan(1e-4);
        expect(waterError(studio)).toBeLessThan(1e-4);
      }
      // and what is kept of it can be read again
      const state = JSON.parse(JSON.stringify(encodeStudioState(studio)));
      expect(studioStateSchema.safeParse(state).success).toBe(true);
    },
  );

  it.each([72, 98, 150])('stays calm while a prepared sheet is dried in long steps (%i ppi)', (ppi) => {
    for (const seed of [79, 4]) {
      const studio = studioFor(22, 17, { ppi, surface: { kind: 'paper-cold' } });
      paint(studio, {
        do: 'layer.prepare',
        style: 'variegated',
        mixtures: [{ PG7: 1, PBk9: 1 }],
        seed,
        strength: 0.4,
        texture: 0.5,
      });
      expect(waterError(studio)).toBeLessThan(1e-4);
      expect(studio.waterBalance().evaporated).toBeGreaterThan(0);
    }
  });

  it.each([1, 0.5, 0.2])('goes slower in a stroke that says so (pace %d)', (pace) => {
    const evaporated = (given?: number) => {
      const studio = sheet();
      paint(studio, ...FLOWING, ...dipped('mop', 5, { PV19: 1 }));
      const before = studio.waterBalance().evaporated;
      // a hand that rests for three seconds
      const samples = [0, 1000, 2000, 3000].map((t) => [t, 20, 14, 0.5]);
      paint(studio, { do: 'stroke', samples, ...(given !== undefined && { pace: given }) });
      return { gone: studio.waterBalance().evaporated - before, digest: digest(studio) };
    };
    const asRead = evaporated();
    const slow = evaporated(pace);
    expect(slow.gone / asRead.gone).toBeGreaterThan(0.9 * pace);
    expect(slow.gone / asRead.gone).toBeLessThan(1.1 * pace);
    expect(slow.digest === asRead.digest).toBe(pace === 1);
  });

  it('by the clock, a step at a time, is what a wait brings', () => {
    const [a, b] = [sheet(), sheet()];
    paint(a, ...FLOWING);
    paint(b, ...FLOWING);
    for (let i = 0; i < 37; i++) a.time.advance(1);
    const waited = a.endWait()!;
    expect(waited.command).toEqual({ do: 'wait', seconds: 1.85 });
    expect(a.time.takeFlowed().size).toBeGreaterThan(0);
    paint(b, { do: 'wait', seconds: 1.85 });
    expect(digest(a)).toBe(digest(b));
    expect(a.endWait()).toBeUndefined();
    a.time.advance(1);
    expect(() => paint(a, { do: 'dry' })).toThrow('not over');
  });

  it('is kept in a file as it flows, and goes on from there', async () => {
    const studio = sheet();
    paint(studio, ...FLOWING, { do: 'wait', seconds: 0.5 });
    const file = encodeStigmosFile(studio, studio.history, 'Wet', [], { thumbnail: new Uint8Array(8) });
    const { state, tiles } = await readStigmosFile(file);
    const again = new Studio(studio.spec);
    restoreStudioState(again, studioStateSchema.parse(state));
    const { painting } = again;
    for (const { layer, index, bytes } of tiles) {
      const into = again.layer(layer)!;
      into.restore(index, decodeTile(bytes), painting.arena, () => painting.newBasin());
    }
    expect(digest(again)).toBe(digest(studio));
    for (const s of [studio, again]) paint(s, { do: 'wait', seconds: 4 });
    expect(digest(again)).toBe(digest(studio));
  });

  it('keeps the books of pigment and water, on any paper', () => {
    fc.assert(
      fc.property(
        fc.constantFrom('paper-cold', 'paper-rough', 'paper-hot'),
        fc.integer({ min: 1, max: 99 }),
        fc.array(
          fc.constantFrom('mop', 'thirsty', 'dropper', 'wait', 'mist', 'dry', 'rag', 'gouache', 'splatter', 'undo'),
          { minLength: 4, maxLength: 7 },
        ),
        (kind, seed, acts) => {
          const studio = sheet(kind as 'paper-cold', seed);
          paint(studio, ...FLOWING);
          acts.forEach((act, k) => {
            const way = through([
              [5 + 3 * k, 6],
              [30, 8 + 2 * k],
            ]);
            if (act === 'wait') paint(studio, { do: 'wait', seconds: 3 });
            else if (act === 'mist') paint(studio, { do: 'mist', amount: 0.6 });
            else if (act === 'dry' || act === 'undo') paint(studio, { do: act });
            else if (act === 'thirsty' || act === 'rag')
              paint(studio, { do: 'tool', tool: act }, ...(act === 'rag' && !studio.time.hasWater ? [] : [way]));
            else paint(studio, ...dipped(act as 'mop', 3, { PBr7BS: 1, PB15_3: 0.1 }), way);
            expect(massError(studio)).toBeLessThan(1e-4);
            expect(waterError(studio)).toBeLessThan(1e-4);
          });
        },
      ),
      { numRuns: runs(8) },
    );
  });

  // WASH_MINUTES=240 runs it for hours
  const minutes = Number(process.env.WASH_MINUTES ?? 6);
  it(`stays calm in ${minutes} minutes of mist and flow`, { timeout: 3_600_000 }, () => {
    const studio = sheet('paper-rough');
    paint(studio, { do: 'tilt', x: 0, y: 8 }, ...FLOWING);
    for (let i = 0; i < 2 * minutes; i++) paint(studio, { do: 'wait', seconds: 30 }, { do: 'mist', amount: 0.8 });
    expect(coats(studio, 'PB29', [0, 0, 44, 30]).every((v) => v >= 0 && v < 0.2)).toBe(true);
    expect(massError(studio)).toBeLessThan(1e-4);
    expect(waterError(studio)).toBeLessThan(1e-4);
  });
});

describe('what belongs to watercolour', () => {
  it('runs down a tilted board', () => {
    const studio = sheet();
    paint(studio, { do: 'tilt', x: 0, y: 12 }, ...washed([6, 6, 30, 18], 6, { PB29: 1 }), { do: 'wait', seconds: 60 });
    expect(meanCoats(studio, 'PB29', [12, 18, 18, 4])).toBeGreaterThan(
      1.15 * meanCoats(studio, 'PB29', [12, 8, 18, 4]),
    );
  });

  it('lays a prepared paper under the work, lays it anew, and takes it back', () => {
    const studio = sheet();
    paint(studio, ...washed([8, 8, 12, 10], 4, { PBr7BS: 1 }), { do: 'dry' });
    const prepare = (seed: number, layer?: string): CommandInput => ({
      do: 'layer.prepare',
      mixtures: [{ PB29: 1 }, { PY43: 1 }],
      seed,
      ...(layer ? { layer } : {}),
    });
    paint(studio, prepare(1));
    const laid = studio.painting.layers.find((l) => l.name === 'Prepared paper')!;
    expect(studio.painting.layers.indexOf(laid)).toBeLessThan(studio.painting.layers.indexOf(studio.painting.active));
    expect(studio.time.hasWater).toBe(false);
    const first = digest(studio);
    paint(studio, prepare(2, laid.id));
    expect(digest(studio)).not.toBe(first);
    expect(massError(studio)).toBeLessThan(1e-4);
    paint(studio, { do: 'undo' });
    expect(digest(studio)).toBe(first);
    expect(() => paint(studio, prepare(1, 'L99'))).toThrow(PainterError);
  });

  it('is rubbed out when it is dry, what stains less than what lies on the sheet, and the books agree', () => {
    const left = (mixture: Record<string, number>, id: string) => {
      const studio = sheet();
      paint(studio, ...washed([4, 4, 34, 20], 6, mixture), { do: 'dry' });
      const before = meanCoats(studio, id, [16, 10, 8, 1]);
      paint(studio, { do: 'tool', tool: 'eraser', sizeMm: 5, strength: 1, tip: 'hard' });
      for (let k = 0; k < 3; k++)
        paint(
          studio,
          through(
            [
              [8, 10.5],
              [36, 10.5],
            ],
            40,
          ),
        );
      expect(massError(studio)).toBeLessThan(1e-4);
      return meanCoats(studio, id, [16, 10, 8, 1]) / before;
    };
    const lies = left({ PB29: 1 }, 'PB29');
    const stains = left({ PB15_3: 1 }, 'PB15_3');
    expect(lies).toBeLessThan(0.3);
    expect(stains).toBeGreaterThan(lies + 0.15);
    expect(stains).toBeLessThan(0.85);
  });

  it('wax keeps a wash off the peaks, and stays', () => {
    const studio = sheet('paper-rough');
    paint(
      studio,
      { do: 'tool', tool: 'wax', sizeMm: 8 },
      through(
        [
          [6, 14],
          [38, 14],
        ],
        40,
        0.7,
      ),
      ...washed([3, 3, 38, 24], 6, { PB15_3: 1 }),
      { do: 'dry' },
    );
    const waxed = coats(studio, 'PB15_3', [10, 12, 24, 4]);
    const bare = meanCoats(studio, 'PB15_3', [10, 21, 24, 3]);
    const white = waxed.filter((v) => v < 0.3 * bare).length / waxed.length;
    expect(white).toBeGreaterThan(0.15);
    expect(white).toBeLessThan(0.95);
  });

  it('refuses water on tools that take none, and nothing at all', () => {
    const studio = sheet();
    paint(studio, { do: 'tool', tool: 'flat' });
    expect(() => paint(studio, { do: 'load', mixture: { PB29: 1 }, water: 0.5 })).toThrow('takes no water');
    expect(() => paint(studio, { do: 'load', mixture: {} })).toThrow('part of at least one tube');
    paint(studio, { do: 'tool', tool: 'masking' });
    expect(() => paint(studio, { do: 'load', mixture: { PB29: 1 } })).toThrow('takes no paint');
    paint(studio, { do: 'tool', tool: 'mop' }, { do: 'load', mixture: {}, water: 0.5 });
    expect(studio.tools.water()).toBeGreaterThan(0);
  });

  it('keeps its tiles through bytes', () => {
    const studio = sheet();
    paint(
      studio,
      { do: 'tool', tool: 'masking', sizeMm: 2 },
      through([
        [6, 14],
        [38, 14],
      ]),
      ...FLOWING,
    );
    const { active, arena } = studio.painting;
    const image = active.capture(
      active.tiles.findIndex((t) => t?.wash?.resist.masking),
      arena,
    )!;
    expect(image.water).toBeDefined();
    const again = decodeTile(encodeTile(image));
    expect(again).toEqual({ ...image, strata: [] });
    expect(() => decodeTile(encodeTile(image).slice(0, -9))).toThrow(RangeError);
  });
});

describe('a watercolour brush that is held at another size', () => {
  it.each([
    [6, 9],
    [12, 5],
  ])('from %d to %d mm holds the same, as much as belongs to its size, and the books agree', (from, to) => {
    const studio = sheet();
    paint(studio, ...dipped('mop', from, { PB29: 3, PY43: 1 }));
    const before = studio.tools.carried();
    paint(studio, { do: 'tool', tool: 'mop', sizeMm: to });
    const after = studio.tools.carried();
    expect(after.level).toBeCloseTo(before.level, 4);
    for (const id of ['PB29', 'PY43']) {
      expect(after.mixture[id] / before.mixture[id]).toBeCloseTo((to / from) ** 2, 3);
    }
    paint(
      studio,
      through([
        [8, 10],
        [36, 18],
      ]),
    );
    expect(meanCoats(studio, 'PB29', [16, 11, 8, 3])).toBeGreaterThan(0);
    expect(massError(studio)).toBeLessThan(1e-4);
    expect(waterError(studio)).toBeLessThan(1e-4);
  });
});

describe.each([1, 5])('a wash that runs off the sheet (seed %i)', (seed) => {
  it('has no dark rim where the sheet ends, and one where it ends on the sheet', () => {
    const studio = sheet('paper-cold', seed);
    paint(studio, ...washed([-8, -8, 34, 46], 8, { PB15_3: 1 }), { do: 'dry' });
    const inner = meanCoats(studio, 'PB15_3', [8, 8, 8, 14]);
    // against the wash a millimetre further in: it pools on several millimetres anywhere
    const ends = [
      [
        [0, 8, 0.5, 14],
        [1, 8, 1, 14],
      ],
      [
        [8, 0, 8, 0.5],
        [8, 1, 8, 1],
      ],
      [
        [8, 29.5, 8, 0.5],
        [8, 28, 8, 1],
      ],
    ] as const;
    for (const [end, beside] of ends) {
      expect(meanCoats(studio, 'PB15_3', end) / meanCoats(studio, 'PB15_3', beside)).toBeLessThan(1.28);
    }
    const rims = Array.from(
      { length: 24 },
      (_, i) => meanCoats(studio, 'PB15_3', [22 + i * 0.25, 8, 0.25, 14]) / inner,
    );
    expect(Math.max(...rims)).toBeGreaterThan(1.2);
  });
});
