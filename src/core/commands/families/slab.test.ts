import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { masstoneLab } from '@/core/colour/mixture';
import { deltaE2000 } from '@/core/colour/deltaE2000';
import table from '@/core/colour/data/mixing-table.json';
import { Picture } from '@/core/picture/picture';
import { readAround, readSpot } from '@/core/picture/readings';
import { commandSchema, type CommandInput } from '@/core/commands/commands';
import { paintingSchema } from '@/core/journal/journalSchema';
import { digest } from '@/core/journal/digest';
import { readJournal, replay } from '@/core/journal/replay';
import { Studio } from '@/core/journal/studio';

const spec = (ppi = 100) => paintingSchema.parse({ widthMm: 60, heightMm: 40, ppi, seed: 3 });
const at = (studio: Studio, ...commands: CommandInput[]) => {
  for (const c of commands) studio.apply(commandSchema.parse(c));
  return studio;
};
/** A stroke on the slab through points, mm. */
const stroke = (points: [number, number][], pressure = 0.6): CommandInput => ({
  do: 'stroke',
  on: 'slab',
  samples: points.flatMap(([x, y], k) => {
    const [px, py] = points[Math.max(0, k - 1)];
    return Array.from({ length: 12 }, (_, i) => {
      const t = (i + 1) / 12;
      return [k * 96 + i * 8, px + (x - px) * t, py + (y - py) * t, pressure];
    });
  }),
});
/** Largest relative error of the book of paint, over all pigments. */
const imbalance = (studio: Studio) =>
  Math.max(
    ...Object.values(studio.massBalance()).map(
      (b) => Math.abs(b.film + b.settled + b.strata + b.tool + b.slab + b.removed - b.loaded) / b.loaded,
    ),
  );
const slabPicture = (studio: Studio) => {
  const picture = new Picture(studio.slab);
  picture.update({ left: 0, top: 0, right: studio.slab.width, bottom: studio.slab.height });
  return picture;
};
const cell = (studio: Studio, mm: number) => Math.floor(mm / studio.slab.mmPerPx);

