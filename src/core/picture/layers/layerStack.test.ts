import { zlibSync } from 'fflate';
import { describe, expect, it } from 'vitest';
import { BLEND_MODES, blendOver } from '@/core/colour/blendModes';
import { BANDS } from '@/core/colour/bands';
import { linearToLab } from '@/core/colour/colorimetry';
import { deltaE2000 } from '@/core/colour/deltaE2000';
import { filmReflectance } from '@/core/colour/kubelkaMunk';
import { bandsToLinear } from '@/core/colour/mixture';
import { pigmentIndex } from '@/core/colour/pigments';
import { wholeRect } from '@/core/film/tilesIn';
import { commandSchema, type CommandInput } from '@/core/commands/commands';
import { Studio } from '@/core/journal/studio';
import { latticeHash } from '@/core/surface/noise';
import { line, loaded, paint, studioFor } from '@/measure/bench';
import { albedoOf } from './albedo';
import { Picture } from '@/core/picture/picture';

const act = (studio: Studio, ...commands: CommandInput[]) =>
  commands.map((c) => studio.apply(commandSchema.parse(c))).at(-1)!;
const pixels = (w: number, h: number, pixel: (x: number, y: number) => readonly number[], rest = {}): CommandInput => {
  const bytes = new Uint8Array(w * h * 4);
  for (let y = 0; y < h; y++) for (let x = 0; x < w; x++) bytes.set(pixel(x, y), (y * w + x) * 4);
  return {
    do: 'layer.picture',
    widthPx: w,
    heightPx: h,
    rgba: Buffer.from(zlibSync(bytes)).toString('base64'),
    fit: 'tile',
    ...rest,
  };
};
const codeAt = (raster: Uint32Array, i: number) => [raster[i] & 255, (raster[i] >>> 8) & 255, (raster[i] >>> 16) & 255];
const raster = (studio: Studio) => albedoOf(studio.painting).raster(wholeRect(studio.painting));
/** 40 cells a side, so that a picture of that size has a pixel for each. */
const SIDE = 40;
const square = () => new Studio(studioFor((SIDE * 25.4) / 120, (SIDE * 25.4) / 120, { ppi: 120 }).spec);
const random3 = (x: number, y: number, seed: number) =>
  [0, 1, 2].map((c) => Math.round(255 * latticeHash(x, y, seed + c)));

describe('pixels over pixels', () => {
  it('blend by the formulas of the standard, to one code, in every mode and at any opacity', () => {
    for (const [k, mode] of BLEND_MODES.entries()) {
      const studio = square();
      const opacity = [1, 0.35, 0.8][k % 3];
      const tileMm = (SIDE * 25.4) / 120;
      act(
        studio,
        pixels(SIDE, SIDE, (x, y) => [...random3(x, y, 1), 255], { tileMm }),
      );
      const alpha = (x: number, y: number) => Math.round(255 * latticeHash(x, y, 77));
      act(
        studio,
        pixels(SIDE, SIDE, (x, y) => [...random3(x, y, 9), alpha(x, y)], { tileMm, blend: mode, opacity }),
      );
      const got = raster(studio);
      let worst = 0;
      for (let y = 0; y < SIDE; y++) {
        for (let x = 0; x < SIDE; x++) {
          const want = Float32Array.from(random3(x, y, 1).map((v) => v / 255));
          const [r, g, b] = random3(x, y, 9).map((v) => v / 255);
          blendOver(mode, want, 0, 1, r, g, b, (alpha(x, y) / 255) * opacity);
          codeAt(got, y * SIDE + x).forEach((v, c) => (worst = Math.max(worst, Math.abs(v - 255 * want[c]))));
        }
      }
      expect(worst, mode).toBeLessThanOrEqual(1);
    }
  });

  it('merge down to what was seen', () => {
    const studio = square();
    act(
      studio,
      pixels(SIDE, SIDE, (x, y) => [...random3(x, y, 3), 255]),
    );
    act(
      studio,
      pixels(SIDE, SIDE, (x, y) => [...random3(x, y, 5), (x * 3) & 255], { blend: 'hard-light', opacity: 0.7 }),
    );
    act(studio, { do: 'layer.add', kind: 'adjust', adjust: { kind: 'levels', all: { gamma: 1.6, black: 0.1 } } });
    const before = raster(studio);
    act(studio, { do: 'layer.merge', layer: 'L4' }, { do: 'layer.merge', layer: 'L5' });
    const after = raster(studio);
    let worst = 0;
    before.forEach((_, i) =>
      codeAt(before, i).forEach((v, c) => (worst = Math.max(worst, Math.abs(v - codeAt(after, i)[c])))),
    );
    // two roundings to codes lie between, and the levels stretch them
    expect(worst).toBeLessThanOrEqual(5);
    expect(studio.painting.layers).toHaveLength(3);
  });
});

