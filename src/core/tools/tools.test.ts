import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { Arena } from '@/core/film/arena';
import { readCommand } from '@/core/journal/replay';
import { coverage, deviation, field, line, loaded, mean, paint, studioFor, values, type Area } from '@/measure/bench';
import { FORMS, formOf } from '@/core/marks/brush/brushForms';
import { DabWalker } from '@/core/marks/brush/dabbing';
import { makeFootprint } from '@/core/marks/brush/footprint';
import type { Stamp } from '@/core/marks/path';
import { coats } from '@/measure/water/washBench';
import { runs } from '@/measure/thorough';
import { BrushStroke } from '@/core/marks/brush/brushStroke';
import { COMMANDS } from '@/core/commands/commands';
import { Studio } from '@/core/journal/studio';
import { defineTool } from './definition';
import { DIALS } from './dials';
import { square } from './drawing';
import { hairCarrier } from './families/brushes';
import { startSettings, TOOL_IDS, toolOf, TOOLS, type ToolId } from './tools';

const DARK = { PB29: 1, PBr7BU: 1.2, PW6: 0.4 };
const everywhere: Area = [0, 0, 90, 60];

describe('every tool', () => {
  it.each(TOOL_IDS)('%s is held as it may be written down', (tool) => {
    expect(readCommand({ do: 'tool', ...startSettings(tool) })).toEqual({ do: 'tool', ...startSettings(tool) });
  });

  it.each(TOOL_IDS.filter((id) => toolOf(id).brush))('%s has a form with hair', (tool) => {
    const arena = new Arena();
    const f = makeFootprint(arena, toolOf(tool).brush!(startSettings(tool)), 12, 0.25, 3);
    expect(f.hairy.some((h) => h === 1)).toBe(true);
    f.rollTo(7.3);
    f.dispose();
    expect(arena.used).toBe(0);
  });

  it.each(TOOL_IDS.filter((id) => toolOf(id).forWater && toolOf(id).takesPaint && !toolOf(id).thirsty))(
    '%s leaves its wash or ink on paper',
    (tool) => {
      const studio = studioFor(40, 30, { surface: { kind: 'paper-cold' } });
      paint(
        studio,
        { do: 'tool', tool, distanceMm: 40 },
        { do: 'load', mixture: { PB29: 1 } },
        line(8, 15, 32, 15, 0.8),
      );
      expect(Math.max(...coats(studio, 'PB29', [4, 4, 32, 22]))).toBeGreaterThan(0.001);
      expect(studio.massBalance().PB29.loaded).toBeGreaterThan(0);
    },
  );

  it.each(TOOL_IDS.filter((id) => toolOf(id).stick && toolOf(id).takesPaint))(
    '%s leaves dust of what it was loaded with',
    (tool) => {
      const studio = studioFor(40, 30, { surface: { kind: 'paper-laid' } });
      paint(studio, { do: 'tool', tool, hold: 'flat' }, { do: 'load', mixture: { PB29: 1 } }, line(8, 15, 32, 15, 0.8));
      expect(Math.max(...coats(studio, 'PB29', [4, 4, 32, 22]))).toBeGreaterThan(0.001);
      expect(Object.keys(studio.massBalance())).toEqual(['PB29']);
    },
  );

  it.each(TOOL_IDS.filter((id) => toolOf(id).takesPaint && !toolOf(id).forWater && !toolOf(id).stick))(
    '%s leaves paint when it is loaded, and none when it is not',
    (tool) => {
      const lay = (load: boolean) => {
        const studio = studioFor(90, 60);
        paint(studio, { do: 'tool', tool, blend: 0.3, body: 0.4 });
        if (load) paint(studio, { do: 'load', mixture: DARK });
        paint(studio, line(15, 30, 75, 30, 0.7));
        return Object.values(studio.massBalance()).reduce((sum, m) => sum + m.film, 0);
      };
      expect(lay(false)).toBe(0);
      expect(lay(true)).toBeGreaterThan(0);
    },
  );

  it.each(TOOL_IDS.filter((id) => toolOf(id).takesPaint && !toolOf(id).blender && !toolOf(id).forWater))(
    '%s gives next to nothing of its own at the blend end, over wet paint',
    (tool) => {
      const laid = (blend: number) => {
        const studio = studioFor(90, 60);
        paint(studio, ...field([5, 10, 80, 40], { PY35: 1 }, 14, 0.4));
        paint(studio, { do: 'tool', tool, blend }, { do: 'load', mixture: { PB29: 1 } }, line(15, 30, 75, 30, 0.6));
        return mean(values(studio, 'PB29', [12, 20, 66, 20]));
      };
      expect(laid(1)).toBeLessThan(0.2 * laid(0.2));
    },
  );

  it.each(TOOL_IDS.filter((id) => !toolOf(id).takesPaint))('%s takes no paint, and says so', (tool) => {
    const studio = studioFor(40, 40);
    paint(studio, { do: 'tool', tool });
    expect(() => paint(studio, { do: 'load', mixture: DARK })).toThrow(/takes no paint/);
  });
});