describe('the slab', () => {
  test.each([80, 150, 300])('a bead is as much paint at %i ppi, and gives the mixture it is of', (ppi) => {
    const studio = at(new Studio(spec(ppi)), {
      do: 'slab.squeeze',
      mixture: { PB29: 1, PW6: 3 },
      at: [40, 30],
      sizeMm: 12,
    });
    const { PB29, PW6 } = studio.massBalance();
    // half an ellipsoid 12 mm wide and 1.32 mm high, less its coil; a coat is 0.12 mm
    const whole = ((2 / 3) * Math.PI * 36 * 1320) / 120;
    expect((PB29.slab + PW6.slab) / whole).toBeGreaterThan(0.88);
    expect((PB29.slab + PW6.slab) / whole).toBeLessThan(0.98);
    expect(PW6.slab / PB29.slab).toBeCloseTo(3, 3);
    const reading = readSpot(slabPicture(studio), cell(studio, 40), cell(studio, 30));
    expect(reading.mixture.PB29).toBeCloseTo(0.25, 3);
    expect(reading.layer).toBe('slab');
    expect(deltaE2000(reading.lab, masstoneLab({ PB29: 1, PW6: 3 }))).toBeLessThan(1);
  });

  test('two beads worked into one another give what both make, darker than white and greener than blue', () => {
    const studio = at(
      new Studio(spec()),
      { do: 'slab.squeeze', mixture: { PB29: 1 }, at: [30, 30], sizeMm: 12 },
      { do: 'slab.squeeze', mixture: { PY3: 1 }, at: [44, 30], sizeMm: 12 },
      { do: 'tool', tool: 'knife', sizeMm: 16 },
      ...Array.from({ length: 6 }, (_, k): CommandInput =>
        stroke([
          [28, 26 + k],
          [46, 34 - k],
          [46, 26 + k],
          [28, 34 - k],
        ]),
      ),
    );
    expect(imbalance(studio)).toBeLessThan(1e-4);
    const spot = readAround(slabPicture(studio), cell(studio, 37), cell(studio, 30), 8);
    expect(spot.mixture.PB29).toBeGreaterThan(0.15);
    expect(spot.mixture.PY3).toBeGreaterThan(0.15);
    expect(spot.lab[1]).toBeLessThan(-5);
  });

  test('a brush pressed in takes paint up, paints with it on the canvas, and nothing is lost', () => {
    const studio = at(
      new Studio(spec()),
      { do: 'slab.squeeze', mixture: { PR188: 1, PW6: 2 }, at: [40, 30], sizeMm: 16 },
      { do: 'tool', tool: 'flat', sizeMm: 10 },
    );
    const before = studio.massBalance().PW6.slab;
    at(studio, { do: 'slab.take', at: [40, 30] });
    expect(studio.tools.carried().level).toBeGreaterThan(0.5);
    expect(studio.massBalance().PW6.slab).toBeLessThan(before * 0.9);
    const { PR188, PW6 } = studio.tools.carried().mixture;
    expect(PW6 / PR188).toBeCloseTo(2, 2);
    at(studio, { do: 'stroke', samples: Array.from({ length: 20 }, (_, i) => [i * 10, 8 + 2 * i, 20, 0.6]) });
    const { film } = studio.painting.massOnCanvas();
    expect(film.some((m) => m > 0)).toBe(true);
    expect(imbalance(studio)).toBeLessThan(1e-4);
    // a second colour taken up joins the first on the brush
    at(
      studio,
      { do: 'slab.squeeze', mixture: { PB29: 1 }, at: [80, 30], sizeMm: 16 },
      { do: 'slab.take', at: [80, 30] },
    );
    expect(Object.keys(studio.tools.carried().mixture).sort()).toEqual(['PB29', 'PR188', 'PW6']);
  });

  test('what cannot be done on it is said, and changes nothing', () => {
    const studio = new Studio(spec());
    const refused =
      (...commands: CommandInput[]) =>
      () =>
        at(studio, ...commands);
    const before = digest(studio);
    expect(refused({ do: 'slab.squeeze', mixture: { PB29: 1 }, at: [900, 10] })).toThrow(/beside the slab/);
    expect(refused({ do: 'slab.take', at: [40, 30] })).toThrow(/no paint to take up/);
    expect(digest(studio)).toBe(before);
    at(studio, { do: 'tool', tool: 'graphite' });
    expect(
      refused(
        stroke([
          [10, 10],
          [20, 20],
        ]),
      ),
    ).toThrow(/brush or the knife/);
    expect(refused({ do: 'slab.take', at: [40, 30] })).toThrow(/brush or the knife/);
    expect(studio.timeline.canUndo).toBe(false);
    expect(refused({ do: 'slab.squeeze', mixture: { 'own-00000000': 1 }, at: [30, 30] })).toThrow(/no tube/);
  });

  test('a slab without paint leaves the digest of a painting as it was', () => {
    const plain = at(new Studio(spec()), { do: 'load', mixture: { PB29: 1 } });
    const scraped = at(
      new Studio(spec()),
      { do: 'slab.squeeze', mixture: { PW6: 1 }, at: [30, 30] },
      { do: 'undo' },
      { do: 'load', mixture: { PB29: 1 } },
    );
    expect(digest(scraped)).toBe(digest(plain));
  });

  test('scraping empties it into the book of what is removed', () => {
    const studio = at(
      new Studio(spec()),
      { do: 'slab.squeeze', mixture: { PW6: 1 }, at: [30, 30] },
      { do: 'slab.scrape' },
    );
    const { loaded, removed, slab } = studio.massBalance().PW6;
    expect(slab).toBe(0);
    expect(Math.abs(removed / loaded - 1)).toBeLessThan(1e-5);
    at(studio, { do: 'undo' });
    expect(studio.massBalance().PW6.slab).toBeGreaterThan(0);
  });

  test('any work on slab and canvas keeps the book, and undo, redo and replay give the same bytes', () => {
    const place = fc.tuple(fc.integer({ min: 8, max: 130 }), fc.integer({ min: 6, max: 64 }));
    const step = fc.oneof(
      fc.record({
        do: fc.constant('slab.squeeze' as const),
        mixture: fc.constantFrom<Record<string, number>>({ PB29: 1 }, { PY43: 1, PW6: 2 }),
        at: place,
      }),
      fc.record({ do: fc.constant('slab.take' as const), at: place }),
      fc.tuple(place, place).map(([p, q]) => stroke([p, q])),
      fc.constantFrom<CommandInput>(
        { do: 'tool', tool: 'flat', sizeMm: 9 },
        { do: 'tool', tool: 'knife', sizeMm: 14 },
        { do: 'slab.scrape' },
        { do: 'dry' },
        { do: 'undo' },
        {
          do: 'stroke',
          samples: [
            [0, 10, 10, 0.6],
            [90, 40, 22, 0.6],
          ],
        },
      ),
    );
    fc.assert(
      fc.property(fc.array(step, { minLength: 3, maxLength: 9 }), (steps) => {
        const studio = new Studio(spec());
        const done: CommandInput[] = [];
        for (const command of steps) {
          try {
            at(studio, command);
            done.push(command);
          } catch {
            // refused: nothing happened
          }
        }
        if (Object.keys(studio.massBalance()).length > 0) expect(imbalance(studio)).toBeLessThan(1e-4);
        const end = digest(studio);
        const journal = readJournal({ format: 'stigmos-journal', version: 1, painting: spec(), entries: done });
        expect(digest(replay(journal))).toBe(end);
        let undone = 0;
        while (studio.timeline.canUndo) {
          studio.apply({ do: 'undo' });
          undone++;
        }
        expect(studio.slab.active.tiles.every((tile) => !tile?.volume)).toBe(true);
        while (undone-- > 0) studio.apply({ do: 'redo' });
        expect(digest(studio)).toBe(end);
      }),
      { numRuns: 12, seed: 11 },
    );
  });

  test('the whole mixing table: squeezed out on the slab and sampled, every row is the mixture and the colour it should be', () => {
    const rows = table.rows.filter((row) => 'inf' in row && row.inf);
    expect(rows.length).toBeGreaterThan(40);
    for (const row of rows) {
      const studio = at(new Studio(spec(60)), {
        do: 'slab.squeeze',
        mixture: row.parts as unknown as Record<string, number>,
        at: [40, 30],
        sizeMm: 16,
      });
      const { mixture, lab } = readSpot(slabPicture(studio), cell(studio, 40), cell(studio, 30));
      const total = Object.values(row.parts).reduce<number>((p, q) => p + (q ?? 0), 0);
      for (const [id, part] of Object.entries(row.parts)) {
        expect(Math.abs((mixture[id] ?? 0) - (part ?? 0) / total)).toBeLessThan(0.005);
      }
      expect(deltaE2000(lab, row.inf.lab as [number, number, number])).toBeLessThan(2.1);
    }
  });
});

