import { OPEN_EYES } from './aids/definition';
import { AIDS } from './aids/aids';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { deltaE2000 } from '@/core/colour/deltaE2000';
import { toExternal } from '@/core/colour/kubelkaMunk';
import type { Mixture } from '@/core/colour/mixture';
import { filmSpectrum, spectrumToLab } from '@/core/colour/spectrum';
import { field, line, loaded, mean, meanLab, paint, studioFor } from '@/measure/bench';
import { Picture, STUDIO_LIGHT } from './picture';
import { Pyramid } from './pyramid';
import { readSpot } from './readings';
import { greyOfCode } from './valueView';
import { cellToView, drawView, rectInView, viewToCell, type View } from './view';

const whole = (picture: Picture) => ({
  left: 0,
  top: 0,
  right: picture.painting.width,
  bottom: picture.painting.height,
});

describe('the colour of a film', () => {
  it('agrees with the formula in 36 bands over white and over black', () => {
    const errors: number[] = [];
    const mixtures: Mixture[] = [
      { PB29: 1, PW6: 2 },
      { PR83: 1 },
      { PY43: 1, PW6: 1 },
      { PG7: 1, PY3: 8 },
      { PBr7BS: 1 },
    ];
    for (const mixture of mixtures) {
      for (const tone of [undefined, { mixture: { PBk9: 1 } }]) {
        const studio = studioFor(20, 20, { tone, surface: { kind: 'smooth' } });
        paint(studio, ...loaded('flat', 12, mixture, { thin: 0.5 }), line(2, 10, 18, 10));
        const picture = new Picture(studio.painting);
        const ground = filmSpectrum({ PW6: 1 }, 0, 0.947368); // priming of 0.9 seen
        const substrate = tone ? filmSpectrum(tone.mixture, 2, ground) : ground;
        const { painting } = studio;
        for (let x = 16; x < 64; x += 8) {
          const { thicknessUm } = readSpot(picture, x, 40);
          if (thicknessUm < 12) continue;
          const tile = painting.active.tiles[0]!;
          const coats = tile.mass.reduce((sum, plane) => sum + painting.arena.f32[(plane >> 2) + 40 * 64 + x], 0);
          const full = spectrumToLab(filmSpectrum(mixture, coats, substrate).map((R) => toExternal(R)));
          errors.push(deltaE2000(full, picture.labAt(x, 40)));
        }
      }
    }
    expect(errors.length).toBeGreaterThan(30);
    expect(mean(errors)).toBeLessThan(0.7);
  });

  it('is that of the ground where there is no paint', () => {
    const studio = studioFor(20, 20, { tone: { mixture: { PY43: 1, PW6: 2 } } });
    const spot = readSpot(new Picture(studio.painting), 30, 30);
    expect(spot.layer).toBe('ground');
    expect(spot.mixture).toEqual({ PY43: 1 / 3, PW6: 2 / 3 });
    expect(spot.thicknessUm).toBe(0);
  });

  it('goes through every visible layer, film over film', () => {
    const studio = studioFor(40, 30, { seed: 3 });
    paint(studio, ...field([2, 2, 36, 26], { PY35: 1 }, 12), { do: 'layer.add' });
    paint(studio, ...loaded('flat', 14, { PR83: 1 }, { thin: 0.95, body: 0.1 }), line(4, 15, 36, 15));
    const over = meanLab(studio, [12, 12, 12, 6]);
    paint(studio, { do: 'layer.set', layer: 'L2', visible: false });
    const alone = meanLab(studio, [12, 12, 12, 6]);
    paint(studio, { do: 'layer.set', layer: 'L2', visible: true }, { do: 'layer.set', layer: 'L3', visible: false });
    const under = meanLab(studio, [12, 12, 12, 6]);
    expect(over[0]).toBeLessThan(under[0] - 5);
    expect(deltaE2000(over, alone)).toBeGreaterThan(5);
    // drying either layer changes nothing that is seen
    paint(studio, { do: 'layer.set', layer: 'L3', visible: true }, { do: 'dry' });
    expect(deltaE2000(over, meanLab(studio, [12, 12, 12, 6]))).toBeLessThan(0.5);
    // an opaque layer moved to the top hides the glaze
    paint(studio, { do: 'layer.move', layer: 'L2', to: 2 });
    expect(deltaE2000(under, meanLab(studio, [12, 12, 12, 6]))).toBeLessThan(3);
  });
});

