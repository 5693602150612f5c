import { describe, expect, it } from 'vitest';
import { linearToLab } from '@/core/colour/colorimetry';
import { albedoOf } from '@/core/picture/layers/albedo';
import { Picture } from '@/core/picture/picture';
import { line, loaded, paint } from '@/measure/bench';
import { type Studio } from '@/core/journal/studio';
import { act, canvas, raster } from '@/measure/selectionBench';

describe('layers that work together', () => {
  const wet = () => {
    const studio = canvas({ surface: { kind: 'smooth', scale: 1, depth: 1 } });
    paint(studio, ...loaded('flat', 12, { PB29: 1 }), line(3, 12, 27, 12));
    act(studio, { do: 'layer.add' });
    return studio;
  };
  const film = (studio: Studio, layer: number, pigment: string) => {
    const own = studio.painting.layers;
    studio.painting.layers = [own[layer]];
    const mass = studio.massBalance()[pigment]?.film ?? 0;
    studio.painting.layers = own;
    return mass;
  };

  it('wet through takes wet paint up from below, and loses none', () => {
    const amounts = [false, true].map((wetThrough) => {
      const studio = wet();
      act(studio, { do: 'layer.set', layer: 'L3', wetThrough });
      const before = studio.massBalance().PB29;
      paint(studio, ...loaded('flat', 8, { PY35: 1, PW6: 1 }), line(4, 12, 26, 12));
      const after = studio.massBalance().PB29;
      const there = (b: typeof after) => b.film + b.tool + b.removed - b.loaded;
      expect(Math.abs(there(after) - there(before)) / after.loaded).toBeLessThan(1e-5);
      return film(studio, 2, 'PB29') / after.loaded;
    });
    expect(amounts[0]).toBe(0);
    expect(amounts[1]).toBeGreaterThan(0.1);
  });

  it('relief of the layer below catches a dry brush, unless it is told not to', () => {
    const unevenness = [true, false].map((impress) => {
      const studio = canvas({ surface: { kind: 'smooth', scale: 1, depth: 1 } });
      paint(studio, ...loaded('knife', 12, { PW6: 1 }), line(3, 12, 27, 12));
      for (let x = 4; x < 28; x += 2)
        paint(studio, ...loaded('round', 1.6, { PW6: 1 }, { body: 1 }), line(x, 5, x, 19));
      act(studio, { do: 'dry' }, { do: 'layer.add' }, { do: 'layer.set', layer: 'L3', impress });
      paint(studio, ...loaded('flat', 12, { PBk9: 1 }, { body: 0.9 }), line(3, 12, 27, 12, 0.25));
      const { painting } = studio;
      const um: number[] = [];
      for (let x = 8; x < 22; x += 0.25) {
        const [px, py] = [x, 12].map((v) => Math.round(v / painting.mmPerPx));
        const tile = painting.active.tiles[(py >> 6) * painting.tilesX + (px >> 6)];
        um.push(tile?.volume ? painting.arena.f32[(tile.volume >> 2) + (py & 63) * 64 + (px & 63)] : 0);
      }
      const mean = um.reduce((a, b) => a + b, 0) / um.length;
      return Math.sqrt(um.reduce((s, v) => s + (v - mean) ** 2, 0) / um.length) / mean;
    });
    expect(unevenness[0]).toBeGreaterThan(1.5 * unevenness[1]);
  });

  it('a new base lies under finished work and shows only through it', () => {
    const studio = canvas();
    paint(studio, ...loaded('flat', 10, { PR83: 1 }, { thin: 0.8 }), line(5, 12, 25, 12));
    act(studio, { do: 'dry' });
    const px = (v: number) => Math.round(v / studio.painting.mmPerPx);
    const before = new Picture(studio.painting);
    const [on, beside] = [before.labAt(px(15), px(12)), before.labAt(px(15), px(22))];
    act(studio, { do: 'layer.base', layer: 'L2', mixture: { PB29: 1 } });
    expect(studio.painting.layers.map((l) => l.name)).toEqual(['Sketch', 'New base', 'Paint']);
    const after = new Picture(studio.painting);
    expect(after.labAt(px(15), px(12))[2]).toBeLessThan(on[2] - 5);
    after.labAt(px(15), px(22)).forEach((v, i) => expect(v).toBeCloseTo(beside[i], 6));
    expect(() => act(studio, { do: 'layer.base', layer: 'L1', mixture: { PB29: 1 } })).not.toThrow();
  });

  it('colour laid over values keeps the values', () => {
    const studio = canvas({ surface: { kind: 'smooth', scale: 1, depth: 1 } });
    paint(studio, ...loaded('flat', 10, { PBk9: 1, PW6: 4 }), line(3, 7, 27, 7));
    paint(studio, ...loaded('flat', 10, { PBk9: 1, PW6: 30 }), line(3, 17, 27, 17));
    act(studio, { do: 'dry' });
    const at = (y: number) =>
      [Math.round(15 / studio.painting.mmPerPx), Math.round(y / studio.painting.mmPerPx)] as const;
    const luma = (y: number) => {
      const [x, py] = at(y);
      const code = raster(studio)[py * studio.painting.width + x];
      return 0.3 * (code & 255) + 0.59 * ((code >>> 8) & 255) + 0.11 * ((code >>> 16) & 255);
    };
    const before = [7, 17].map(luma);
    act(studio, { do: 'layer.values' });
    paint(studio, ...loaded('flat', 10, { PR188: 1 }), line(15, 2, 15, 22));
    [7, 17].forEach((y, i) => expect(Math.abs(luma(y) - before[i])).toBeLessThan(2.5));
    expect(linearToLab(albedoOf(studio.painting).linearAt(...at(7)))[1]).toBeGreaterThan(15);
  });

  it('a piece is repeated where it is asked, and entered as added', () => {
    const studio = canvas();
    act(
      studio,
      {
        do: 'silhouette',
        outline: [
          [3, 3],
          [6, 3],
          [6, 6],
          [3, 6],
        ],
        mixture: { PR188: 1 },
        thicknessUm: 60,
      },
      { do: 'dry' },
    );
    const one = studio.massBalance().PR188.strata;
    act(studio, { do: 'select', how: 'rectangle', from: [2, 2], to: [7, 7] });
    act(studio, {
      do: 'stamp',
      at: [
        [14, 8],
        [22, 8],
        [14, 18],
        [22, 18],
      ],
      turnJitter: 30,
    });
    const balance = studio.massBalance().PR188;
    expect(balance.strata / one).toBeCloseTo(5, 0.7);
    expect(balance.added! / one).toBeCloseTo(4, 0.7);
    act(studio, { do: 'undo' });
    expect(studio.massBalance().PR188.strata).toBe(one);
  });
});

