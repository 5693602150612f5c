import { describe, expect, it } from 'vitest';
import { paint, studioFor } from '@/measure/bench';
import { dipped, through } from '@/measure/water/washBench';
import { StaleTiles } from './staleTiles';

/** A sheet with a wash in its left half and clear water in its right. */
function sheet() {
  const studio = studioFor(80, 40, { ppi: 110, surface: { kind: 'paper-cold' } });
  paint(
    studio,
    ...dipped('mop', 12, { PB29: 1 }),
    through([
      [8, 20],
      [26, 20],
    ]),
    ...dipped('mop', 12, {}),
    through([
      [54, 20],
      [72, 20],
    ]),
  );
  const { painting } = studio;
  const tile = (x: number, y: number) =>
    Math.floor(y / painting.mmPerPx / 64) * painting.tilesX + Math.floor(x / painting.mmPerPx / 64);
  return { painting, left: tile(14, 20), right: tile(62, 20) };
}

describe('tiles whose picture is old', () => {
  it('come by how much has changed in them: paint that moves before clear water', () => {
    const { painting, left, right } = sheet();
    const stale = new StaleTiles(painting);
    stale.add([right, left]);
    expect([...stale.mostChanged()]).toEqual([left, right]);
    expect(stale.size).toBe(0);
  });

  it('do not wait for ever', () => {
    const { painting, left, right } = sheet();
    const stale = new StaleTiles(painting);
    let turns = 0;
    for (let taken: number | undefined; taken !== right; turns++) {
      stale.add([left, right]);
      for (const index of stale.mostChanged()) {
        taken = index;
        break;
      }
      expect(turns).toBeLessThan(40);
    }
    expect(turns).toBeGreaterThan(1);
  });

  it('come first where the brush is', () => {
    const { painting, left, right } = sheet();
    const stale = new StaleTiles(painting);
    stale.add([left, right]);
    const x = (right % painting.tilesX) * 64;
    const [first] = stale.mostChanged({ left: x, top: 60, right: x + 60, bottom: 90 });
    expect(first).toBe(right);
    // one was taken, the other is still old
    expect(stale.size).toBe(1);
  });
});