describe('a watercolour brush on the slab', () => {
  const paper = (seed: number) =>
    new Studio(paintingSchema.parse({ widthMm: 40, heightMm: 30, ppi: 100, seed, surface: { kind: 'paper-cold' } }));
  const bead: CommandInput = { do: 'slab.squeeze', mixture: { PB29: 1, PBr7BS: 2 }, at: [40, 30], sizeMm: 9 };

  test.each([2, 9])('makes a wash of what it is pressed into, as strong as one from the tubes (seed %i)', (seed) => {
    const studio = at(
      paper(seed),
      bead,
      { do: 'tool', tool: 'mop', sizeMm: 6 },
      { do: 'load', mixture: {}, water: 0.6 },
    );
    at(studio, { do: 'slab.take', at: [40, 30] });
    const tubes = at(
      paper(seed),
      { do: 'tool', tool: 'mop', sizeMm: 6 },
      { do: 'load', mixture: { PB29: 1, PBr7BS: 2 }, water: 0.6 },
    );
    for (const id of ['PB29', 'PBr7BS']) {
      expect(studio.massBalance()[id].tool / tubes.massBalance()[id].tool).toBeCloseTo(1, 2);
    }
    expect(imbalance(studio)).toBeLessThan(1e-4);
    // it is full: there is no more to take until it has painted
    expect(() => at(studio, { do: 'slab.take', at: [40, 30] })).toThrow('the brush is full');
    at(studio, { do: 'stroke', samples: Array.from({ length: 20 }, (_, i) => [i * 20, 8 + i, 15, 0.8]) });
    expect(studio.massBalance().PB29.film + studio.massBalance().PB29.settled).toBeGreaterThan(0);
    expect(imbalance(studio)).toBeLessThan(1e-4);
  });

  test('that is dry goes by the water first, and undo gives both back', () => {
    const studio = at(paper(4), bead);
    at(studio, { do: 'tool', tool: 'wash-round', sizeMm: 5 }, { do: 'slab.take', at: [40, 30] });
    expect(studio.tools.carried().level).toBeCloseTo(1, 3);
    expect(Object.keys(studio.tools.carried().mixture).sort()).toEqual(['PB29', 'PBr7BS']);
    at(studio, { do: 'undo' });
    expect(studio.massBalance().PB29.tool).toBe(0);
    expect(studio.massBalance().PB29.slab).toBeCloseTo(at(paper(4), bead).massBalance().PB29.slab, 6);
  });
});
