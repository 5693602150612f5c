import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { lightOutlines, toStrip, bounceMap } from './bounce';
import { exposureOf, lightPicture, litShares } from './lightPicture';
import { firstLook, fullLook } from './lightMap';
import { lightStudySchema, type LightStudy, type StudyThing } from './lightStudy';
import { borderLines, simplified } from './shadowBorders';
import { everyShare, shareMap } from './shareMap';
import { sceneOf, type Scene, type Source } from './scene';
import { Lookout, sightCones } from './sightAngles';

const WHITE: [number, number, number] = [1, 1, 1];
const GREY: [number, number, number] = [0.5, 0.5, 0.5];
type Drawn = StudyThing extends infer T ? (T extends StudyThing ? Omit<T, 'id'> : never) : never;
const study = (things: Drawn[], view: LightStudy['view'] = 'plan'): LightStudy =>
  lightStudySchema.parse({
    view,
    widthMm: 6000,
    heightMm: 4500,
    unit: 'm',
    things: things.map((thing, id) => ({ id, ...thing })),
  });
const lamp = (x: number, y: number, radiusMm: number, strength = 1): Drawn => ({
  is: 'lamp',
  at: { x, y },
  radiusMm,
  strength,
  colour: WHITE,
});
const wall = (x0: number, y0: number, x1: number, y1: number, thickMm: number): Drawn => ({
  is: 'wall',
  from: { x: x0, y: y0 },
  to: { x: x1, y: y1 },
  thickMm,
  colour: GREY,
});
const round = (x: number, y: number, radiusMm: number): Drawn => ({
  is: 'round',
  at: { x, y },
  radiusMm,
  colour: GREY,
});

/** The same by many rays: what lies along each is asked of every edge and round thing anew. */
function byRays(scene: Scene, source: Source, x: number, y: number, rays: number): number {
  const blocked = (angle: number, far: number): boolean => {
    const [dx, dy] = [Math.cos(angle), Math.sin(angle)];
    for (let k = 0; k < scene.edges.length; k += 4) {
      const [x0, y0, x1, y1] = scene.edges.subarray(k, k + 4);
      const sideA = dx * (y0 - y) - dy * (x0 - x);
      const sideB = dx * (y1 - y) - dy * (x1 - x);
      if (sideA * sideB > 0 || sideA === sideB) continue;
      const share = sideA / (sideA - sideB);
      const along = (x0 + share * (x1 - x0) - x) * dx + (y0 + share * (y1 - y0) - y) * dy;
      if (along > 0 && along < far) return true;
    }
    for (let k = 0; k < scene.rounds.length; k += 3) {
      const [cx, cy, r] = scene.rounds.subarray(k, k + 3);
      const along = (cx - x) * dx + (cy - y) * dy;
      const off = Math.abs((cy - y) * dx - (cx - x) * dy);
      if (off < r && along > 0 && Math.hypot(cx - x, cy - y) < far) return true;
    }
    return false;
  };
  let middle: number;
  let half: number;
  let distance = Infinity;
  if (source.kind === 'lamp') {
    distance = Math.hypot(source.x0 - x, source.y0 - y);
    middle = Math.atan2(source.y0 - y, source.x0 - x);
    half = Math.asin(Math.min(1, source.radius / distance));
  } else {
    middle = Math.atan2(source.uy, source.ux);
    half = source.half;
  }
  let seen = 0;
  for (let i = 0; i < rays; i++) {
    const off = half * ((2 * (i + 0.5)) / rays - 1);
    // what lies beyond the middle of a lamp, across the line to it, does not cover it
    if (!blocked(middle + off, distance < Infinity ? distance / Math.cos(off) : Infinity)) seen++;
  }
  return seen / rays;
}

