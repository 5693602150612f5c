import { describe, expect, it } from 'vitest';
import { Picture } from '@/core/picture/picture';
import { thicknessAt } from '@/core/picture/readings';
import { PainterError } from '@/core/errors';
import {
  correlation,
  eachCell,
  field,
  grain,
  line,
  loaded,
  mean,
  meanLab,
  paint,
  studioFor,
  type Area,
} from '@/measure/bench';
import type { Studio } from '@/core/journal/studio';
import { coats } from '@/measure/water/washBench';

/** All paint over an area, um. */
function thickness(studio: Studio, area: Area): number[] {
  const picture = new Picture(studio.painting);
  const out: number[] = [];
  eachCell(studio, area, (x, y) => {
    const { dry, wet } = thicknessAt(picture, x, y);
    out.push(dry + wet);
  });
  return out;
}

describe.each(['wet', 'dry'])('rubbing out %s paint', (state) => {
  const rubbed = (tip: 'hard' | 'soft') => {
    const studio = studioFor(60, 40, { seed: 7 });
    paint(studio, ...field([4, 4, 50, 30], { PBr7BU: 1 }, 12));
    if (state === 'dry') paint(studio, { do: 'dry' });
    paint(studio, { do: 'tool', tool: 'eraser', sizeMm: 6, tip }, line(30, 2, 30, 38, 1));
    return studio;
  };

  it('opens the ground, and leaves what is beside it alone', () => {
    const studio = rubbed('hard');
    expect(Math.max(...thickness(studio, [29, 10, 2, 20]))).toBe(0);
    expect(mean(thickness(studio, [10, 10, 12, 20]))).toBeGreaterThan(40);
    expect(meanLab(studio, [29, 10, 2, 20])[0]).toBeGreaterThan(90);
  });

  it('leaves a found edge with a hard tip, a lost one with a soft', () => {
    const rise = (tip: 'hard' | 'soft') => {
      const studio = rubbed(tip);
      const profile = Array.from({ length: 24 }, (_, i) => mean(thickness(studio, [30 + i * 0.25, 10, 0.25, 20])));
      const full = mean(profile.slice(-6));
      return profile.filter((v) => v > 0.1 * full && v < 0.8 * full).length;
    };
    expect(rise('hard')).toBeLessThan(4);
    expect(rise('soft')).toBeGreaterThan(rise('hard'));
  });

  it('enters what it takes in the ledger', () => {
    for (const m of Object.values(rubbed('soft').massBalance())) {
      expect(Math.abs(m.film + m.strata + m.tool + m.removed - m.loaded) / m.loaded).toBeLessThan(1e-4);
    }
  });
});

describe('the pencil', () => {
  const sketch = (pressure: number) => {
    const studio = studioFor(60, 20, { seed: 4, surface: { kind: 'linen-coarse' } });
    paint(studio, { do: 'tool', tool: 'graphite', sizeMm: 3 }, line(5, 10, 55, 10, pressure));
    return studio;
  };
  const graphite = (studio: Studio, area: Area) => {
    const [sketchLayer] = studio.painting.layers;
    studio.painting.activeLayer = sketchLayer.id;
    return coats(studio, 'graphite', area);
  };

  it('draws on the sketch, darker when pressed', () => {
    const light = sketch(0.2);
    const dark = sketch(0.9);
    expect(light.painting.layers[0].kind).toBe('drawing');
    expect(mean(graphite(dark, [20, 9, 20, 2]))).toBeGreaterThan(2 * mean(graphite(light, [20, 9, 20, 2])));
    expect(meanLab(dark, [20, 9.5, 20, 1])[0]).toBeLessThan(80);
  });

  it('meets the peaks of the grain first', () => {
    const studio = sketch(0.25);
    const area: Area = [20, 9.4, 20, 1.2];
    expect(correlation(graphite(studio, area), grain(studio, area))).toBeGreaterThan(0.4);
  });

  it('is covered by paint and shows when the paint is hidden', () => {
    const studio = sketch(0.9);
    const bare = meanLab(studio, [20, 9.5, 20, 1])[0];
    paint(studio, ...field([4, 4, 50, 12], { PW6: 1 }, 12), ...field([4, 4, 50, 12], { PW6: 1 }, 12));
    const painted = meanLab(studio, [20, 9.5, 20, 1])[0];
    expect(painted).toBeGreaterThan(bare + 5);
    paint(studio, { do: 'layer.set', layer: 'L2', visible: false });
    expect(meanLab(studio, [20, 9.5, 20, 1])[0]).toBeCloseTo(bare, 6);
  });
});

describe('tools that do not fit the layer', () => {
  it('say so, and nothing changes', () => {
    const studio = studioFor(30, 20);
    paint(studio, { do: 'layer.choose', layer: 'L1' }, ...loaded('flat', 8, { PW6: 1 }));
    expect(() => paint(studio, line(5, 10, 25, 10))).toThrow(PainterError);
    expect(() => paint(studio, line(5, 10, 25, 10))).toThrow(/takes sticks and ink only/);
    paint(studio, { do: 'layer.choose', layer: 'L2' }, { do: 'layer.set', layer: 'L2', visible: false });
    expect(() => paint(studio, line(5, 10, 25, 10))).toThrow(/is hidden/);
    paint(studio, { do: 'tool', tool: 'graphite' });
    expect(() => paint(studio, { do: 'load', mixture: { PW6: 1 } })).toThrow(/takes no paint/);
    paint(studio, { do: 'layer.set', layer: 'L1', visible: false });
    expect(() => paint(studio, line(5, 10, 25, 10))).toThrow(/no sketch/);
  });
});
