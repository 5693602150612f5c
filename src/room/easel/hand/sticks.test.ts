import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { masstoneLab } from '@/core/colour/mixture';
import { PIGMENTS } from '@/core/colour/pigments';
import { darkness } from '@/room/easel/layers/drawingIn';
import { stickRow } from './sticks';

const tubes = PIGMENTS.map((p) => p.id);

describe('a row of sticks', () => {
  it('goes from shade to tint of every tube, each a mixture of it', () => {
    for (const id of tubes) {
      const row = stickRow(id, tubes);
      expect(row).toHaveLength(7);
      for (const mixture of row) expect(mixture[id]).toBeGreaterThan(0);
      const light = row.map((mixture) => masstoneLab(mixture)[0]);
      for (let k = 1; k < 7; k++) expect(light[k]).toBeGreaterThan(light[k - 1] - 1.5);
      expect(light[6] - light[0]).toBeGreaterThan(10);
    }
  });

  it('takes black and white of the palette where it has them', () => {
    const row = stickRow('PB29', ['PW4', 'PB29', 'PBk11']);
    expect(Object.keys(row[0])).toContain('PBk11');
    expect(Object.keys(row[6])).toContain('PW4');
  });
});

describe('a drawing that comes in', () => {
  it('has clear paper, whatever its tone, and lines as dark as they were against it', () => {
    fc.assert(
      fc.property(fc.integer({ min: 120, max: 255 }), fc.integer({ min: 0, max: 40 }), (paper, line) => {
        const rgba = new Uint8ClampedArray(400 * 4);
        for (let i = 0; i < 400; i++) rgba.fill(i % 20 === 0 ? line : paper, i * 4, i * 4 + 3);
        const out = darkness(rgba);
        for (let i = 0; i < 400; i++) {
          if (i % 20 === 0) expect(out[i]).toBeGreaterThan(200);
          else expect(out[i]).toBe(0);
        }
      }),
    );
  });
});
