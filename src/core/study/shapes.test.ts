import fc from 'fast-check';
import { describe, expect, it, test } from 'vitest';
import { studioFor } from '@/measure/bench';
import type { Place } from './register';
import { handAlong, isClosed, lengthOf, regular, SHAPE_KINDS, wayOf, type PressureKind } from './shapes';

const place = fc.record({
  x: fc.double({ min: -500, max: 500, noNaN: true }),
  y: fc.double({ min: -500, max: 500, noNaN: true }),
});
const apart = (a: Place, b: Place) => Math.hypot(a.x - b.x, a.y - b.y);

describe('the way of a shape', () => {
  it('of a rectangle is its outline; of a circle nearly pi times as long as it is wide', () => {
    expect(
      lengthOf(
        wayOf('rectangle', [
          { x: 0, y: 0 },
          { x: 30, y: -20 },
        ]),
      ),
    ).toBeCloseTo(100, 9);
    const round = lengthOf(
      wayOf('ellipse', [
        { x: 0, y: 0 },
        { x: 40, y: 40 },
      ]),
    );
    expect(round / (40 * Math.PI)).toBeGreaterThan(0.9995);
    expect(round / (40 * Math.PI)).toBeLessThanOrEqual(1);
  });

  test('of an ellipse lies on it, at any size', () => {
    fc.assert(
      fc.property(place, place, (a, b) => {
        const [rx, ry] = [Math.abs(a.x - b.x) / 2, Math.abs(a.y - b.y) / 2];
        fc.pre(rx > 0.01 && ry > 0.01);
        for (const p of wayOf('ellipse', [a, b])) {
          const on = ((p.x - (a.x + b.x) / 2) / rx) ** 2 + ((p.y - (a.y + b.y) / 2) / ry) ** 2;
          expect(on).toBeCloseTo(1, 6);
        }
      }),
    );
  });

  test('of an arc goes from end to end through the third place, as far from one middle all along', () => {
    fc.assert(
      fc.property(place, place, place, (a, b, c) => {
        const height = Math.abs((b.x - a.x) * (c.y - a.y) - (b.y - a.y) * (c.x - a.x)) / Math.max(1e-9, apart(a, b));
        fc.pre(apart(a, b) > 1 && apart(a, c) > 1 && apart(b, c) > 1 && height > 0.05 * apart(a, b));
        const way = wayOf('arc', [a, b, c]);
        expect(way[0]).toEqual(a);
        expect(way.at(-1)).toEqual(b);
        const near = Math.min(...way.slice(1).map((p, i) => toSegment(c, way[i], p)));
        expect(near).toBeLessThan(0.05);
        // the same circle, worked out from three other places of it
        const [p, q, r] = [way[0], way[Math.floor(way.length / 2)], way[way.length - 1]];
        const middle = middleOf(p, q, r);
        const radii = way.map((on) => apart(on, middle));
        expect(Math.max(...radii) - Math.min(...radii)).toBeLessThan(1e-4 * Math.max(...radii) + 1e-6);
      }),
    );
  });

  it('of an arc whose places are in line is straight', () => {
    const way = wayOf('arc', [
      { x: 0, y: 0 },
      { x: 10, y: 0 },
      { x: 4, y: 0 },
    ]);
    expect(way).toEqual([
      { x: 0, y: 0 },
      { x: 10, y: 0 },
    ]);
  });

  it('is none of what has no extent, and closed where it should be', () => {
    for (const kind of SHAPE_KINDS) {
      expect(wayOf(kind, []).length).toBeLessThan(2);
      const way = wayOf(kind, [
        { x: 1, y: 1 },
        { x: 9, y: 5 },
        { x: 4, y: 9 },
      ]);
      expect(apart(way[0], way.at(-1)!) < 1e-9).toBe(isClosed(kind));
      expect(
        handAlong(
          wayOf(kind, [
            { x: 1, y: 1 },
            { x: 1, y: 1 },
          ]),
          'even',
        ).every((r) => r.every(Number.isFinite)),
      ).toBe(true);
    }
  });

  test('kept regular: square, round, at fifteen degrees, as large as the hand went', () => {
    fc.assert(
      fc.property(place, place, (from, to) => {
        fc.pre(apart(from, to) > 0.1);
        const box = regular('ellipse', from, to);
        expect(Math.abs(box.x - from.x)).toBeCloseTo(Math.abs(box.y - from.y), 9);
        const end = regular('line', from, to);
        expect(apart(from, end)).toBeCloseTo(apart(from, to), 6);
        const degrees = (Math.atan2(end.y - from.y, end.x - from.x) * 180) / Math.PI;
        expect(Math.abs(degrees / 15 - Math.round(degrees / 15))).toBeLessThan(1e-6);
      }),
    );
  });
});

