import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Place } from '@/core/study/register';
import { castShadow, shadowOutline, type PerspectiveLight } from './castShadow';

type Point = readonly [number, number, number];
interface Camera {
  readonly high: number;
  readonly turn: number;
  readonly focal: number;
}
/** A pinhole over level ground, upright, looking along the ground: x right, y up, z away. */
const seen = ({ high, turn, focal }: Camera, [x, y, z]: Point): Place => {
  const [c, s] = [Math.cos(turn), Math.sin(turn)];
  const depth = s * x + c * z;
  return { x: 200 + (focal * (c * x - s * z)) / depth, y: 150 - (focal * (y - high)) / depth };
};
const depthOf = ({ turn }: Camera, [x, , z]: Point) => Math.sin(turn) * x + Math.cos(turn) * z;
const camera = fc.record({
  high: fc.double({ min: 0.8, max: 4, noNaN: true }),
  turn: fc.double({ min: -0.6, max: 0.6, noNaN: true }),
  focal: fc.double({ min: 150, max: 500, noNaN: true }),
});
const coordinate = (min: number, max: number) => fc.double({ min, max, noNaN: true });
const near = (a: Place, b: Place): void => {
  expect(Math.hypot(a.x - b.x, a.y - b.y)).toBeLessThan(1e-5 * (1 + Math.hypot(b.x, b.y)));
};

describe('a shadow cast on the ground', () => {
  it('of a lamp ends where similar triangles say, through any camera', () => {
    let drawn = 0;
    fc.assert(
      fc.property(
        camera,
        fc.tuple(coordinate(-3, 3), coordinate(1, 6), coordinate(6, 14)),
        fc.tuple(coordinate(-3, 3), coordinate(6, 14)),
        coordinate(0.1, 5),
        (cam, lamp, [x, z], tall) => {
          fc.pre(Math.hypot(lamp[0] - x, lamp[2] - z) > 0.3 && Math.abs(tall - lamp[1]) > 0.1);
          const study: PerspectiveLight = {
            light: { is: 'lamp', at: seen(cam, lamp), foot: seen(cam, [lamp[0], 0, lamp[2]]) },
            horizon: 150,
            things: [],
          };
          const shadow = castShadow(study, { foot: seen(cam, [x, 0, z]), top: seen(cam, [x, tall, z]) });
          if (tall > lamp[1]) {
            expect(shadow).toBe('taller than the light');
            return;
          }
          // height over the lamp's height above the top, from the lamp's foot through the thing's
          const reach = lamp[1] / (lamp[1] - tall);
          const tip: Point = [lamp[0] + reach * (x - lamp[0]), 0, lamp[2] + reach * (z - lamp[2])];
          fc.pre(depthOf(cam, tip) > 0.5);
          drawn++;
          if (typeof shadow === 'string') throw new Error(shadow);
          near(shadow.tip, seen(cam, tip));
        },
      ),
      { numRuns: 400 },
    );
    expect(drawn).toBeGreaterThan(100);
  });

  it('of the sun, before us or behind us, lies along its direction', () => {
    for (const behind of [false, true]) {
      fc.assert(
        fc.property(
          camera,
          coordinate(0.15, 1.2),
          coordinate(-0.7, 0.7),
          fc.tuple(coordinate(-2, 2), coordinate(8, 16)),
          coordinate(0.2, 1.5),
          (cam, up, aside, [x, z], tall) => {
            // unit vector to the sun, and the vanishing point of its rays
            const ahead = behind ? -1 : 1;
            const to: Point = [Math.sin(aside) * Math.cos(up), Math.sin(up), ahead * Math.cos(aside) * Math.cos(up)];
            fc.pre(Math.abs(depthOf(cam, to)) > 0.05 && depthOf(cam, to) * ahead > 0);
            const far = 1e9;
            const at = seen({ ...cam, high: 0 }, [to[0] * far, to[1] * far, to[2] * far]);
            const study: PerspectiveLight = { light: { is: 'sun', at }, horizon: 150, things: [] };
            const shadow = castShadow(study, { foot: seen(cam, [x, 0, z]), top: seen(cam, [x, tall, z]) });
            const tip: Point = [x - (tall * to[0]) / to[1], 0, z - (tall * to[2]) / to[1]];
            fc.pre(depthOf(cam, tip) > 0.5);
            if (typeof shadow === 'string') throw new Error(shadow);
            near(shadow.tip, seen(cam, tip));
          },
        ),
        { numRuns: 200 },
      );
    }
  });

  it('climbs an upright plane that stands in its way, and bends at its foot', () => {
    const cam: Camera = { high: 1.6, turn: 0.2, focal: 300 };
    const lamp: Point = [-2, 3, 6];
    // a wall along z = 12
    const plane = { from: seen(cam, [-8, 0, 12]), to: seen(cam, [9, 0, 12]) };
    const study: PerspectiveLight = {
      light: { is: 'lamp', at: seen(cam, lamp), foot: seen(cam, [-2, 0, 6]) },
      horizon: 150,
      things: [],
      plane,
    };
    const upright = (x: number, z: number, tall: number) => ({
      foot: seen(cam, [x, 0, z]),
      top: seen(cam, [x, tall, z]),
    });
    const climbs = castShadow(study, upright(-1, 10, 2.5));
    if (typeof climbs === 'string') throw new Error(climbs);
    const t = (12 - 6) / (10 - 6);
    near(climbs.tip, seen(cam, [-2 + t, 3 + t * (2.5 - 3), 12]));
    near(climbs.turn!, seen(cam, [-2 + t, 0, 12]));
    // one that ends before the wall does not
    const lies = castShadow(study, upright(-1, 8, 0.5));
    expect(typeof lies !== 'string' && lies.turn).toBe(undefined);
    // what stands between a low and a tall upright: the outline goes over the foot of the wall where the line of its
    // tops does, in the place as in the picture
    const low = { x: -1.5, z: 8, tall: 0.5 };
    const tall = { x: -1, z: 10, tall: 2.5 };
    const outline = shadowOutline(study, [upright(low.x, low.z, low.tall), upright(tall.x, tall.z, tall.tall)]);
    if (typeof outline === 'string') throw new Error(outline);
    const ground = ({ x, z, tall: h }: typeof low): Point => {
      const r = 3 / (3 - h);
      return [-2 + r * (x + 2), 0, 6 + r * (z - 6)];
    };
    const [a, b] = [ground(low), ground(tall)];
    const s = (12 - a[2]) / (b[2] - a[2]);
    const bend = seen(cam, [a[0] + s * (b[0] - a[0]), 0, 12]);
    expect(outline.some((p) => Math.hypot(p.x - bend.x, p.y - bend.y) < 1e-6)).toBe(true);
    expect(outline.length).toBe(6);
  });

  it('is said not to be where it cannot be drawn', () => {
    const light = { is: 'lamp', at: { x: 100, y: 50 }, foot: { x: 100, y: 200 } } as const;
    const at = { foot: { x: 100, y: 200 }, top: { x: 100, y: 150 } };
    expect(castShadow({ light, horizon: 20, things: [] }, at)).toBe('at the foot of the light');
    const sun = { is: 'sun', at: { x: 10, y: 20 } } as const;
    expect(
      castShadow({ light: sun, horizon: 120, things: [] }, { foot: { x: 60, y: 100 }, top: { x: 60, y: 60 } }),
    ).toBe('under the horizon');
  });
});
