import { describe, expect, it } from 'vitest';
import { deltaE2000 } from '@/core/colour/deltaE2000';
import { chroma, hue } from '@/core/colour/colorimetry';
import { Picture } from '@/core/picture/picture';
import { readRegion } from '@/core/picture/readings';
import {
  correlation,
  coverage,
  deviation,
  edgeWidth,
  field,
  grain,
  line,
  loaded,
  mean,
  meanLab,
  paint,
  studioFor,
  values,
  type Area,
} from '@/measure/bench';

const DARK = { PB29: 3, PW6: 1, PBr7BS: 0.6 };
const YELLOW = { PY35: 3, PY43: 1 };
const BLUE = { PB29: 3, PG7: 0.3, PW6: 0.5 };

/** A loaded flat drawn 225 mm across linen, read in tenths of its length. */
function longStroke(seed: number, kind: 'linen-fine' | 'linen-coarse', ppi: number) {
  const studio = studioFor(250, 30, { seed, ppi, surface: { kind } });
  paint(studio, ...loaded('flat', 20, DARK), line(12, 15, 237, 15.5, 0.62));
  const tenths = Array.from({ length: 10 }, (_, k): Area => [14 + k * 22, 8, 22, 14]);
  return { studio, tenths, covered: tenths.map((area) => coverage(studio, area)) };
}

const grounds = [2, 5, 9].flatMap((seed) =>
  (['linen-fine', 'linen-coarse'] as const).map((kind) => [seed, kind, seed === 5 ? 150 : 101.6] as const),
);

describe.each(grounds)('a loaded flat on linen (seed %i, %s, %i ppi)', (seed, kind, ppi) => {
  const { studio, tenths, covered } = longStroke(seed, kind, ppi);

  it('runs out: covers at first, and never more again', () => {
    covered.slice(0, 3).forEach((c) => expect(c).toBeGreaterThan(0.95));
    expect(covered[9]).toBeLessThan(0.5);
    for (let k = 1; k < 10; k++) expect(covered[k] - covered[k - 1]).toBeLessThan(0.02);
  });

  it('touches the peaks of the weave in its tail', () => {
    const tail = tenths.filter((_, k) => covered[k] < 0.6 && covered[k] > 0.05);
    expect(tail.length).toBeGreaterThan(0);
    expect(mean(tail.map((a) => correlation(values(studio, 'volume', a), grain(studio, a))))).toBeGreaterThan(0.3);
  });

  it('leaves the streaks of its bristles', () => {
    const step = studio.painting.mmPerPx;
    const across: number[] = [];
    const along: number[] = [];
    for (let y = 8; y < 22; y += step) across.push(mean(values(studio, 'volume', [75, y, 20, step])));
    for (let x = 75; x < 95; x += step) along.push(mean(values(studio, 'volume', [x, 8, step, 14])));
    expect(deviation(across) ** 2 / deviation(along) ** 2).toBeGreaterThan(1.8);
  });
});