describe('sampling', () => {
  it('gives the mixture that was laid, under any light', () => {
    const studio = studioFor(40, 30, { seed: 3 });
    paint(studio, ...field([2, 2, 36, 26], { PB29: 1, PW6: 3, PY43: 0.5 }, 12, 0.9));
    const picture = new Picture(studio.painting);
    for (const light of [picture.light, { ...STUDIO_LIGHT, azimuth: 90, elevation: 10, room: 0.1 }]) {
      picture.light = light;
      picture.update(whole(picture));
      for (const [x, y] of [
        [40, 40],
        [80, 50],
        [110, 90],
      ]) {
        const { mixture, lab, wetness } = readSpot(picture, x, y);
        expect(mixture.PB29).toBeCloseTo(1 / 4.5, 3);
        expect(mixture.PW6).toBeCloseTo(3 / 4.5, 3);
        expect(wetness).toBe(1);
        expect(lab).toEqual(picture.labAt(x, y));
      }
    }
  });

  it('looks through a glaze to the film that hides', () => {
    const studio = studioFor(40, 30, { seed: 3 });
    paint(studio, ...field([2, 2, 36, 26], { PW6: 6, PY43: 1 }, 12), { do: 'dry' });
    paint(studio, ...loaded('flat', 14, { PBr7BS: 1 }, { thin: 0.97, body: 0.1, amount: 0.4 }), line(4, 15, 36, 15));
    const { mixture } = readSpot(new Picture(studio.painting), 70, 60);
    expect(mixture.PW6).toBeGreaterThan(0.8);
    expect(mixture.PBr7BS ?? 0).toBe(0);
  });
});

describe('a stroke that is drawn as it is made', () => {
  it.each(['flat', 'knife', 'spray', 'rag'] as const)('looks in the end as it does drawn at once: %s', (tool) => {
    const studio = studioFor(60, 30, { seed: 5 });
    paint(
      studio,
      ...field([2, 2, 56, 26], { PY43: 1, PW6: 1 }, 8, 0.7),
      ...(tool === 'rag' ? [{ do: 'tool', tool, sizeMm: 9 } as const] : loaded(tool, 9, { PB29: 1 })),
    );
    const { painting } = studio;
    const picture = new Picture(painting);
    picture.update(whole(picture));
    studio.beginStroke();
    for (let t = 0; t < 60; t++) {
      studio.addSample([t * 8, 6 + t * 0.8, 15 + 4 * Math.sin(t / 9), 0.7]);
      if (t % 3 === 2) picture.update(studio.publishStroke());
    }
    const { unshown, change } = studio.endStroke()!;
    picture.update(unshown);
    const shown = painting.arena.u32.slice(picture.lit, picture.lit + painting.width * painting.height);
    picture.update(whole(picture));
    const n = shown.length;
    let other = 0;
    for (let i = 0; i < n; i++) if (shown[i] !== painting.arena.u32[picture.lit + i]) other++;
    // paint that is too little to be seen is wiped off when the tool is lifted
    expect(other / n).toBeLessThan(1e-4);
    expect((unshown.right - unshown.left) * (unshown.bottom - unshown.top)).toBeLessThanOrEqual(
      (change.rect.right - change.rect.left) * (change.rect.bottom - change.rect.top),
    );
    if (tool === 'flat')
      expect(unshown.right - unshown.left).toBeLessThan(0.75 * (change.rect.right - change.rect.left));
  });
});