describe('a tool', () => {
  /** A tool that no part of the house knows: a broom. */
  const form = () => FORMS.house;
  const broom = defineTool(
    {},
    {
      seed: 900,
      sizeMm: 30,
      start: { body: 0.9 },
      card: ['Broken', 'Broom', 'swept', 'as wide as a door'],
      holds: 'reservoir',
      takesPaint: true,
      brush: form,
      carrier: hairCarrier(form),
      stroke: (setting, hand) => new BrushStroke(setting, FORMS.house, hand.footprint(FORMS.house), hand.reservoir()),
      dials: [DIALS.size, DIALS.body],
      outline: ({ sizeMm }) => square(sizeMm, 4),
    },
  );

  it('is brought in by its definition alone: it is held, loaded, drawn with and taken back', () => {
    const { spec } = studioFor(60, 40);
    const known = TOOLS.with({ broom }) as unknown as typeof TOOLS;
    const studio = new Studio(spec, 1e8, new Arena(), COMMANDS, known);
    const act = (command: object) => studio.apply(command as never);
    act({ do: 'tool', tool: 'broom' });
    expect(studio.tools.current).toMatchObject({ tool: 'broom', sizeMm: 30, body: 0.9 });
    act({ do: 'load', mixture: DARK, amount: 1 });
    expect(studio.tools.carried().level).toBeGreaterThan(0.9);
    act({
      do: 'stroke',
      samples: [
        [0, 5, 20, 0.7],
        [300, 55, 20, 0.7],
      ],
    });
    expect(mean(values(studio, 'PB29', [20, 15, 20, 10]))).toBeGreaterThan(0);
    act({ do: 'undo' });
    expect(studio.massBalance().PB29.film).toBe(0);
    // and what the interface shows of it is said by it
    expect(broom.card).toEqual({ mark: 'Broken', name: 'Broom', edge: 'swept', hint: 'as wide as a door' });
    expect(broom.outline(broom.first)).toEqual({ widthMm: 30, lengthMm: 4, corners: 'square' });
    expect(broom.dials.map(({ label, at, say }) => `${label} ${say(at(broom.first))}`)).toEqual([
      'Size 30 mm',
      'Body paste',
    ]);
  });

  it('has hairs of its own, and a stroke', () => {
    expect(() => TOOLS.with({ broom: { ...broom, seed: toolOf('flat').seed } })).toThrow('the same seed');
    expect(() => defineTool({}, { seed: 901, sizeMm: 3, card: ['', 'Stick', '', ''] })).toThrow('has no stroke');
  });

  it.each(TOOL_IDS)('%s says what its dials and ways set', (tool) => {
    const { dials, ways, first, bare, outline, picture } = toolOf(tool);
    for (const { at, set, say } of dials) {
      expect(at(first)).toBeGreaterThanOrEqual(0);
      expect(at(first)).toBeLessThanOrEqual(1);
      // what is set is what is shown again, to what the scale tells
      const there = { ...first, ...set(at(first)) };
      expect(say(at(there))).toBe(say(at(first)));
    }
    for (const { at, options } of ways) {
      expect(options.map(({ value }) => value)).toContain(at(first));
      for (const { set, value } of options) expect(at({ ...first, ...set })).toBe(value);
    }
    expect(bare(first, 0).length).toBeGreaterThan(2);
    expect(outline(first).widthMm).toBeGreaterThan(0);
    expect(picture(first).parts.length).toBeGreaterThan(0);
  });
});