describe('what a point sees of a light', () => {
  it('is what many rays find, among walls, round things and outlines, for lamps, suns and skies', () => {
    const place = fc.record({ x: fc.integer({ min: 200, max: 5800 }), y: fc.integer({ min: 200, max: 4300 }) });
    fc.assert(
      fc.property(
        fc.array(fc.tuple(place, place, fc.integer({ min: 5, max: 300 })), { minLength: 1, maxLength: 6 }),
        fc.array(fc.tuple(place, fc.integer({ min: 20, max: 400 })), { maxLength: 4 }),
        place,
        fc.integer({ min: 10, max: 180 }),
        place,
        fc.integer({ min: 0, max: 359 }),
        (walls, rounds, at, radius, from, sun) => {
          fc.pre(Math.hypot(at.x - from.x, at.y - from.y) > 2 * radius);
          fc.pre(rounds.every(([{ x, y }, r]) => Math.hypot(x - from.x, y - from.y) > r));
          // a round thing across the middle of the lamp is neither before nor behind it
          fc.pre(rounds.every(([{ x, y }, r]) => Math.hypot(x - at.x, y - at.y) > r + 2 * radius));
          const scene = sceneOf(
            study([
              lamp(at.x, at.y, radius),
              { is: 'sun', from: sun, wide: 6, strength: 1, colour: WHITE },
              { is: 'sky', strength: 1, colour: WHITE },
              ...walls.map(([a, b, thick]) => wall(a.x, a.y, b.x, b.y, thick)),
              ...rounds.map(([c, r]) => round(c.x, c.y, r)),
            ]),
          );
          const lookout = new Lookout(scene);
          for (const source of scene.sources) {
            const rays = byRays(scene, source, from.x, from.y, 1500);
            const behind =
              source.kind === 'lamp' &&
              rounds.some(([c, r]) => {
                const d = Math.hypot(c.x - from.x, c.y - from.y);
                return Math.abs(d - Math.hypot(at.x - from.x, at.y - from.y)) < r + radius;
              });
            if (!behind) expect(Math.abs(lookout.share(source, from.x, from.y) - rays)).toBeLessThan(0.006);
          }
        },
      ),
      { numRuns: 150 },
    );
  });

  it('of a window behind a wall of a thickness is what its inner and outer opening leave, within 0.1 %', () => {
    for (const [wide, thick] of [
      [900, 100],
      [900, 450],
      [300, 600],
    ]) {
      const scene = sceneOf(
        study([
          wall(500, 1000, 5500, 1000, thick),
          { is: 'window', wall: 0, along: 0.5, wideMm: wide, turned: false, strength: 1, colour: WHITE },
        ]),
      );
      const [source] = scene.sources;
      const lookout = new Lookout(scene);
      for (const [x, y] of [
        [3000, 3000],
        [2000, 2500],
        [3400, 1000 + thick / 2 + 200],
        [5000, 4000],
        [3100, 1000 + thick],
      ]) {
        // angles from straight up, of both openings
        const [l, r] = [3000 - wide / 2 - x, 3000 + wide / 2 - x];
        const [near, far] = [y - 1000 - thick / 2, y - 1000 + thick / 2];
        const from = Math.max(Math.atan2(l, near), Math.atan2(l, far));
        const to = Math.min(Math.atan2(r, near), Math.atan2(r, far));
        const expected = Math.max(0, to - from) / (Math.atan2(r, far) - Math.atan2(l, far));
        expect(Math.abs(lookout.share(source, x, y) - expected)).toBeLessThan(0.001);
      }
      // and nothing from outside
      expect(lookout.share(source, 3000, 200)).toBe(0);
    }
  });

  it('goes from all to nothing over the half shadow of a disc, between the tangents to its two sides', () => {
    const [radius, before, after] = [120, 1500, 1000];
    // a screen from the left ends in the middle under the lamp
    const scene = sceneOf(study([lamp(3000, 500, radius), wall(0, 500 + before, 3000, 500 + before, 0.02)]));
    const lookout = new Lookout(scene);
    // a line from the end of the screen, tangent to the disc: its sine is radius / before
    const half = after * Math.tan(Math.asin(radius / before));
    const y = 500 + before + after;
    const share = (x: number) => lookout.share(scene.sources[0], x, y);
    expect(share(3000 - half * 1.01)).toBe(0);
    expect(share(3000 - half * 0.99)).toBeGreaterThan(0);
    expect(share(3000 + half * 1.01)).toBe(1);
    expect(share(3000 + half * 0.99)).toBeLessThan(1);
    expect(Math.abs(share(3000) - 0.5)).toBeLessThan(0.005);
  });

  it('tells the cones in which it sees light', () => {
    const scene = sceneOf(study([{ is: 'sky', strength: 1, colour: WHITE }, round(3000, 1000, 500)]));
    const cones = sightCones(scene, 3000, 3000);
    const seen = cones.reduce((sum, { from, to }) => sum + to - from, 0);
    expect(Math.abs(seen - (2 * Math.PI - 2 * Math.asin(500 / 2000)))).toBeLessThan(1e-9);
    expect(sightCones(scene, 3000, 1000)).toEqual([]);
  });
});