describe('paint over paint', () => {
  it('is a film on a film: the two-layer formula of Kubelka and Munk', () => {
    const films: [Record<string, number>, number, Record<string, number>, number][] = [
      [{ PB29: 1, PW6: 2 }, 70, { PY35: 1 }, 12],
      [{ PW6: 1 }, 90, { PR83: 1 }, 15],
      [{ PBr7BU: 1 }, 30, { PW6: 1 }, 20],
      [{ PG7: 1, PY35: 2 }, 50, { PB29: 1 }, 25],
    ];
    for (const [lower, um, upper, thin] of films) {
      const studio = square();
      const outline: [number, number][] = [
        [1, 1],
        [14, 1],
        [14, 14],
        [1, 14],
      ];
      act(studio, { do: 'silhouette', outline, mixture: lower, thicknessUm: um }, { do: 'layer.add' });
      act(studio, { do: 'silhouette', outline, mixture: upper, thicknessUm: thin });
      const at = (R: ArrayLike<number>, mixture: Record<string, number>, thick: number) =>
        Float64Array.from({ length: BANDS.count }, (_, b) => {
          const parts = Object.values(mixture).reduce((s, v) => s + v, 0);
          let [A, S] = [0, 0];
          for (const [id, part] of Object.entries(mixture)) {
            const coats = ((part / parts) * thick) / 120;
            A += coats * BANDS.K[pigmentIndex(id) * BANDS.count + b];
            S += coats * BANDS.S[pigmentIndex(id) * BANDS.count + b];
          }
          return filmReflectance(A, S, R[b]);
        });
      const want = linearToLab(bandsToLinear(at(at(studio.painting.ground, lower, um), upper, thin)));
      const picture = new Picture(studio.painting);
      expect(deltaE2000(picture.labAt(36, 36), want)).toBeLessThan(0.3);
      // and so it is when the lower one has dried, and when the two are one layer
      act(studio, { do: 'dry' }, { do: 'layer.merge', layer: 'L3' });
      expect(deltaE2000(new Picture(studio.painting).labAt(36, 36), want)).toBeLessThan(0.5);
    }
  });

  it('above pixels lies on their colour', () => {
    const lay = (ground: CommandInput, thicknessUm: number) => {
      const studio = square();
      act(studio, ground, { do: 'layer.add' });
      act(studio, {
        do: 'silhouette',
        outline: [
          [1, 1],
          [14, 1],
          [14, 14],
          [1, 14],
        ],
        mixture: { PB29: 1 },
        thicknessUm,
      });
      return new Picture(studio.painting);
    };
    const grey = (v: number) =>
      lay(
        pixels(8, 8, () => [v, v, v, 255]),
        3,
      ).labAt(36, 36);
    expect(grey(230)[0]).toBeGreaterThan(grey(120)[0] + 8);
    expect(grey(120)[0]).toBeGreaterThan(grey(20)[0] + 3);
    // thick paint hides whatever is there
    const red = lay(
      pixels(8, 8, () => [255, 0, 0, 255]),
      200,
    );
    expect(
      deltaE2000(
        red.labAt(36, 36),
        lay(
          pixels(8, 8, () => [0, 90, 255, 255]),
          200,
        ).labAt(36, 36),
      ),
    ).toBeLessThan(0.5);
    expect(red.labAt(2, 2)[1]).toBeGreaterThan(70);
  });
});

