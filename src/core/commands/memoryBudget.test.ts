import { describe, expect, it } from 'vitest';
import { loaded, paint, line, studioFor } from '@/measure/bench';
import { digest } from '@/core/journal/digest';
import { layerBytes, MOST_BYTES, needRoom, paintingBytes } from './memoryBudget';

function painted() {
  const studio = studioFor(30, 24, { ppi: 110 });
  paint(studio, ...loaded('flat', 8, { PB29: 1 }), line(4, 6, 26, 18));
  return studio;
}

describe('memory', () => {
  it('of a layer is what its tiles hold, wet and dry', () => {
    const studio = painted();
    const wet = layerBytes(studio.painting.active);
    const tiles = studio.painting.active.tiles.filter((tile) => tile?.volume).length;
    // pigment, volume and stiffness at least, four bytes a cell
    expect(wet).toBeGreaterThanOrEqual(tiles * 3 * 64 * 64 * 4);
    studio.apply({ do: 'dry' });
    expect(layerBytes(studio.painting.active)).toBeGreaterThan(0);
    expect(layerBytes(studio.painting.active)).toBeLessThan(wet);
    expect(paintingBytes(studio.painting)).toBeGreaterThan(layerBytes(studio.painting.active));
  });

  it('is refused with a sentence when there is none left, and nothing is lost', () => {
    const studio = painted();
    const { arena } = studio.painting;
    const before = digest(studio);
    const used = arena.used;
    arena.used = MOST_BYTES - 1000;
    expect(() => studio.apply({ do: 'layer.duplicate', layer: studio.painting.activeLayer })).toThrow(
      /There is no room for that: the painting takes 2\.0 GB of about 2\.0 GB\. Merge or remove layers first\./,
    );
    arena.used = used;
    expect(digest(studio)).toBe(before);
    studio.apply({ do: 'layer.duplicate', layer: studio.painting.activeLayer });
    expect(studio.painting.layers.length).toBe(3);
  });

  it('is there as long as it is within the limit', () => {
    const { painting } = painted();
    const left = MOST_BYTES - paintingBytes(painting);
    expect(() => needRoom(painting, left)).not.toThrow();
    expect(() => needRoom(painting, left + 1)).toThrow('no room');
  });
});
