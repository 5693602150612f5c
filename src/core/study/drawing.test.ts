import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { cellToView, viewToCell, type View } from '@/core/picture/view';
import {
  curveThrough,
  directionsAt,
  ellipseIn,
  ellipseOf,
  followFrom,
  onEllipse,
  steadied,
  type Guide,
} from './guides';
import { canvasToPhoto, frameCorners, photoToCanvas, wholeFrame, type Register } from './register';
import { angleOf, driftOf, driftWords, gridLines, lengthOf, sightWords } from './sighting';

const real = (min: number, max: number) => fc.double({ min, max, noNaN: true });
const place = (most = 400) => fc.record({ x: real(-most, most), y: real(-most, most) });
const registers = fc.record({
  photo: fc.constant('a'),
  x: real(200, 4000),
  y: real(200, 3000),
  widthPx: real(200, 6000),
  turn: real(-3, 3),
});
const canvases = fc.record({ widthMm: real(60, 900), heightMm: real(60, 900) });
const views = fc.record({
  width: fc.constant(960),
  height: fc.constant(606),
  centreX: real(-500, 3000),
  centreY: real(-500, 3000),
  zoom: real(0.05, 24),
  turn: real(-3, 3),
  mirror: fc.boolean(),
});
/** How a photo on the board is looked at: zoomed, turned, mirrored about a place. */
const sights = fc.record({ zoom: real(0.02, 40), turn: real(-3, 3), mirror: fc.boolean() });

describe('a photo in register', () => {
  it('gives lengths on the canvas as they are on the photo, however both are looked at', () => {
    fc.assert(
      fc.property(registers, canvases, place(3000), place(3000), views, sights, (r, canvas, p, q, view, sight) => {
        // a length drawn on the screen over the photo, read back through the photo's zoom, turn and mirror
        const [c, s] = [Math.cos(sight.turn) * sight.zoom, Math.sin(sight.turn) * sight.zoom];
        const m = sight.mirror ? -1 : 1;
        const toScreen = ({ x, y }: { x: number; y: number }) => ({ x: c * m * x - s * y, y: s * m * x + c * y });
        const fromScreen = ({ x, y }: { x: number; y: number }) => ({
          x: (m * (c * x + s * y)) / sight.zoom ** 2,
          y: (-s * x + c * y) / sight.zoom ** 2,
        });
        const onCanvas = [p, q].map((v) => photoToCanvas(r as Register, canvas, fromScreen(toScreen(v))));
        const wanted = (lengthOf([p, q]) * canvas.widthMm) / r.widthPx;
        expect(Math.abs(lengthOf(onCanvas) - wanted)).toBeLessThanOrEqual(0.002 * wanted + 1e-9);
        // and drawn on the canvas's view it is as long again
        const mmPerPx = 25.4 / 150;
        const seen = onCanvas.map(({ x, y }) => cellToView(view as View, x / mmPerPx, y / mmPerPx));
        expect(lengthOf(seen) * (mmPerPx / view.zoom)).toBeCloseTo(lengthOf(onCanvas), 6);
        const back = seen.map(({ x, y }) => viewToCell(view as View, x, y));
        expect(lengthOf(back) * mmPerPx).toBeCloseTo(lengthOf(onCanvas), 6);
      }),
    );
  });

  it('goes there and back', () => {
    fc.assert(
      fc.property(registers, canvases, place(2000), (r, canvas, p) => {
        const back = canvasToPhoto(r, canvas, photoToCanvas(r, canvas, p));
        expect(back.x).toBeCloseTo(p.x, 6);
        expect(back.y).toBeCloseTo(p.y, 6);
      }),
    );
  });

  it('begins with the largest frame in the canvas’s proportions', () => {
    fc.assert(
      fc.property(canvases, fc.integer({ min: 50, max: 8000 }), fc.integer({ min: 50, max: 8000 }), (canvas, w, h) => {
        const corners = frameCorners(wholeFrame('a', w, h, canvas), canvas);
        const [wide, high] = [corners[2].x - corners[0].x, corners[2].y - corners[0].y];
        expect(wide / high).toBeCloseTo(canvas.widthMm / canvas.heightMm, 6);
        expect(Math.max(wide / w, high / h)).toBeCloseTo(1, 6);
        expect(corners[0].x).toBeGreaterThan(-1e-6);
        expect(corners[2].y).toBeLessThan(h + 1e-6);
      }),
    );
  });
});