/** A stack of everything: paint, pixels, light, adjustments, a group, masks, clipping. */
function everything(): Studio {
  const studio = new Studio(studioFor(30, 24, { ppi: 110 }).spec);
  paint(studio, ...loaded('flat', 10, { PB29: 1, PW6: 2 }), line(2, 8, 28, 9), line(2, 16, 28, 17));
  act(studio, { do: 'dry' }, { do: 'layer.add' });
  paint(studio, ...loaded('flat', 8, { PY35: 1, PW6: 1 }), line(8, 2, 9, 22));
  act(studio, { do: 'layer.mask', layer: 'L3', how: 'show' }, { do: 'tool', tool: 'round', sizeMm: 6, grey: 0.2 });
  paint(studio, line(6, 12, 12, 12));
  act(studio, { do: 'layer.add' }, { do: 'layer.set', layer: 'L4', clip: true, opacity: 0.7 });
  paint(studio, ...loaded('flat', 6, { PR188: 1 }), line(6, 5, 20, 20));
  act(studio, { do: 'layer.add', kind: 'group' }, { do: 'layer.set', layer: 'L5', opacity: 0.6 });
  act(studio, { do: 'layer.add', kind: 'tone', group: 'L5' });
  paint(
    studio,
    { do: 'tool', tool: 'spray', sizeMm: 12 },
    { do: 'load', mixture: { PBr7BU: 1 } },
    line(12, 12, 24, 14),
  );
  act(
    studio,
    pixels(16, 16, (x, y) => [x * 16, y * 16, 90, 255], { blend: 'soft-light', tileMm: 8 }),
  );
  act(studio, { do: 'layer.soften', radiusMm: 1 }, { do: 'tool', tool: 'round', sizeMm: 9, grey: 1 });
  paint(studio, line(14, 8, 24, 18));
  act(studio, { do: 'layer.add', kind: 'adjust', adjust: { kind: 'warmth', warmth: 0.5 } });
  act(studio, { do: 'layer.choose', layer: 'L3' });
  return studio;
}