describe.each([3, 7])('wet into wet (seed %i)', (seed) => {
  const cross = (dry: boolean) => {
    const studio = studioFor(80, 70, { seed });
    paint(studio, ...field([8, 5, 55, 40], YELLOW));
    if (dry) paint(studio, { do: 'dry' });
    paint(studio, ...loaded('filbert', 11, BLUE, { amount: 0.8 }), line(8, 25, 60, 25));
    const { mixture } = studio.tools.carried();
    const total = Object.values(mixture).reduce((a, b) => a + b, 0);
    return { studio, yellow: ((mixture.PY35 ?? 0) + (mixture.PY43 ?? 0)) / total };
  };

  it('blue across wet yellow turns green, and dirties the brush', () => {
    const { studio, yellow } = cross(false);
    const hues = [14, 24, 34, 44].map((x) => hue(meanLab(studio, [x, 23, 6, 4])));
    hues.forEach((h) => {
      expect(h).toBeGreaterThan(100);
      expect(h).toBeLessThan(190);
    });
    expect(yellow).toBeGreaterThan(0.15);
    // what it leaves afterwards leans from blue towards green
    paint(studio, line(8, 57, 60, 57));
    expect(hue(meanLab(studio, [12, 55, 6, 4]))).toBeLessThan(265);
  });

  it('blue across dry yellow stays blue, and takes none of it', () => {
    const { studio, yellow } = cross(true);
    expect(hue(meanLab(studio, [14, 23, 20, 4]))).toBeGreaterThan(240);
    expect(yellow).toBeLessThan(0.01);
  });

  it('two colours on one brush stay apart to the middle of the stroke', () => {
    const studio = studioFor(120, 30, { seed });
    paint(
      studio,
      { do: 'tool', tool: 'flat', sizeMm: 18, body: 0.6 },
      { do: 'load', mixture: { PB29: 1, PW6: 1 }, edge: { mixture: { PY35: 1 } }, amount: 1.2 },
      line(8, 15, 110, 15),
    );
    const difference = Math.abs(hue(meanLab(studio, [55, 8, 8, 3])) - hue(meanLab(studio, [55, 19, 8, 3])));
    expect(Math.min(difference, 360 - difference)).toBeGreaterThan(40);
  });

  it('a clean soft blender loses a hard edge', () => {
    const studio = studioFor(130, 50, { seed });
    paint(studio, ...field([5, 4, 55, 42], { PB29: 1, PBr7BS: 1.2, PW6: 0.2 }, 13));
    for (let y = 10.5; y < 44; y += 8) {
      paint(studio, ...loaded('flat', 13, { PW6: 5, PY43: 1 }, { body: 0.5, amount: 1.2 }), line(115, y, 60.2, y));
    }
    const profile = (from: number, to: number) => {
      const picture = new Picture(studio.painting);
      const out: number[] = [];
      for (let x = from; x < to; x += 0.25) out.push(meanLab(studio, [x, 14, 0.25, 20], picture)[0]);
      return out;
    };
    const before = edgeWidth(profile(50, 70));
    const zigzag = (reach: number, step: number) =>
      ({
        do: 'stroke',
        samples: Array.from({ length: Math.floor(60 / step) }, (_, i) => [i * 50, 60 + (i % 2 ? reach : -reach), 10 + (i * step) / 2, 0.45]),
      }) as const; // prettier-ignore
    paint(studio, { do: 'tool', tool: 'blender-soft', sizeMm: 14 }, zigzag(6.5, 6.5), zigzag(11.5, 8.5));
    expect(edgeWidth(profile(40, 80)) / before).toBeGreaterThan(4);
  });
});

describe('film over dry paint', () => {
  it('a glaze deepens light paint and leaves its relief to the light', () => {
    const studio = studioFor(70, 50, { seed: 4 });
    paint(studio, ...field([5, 5, 55, 40], { PW6: 6, PY43: 0.5 }, 12, 0.9), { do: 'dry' });
    const picture = new Picture(studio.painting);
    const read = () => {
      picture.update({ left: 0, top: 0, right: studio.painting.width, bottom: studio.painting.height });
      return readRegion(picture, 60, 60, 180, 140);
    };
    const before = read();
    paint(studio, { do: 'tool', tool: 'flat', sizeMm: 14, body: 0.05, thin: 0.95 });
    for (let y = 10; y < 46; y += 9) {
      paint(
        studio,
        { do: 'rinse' },
        { do: 'load', mixture: { PBr7BS: 1, PR101T: 0.5 }, amount: 0.5 },
        line(5, y, 60, y),
      );
    }
    const after = read();
    expect(after.meanLab[0]).toBeLessThan(before.meanLab[0] - 5);
    expect(chroma(after.meanLab)).toBeGreaterThan(chroma(before.meanLab) + 5);
    expect(after.shading / before.shading).toBeGreaterThan(0.8);
  });

  it('a thin scumble of white over dark turns cool', () => {
    const studio = studioFor(70, 50, { seed: 6 });
    const black = { PBk9: 1, PBr7BU: 1 };
    paint(studio, ...field([5, 5, 55, 40], black, 14), ...field([5, 5, 55, 40], black, 14), { do: 'dry' });
    const before = meanLab(studio, [15, 15, 30, 20]);
    paint(studio, ...loaded('flat', 14, { PW6: 1 }, { body: 0.7, thin: 0.6, amount: 0.25 }));
    for (let y = 12; y < 42; y += 8) paint(studio, line(8, y, 58, y, 0.35));
    const after = meanLab(studio, [15, 15, 30, 20]);
    expect(before[2] - after[2]).toBeGreaterThan(3);
  });

  it('drying changes the picture by next to nothing', () => {
    const studio = studioFor(60, 40, { seed: 8 });
    paint(studio, ...field([4, 4, 50, 30], BLUE, 12), ...loaded('round', 5, YELLOW), line(8, 10, 50, 30));
    const areas = Array.from({ length: 20 }, (_, i): Area => [4 + (i % 5) * 10, 4 + Math.floor(i / 5) * 7, 3, 3]);
    const before = areas.map((a) => meanLab(studio, a));
    paint(studio, { do: 'dry' });
    areas.forEach((a, i) => expect(deltaE2000(before[i], meanLab(studio, a))).toBeLessThan(0.5));
  });
});