describe('hair', () => {
  it('comes in bristle and soft where brushes do', () => {
    const hairs = (id: ToolId) => toolOf(id).ways.some(({ label }) => label === 'Hair');
    expect(hairs('flat')).toBe(true);
    expect(hairs('roller')).toBe(false);
    expect(formOf('flat', 'soft')).toBe(formOf('flat', 'soft'));
    expect(formOf('flat', 'soft').stiffness).toBeLessThan(FORMS.flat.stiffness);
    // a tool without a soft form keeps its own
    expect(toolOf('roller').brush!({ ...startSettings('roller'), hair: 'soft' })).toBe(FORMS.roller);
  });

  it('changed on a loaded brush keeps its paint', () => {
    const studio = studioFor(40, 40);
    paint(studio, ...loaded('flat', 10, DARK));
    const before = studio.tools.carried();
    paint(studio, { do: 'tool', tool: 'flat', hair: 'soft' });
    const after = studio.tools.carried();
    expect(after.level).toBeGreaterThan(0.8 * before.level);
    for (const m of Object.values(studio.massBalance())) {
      expect(Math.abs((m.film + m.strata + m.tool + m.removed) / m.loaded - 1)).toBeLessThan(1e-4);
    }
  });
});

describe('a roller', () => {
  it('lays its own surface out again and again, turn by turn', () => {
    const arena = new Arena();
    const f = makeFootprint(arena, FORMS.roller, 20, 0.25, 3);
    const look = (mm: number) => {
      f.rollTo(mm);
      return [...arena.f32.slice(f.profile >> 2, (f.profile >> 2) + 2 * f.mapWidth * f.mapLength)];
    };
    const start = look(0);
    expect(look(5)).not.toEqual(start);
    expect(look(0.9 * 20)).toEqual(start);
    f.dispose();
  });
});

describe('dabs', () => {
  const path = (seed: number) => {
    const stamps: Stamp[] = [];
    let downs = 0;
    const walker = new DabWalker(
      10,
      seed,
      () => 0.5,
      () => downs++,
      (s) => stamps.push(s),
    );
    for (let i = 0; i <= 240; i++) {
      walker.add({ t: i, x: i * 0.25, y: 0, pressure: 0.6, tiltX: 0, tiltY: 0, twist: 0 });
    }
    walker.end();
    return { stamps, downs };
  };

  it('are set down again and again beside the way, each drawn a little', () => {
    const { stamps, downs } = path(3);
    expect(downs).toBeGreaterThan(10);
    expect(stamps.length).toBeGreaterThan(3 * downs);
    const off = stamps.map((s) => s.point.y);
    expect(deviation(off)).toBeGreaterThan(1);
    off.forEach((y) => expect(Math.abs(y)).toBeLessThan(8));
    stamps.forEach((s) => expect(s.point.pressure).toBeLessThanOrEqual(1));
  });

  it('fall the same for the same stroke, and otherwise for another', () => {
    expect(path(3)).toEqual(path(3));
    expect(path(4).stamps).not.toEqual(path(3).stamps);
  });

  it('leave gaps where a drawn stroke is closed', () => {
    const covered = (touch: 'drag' | 'dab') => {
      const studio = studioFor(90, 60);
      paint(studio, ...loaded('filbert', 9, DARK, { touch }), line(10, 30, 80, 30));
      return coverage(studio, [20, 28, 40, 4]);
    };
    expect(covered('drag')).toBeGreaterThan(0.95);
    expect(covered('dab')).toBeLessThan(0.9);
    expect(covered('dab')).toBeGreaterThan(0.2);
  });
});