describe('the hand along it', () => {
  it('goes forward in time and along all of the way, and turns at each corner', () => {
    const corners = [
      { x: 3, y: 4 },
      { x: 33.3, y: 4 },
      { x: 17, y: 29 },
    ];
    const readings = handAlong(wayOf('polygon', corners), 'even');
    for (let i = 1; i < readings.length; i++) expect(readings[i][0]).toBeGreaterThan(readings[i - 1][0]);
    for (const { x, y } of corners) {
      expect(Math.min(...readings.map((r) => Math.hypot(r[1] - x, r[2] - y)))).toBeLessThan(0.001);
    }
  });

  it.each<[PressureKind, (p: number[]) => boolean]>([
    ['even', (p) => new Set(p).size === 1],
    ['rising', (p) => p.every((v, i) => i === 0 || v >= p[i - 1]) && p.at(-1)! > p[0] + 0.4],
    ['falling', (p) => p.every((v, i) => i === 0 || v <= p[i - 1]) && p[0] > p.at(-1)! + 0.4],
    ['swelling', (p) => Math.max(...p) === p[Math.floor(p.length / 2)] && Math.abs(p[0] - p.at(-1)!) < 0.05],
  ])('presses %s', (kind, holds) => {
    const pressures = handAlong(
      [
        { x: 0, y: 0 },
        { x: 50, y: 20 },
      ],
      kind,
    ).map((r) => r[3]);
    expect(holds(pressures)).toBe(true);
    expect(Math.min(...pressures)).toBeGreaterThan(0);
  });

  it.each([0, 33, 90, 161])('paints along its way and nowhere else: a ring, begun at %i degrees', (degrees) => {
    const studio = studioFor(60, 50, { ppi: 80, seed: degrees + 1 });
    studio.apply({ do: 'tool', tool: 'round', sizeMm: 4, strength: 1, keepLoaded: true });
    studio.apply({ do: 'load', mixture: { PB29: 1 }, amount: 1 });
    const turn = (degrees * Math.PI) / 180;
    const ring = wayOf('ellipse', [
      { x: 12, y: 10 },
      { x: 48, y: 40 },
    ]).slice(0, -1);
    const first = Math.round((turn / (2 * Math.PI)) * ring.length);
    const samples = handAlong([...ring.slice(first), ...ring.slice(0, first), ring[first]], 'even');
    studio.apply({ do: 'stroke', samples });
    const { painting } = studio;
    const layer = painting.layers.find(({ id }) => id === painting.activeLayer)!;
    const cell = 25.4 / 80;
    let [inside, outside] = [0, 0];
    const round = new Set<number>();
    layer.tiles.forEach((tile, index) => {
      if (!tile?.volume) return;
      for (let i = 0; i < 4096; i++) {
        const um = painting.arena.f32[(tile.volume >> 2) + i];
        if (um < 4) continue;
        const x = ((index % painting.tilesX) * 64 + (i % 64) + 0.5) * cell - 30;
        const y = (Math.floor(index / painting.tilesX) * 64 + Math.floor(i / 64) + 0.5) * cell - 25;
        const r = Math.hypot(x / 18, y / 15);
        if (Math.abs(r - 1) * 16.5 < 3.2) inside++;
        else outside++;
        round.add(Math.floor((Math.atan2(y, x) / Math.PI + 1) * 18));
      }
    });
    expect(outside / (inside + outside)).toBeLessThan(0.01);
    expect(round.size).toBeGreaterThanOrEqual(36);
  });
});

function toSegment(p: Place, a: Place, b: Place): number {
  const [dx, dy] = [b.x - a.x, b.y - a.y];
  const t = Math.max(0, Math.min(1, ((p.x - a.x) * dx + (p.y - a.y) * dy) / Math.max(1e-12, dx * dx + dy * dy)));
  return Math.hypot(p.x - a.x - t * dx, p.y - a.y - t * dy);
}

/** Middle of the circle around three places, from the perpendiculars of two chords. */
function middleOf(a: Place, b: Place, c: Place): Place {
  const [m, n] = [
    { x: (a.x + b.x) / 2, y: (a.y + b.y) / 2 },
    { x: (b.x + c.x) / 2, y: (b.y + c.y) / 2 },
  ];
  const [u, v] = [
    { x: -(b.y - a.y), y: b.x - a.x },
    { x: -(c.y - b.y), y: c.x - b.x },
  ];
  const t = ((n.x - m.x) * v.y - (n.y - m.y) * v.x) / (u.x * v.y - u.y * v.x);
  return { x: m.x + t * u.x, y: m.y + t * u.y };
}