describe('what does not depend on how it is computed', () => {
  it.each(['flat', 'round', 'filbert'] as const)(
    'a %s leaves the same millimetres of paint at every resolution',
    (tool) => {
      const read = (ppi: number) => {
        const studio = studioFor(80, 30, { seed: 2, ppi });
        paint(studio, ...loaded(tool, 10, { PB29: 1, PW6: 2 }), line(8, 15, 70, 15.5));
        const area: Area = [14, 12, 40, 6];
        return { lab: meanLab(studio, area), um: mean(values(studio, 'volume', area)) };
      };
      const [a, b, c] = [100, 150, 300].map(read);
      for (const other of [b, c]) {
        expect(deltaE2000(a.lab, other.lab)).toBeLessThan(2);
        expect(Math.abs(other.um / a.um - 1)).toBeLessThan(0.1);
      }
    },
  );

  it('borders of tiles leave no trace', () => {
    // the same stroke, once where it crosses borders and once a whole patch of the surface farther
    const read = (shiftCells: number) => {
      const studio = studioFor(250, 40, { seed: 2 });
      const mm = studio.painting.mmPerPx;
      const at = 30 + shiftCells * mm;
      paint(studio, ...loaded('flat', 12, DARK), line(at, 20, at + 50, 20.5));
      return values(studio, 'volume', [at - 5, 10, 62, 22]);
    };
    const period = studioFor(20, 20, { seed: 2 }).painting.surface.size;
    expect(period % 64).not.toBe(0);
    const here = read(0);
    const there = read(period);
    expect(here.length).toBe(there.length);
    // positions differ only by rounding of float64 millimetres
    expect(Math.abs(mean(here) / mean(there) - 1)).toBeLessThan(0.004);
    expect(correlation(here, there)).toBeGreaterThan(0.995);
  });

  it('a stroke is the same however its samples arrive', () => {
    const samples = Array.from({ length: 60 }, (_, i) => [
      i * 8,
      6 + i * 0.8,
      15 + 6 * Math.sin(i / 7),
      0.3 + 0.005 * i,
    ]);
    const read = (bundle: number) => {
      const studio = studioFor(70, 30, { seed: 3 });
      paint(studio, ...loaded('flat', 9, DARK));
      studio.beginStroke();
      samples.forEach((s, i) => {
        studio.addSample(s);
        if (i % bundle === 0) studio.publishStroke();
      });
      studio.endStroke();
      return values(studio, 'volume', [0, 0, 70, 30]);
    };
    expect(read(1)).toEqual(read(13));
  });
});

describe('controls', () => {
  const laid = (more: object) => {
    const studio = studioFor(60, 24, { seed: 5 });
    paint(studio, ...loaded('flat', 12, { PB29: 1, PW6: 2 }, more), line(6, 12, 54, 12));
    return mean(values(studio, 'volume', [10, 8, 20, 8]));
  };

  it('strength is a ceiling on what one stroke leaves', () => {
    const full = laid({});
    expect(laid({ strength: 0.5 }) / full).toBeLessThan(0.55);
    expect(laid({ strength: 0.5 }) / full).toBeGreaterThan(0.25);
    expect(laid({ strength: 0.2 }) / full).toBeLessThan(0.25);
  });

  it('at the blend end a brush gives nothing of its own but carries what it finds', () => {
    const studio = studioFor(60, 30, { seed: 5 });
    paint(
      studio,
      ...field([4, 4, 20, 20], YELLOW, 12),
      ...loaded('flat', 10, BLUE, { blend: 1 }),
      line(10, 14, 50, 14),
    );
    const blue = mean(values(studio, 'PB29', [28, 10, 16, 8]));
    const yellow = mean(values(studio, 'PY35', [28, 10, 16, 8]));
    expect(yellow).toBeGreaterThan(0.01);
    expect(blue).toBeLessThan(yellow / 20);
  });

  it('medium thins the pigment and not the film', () => {
    const read = (thin: number) => {
      const studio = studioFor(60, 24, { seed: 5 });
      paint(studio, ...loaded('flat', 12, { PB29: 1 }, { thin }), line(6, 12, 54, 12));
      const area: Area = [10, 8, 20, 8];
      return mean(values(studio, 'PB29', area)) / mean(values(studio, 'volume', area));
    };
    expect(read(0.75) / read(0)).toBeCloseTo(0.25, 3);
  });

  it('harder pressure lays a wider mark with a round', () => {
    const width = (pressure: number) => {
      const studio = studioFor(40, 24, { seed: 5 });
      paint(studio, ...loaded('round', 8, { PB29: 1 }), line(4, 12, 36, 12, pressure));
      return coverage(studio, [10, 4, 20, 16]);
    };
    expect(width(0.8)).toBeGreaterThan(1.3 * width(0.15));
  });
});