describe('sighting', () => {
  it('tells lengths against a unit, angles and boxes as a painter says them', () => {
    const at = (x0: number, y0: number, x1: number, y1: number) => [
      { x: x0, y: y0 },
      { x: x1, y: y1 },
    ];
    expect(sightWords({ id: 1, kind: 'length', points: at(0, 0, 48, 0) }, 30)).toBe('1.60 units, 48.0 mm');
    expect(angleOf(at(0, 0, 10, -10))).toBeCloseTo(45);
    expect(angleOf(at(10, -10, 0, 0))).toBeCloseTo(45);
    expect(sightWords({ id: 1, kind: 'angle', points: at(0, 0, 10, 10) })).toBe('45.0° down to the right');
    expect(sightWords({ id: 1, kind: 'angle', points: at(5, 0, 5, 30) })).toBe('plumb');
    expect(sightWords({ id: 1, kind: 'angle', points: at(30, 4, 2, 4) })).toBe('level');
    expect(sightWords({ id: 1, kind: 'box', points: at(0, 0, 20, 50) })).toBe('2.50 high for 1 wide; 20.0 × 50.0 mm');
  });

  it('tells a known drift to a tenth of a millimetre', () => {
    fc.assert(
      fc.property(registers, canvases, place(200), real(-40, 40), real(-40, 40), (r, canvas, motif, dx, dy) => {
        // marked on the photo, and on the canvas where it was drawn wrong
        const marked = photoToCanvas(r, canvas, canvasToPhoto(r, canvas, motif));
        const drift = driftOf([marked, { x: motif.x + dx, y: motif.y + dy }]);
        expect(Math.abs(drift.dx - dx)).toBeLessThan(0.1);
        expect(Math.abs(drift.dy - dy)).toBeLessThan(0.1);
        if (dx > 0.1) expect(driftWords(drift)).toContain('right');
        if (dy < -0.1) expect(driftWords(drift)).toContain('high');
      }),
    );
    expect(
      driftWords(
        driftOf([
          { x: 1, y: 1 },
          { x: 1.01, y: 1 },
        ]),
      ),
    ).toBe('it sits where it should');
  });

  it('lays a grid of fields as square as the canvas lets them be', () => {
    const plain = gridLines({ widthMm: 300, heightMm: 200 }, 6, false);
    expect(plain).toHaveLength(5 + 3);
    expect(gridLines({ widthMm: 300, heightMm: 200 }, 6, true)).toHaveLength(8 + 2 * 24);
  });
});

