import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { apply, inverse, inverse3, Mesh, pivotOf, project, toCorners, turnedAbout, type Box } from './warp';

const number = fc.double({ min: -50, max: 50, noNaN: true });

describe('maps of a picture', () => {
  it('a matrix and its inverse take places there and back', () => {
    fc.assert(
      fc.property(fc.tuple(number, number, number, number, number, number), number, number, (m, x, y) => {
        const back = inverse(m);
        if (!back || Math.abs(m[0] * m[3] - m[1] * m[2]) < 0.5) return;
        const [u, v] = apply(back, ...apply(m, x, y));
        expect(u).toBeCloseTo(x, 4);
        expect(v).toBeCloseTo(y, 4);
      }),
    );
    expect(inverse([1, 2, 2, 4, 0, 0])).toBeUndefined();
  });

  it('a homography takes the corners of a box to four others, and back', () => {
    const box: Box = { left: 10, top: 20, right: 50, bottom: 44 };
    const corner = fc.tuple(fc.double({ min: -6, max: 6, noNaN: true }), fc.double({ min: -6, max: 6, noNaN: true }));
    fc.assert(
      fc.property(fc.array(corner, { minLength: 4, maxLength: 4 }), (off) => {
        const from = [
          [10, 20],
          [50, 20],
          [50, 44],
          [10, 44],
        ] as const;
        const to = from.map(([x, y], i) => [x + off[i][0], y + off[i][1]] as const);
        const m = toCorners(box, to);
        from.forEach(([x, y], i) => {
          const [u, v] = project(m, x, y)!;
          expect(u).toBeCloseTo(to[i][0], 6);
          expect(v).toBeCloseTo(to[i][1], 6);
        });
        const [u, v] = project(inverse3(m)!, ...project(m, 31, 30)!)!;
        expect(u).toBeCloseTo(31, 6);
        expect(v).toBeCloseTo(30, 6);
      }),
    );
  });

  it('four turns about the pivots of where a box comes to lie bring each cell back', () => {
    const cell = fc.integer({ min: -30, max: 30 });
    fc.assert(
      fc.property(
        cell,
        cell,
        fc.integer({ min: 1, max: 20 }),
        fc.integer({ min: 1, max: 20 }),
        fc.constantFrom(90 as const, 270 as const),
        (left, top, w, h, turn) => {
          let cells = [
            [left, top],
            [left + w - 1, top + h - 1],
            [left, top + h - 1],
          ];
          const at = cells;
          for (let k = 0; k < 4; k++) {
            const xs = cells.map(([x]) => x);
            const ys = cells.map(([, y]) => y);
            const box = {
              left: Math.min(...xs),
              top: Math.min(...ys),
              right: Math.max(...xs) + 1,
              bottom: Math.max(...ys) + 1,
            };
            // where a cell goes is what the opposite turn says it comes from
            const to = turnedAbout(turn === 90 ? 270 : 90, ...pivotOf(box));
            cells = cells.map(([x, y]) => [...to(x, y)]);
            cells.flat().forEach((v) => expect(Number.isInteger(v)).toBe(true));
          }
          expect(cells).toEqual(at);
        },
      ),
    );
  });

  it('a mesh that lies straight changes nothing; pulled, it bends between its points and stays at the others', () => {
    const box: Box = { left: 0, top: 0, right: 30, bottom: 30 };
    const points = Array.from({ length: 16 }, (_, i) => [(i % 4) * 10, Math.floor(i / 4) * 10] as [number, number]);
    const straight = new Mesh(box, 4, 4, points);
    expect(straight.growth).toBeCloseTo(1, 6);
    const from = straight.from();
    for (const [x, y] of [
      [0.5, 0.5],
      [14.3, 22.8],
      [29.2, 3.7],
    ]) {
      const place = from(x, y)!;
      expect(place[0]).toBeCloseTo(x, 3);
      expect(place[1]).toBeCloseTo(y, 3);
    }
    points[5] = [14, 13];
    const bent = new Mesh(box, 4, 4, points).from();
    const [u, v] = bent(14, 13)!;
    expect(Math.hypot(u - 10, v - 10)).toBeLessThan(0.6);
    const far = bent(29.5, 29.5)!;
    expect(Math.hypot(far[0] - 29.5, far[1] - 29.5)).toBeLessThan(0.3);
    expect(bent(35, 35)).toBeUndefined();
  });
});
