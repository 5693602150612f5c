import { describe, expect, it } from 'vitest';
import { isEmpty } from '@/core/film/pixelRect';
import { line, loaded, paint, studioFor } from '@/measure/bench';
import { layerReach } from './layerReach';

describe('where layers may be seen', () => {
  const studio = studioFor(120, 90, { ppi: 150 });
  paint(studio, ...loaded('flat', 6, { PB29: 1 }), line(20, 20, 40, 20), { do: 'layer.add' }, line(80, 70, 100, 70));
  const { painting } = studio;
  const [sketch, low, high] = painting.layers.map(({ id }) => id);
  const px = (mm: number) => mm / painting.mmPerPx;

  it('is around their own paint, and around that of all of them', () => {
    const one = layerReach(painting, [low]);
    expect(one.left).toBeLessThan(px(18));
    expect(one.right).toBeGreaterThan(px(40));
    expect(one.right).toBeLessThan(px(60));
    const both = layerReach(painting, [low, high]);
    expect([both.left, both.top]).toEqual([one.left, one.top]);
    expect(both.right).toBeGreaterThan(px(100));
    expect(isEmpty(layerReach(painting, [sketch]))).toBe(true);
  });

  it('is everywhere for what changes the others', () => {
    paint(studio, { do: 'layer.add', kind: 'adjust', adjust: { kind: 'warmth', warmth: 0.5 } });
    const { width, height } = painting;
    expect(layerReach(painting, [painting.activeLayer])).toEqual({ left: 0, top: 0, right: width, bottom: height });
  });
});
