import { inflateSync } from 'fflate';
import { describe, expect, it } from 'vitest';
import { captureTile } from '@/core/film/tile';
import { encodeTile } from '@/core/film/packing/tileCodec';
import { line, loaded, paint, studioFor } from '@/measure/bench';
import { packed, packedTile, unpackedTile } from './packing';

describe('packing', () => {
  it('gives every tile back, and makes those smaller that are mostly empty', () => {
    const studio = studioFor(60, 40);
    paint(studio, ...loaded('flat', 9, { PB29: 1, PW6: 1 }, { amount: 3 }), line(4, 8, 56, 30));
    let sparse = 0;
    studio.painting.active.forEachTile((tile) => {
      const image = captureTile(studio.painting.arena, tile);
      const [whole, stored] = [encodeTile(image), packedTile(image)];
      expect(encodeTile(unpackedTile(stored))).toEqual(whole);
      if (stored.length < whole.length / 2) sparse++;
    });
    expect(sparse).toBeGreaterThan(0);
  });

  it('does not lose time on what hardly packs, whatever its length', () => {
    const noise = new Uint8Array(10_001).map((_, i) => 1 + ((i * 7919) % 255));
    expect(packed(noise).length).toBeGreaterThan(noise.length);
    expect(inflateSync(packed(noise))).toEqual(noise);
    for (const length of [0, 1, 3, 4, 5]) expect(inflateSync(packed(new Uint8Array(length)))).toHaveLength(length);
  });
});
