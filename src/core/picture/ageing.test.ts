import * as fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { dustOn, leftOf, PLACE_IDS, scatterLeftOf, yellowOf, type Ageing } from '@/core/colour/ageing';
import { linearToLab, type Triple } from '@/core/colour/colorimetry';
import { deltaE2000 } from '@/core/colour/deltaE2000';
import { PIGMENTS, pigmentIndex } from '@/core/colour/pigments';
import { digest } from '@/core/journal/digest';
import type { Studio } from '@/core/journal/studio';
import { commandSchema } from '@/core/commands/commands';
import { PainterError } from '@/core/errors';
import { wholeRect } from '@/core/film/tilesIn';
import { field, paint, studioFor } from '@/measure/bench';
import { randomAct, randomFrom } from '@/measure/randomActs';
import { first } from '@/measure/thorough';
import { blameFor, keeperFor } from './ageingBlame';
import { agedAlbedoOf } from './layers/agedAlbedo';
import { albedoOf } from './layers/albedo';
import { Picture } from './picture';

const pixels = ({ painting }: Studio, ageing?: Ageing) => {
  const picture = new Picture(painting, ageing);
  picture.update(wholeRect(painting));
  const codes = painting.arena.u32.slice(picture.lit, picture.lit + painting.width * painting.height);
  picture.dispose();
  return codes;
};

/** The mean colour of a painting after some years. */
function labAfter({ painting }: Studio, ageing: Ageing): Triple {
  const out = new Float32Array(3 * painting.width * painting.height);
  agedAlbedoOf(painting, ageing).linear(wholeRect(painting), out);
  const mean: Triple = [0, 0, 0];
  out.forEach((v, i) => (mean[i % 3] += v / (out.length / 3)));
  return linearToLab(mean);
}

const tint = (id: string, white = 8) => {
  const studio = studioFor(24, 18);
  paint(studio, ...field([0, 0, 24, 18], { [id]: 1, PW6: white }, 9), { do: 'leave', hours: 900 });
  return studio;
};

describe('years', () => {
  it.each(first(3, [1, 2, 3, 4, 5, 6]))('of which none have passed change no byte of the picture (seed %i)', (seed) => {
    const kind = (['linen-fine', 'paper-cold', 'paper-laid'] as const)[seed % 3];
    const studio = studioFor(24, 18, { ppi: 90, surface: { kind } });
    const random = randomFrom(seed);
    for (let done = 0; done < 45;) {
      try {
        studio.apply(commandSchema.parse(randomAct(random, 24, 18)));
        done++;
      } catch (error) {
        if (!(error instanceof PainterError)) throw error;
      }
    }
    const before = digest(studio);
    const now = pixels(studio);
    for (const place of PLACE_IDS) expect(pixels(studio, { years: 0, place })).toEqual(now);
    const old = pixels(studio, { years: 100, place: 'store' });
    expect(old).not.toEqual(now);
    // and none at all change the paint, or how it looks when it is looked at as it is again
    expect(digest(studio)).toBe(before);
    expect(pixels(studio)).toEqual(now);
  });

  it('go one way: what fades, yellows, grows transparent and gathers dust does so more and more', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...PLACE_IDS),
        fc.constantFrom(...PIGMENTS.map(({ id }) => pigmentIndex(id))),
        fc.double({ min: 0, max: 99, noNaN: true }),
        fc.double({ min: 0.1, max: 20, noNaN: true }),
        (place, pigment, years, more) => {
          const [now, then] = [
            { place, years },
            { place, years: years + more },
          ];
          expect(leftOf(pigment, then)).toBeLessThanOrEqual(leftOf(pigment, now));
          expect(leftOf(pigment, then)).toBeGreaterThan(0);
          expect(scatterLeftOf(pigment, then)).toBeLessThan(scatterLeftOf(pigment, now));
          for (let b = 0; b < 8; b++) expect(yellowOf(b, then)).toBeGreaterThanOrEqual(yellowOf(b, now));
          expect(dustOn(true, then)).toBeGreaterThan(dustOn(true, now));
          expect(dustOn(false, then)).toBe(0);
        },
      ),
    );
  });

  it('take more in more light, and make oil yellower in the dark', () => {
    const alizarin = pigmentIndex('PR83');
    const [room, museum, store] = PLACE_IDS.map((place) => leftOf(alizarin, { years: 50, place }));
    expect(room).toBeLessThan(museum);
    expect(museum).toBeLessThan(store);
    expect(store).toBeGreaterThan(0.99);
    expect(leftOf(pigmentIndex('PB29'), { years: 100, place: 'room' })).toBeGreaterThan(0.9);
    const white = studioFor(24, 18);
    paint(white, ...field([0, 0, 24, 18], { PW6: 1 }, 9), { do: 'leave', hours: 900 });
    const b = (ageing: Ageing) => labAfter(white, ageing)[2];
    const fresh = b({ years: 0, place: 'room' });
    const [light, dark] = [b({ years: 50, place: 'room' }) - fresh, b({ years: 50, place: 'store' }) - fresh];
    // a white of linseed oil gains some units of yellow in light, and two to four times as many in the dark
    expect(light).toBeGreaterThan(1);
    expect(light).toBeLessThan(8);
    expect(dark / light).toBeGreaterThan(1.8);
    expect(dark / light).toBeLessThan(4);
  });

  it('fade a tint of alizarin, keep one of quinacridone, and are blamed on the right tube', () => {
    const [fades, keeps] = ['PR83', 'PV19'].map((id) => tint(id));
    const ageing: Ageing = { years: 50, place: 'room' };
    const off = (studio: Studio) => deltaE2000(labAfter(studio, { ...ageing, years: 0 }), labAfter(studio, ageing));
    expect(off(fades)).toBeGreaterThan(off(keeps) + 1);
    const blame = blameFor(new Picture(fades.painting), ageing);
    expect(blame.tubes.map(({ id }) => id)).toEqual(['PR83']);
    expect(blame.tubes[0].instead).toBe(keeperFor('PR83'));
    expect(PIGMENTS.find(({ id }) => id === blame.tubes[0].instead)!.blueWool).toBeGreaterThanOrEqual(7);
    expect(blameFor(new Picture(keeps.painting), ageing).tubes.map(({ id }) => id)).not.toContain('PW6');
    // the same number on another way: what is said of spots is what the picture shows
    expect(blame.mean).toBeGreaterThan(0.6 * off(fades));
    expect(blame.mean).toBeLessThan(1.6 * off(fades));
  });

  it('let what lies under a thin film come through', () => {
    const studio = studioFor(24, 18);
    paint(studio, ...field([0, 0, 24, 18], { PBk11: 1 }, 9), { do: 'leave', hours: 900 });
    paint(
      studio,
      { do: 'tool', tool: 'flat', sizeMm: 9, thin: 0.4 },
      ...field([0, 0, 24, 18], { PY43: 1, PW4: 3 }, 9, 0.2),
      { do: 'leave', hours: 900 },
    );
    const L = (years: number) => labAfter(studio, { years, place: 'museum' })[0];
    expect(L(100)).toBeLessThan(L(0) - 1);
  });

  it('are seen by the eye alone: what is read of the paint is as it is', () => {
    const studio = tint('PR83');
    const { painting } = studio;
    const aged = new Picture(painting, { years: 100, place: 'room' });
    aged.update(wholeRect(painting));
    expect(aged.labAt(20, 20)).toEqual(new Picture(painting).labAt(20, 20));
    expect(agedAlbedoOf(painting, { years: 100, place: 'room' }).linearAt(20, 20)).not.toEqual(
      albedoOf(painting).linearAt(20, 20),
    );
  });
});