describe('light', () => {
  it('shades with multiply, glows with screen, builds up to its strength, and is rubbed out', () => {
    const studio = canvas();
    const level = () => {
      const [x, y] = [15, 12].map((v) => Math.round(v / studio.painting.mmPerPx));
      return new Picture(studio.painting).labAt(x, y)[0];
    };
    const bare = level();
    act(studio, { do: 'layer.add', kind: 'tone', blend: 'multiply' });
    act(studio, { do: 'tool', tool: 'spray', sizeMm: 16, strength: 0.3 }, { do: 'load', mixture: { PBk9: 1 } });
    act(studio, line(8, 12, 22, 12));
    const once = level();
    act(studio, line(8, 12, 22, 12));
    const twice = level();
    expect(bare - once).toBeGreaterThan(5);
    expect(once - twice).toBeGreaterThan(3);
    // within one stroke it stays below its ceiling, however often the hand goes over
    act(studio, { do: 'undo' }, { do: 'undo' });
    act(studio, {
      do: 'stroke',
      samples: Array.from({ length: 60 }, (_, i) => [i * 30, 15 + 7 * Math.sin(i), 12, 0.7]),
    });
    expect(bare - level()).toBeLessThan(30);
    act(studio, { do: 'tool', tool: 'eraser', sizeMm: 14, strength: 1 });
    for (let i = 0; i < 5; i++) act(studio, line(6, 12, 24, 12));
    expect(bare - level()).toBeLessThan(0.25 * (bare - once));
    act(
      studio,
      { do: 'layer.add', kind: 'tone', blend: 'screen' },
      { do: 'tool', tool: 'spray', sizeMm: 16, strength: 0.5 },
    );
    act(studio, { do: 'load', mixture: { PW6: 1 } }, line(8, 12, 22, 12));
    expect(level()).toBeGreaterThan(bare);
    // light is no paint
    expect(Object.values(studio.massBalance()).every((b) => b.film === 0 && b.strata === 0)).toBe(true);
  });

  it('is smeared by a blender', () => {
    const studio = canvas();
    act(
      studio,
      { do: 'layer.add', kind: 'tone' },
      { do: 'tool', tool: 'marker', sizeMm: 8 },
      { do: 'load', mixture: { PBk9: 1 } },
    );
    act(studio, line(4, 12, 12, 12), line(4, 12, 12, 12));
    const before = raster(studio);
    act(studio, { do: 'tool', tool: 'blender-soft', sizeMm: 8 }, line(9, 12, 24, 12));
    const after = raster(studio);
    const at = (r: Uint32Array, x: number) =>
      r[Math.round(12 / studio.painting.mmPerPx) * studio.painting.width + Math.round(x / studio.painting.mmPerPx)] &
      255;
    expect(at(before, 18) - at(after, 18)).toBeGreaterThan(8);
  });

  it('says what cannot be painted on', () => {
    const studio = canvas();
    act(studio, { do: 'layer.add', kind: 'group' });
    expect(() => act(studio, line(2, 2, 9, 9))).toThrow(/is a group/);
    act(studio, { do: 'layer.add', kind: 'adjust' });
    expect(() => act(studio, line(2, 2, 9, 9))).toThrow(/give it a mask/);
    act(studio, { do: 'layer.add', kind: 'tone' }, { do: 'tool', tool: 'salt' });
    expect(() => act(studio, line(2, 2, 9, 9))).toThrow(/no paint on/);
    expect(() => act(studio, { do: 'layer.choose', layer: 'L2', part: 'mask' })).toThrow(/has no mask/);
  });
});
