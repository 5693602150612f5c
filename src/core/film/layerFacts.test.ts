import { describe, expect, it } from 'vitest';
import { line, loaded, paint, studioFor } from '@/measure/bench';
import { factOfTiles } from './layerFacts';

describe('a fact of the tiles of a layer', () => {
  it('is worked out again when one of them has changed, and only then', () => {
    const studio = studioFor(30, 20, { ppi: 100 });
    paint(studio, ...loaded('flat', 5, { PB29: 1 }));
    let times = 0;
    const tiles = factOfTiles((layer) => {
      times++;
      return layer.tiles.filter(Boolean).length;
    });
    const of = () => tiles(studio.painting.active);
    expect(of()).toBe(0);
    paint(studio, line(2, 10, 28, 10));
    const after = of();
    expect(after).toBeGreaterThan(1);
    expect([of(), of()]).toEqual([after, after]);
    expect(times).toBe(2);
    for (const command of [{ do: 'dry' }, { do: 'undo' }, { do: 'undo' }] as const) {
      paint(studio, command);
      of();
    }
    expect(of()).toBe(0);
    expect(times).toBe(5);
  });
});