describe('a stroke along a guide', () => {
  const far = (p: { x: number; y: number }, q: { x: number; y: number }) => Math.hypot(p.x - q.x, p.y - q.y);

  it('stays on a straightedge, and goes free where it begins away from it', () => {
    fc.assert(
      fc.property(
        place(),
        place(),
        place(),
        fc.array(place(), { minLength: 1, maxLength: 12 }),
        (a, b, start, hand) => {
          fc.pre(far(a, b) > 1);
          const guide: Guide = { kind: 'straight', points: [a, b] };
          const near = followFrom(guide, start, Infinity)!;
          for (const p of hand) {
            const q = near(p);
            const off = Math.abs((b.x - a.x) * (q.y - a.y) - (b.y - a.y) * (q.x - a.x)) / far(a, b);
            expect(off).toBeLessThan(0.1);
          }
          const away = far(near(start), start);
          if (away > 0.01) expect(followFrom(guide, start, away * 0.9)).toBeUndefined();
        },
      ),
    );
  });

  it('stays on an ellipse, at its nearest place', () => {
    fc.assert(
      fc.property(place(200), place(200), place(), fc.boolean(), (from, to, p, turned) => {
        fc.pre(Math.abs(from.x - to.x) > 2 && Math.abs(from.y - to.y) > 2);
        const box = ellipseIn(from, to);
        const points = turned ? [box[0], { x: box[1].x, y: box[1].y + 11 }, box[2]] : box;
        const e = ellipseOf(points);
        const q = onEllipse(p, points);
        const [c, s] = [Math.cos(e.turn), Math.sin(e.turn)];
        const u = (c * (q.x - e.x) + s * (q.y - e.y)) / e.a;
        const v = (-s * (q.x - e.x) + c * (q.y - e.y)) / e.b;
        expect(Math.abs(Math.hypot(u, v) - 1) * Math.min(e.a, e.b)).toBeLessThan(0.1);
        // no other place of it is nearer
        for (let k = 0; k < 90; k++) {
          const t = (k / 45) * Math.PI;
          const [x, y] = [e.a * Math.cos(t), e.b * Math.sin(t)];
          expect(far(p, { x: e.x + c * x - s * y, y: e.y + s * x + c * y })).toBeGreaterThan(far(p, q) - 0.05);
        }
      }),
    );
  });

  it('stays on an ellipse from its very middle, round or not', () => {
    for (const end of [199.9999999999996, 120]) {
      const points = ellipseIn({ x: -200, y: 200 }, { x: 200, y: -end });
      const e = ellipseOf(points);
      for (const p of [
        { x: -7.4e-280, y: -2.4e-48 },
        { x: e.x, y: e.y },
        { x: e.x + 1e-30, y: e.y + 1e-30 },
      ]) {
        const q = onEllipse(p, points);
        expect(Math.hypot((q.x - e.x) / e.a, (q.y - e.y) / e.b)).toBeCloseTo(1, 6);
      }
    }
  });

  it('stays on a curve through places', () => {
    fc.assert(
      fc.property(fc.array(place(200), { minLength: 3, maxLength: 7 }), place(200), (points, p) => {
        const line = curveThrough(points);
        for (const q of points) expect(Math.min(...line.map((v) => far(v, q)))).toBeLessThan(1e-6);
        const q = followFrom({ kind: 'curve', points }, p, Infinity)!(p);
        const step = Math.max(...line.slice(1).map((v, i) => far(v, line[i])));
        expect(Math.min(...line.map((v) => far(v, q)))).toBeLessThanOrEqual(step);
      }),
    );
  });

  it('goes to a vanishing point wherever that lies and however the view is turned', () => {
    fc.assert(
      fc.property(
        fc.array(place(4000), { minLength: 1, maxLength: 3 }),
        place(300),
        real(0, 6.28),
        views,
        (points, start, angle, view) => {
          fc.pre(points.every((p) => far(p, start) > 20));
          const follow = followFrom({ kind: 'perspective', points }, start, 0)!;
          let line: { x: number; y: number }[] = [];
          for (let mm = 0; mm < 60; mm += 1) {
            // the hand goes its way on a turned view, with some unsteadiness
            const p = { x: start.x + mm * Math.cos(angle) + 0.4 * Math.sin(mm), y: start.y + mm * Math.sin(angle) };
            const seen = cellToView(view as View, p.x, p.y);
            line.push(follow(viewToCell(view as View, seen.x, seen.y)));
          }
          line = line.filter((p) => far(p, start) > 1);
          fc.pre(line.length > 5);
          const d = {
            x: (line.at(-1)!.x - start.x) / far(line.at(-1)!, start),
            y: (line.at(-1)!.y - start.y) / far(line.at(-1)!, start),
          };
          const along = directionsAt(points, start).some((v) => Math.abs(v.x * d.y - v.y * d.x) < 1e-6);
          expect(along).toBe(true);
          for (const p of line) expect(Math.abs((p.x - start.x) * d.y - (p.y - start.y) * d.x)).toBeLessThan(0.1);
        },
      ),
    );
  });

  it('is steadied as far as is wanted, and not at all at first', () => {
    const free = steadied(0);
    expect(free({ x: 3, y: 4 })).toEqual({ x: 3, y: 4 });
    fc.assert(
      fc.property(real(0.05, 1), fc.array(place(50), { minLength: 2, maxLength: 30 }), (strength, hand) => {
        const follow = steadied(strength);
        let [way, steady] = [0, 0];
        let [last, at] = [hand[0], follow(hand[0])];
        for (const p of hand.slice(1)) {
          const q = follow(p);
          expect(far(p, q)).toBeLessThanOrEqual(12 * strength ** 2 + 1e-9);
          way += far(p, last);
          steady += far(q, at);
          [last, at] = [p, q];
        }
        expect(steady).toBeLessThanOrEqual(way + 1e-9);
      }),
    );
  });
});
