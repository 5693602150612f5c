import { zlibSync } from 'fflate';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { readStigmosFile } from '@/core/formats/readStigmosFile';
import { encodeStigmosFile } from '@/core/formats/stigmosFile';
import { decodeTile, encodeTile } from '@/core/film/packing/tileCodec';
import { line, mean, meanLab, paint, type Area } from '@/measure/bench';
import { coats, massError, meanCoats } from '@/measure/water/washBench';
import type { CommandInput } from '@/core/commands/commands';
import { commandSchema } from '@/core/commands/commands';
import { paintingSchema } from '@/core/journal/journalSchema';
import { digest } from '@/core/journal/digest';
import { restoreStudioState, studioStateSchema } from '@/core/journal/snapshot';
import { Studio } from '@/core/journal/studio';

const sheet = (seed = 3, kind = 'paper-laid') =>
  new Studio(paintingSchema.parse({ widthMm: 44, heightMm: 30, ppi: 100, seed, surface: { kind, tint: 'sand' } }));
const stick = (tool: 'pastel-soft' | 'charcoal', mixture?: Record<string, number>): CommandInput[] => [
  { do: 'tool', tool, sizeMm: 9, hold: 'flat' },
  ...(mixture ? [{ do: 'load', mixture } as CommandInput] : []),
];
const ALL: Area = [0, 0, 44, 30];

