import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { Uncoloured } from './uncoloured';

const rects = fc
  .record({
    left: fc.integer({ min: -50, max: 900 }),
    top: fc.integer({ min: -50, max: 700 }),
    w: fc.nat(500),
    h: fc.nat(500),
  })
  .map(({ left, top, w, h }) => ({ left, top, right: left + w, bottom: top + h }));

describe('what is not coloured yet', () => {
  it('covers all that was added, nothing beside the picture, and each place once', () => {
    fc.assert(
      fc.property(fc.array(rects, { maxLength: 6 }), (added) => {
        const [width, height] = [700, 450];
        const left = new Uncoloured(width, height);
        for (const rect of added) left.add(rect);
        const seen = new Uint8Array(width * height);
        for (let block; (block = left.next());) {
          expect(Math.min(block.left, block.top)).toBeGreaterThanOrEqual(0);
          expect(block.right <= width && block.bottom <= height).toBe(true);
          for (let y = block.top; y < block.bottom; y++)
            for (let x = block.left; x < block.right; x++) seen[y * width + x]++;
        }
        expect(Math.max(0, ...seen.filter((v) => v > 1))).toBe(0);
        for (const { left: x0, top, right, bottom } of added) {
          for (let y = Math.max(0, top); y < Math.min(height, bottom); y++) {
            for (let x = Math.max(0, x0); x < Math.min(width, right); x++)
              if (!seen[y * width + x]) throw new Error(`${x}, ${y}`);
          }
        }
        expect(left.length).toBe(0);
      }),
      { numRuns: 30 },
    );
  });

  it('begins in the middle of what is looked at', () => {
    const left = new Uncoloured(1280, 1280);
    left.add({ left: 0, top: 0, right: 1280, bottom: 1280 });
    left.look({ width: 400, height: 300, centreX: 1000, centreY: 300, zoom: 0.7, turn: 0.3, mirror: true });
    const first = left.next()!;
    const last = Array.from({ length: left.length }, () => left.next()!).at(-1)!;
    const far = ({ left: x, top: y }: typeof first) => Math.hypot(x + 64 - 1000, y + 64 - 300);
    expect(far(first)).toBeLessThan(91);
    expect(far(last)).toBeGreaterThan(1000);
  });
});