describe('light', () => {
  const studio = studioFor(40, 30, { seed: 3 });
  paint(studio, ...field([2, 2, 36, 26], { PW6: 1 }, 12, 0.9));
  const picture = new Picture(studio.painting);
  const { arena, width, height } = studio.painting;
  const lit = (azimuth: number, room: number) => {
    picture.light = { ...STUDIO_LIGHT, azimuth, elevation: 25, room };
    picture.update(whole(picture));
    return arena.u32.slice(picture.lit, picture.lit + width * height).map((v) => (v >>> 8) & 255);
  };

  it('changes the lit picture and never the albedo', () => {
    lit(300, 0.3);
    const albedo = arena.u32.slice(picture.albedo, picture.albedo + width * height);
    const west = lit(270, 0.2);
    const east = lit(90, 0.2);
    let differ = 0;
    west.forEach((v, i) => (differ += Math.abs(v - east[i])));
    expect(differ / west.length).toBeGreaterThan(5);
    expect(arena.u32.slice(picture.albedo, picture.albedo + width * height)).toEqual(albedo);
  });

  it('of the room alone leaves almost no relief', () => {
    const spread = (codes: Uint32Array) => {
      const inside = [...codes].filter((_, i) => i % width > 40 && i % width < 110 && i > 40 * width && i < 80 * width);
      return Math.max(...inside) - Math.min(...inside);
    };
    expect(spread(lit(300, 1))).toBeLessThan(0.5 * spread(lit(300, 0.2)));
  });
});

describe('the view', () => {
  const view = fc.record<View>({
    width: fc.integer({ min: 50, max: 2000 }),
    height: fc.integer({ min: 50, max: 2000 }),
    centreX: fc.double({ min: -100, max: 3000, noNaN: true }),
    centreY: fc.double({ min: -100, max: 3000, noNaN: true }),
    zoom: fc.double({ min: 0.03, max: 24, noNaN: true }),
    turn: fc.double({ min: -3.1, max: 3.1, noNaN: true }),
    mirror: fc.boolean(),
  });

  it('maps there and back', () => {
    fc.assert(
      fc.property(
        view,
        fc.double({ min: 0, max: 2000, noNaN: true }),
        fc.double({ min: 0, max: 2000, noNaN: true }),
        (v, x, y) => {
          const cell = viewToCell(v, x, y);
          const back = cellToView(v, cell.x, cell.y);
          expect(back.x).toBeCloseTo(x, 4);
          expect(back.y).toBeCloseTo(y, 4);
        },
      ),
    );
  });

  it('shows the lit picture: each pixel its cell, nothing beside the painting, and greys as values', () => {
    const studio = studioFor(30, 20, { seed: 3 });
    paint(studio, ...field([2, 2, 26, 16], { PR188: 1 }, 10));
    const picture = new Picture(studio.painting);
    const pyramid = new Pyramid(picture);
    pyramid.update(picture.update(whole(picture)));
    const { arena, width, height } = studio.painting;
    const one: View = {
      width: 160,
      height: 120,
      centreX: width / 2,
      centreY: height / 2,
      zoom: 1,
      turn: 0,
      mirror: false,
    };
    const full = { left: 0, top: 0, right: 160, bottom: 120 };
    const pixel = (v: View, x: number, y: number, values = false) => {
      const data = new Uint32Array(
        drawView(pyramid, arena.u32, v, full, values ? { aid: AIDS.values, how: OPEN_EYES } : undefined).buffer,
      );
      return data[y * 160 + x];
    };
    expect(pixel(one, 0, 0)).toBe(0);
    const at = (x: number, y: number) => arena.u32[picture.lit + y * width + x];
    expect(pixel(one, 80, 60)).toBe(at(width / 2, height / 2));
    const mirrored = pixel({ ...one, mirror: true }, 80 + 20, 60);
    expect(mirrored).toBe(at(width / 2 - 21, height / 2));
    const grey = pixel(one, 80, 60, true);
    expect(grey).toBe(greyOfCode(at(width / 2, height / 2)));
    expect(grey & 255).toBe((grey >>> 16) & 255);
    const part = rectInView(one, { left: 40, top: 30, right: 60, bottom: 50 });
    expect(part.left).toBeLessThanOrEqual(80 - width / 2 + 40);
    expect(part.right).toBeGreaterThanOrEqual(80 - width / 2 + 60);
  });
});
