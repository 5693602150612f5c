import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  distanceTo,
  handlesOf,
  lengthWords,
  movedBy,
  netMm,
  pulled,
  snapped,
  straightFrom,
  under,
  windowEnds,
} from './boardDrawing';
import { KELVIN, lampColour } from './lampColour';
import { lightStudySchema, type LightStudy, type StudyThing } from './lightStudy';

const GREY: [number, number, number] = [0.5, 0.5, 0.5];
const THINGS: StudyThing[] = [
  { id: 1, is: 'lamp', at: { x: 1000, y: 1000 }, radiusMm: 100, strength: 1, colour: GREY },
  { id: 2, is: 'wall', from: { x: 500, y: 3000 }, to: { x: 4500, y: 3000 }, thickMm: 200, colour: GREY },
  { id: 3, is: 'window', wall: 2, along: 0.5, wideMm: 800, turned: false, strength: 1, colour: GREY },
  { id: 4, is: 'round', at: { x: 3000, y: 1500 }, radiusMm: 300, colour: GREY },
  {
    id: 5,
    is: 'outline',
    corners: [
      { x: 4000, y: 500 },
      { x: 5000, y: 600 },
      { x: 4500, y: 1500 },
    ],
    colour: GREY,
  },
  { id: 6, is: 'sun', from: 60, wide: 0.53, strength: 1, colour: GREY },
  { id: 7, is: 'sky', strength: 1, colour: GREY },
];
const study: LightStudy = lightStudySchema.parse({
  view: 'plan',
  widthMm: 6000,
  heightMm: 4500,
  unit: 'm',
  things: THINGS,
});
const near = (a: { x: number; y: number }, b: { x: number; y: number }, within = 1e-6) =>
  expect(Math.hypot(a.x - b.x, a.y - b.y)).toBeLessThan(within);

describe('what is pulled on a board', () => {
  it('lies afterwards where it was pulled to, whatever the thing and the handle', () => {
    fc.assert(
      fc.property(fc.integer({ min: 200, max: 5500 }), fc.integer({ min: 200, max: 4300 }), (x, y) => {
        for (const thing of THINGS) {
          for (const { name } of handlesOf(study, thing)) {
            const next = pulled(study, thing, name, { x, y });
            const now = { ...study, things: THINGS.map((t) => (t.id === thing.id ? next : t)) };
            const handle = handlesOf(now, next).find((h) => h.name === name)!;
            if (thing.is === 'lamp' || thing.is === 'round') {
              if (name === 'at') near(handle.at, { x, y });
              else expect(handle.at.x - thing.at.x).toBeCloseTo(Math.hypot(x - thing.at.x, y - thing.at.y), 6);
            } else if (thing.is === 'wall' || thing.is === 'outline') near(handle.at, { x, y });
            else if (thing.is === 'sun') {
              // it goes round the middle: its direction is what was meant, to half a degree
              const meant = Math.atan2(2250 - y, x - 3000);
              const is = Math.atan2(2250 - handle.at.y, handle.at.x - 3000);
              if (Math.hypot(x - 3000, y - 2250) > 300)
                expect(Math.abs(Math.sin((meant - is) / 2))).toBeLessThan(0.005);
            } else if (name === 'along' && x > 900 && x < 4100) near(handle.at, { x, y: 3000 }, 1e-6);
          }
        }
      }),
      { numRuns: 60 },
    );
  });

  it('moves as a whole by what the hand goes, and windows and suns do not', () => {
    for (const thing of THINGS) {
      const there = movedBy(movedBy(thing, { x: 120, y: -40 }), { x: -120, y: 40 });
      expect(there).toEqual(thing);
    }
    expect(movedBy(THINGS[3], { x: 10, y: 20 })).toMatchObject({ at: { x: 3010, y: 1520 } });
    expect(movedBy(THINGS[2], { x: 10, y: 20 })).toBe(THINGS[2]);
  });
});

describe('the hand over a board', () => {
  it('finds what lies under it, a window before its wall', () => {
    expect(under(study, { x: 1050, y: 1000 }, 5)?.id).toBe(1);
    expect(under(study, { x: 2500, y: 3000 }, 5)?.id).toBe(3);
    expect(under(study, { x: 600, y: 3050 }, 5)?.id).toBe(2);
    expect(under(study, { x: 4500, y: 800 }, 5)?.id).toBe(5);
    expect(under(study, { x: 5800, y: 4300 }, 5)).toBe(undefined);
    expect(distanceTo(study, THINGS[6], { x: 1, y: 1 })).toBe(Infinity);
  });

  it('snaps to ends before the net, and to nothing further away', () => {
    expect(snapped(study, { x: 4480, y: 3020 }, 60)).toEqual({ x: 4500, y: 3000 });
    near(snapped(study, { x: 2512, y: 2191 }, 20), { x: 2500, y: 2200 });
    near(snapped(study, { x: 2550, y: 2150 }, 20), { x: 2550, y: 2150 });
    // not to itself
    near(snapped(study, { x: 4480, y: 3020 }, 60, 2), { x: 4500, y: 3000 });
    expect(netMm(study)).toBe(100);
    expect(netMm({ ...study, unit: 'mm' })).toBe(50);
  });

  it('goes straight in eight directions', () => {
    near(straightFrom({ x: 0, y: 0 }, { x: 100, y: 8 }), { x: 100, y: 0 });
    near(straightFrom({ x: 0, y: 0 }, { x: 70, y: 74 }), { x: 72, y: 72 });
    near(straightFrom({ x: 0, y: 0 }, { x: 3, y: -50 }), { x: 0, y: -50 });
  });

  it('keeps a window within its wall', () => {
    const wide = { ...(THINGS[2] as Extract<StudyThing, { is: 'window' }>), along: 1 };
    const [a, b] = windowEnds({ ...study, things: [THINGS[1], wide] }, wide)!;
    near(b, { x: 4500, y: 3000 });
    near(a, { x: 4100, y: 3000 });
    expect(windowEnds({ ...study, things: [wide] }, wide)).toBe(undefined);
  });

  it('tells lengths in a unit', () => {
    expect(lengthWords(2540, 'in')).toBe('100 in');
    expect(lengthWords(1234, 'm')).toBe('1.23 m');
    expect(lengthWords(456.7, 'cm')).toBe('45.7 cm');
  });
});

describe('the colour of a light', () => {
  it('goes from orange over white to blue, by steps that never turn back', () => {
    let before = -Infinity;
    for (let kelvin = KELVIN.least; kelvin <= KELVIN.most; kelvin += 100) {
      const [r, , b] = lampColour(kelvin);
      expect(Math.max(...lampColour(kelvin))).toBe(1);
      expect(Math.min(...lampColour(kelvin))).toBeGreaterThanOrEqual(0);
      if (b > 0) expect(b - r).toBeGreaterThan(before);
      before = b - r;
    }
    for (const c of lampColour(6500)) expect(c).toBeCloseTo(1, 6);
    const [r, g, b] = lampColour(2000);
    expect(r).toBe(1);
    expect(g).toBeGreaterThan(b);
    expect(b).toBeLessThan(0.1);
  });
});