describe('dust on a sheet', () => {
  it('keeps the books through everything that is done to it, and undo gives the bytes back', () => {
    const acts = [
      'stick',
      'light',
      'finger',
      'kneaded',
      'eraser',
      'fix',
      'blow',
      'wash',
      'oil',
      'dry',
      'undo',
      'redo',
    ] as const;
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 99 }),
        fc.array(fc.constantFrom(...acts), { minLength: 4, maxLength: 8 }),
        (seed, chosen) => {
          const studio = sheet(seed);
          paint(studio, ...stick('charcoal'), line(4, 8, 40, 8, 0.8), line(4, 15, 40, 15, 0.6));
          chosen.forEach((act, k) => {
            const way = line(6, 6 + 2 * k, 38, 10 + k, 0.7);
            if (act === 'stick') paint(studio, ...stick('pastel-soft', { PR188: 1, PW6: 2 }), way);
            else if (act === 'light') paint(studio, ...stick('pastel-soft', { PW6: 1 }), way);
            else if (act === 'finger') paint(studio, { do: 'tool', tool: 'finger', sizeMm: 6 }, way);
            else if (act === 'kneaded') paint(studio, { do: 'tool', tool: 'eraser-kneaded', sizeMm: 6 }, way);
            else if (act === 'eraser') paint(studio, { do: 'tool', tool: 'eraser', sizeMm: 4 }, way);
            else if (act === 'wash')
              paint(
                studio,
                { do: 'tool', tool: 'mop', sizeMm: 8 },
                { do: 'load', mixture: { PB29: 1 }, water: 0.6 },
                way,
              );
            else if (act === 'oil')
              paint(studio, { do: 'tool', tool: 'flat', sizeMm: 6 }, { do: 'load', mixture: { PW6: 1 } }, way);
            else if (
              act === 'dry' ||
              (act === 'undo' && studio.timeline.canUndo) ||
              (act === 'redo' && studio.timeline.canRedo)
            )
              paint(studio, { do: act });
            else if (act === 'undo' || act === 'redo') return;
            else if (studio.painting.active.tiles.some((t) => t?.wash?.dusty)) paint(studio, { do: act });
          });
          expect(massError(studio)).toBeLessThan(1e-4);
          paint(studio, ...stick('pastel-soft', { PY37: 1 }), line(5, 12, 39, 18, 0.9), { do: 'undo' });
          const undone = studio.painting.active.capture(0, studio.painting.arena);
          paint(studio, { do: 'redo' }, { do: 'undo' });
          expect(studio.painting.active.capture(0, studio.painting.arena)).toEqual(undone);
          const again = new Studio(studio.spec);
          studio.history.forEach((command) => again.apply(command));
          expect(again.massBalance()).toEqual(studio.massBalance());
        },
      ),
      { numRuns: 10 },
    );
  });

  it('is kept in a file, and goes on from there to the same bytes', async () => {
    const studio = sheet();
    paint(
      studio,
      ...stick('pastel-soft', { PB29: 1, PW6: 1 }),
      line(4, 8, 40, 8, 0.8),
      ...stick('charcoal'),
      line(20, 4, 24, 26, 0.7),
    );
    const file = encodeStigmosFile(studio, studio.history, 'Dust', [], { thumbnail: new Uint8Array(8) });
    const { state, tiles } = await readStigmosFile(file);
    const again = new Studio(studio.spec);
    restoreStudioState(again, studioStateSchema.parse(state));
    for (const { layer, index, bytes } of tiles) {
      const { painting } = again;
      again.layer(layer)!.restore(index, decodeTile(bytes), painting.arena, () => painting.newBasin());
    }
    expect(digest(again)).toBe(digest(studio));
    for (const s of [studio, again]) paint(s, { do: 'tool', tool: 'finger', sizeMm: 7 }, line(10, 5, 30, 20, 0.7));
    expect(digest(again)).toBe(digest(studio));
  });

  it('leaves tiles without dust the bytes that they had', () => {
    const studio = sheet(3, 'paper-cold');
    paint(
      studio,
      { do: 'tool', tool: 'mop', sizeMm: 8 },
      { do: 'load', mixture: { PB29: 1 }, water: 0.6 },
      line(6, 10, 38, 12),
      { do: 'dry' },
    );
    const image = studio.painting.active.capture(0, studio.painting.arena)!;
    const bytes = encodeTile(image);
    expect(
      [...bytes.subarray(8, 12)]
        .reverse()
        .map((c) => String.fromCharCode(c))
        .join(''),
    ).toBe('WASH');
    expect(decodeTile(bytes).wash!.coats.loose.every((plane) => plane === undefined)).toBe(true);
  });

  it('is refused where there is none to fix or to blow off', () => {
    expect(() => paint(sheet(), { do: 'fix' })).toThrow('no dust on "Paint" to fix');
    expect(() => paint(sheet(), { do: 'blow' })).toThrow('no dust on "Paint" to blow off');
  });

  it('takes up on the sketch or in the paint, as the pencil is told', () => {
    const studio = sheet();
    const pencil = (into: 'sketch' | 'layer') =>
      paint(studio, { do: 'tool', tool: 'graphite', sizeMm: 2, into }, line(5, 10, 35, 10, 0.8));
    pencil('sketch');
    expect(meanCoats(studio, 'graphite', ALL)).toBe(0);
    pencil('layer');
    expect(meanCoats(studio, 'graphite', ALL)).toBeGreaterThan(0);
  });

  it('of a wax stick keeps a wash off where it lies, coloured or not', () => {
    const studio = sheet(3, 'paper-cold');
    paint(
      studio,
      { do: 'tool', tool: 'wax', sizeMm: 10 },
      { do: 'load', mixture: { PR188: 1 } },
      line(4, 10, 24, 10, 1),
      line(4, 10, 24, 10, 1),
    );
    expect(meanCoats(studio, 'PR188', [8, 9, 12, 2])).toBeGreaterThan(0);
    paint(
      studio,
      { do: 'tool', tool: 'mop', sizeMm: 12 },
      { do: 'load', mixture: { PB29: 1 }, water: 0.6 },
      line(4, 10, 42, 10, 0.9),
      { do: 'dry' },
    );
    expect(meanCoats(studio, 'PB29', [9, 9, 10, 2])).toBeLessThan(0.8 * meanCoats(studio, 'PB29', [28, 9, 8, 2]));
  });
});