describe('a stack of everything', () => {
  it('looks the same piece by piece as at once, while one of its layers is painted on', () => {
    const studio = everything();
    const { painting } = studio;
    const picture = new Picture(painting);
    picture.update(wholeRect(painting));
    for (const [layer, mixture] of [
      ['L3', { PG7: 1 }],
      ['L2', { PW6: 1 }],
      ['L6', { PBk9: 1 }],
      ['L4', { PB29: 1 }],
    ] as const) {
      act(studio, { do: 'layer.choose', layer });
      const tool = layer === 'L6' ? 'spray' : 'flat';
      act(studio, { do: 'tool', tool, sizeMm: 5 }, { do: 'load', mixture });
      for (const s of [line(5, 6, 25, 15), line(10, 20, 20, 4)]) picture.update(act(studio, s).rect);
      const fresh = new Studio({ ...studio.spec });
      for (const command of studio.history) fresh.apply(command);
      const again = new Picture(fresh.painting);
      again.update(wholeRect(fresh.painting));
      const n = painting.width * painting.height;
      let worst = 0;
      for (const plane of ['albedo', 'lit'] as const) {
        for (let i = 0; i < n; i++) {
          const [a, b] = [painting.arena.u32[picture[plane] + i], fresh.painting.arena.u32[again[plane] + i]];
          for (let c = 0; c < 24; c += 8) worst = Math.max(worst, Math.abs(((a >>> c) & 255) - ((b >>> c) & 255)));
        }
      }
      // the blur rounds what it sees to codes, once more or less
      expect(worst, layer).toBeLessThanOrEqual(1);
    }
  }, 60_000);

  it('keeps what lies below a layer that has nothing yet, in a group as well, and follows when that changes', () => {
    const studio = square();
    act(
      studio,
      pixels(SIDE, SIDE, (x, y) => [...random3(x, y, 3), 255], { tileMm: (SIDE * 25.4) / 120 }),
    );
    act(
      studio,
      { do: 'layer.add', name: 'Far' },
      { do: 'tool', tool: 'flat', sizeMm: 4 },
      { do: 'load', mixture: { PB29: 1, PW6: 1 } },
      line(2, 8, 13, 8),
      { do: 'dry' },
    );
    act(studio, { do: 'layer.add', kind: 'group', name: 'Figure' });
    act(studio, { do: 'layer.add', name: 'Body' });
    act(studio, { do: 'layer.add', kind: 'adjust', adjust: { kind: 'warmth', warmth: 0.5 } });
    const { painting } = studio;
    const named = (name: string) => painting.layers.find((l) => l.name === name)!.id;
    const picture = new Picture(painting);
    const far = () => {
      const fresh = new Studio({ ...studio.spec });
      for (const command of studio.history) fresh.apply(command);
      const again = new Picture(fresh.painting);
      again.update(wholeRect(fresh.painting));
      let most = 0;
      for (let i = 0; i < SIDE * SIDE; i++) {
        const [a, b] = [painting.arena.u32[picture.lit + i], fresh.painting.arena.u32[again.lit + i]];
        for (let c = 0; c < 24; c += 8) most = Math.max(most, Math.abs(((a >>> c) & 255) - ((b >>> c) & 255)));
      }
      return most;
    };
    picture.update(wholeRect(painting));
    for (const layer of ['Body', 'Far']) {
      act(studio, { do: 'layer.choose', layer: named(layer) }, { do: 'load', mixture: { PBr7BS: 1, PW6: 2 } });
      picture.warm(0);
      picture.update(act(studio, line(3, 5, 12, 11)).rect, layer === 'Far');
      expect(far(), layer).toBe(0);
    }
    picture.update(act(studio, { do: 'layer.set', layer: named('Far'), opacity: 0.5 }).rect);
    picture.update(wholeRect(painting));
    expect(far()).toBe(0);
  });

  it('two adjustments that follow each other under the layer in hand are followed when either changes', () => {
    const studio = square();
    act(
      studio,
      pixels(8, 8, (x, y) => [x * 30, y * 30, 100, 255]),
    );
    act(studio, { do: 'layer.add', kind: 'adjust', adjust: { kind: 'levels', all: { gamma: 1.5 } } });
    act(studio, { do: 'layer.add', kind: 'adjust', adjust: { kind: 'warmth', warmth: 0.4 } }, { do: 'layer.add' });
    const fresh = () => {
      const again = new Studio({ ...studio.spec });
      for (const command of studio.history) again.apply(command);
      return raster(again);
    };
    const far = (a: Uint32Array, b: Uint32Array) =>
      a.reduce((most, _, i) => Math.max(most, ...codeAt(a, i).map((v, c) => Math.abs(v - codeAt(b, i)[c]))), 0);
    expect(far(raster(studio), fresh())).toBe(0);
    const before = raster(studio);
    for (const layer of ['L4', 'L5']) {
      act(studio, { do: 'layer.set', layer, adjust: { kind: 'levels', all: { gamma: 0.5 } } });
      expect(far(raster(studio), fresh())).toBe(0);
      expect(far(raster(studio), before)).toBeGreaterThan(10);
    }
  });

  it('each part does what it says', () => {
    const studio = everything();
    const look = () => raster(studio);
    const differs = (a: Uint32Array, b: Uint32Array) => a.reduce((n, v, i) => n + (v === b[i] ? 0 : 1), 0) / a.length;
    const all = look();
    // hidden at no opacity is hidden
    for (const layer of ['L5', 'L7', 'L8', 'L9']) {
      act(studio, { do: 'layer.set', layer, opacity: 0 });
      const faded = look();
      act(studio, { do: 'undo' }, { do: 'layer.set', layer, visible: false });
      const hidden = look();
      expect(differs(faded, hidden)).toBe(0);
      expect(differs(hidden, all)).toBeGreaterThan(0.001);
      act(studio, { do: 'undo' });
    }
    expect(differs(look(), all)).toBe(0);
    // the clipped layer is seen nowhere but on the one below
    act(
      studio,
      { do: 'layer.set', layer: 'L9', visible: false },
      { do: 'layer.set', layer: 'L8', visible: false },
      { do: 'layer.set', layer: 'L7', visible: false },
    );
    const clipped = look();
    act(studio, { do: 'layer.set', layer: 'L4', visible: false });
    const without = look();
    const { width } = studio.painting;
    const px = (v: number) => Math.round(v / studio.painting.mmPerPx);
    expect(clipped[px(17) * width + px(17)]).toBe(without[px(17) * width + px(17)]);
    expect(differs(clipped, without)).toBeGreaterThan(0.005);
    act(studio, { do: 'undo' }, { do: 'layer.set', layer: 'L4', clip: false });
    expect(look()[px(17) * width + px(17)]).not.toBe(without[px(17) * width + px(17)]);
  });
});

describe('blur', () => {
  it('widens an edge by what was asked, and keeps the light', () => {
    const studio = square();
    act(
      studio,
      pixels(SIDE, SIDE, (x) => (x < SIDE / 2 ? [30, 30, 30, 255] : [220, 220, 220, 255]), {
        tileMm: (SIDE * 25.4) / 120,
      }),
    );
    const row = () => [...raster(studio).subarray(36 * SIDE, 37 * SIDE)].map((v) => v & 255);
    const width = (values: number[]) => values.filter((v) => v > 50 && v < 200).length;
    expect(width(row())).toBe(0);
    const widths = [0.4, 1, 2].map((radiusMm) => {
      act(studio, { do: 'layer.add', kind: 'adjust', adjust: { kind: 'blur', radiusMm } });
      const wide = width(row());
      expect(row().every((v, i, all) => i === 0 || v >= all[i - 1] - 1)).toBe(true);
      act(studio, { do: 'undo' });
      return wide;
    });
    expect(widths[0]).toBeGreaterThan(0);
    expect(widths[1] / widths[0]).toBeGreaterThan(1.6);
    expect(widths[2] / widths[1]).toBeGreaterThan(1.5);
  });
});