describe('a map of shares', () => {
  it('is what every point by itself says: exactly for lamps and suns, within 0.012 for skies and windows', () => {
    const scene = sceneOf(
      study([
        wall(300, 300, 5700, 300, 200),
        { is: 'window', wall: 0, along: 0.4, wideMm: 900, turned: false, strength: 1, colour: WHITE },
        lamp(4500, 3500, 60),
        lamp(1000, 2000, 0),
        { is: 'sun', from: 70, wide: 0.53, strength: 1, colour: WHITE },
        { is: 'sky', strength: 1, colour: WHITE },
        round(2500, 2000, 250),
        // too thin to be seen between the corners of a block
        wall(3500, 2000, 3512, 2003, 2),
        {
          is: 'outline',
          corners: [
            { x: 4000, y: 1500 },
            { x: 4600, y: 1600 },
            { x: 4200, y: 2300 },
          ],
          colour: GREY,
        },
      ]),
    );
    for (const [width, height] of [
      [301, 227],
      [64, 48],
      [33, 7],
    ]) {
      const grid = { width, height, mmPerPx: 6000 / width };
      for (const source of scene.sources) {
        const every = everyShare(scene, source, grid);
        const map = shareMap(scene, source, grid);
        let worst = 0;
        map.forEach((share, i) => (worst = Math.max(worst, Math.abs(share - every[i]))));
        const broad = source.kind === 'sky' || source.kind === 'window';
        expect(worst).toBeLessThan(broad ? 0.012 : 1e-6);
      }
    }
  });

  it('has lines where a shadow begins, closed round what it goes round', () => {
    const grid = { width: 120, height: 90, mmPerPx: 1 };
    const map = Float32Array.from(
      { length: 120 * 90 },
      (_, i) => Math.hypot((i % 120) - 60, Math.floor(i / 120) - 45) / 60,
    );
    const [line, ...others] = borderLines(map, grid, 0.5);
    expect(others).toEqual([]);
    expect(line[0]).toEqual(line[line.length - 1]);
    // it is dark within, and what is lighter lies on the right hand: against the clock, where y goes down
    const area = line.reduce(
      (sum, [x, y], i) => sum + x * line[(i + 1) % line.length][1] - line[(i + 1) % line.length][0] * y,
      0,
    );
    expect(area).toBeLessThan(0);
    for (const [x, y] of line) expect(Math.abs(Math.hypot(x - 60.5, y - 45.5) - 30)).toBeLessThan(0.05);
    const few = simplified(line, 0.3);
    expect(few.length).toBeLessThan(line.length / 3);
    for (const [x, y] of few) expect(Math.abs(Math.hypot(x - 60.5, y - 45.5) - 30)).toBeLessThan(0.05);
    // lines that leave the board are open
    const slope = Float32Array.from({ length: 120 * 90 }, (_, i) => (i % 120) / 119);
    const [across] = borderLines(slope, grid, 0.51);
    expect(across.length).toBe(90);
  });
});