describe('a drawing layer', () => {
  const drawn = () => {
    const studio = sheet();
    paint(studio, { do: 'layer.choose', layer: 'L1' }, ...stick('charcoal'), line(4, 10, 40, 10, 0.8));
    paint(studio, { do: 'tool', tool: 'marker' }, line(4, 20, 40, 20, 0.6));
    return studio;
  };
  const where: Area = [10, 8, 20, 4];

  it('takes sticks and ink, and no paint', () => {
    const studio = drawn();
    expect(meanCoats(studio, 'PBk9', where)).toBeGreaterThan(0);
    paint(studio, { do: 'tool', tool: 'flat' }, { do: 'load', mixture: { PW6: 1 } });
    expect(() => paint(studio, line(4, 10, 40, 10))).toThrow('takes sticks and ink only');
  });

  it('fades by a share and comes back', () => {
    const studio = drawn();
    const [paper] = meanLab(sheet(), where);
    const [full] = meanLab(studio, where);
    const at = (opacity: number) => {
      paint(studio, { do: 'layer.set', layer: 'L1', opacity });
      return meanLab(studio, where)[0];
    };
    expect(at(0)).toBeCloseTo(paper, 4);
    const half = at(0.5);
    expect(half).toBeGreaterThan(full + 1);
    expect(half).toBeLessThan(paper - 1);
    paint(studio, { do: 'undo' }, { do: 'undo' });
    expect(meanLab(studio, where)[0]).toBeCloseTo(full, 6);
    expect(studio.painting.layers[0].opacity).toBe(1);
  });

  it('takes another colour line for line; the ledger knows', () => {
    const studio = drawn();
    const before = coats(studio, 'PBk9', where);
    paint(studio, { do: 'layer.recolour', layer: 'L1', mixture: { PR101V: 1 } });
    const after = coats(studio, 'PR101V', where);
    expect(mean(coats(studio, 'PBk9', ALL))).toBe(0);
    const factor = after.find((_, i) => before[i] > 1e-4)! / before.find((v) => v > 1e-4)!;
    after.forEach((v, i) => expect(v).toBeCloseTo(before[i] * factor, 5));
    expect(meanLab(studio, where)[1]).toBeGreaterThan(6);
    expect(massError(studio)).toBeLessThan(1e-4);
    paint(studio, { do: 'undo' });
    expect(coats(studio, 'PBk9', where)).toEqual(before);
    expect(() => paint(studio, { do: 'layer.recolour', layer: 'L2', mixture: { PW6: 1 } })).toThrow('is no drawing');
  });

  it('comes in from elsewhere as large as it fits, without its paper', () => {
    const studio = sheet();
    const [widthPx, heightPx] = [60, 60];
    const dark = new Uint8Array(widthPx * heightPx);
    for (let y = 0; y < heightPx; y++) dark[y * widthPx + 30] = dark[y * widthPx + 29] = 255;
    const packed = Buffer.from(zlibSync(dark)).toString('base64');
    paint(studio, { do: 'layer.bring', name: 'Scan', widthPx, heightPx, dark: packed });
    const layer = studio.painting.layers.at(-1)!;
    expect([layer.name, layer.kind]).toEqual(['Scan', 'drawing']);
    studio.painting.activeLayer = layer.id;
    // 30 mm high in the middle of 44 mm: its middle column lies at 22 mm
    expect(meanCoats(studio, 'graphite', [21.7, 5, 0.6, 20])).toBeGreaterThan(0);
    expect(meanCoats(studio, 'graphite', [8, 5, 12, 20])).toBe(0);
    expect(massError(studio)).toBeLessThan(1e-4);
    expect(() => paint(studio, { do: 'layer.bring', name: 'Scan', widthPx, heightPx, dark: 'AAAA' })).toThrow(
      'damaged',
    );
    expect(commandSchema.safeParse({ do: 'layer.bring', widthPx: 0, heightPx: 4, dark: '' }).success).toBe(false);
  });
});
