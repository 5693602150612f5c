import { describe, expect, it } from 'vitest';
import { cellToView, viewToCell, type View } from '@/core/picture/view';
import { PenReader } from '@/room/easel/canvas/pen';
import { fitView, mirrored, panBy, previewMatrix, turnAt, zoomAt } from '@/room/easel/canvas/viewControl';
import { recipeWords, shortName } from '@/core/colour/recipeWords';
import { fileName } from './parts/saveFile';

const view: View = { width: 900, height: 600, centreX: 500, centreY: 300, zoom: 0.7, turn: 0.4, mirror: false };

describe('moving the view', () => {
  it('zooms and turns around what is under the pointer', () => {
    for (const next of [
      zoomAt(view, 2.3, 200, 450),
      turnAt(view, 1.1, 200, 450),
      zoomAt(mirrored(view), 0.4, 200, 450),
    ]) {
      const before = viewToCell(next.mirror ? mirrored(view) : view, 200, 450);
      const after = viewToCell(next, 200, 450);
      expect(after.x).toBeCloseTo(before.x, 6);
      expect(after.y).toBeCloseTo(before.y, 6);
    }
  });

  it('pans with the hand', () => {
    const next = panBy(view, 30, -20);
    const { x, y } = cellToView(next, ...(Object.values(viewToCell(view, 100, 100)) as [number, number]));
    expect(x).toBeCloseTo(130, 6);
    expect(y).toBeCloseTo(80, 6);
  });

  it('fits the whole painting, turned or not', () => {
    for (const turn of [0, 0.5, Math.PI / 2]) {
      const fit = fitView({ ...view, turn }, 2400, 1800);
      for (const [x, y] of [
        [0, 0],
        [2400, 0],
        [0, 1800],
        [2400, 1800],
      ]) {
        const p = cellToView(fit, x, y);
        expect(p.x).toBeGreaterThan(0);
        expect(p.x).toBeLessThan(900);
        expect(p.y).toBeGreaterThan(0);
        expect(p.y).toBeLessThan(600);
      }
    }
  });

  it('does not zoom out of sight', () => {
    expect(zoomAt(view, 1e9, 0, 0).zoom).toBe(24);
    expect(zoomAt(view, 1e-9, 0, 0).zoom).toBe(0.03);
  });

  it('previews a view by a matrix that is the identity for the same view', () => {
    const numbers = (m: string) => m.slice(7, -1).split(',').map(Number);
    numbers(previewMatrix(view, view, 2)).forEach((v, i) => expect(v).toBeCloseTo([1, 0, 0, 1, 0, 0][i], 6));
    const [a, , , d, e] = numbers(previewMatrix(view, zoomAt(view, 2, 450, 300), 1));
    expect([a, d]).toEqual([expect.closeTo(2, 6), expect.closeTo(2, 6)]);
    expect(e).toBeCloseTo(-450, 4);
  });
});

describe('reading the pen', () => {
  const geometry = {
    view: { ...view, turn: 0, zoom: 1, centreX: 450, centreY: 300 },
    mmPerPx: 0.2,
    dpr: 1,
    left: 10,
    top: 20,
  };
  const event = (x: number, y: number, more: object = {}) =>
    ({
      clientX: x,
      clientY: y,
      timeStamp: 1000,
      pointerType: 'pen',
      pressure: 0.5,
      tiltX: 0,
      tiltY: 0,
      twist: 0,
      ...more,
    }) as PointerEvent;

  it('gives millimetres on the painting, and the pen’s own pressure', () => {
    expect(new PenReader().begin(event(110, 220), geometry)).toEqual([0, 20, 40, 0.5]);
  });

  it('passes tilt on in the painting’s directions', () => {
    const tilted = event(110, 220, { tiltX: 30, tiltY: 10, twist: 45 });
    expect(new PenReader().begin(tilted, geometry).slice(4)).toEqual([30, 10, 45]);
    const turned = { ...geometry, view: { ...geometry.view, turn: Math.PI / 2 } };
    expect(new PenReader().begin(tilted, turned).slice(4)).toEqual([10, -30, 45]);
    const glass = { ...geometry, view: { ...geometry.view, mirror: true } };
    expect(new PenReader().begin(tilted, glass).slice(4)).toEqual([-30, 10, 45]);
  });

  it('lets a fast mouse skim and a slow one press', () => {
    const stroke = (step: number) => {
      const pen = new PenReader();
      pen.begin(event(0, 0, { pointerType: 'mouse' }), geometry);
      let last = 0;
      for (let i = 1; i < 60; i++) {
        [, , , last] = pen.readAll(event(i * step, 0, { pointerType: 'mouse', timeStamp: 1000 + i * 8 }), geometry)[0];
      }
      return last;
    };
    expect(stroke(1)).toBeGreaterThan(0.6);
    expect(stroke(40)).toBeLessThan(0.4);
  });
});

describe('words', () => {
  it('say a mixture as a painter would', () => {
    expect(recipeWords({ PW6: 3, PY43: 1, PBk9: 0.05 })).toBe('3 White, 1 Yellow Ochre, a touch of Black');
    expect(recipeWords({ PB29: 2 })).toBe('Ultramarine');
    expect(shortName('PY3')).toBe('Lemon Yellow');
  });

  it('make a file name of any title', () => {
    expect(fileName('Low tide, study 1', 'png')).toBe('low-tide-study-1.png');
    expect(fileName('../?', 'png')).toBe('painting.png');
  });
});