describe('the hand', () => {
  const laid = (more: object, pressure: number) => {
    const studio = studioFor(60, 24);
    paint(studio, ...loaded('round', 8, DARK, more), line(6, 12, 54, 12, pressure));
    return coverage(studio, [15, 4, 25, 16]);
  };
  it('has a least pressure and a curve', () => {
    expect(laid({ floor: 0.6 }, 0.05)).toBeGreaterThan(1.4 * laid({}, 0.05));
    expect(laid({ curve: 0.4 }, 0.2)).toBeGreaterThan(1.15 * laid({}, 0.2));
    expect(laid({ curve: 3 }, 0.5)).toBeLessThan(0.95 * laid({}, 0.5));
    expect(laid({ floor: 0.6 }, 0)).toBe(0);
  });

  it('a tool that keeps loaded never runs out', () => {
    const ends = (keepLoaded: boolean) => {
      const studio = studioFor(90, 60);
      paint(studio, ...loaded('flat', 12, DARK, { keepLoaded, amount: 1 }));
      for (let k = 0; k < 6; k++) paint(studio, line(6, 10 + k * 8, 84, 10 + k * 8));
      return coverage(studio, [20, 46, 50, 8]);
    };
    expect(ends(true)).toBeGreaterThan(0.8);
    expect(ends(false)).toBeLessThan(0.4);
  });

  it('one corner can be loaded with another colour', () => {
    const share = (part: number) => {
      const studio = studioFor(90, 30);
      paint(
        studio,
        { do: 'tool', tool: 'flat', sizeMm: 16 },
        { do: 'load', mixture: { PB29: 1 }, edge: { mixture: { PY35: 1 }, share: part } },
      );
      const { mixture } = studio.tools.carried();
      return (mixture.PY35 ?? 0) / ((mixture.PY35 ?? 0) + (mixture.PB29 ?? 0));
    };
    expect(share(0.5)).toBeCloseTo(0.5, 1);
    expect(share(0.2)).toBeLessThan(0.28);
    expect(share(0.2)).toBeGreaterThan(0.1);
  });

  it('a rinsed brush may stay damp with solvent, which thins what is loaded next', () => {
    const pigment = (damp: number) => {
      const studio = studioFor(60, 30);
      paint(
        studio,
        { do: 'tool', tool: 'flat', sizeMm: 10 },
        { do: 'rinse', damp },
        { do: 'load', mixture: { PB29: 1 } },
        line(6, 15, 54, 15),
      );
      return mean(values(studio, 'PB29', [20, 12, 20, 6])) / mean(values(studio, 'volume', [20, 12, 20, 6]));
    };
    expect(pigment(1)).toBeLessThan(0.97 * pigment(0));
  });
});

describe('spray and spatter', () => {
  it('draw on their cup until it is empty, and no drop is lost', () => {
    fc.assert(
      fc.property(
        fc.constantFrom<ToolId>('spray', 'spatter'),
        fc.double({ min: 0.02, max: 0.4, noNaN: true }),
        fc.double({ min: 0, max: 1, noNaN: true }),
        (tool, amount, blend) => {
          const studio = studioFor(90, 60);
          paint(
            studio,
            ...field([10, 10, 40, 40], { PY43: 1 }, 15),
            ...loaded(tool, tool === 'spray' ? 20 : 1.5, { PB29: 1 }, { amount, blend }),
          );
          for (let y = 10; y < 60; y += 10) paint(studio, line(10, y, 80, y, 0.9));
          for (const m of Object.values(studio.massBalance())) {
            expect(Math.abs((m.film + m.strata + m.tool + m.removed) / m.loaded - 1)).toBeLessThan(1e-4);
          }
          expect(mean(values(studio, 'volume', everywhere))).toBeGreaterThan(0);
        },
      ),
      { numRuns: runs(12) },
    );
  });

  it('thrown with a leaning pen, drops fly that way', () => {
    const centre = (tiltX: number) => {
      const studio = studioFor(90, 60);
      const samples = Array.from({ length: 10 }, (_, i) => [i * 10, 42 + i * 0.6, 30, 0.7, tiltX, 0, 0]);
      paint(studio, ...loaded('spatter', 1, DARK, { distanceMm: 120, body: 0.1 }), { do: 'stroke', samples });
      const columns = Array.from({ length: 90 }, (_, x) => mean(values(studio, 'volume', [x, 0, 1, 60])));
      return columns.reduce((sum, v, x) => sum + v * x, 0) / columns.reduce((a, b) => a + b, 0);
    };
    expect(centre(50)).toBeGreaterThan(centre(-50) + 8);
  });

  it('what is sprayed can be sampled as the mixture that it is', () => {
    const studio = studioFor(90, 60);
    paint(studio, ...loaded('spray', 24, { PB29: 1, PW6: 3 }, { blend: 0 }), line(10, 30, 80, 30, 0.9));
    const blue = mean(values(studio, 'PB29', [30, 28, 30, 4]));
    expect(mean(values(studio, 'PW6', [30, 28, 30, 4])) / blue).toBeCloseTo(3, 2);
  });
});