describe('light that walls give back', () => {
  it('is the form factor of two infinite strips, within 1 %', () => {
    for (const [wide, apart] of [
      [2000, 1000],
      [1000, 2500],
      [3000, 400],
    ]) {
      const scene = sceneOf(
        study([wall(1000, 1000, 1000 + wide, 1000, 2), wall(1000, 1002 + apart, 1000 + wide, 1002 + apart, 2)]),
      );
      const outlines = lightOutlines(scene);
      // the upper wall gives back 1 all over: what the lower one receives of it
      const pieces = Array.from({ length: outlines.count }, (_, i) => i);
      const y = (i: number) => outlines.ends[4 * i + 1];
      const lower = pieces.filter((i) => outlines.normals[2 * i + 1] < -0.5 && y(i) > 1500 - apart / 2 && y(i) > 1010);
      const upper = pieces.filter((i) => outlines.normals[2 * i + 1] > 0.5 && y(i) < 1010);
      let sum = 0;
      for (const i of lower) {
        const x = (outlines.ends[4 * i] + outlines.ends[4 * i + 2]) / 2;
        for (const j of upper) sum += toStrip(x, y(i), 0, -1, outlines.ends, 4 * j) / lower.length;
      }
      const ratio = apart / wide;
      const expected = Math.sqrt(1 + ratio * ratio) - ratio;
      expect(Math.abs(sum / expected - 1)).toBeLessThan(0.01);
    }
  });

  it('reaches a wall from one that a lamp lights, and turns the colour of that one', () => {
    const red: [number, number, number] = [0.8, 0.2, 0.1];
    const scene = sceneOf(
      study([
        { is: 'wall', from: { x: 1000, y: 1000 }, to: { x: 4000, y: 1000 }, thickMm: 100, colour: red },
        wall(1000, 3000, 4000, 3000, 100),
        lamp(2500, 1600, 30),
        // the lower wall lies in the shadow of a board under the lamp
        wall(2350, 1700, 2650, 1700, 10),
      ]),
    );
    const outlines = lightOutlines(scene);
    const k = Array.from({ length: outlines.count }, (_, i) => i).find(
      (i) =>
        outlines.normals[2 * i + 1] < -0.5 &&
        outlines.ends[4 * i + 1] > 2900 &&
        outlines.ends[4 * i] < 2500 &&
        outlines.ends[4 * i + 2] >= 2500,
    )!;
    expect(outlines.direct[3 * k]).toBe(0);
    expect(outlines.bounced[3 * k]).toBeGreaterThan(0.001);
    expect(outlines.bounced[3 * k] / outlines.bounced[3 * k + 1]).toBeCloseTo(4, 6);
    const map = bounceMap(scene, outlines, 30, 22, 200);
    const [x, y] = [12, 13];
    expect(map[3 * (y * 30 + x)]).toBeGreaterThan(map[3 * (y * 30 + x) + 1]);
    expect(Array.from(map).some((v) => Number.isNaN(v))).toBe(true);
  });

  it('lights the floor under an open sky by its strength, and half of it where a wall takes half the sky', () => {
    const floor = wall(-1e6, 4000, 1e6, 4000, 10);
    const open = lightOutlines(sceneOf(study([{ is: 'sky', strength: 2, colour: WHITE }, floor], 'section')));
    const top = (o: typeof open, x: number) =>
      Array.from({ length: o.count }, (_, i) => i).find(
        (i) => o.normals[2 * i + 1] < -0.5 && o.ends[4 * i] <= x && o.ends[4 * i + 2] > x,
      )!;
    expect(open.direct[3 * top(open, 3000)]).toBeCloseTo(2, 4);
    const beside = lightOutlines(
      sceneOf(
        study(
          [
            { is: 'sky', strength: 2, colour: WHITE },
            wall(2990, -1e6, 2990, 3994, 10),
            wall(2995, 4000, 9000, 4000, 10),
          ],
          'section',
        ),
      ),
    );
    const k = Array.from({ length: beside.count }, (_, i) => i)
      .filter((i) => beside.normals[2 * i + 1] < -0.5 && beside.ends[4 * i] > 2996)
      .sort((a, b) => beside.ends[4 * a] - beside.ends[4 * b])[0];
    expect(beside.direct[3 * k]).toBeCloseTo(1, 1);
  });
});

describe('a board', () => {
  it('without a light, without anything, or with things of no size says nothing wrong', () => {
    for (const things of [
      [],
      [wall(0, 0, 0, 0, 5)],
      [round(10, 10, 0), lamp(10, 10, 0)],
      [lamp(-5, -5, 1e6)],
    ] as Drawn[][]) {
      const map = fullLook(sceneOf(study(things)), { width: 20, height: 15, mmPerPx: 300 });
      for (const look of ['shadow', 'light'] as const) {
        const picture = lightPicture(map, look, exposureOf(map));
        expect(picture.length).toBe(1200);
        expect(picture[3]).toBe(255);
      }
      for (const lit of litShares(map)) {
        expect(lit).toBeGreaterThanOrEqual(0);
        expect(lit).toBeLessThanOrEqual(1);
      }
    }
  });

  it('is the same at first look and in full, where both look at the same point', () => {
    const scene = sceneOf(study([lamp(1000, 1000, 80), round(3000, 2000, 300), wall(2000, 3000, 5000, 3300, 150)]));
    const coarse = firstLook(scene, { width: 75, height: 56, mmPerPx: 80 });
    const fine = fullLook(scene, { width: 225, height: 168, mmPerPx: 80 / 3 });
    const [few, many] = [litShares(coarse), litShares(fine)];
    for (let y = 0; y < 56; y++)
      for (let x = 0; x < 75; x++)
        expect(Math.abs(few[y * 75 + x] - many[(3 * y + 1) * 225 + 3 * x + 1])).toBeLessThan(1e-5);
  });
});
