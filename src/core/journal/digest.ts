import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex } from '@noble/hashes/utils.js';
import { undated } from '@/core/film/packing/stratum';
import { encodeTile } from '@/core/film/packing/tileCodec';
import { encodeStudioState } from './snapshot';
import type { Studio } from './studio';

/**
 * SHA-256 of everything that a painting is: its beginning, layers, wet and dry paint, tools with what they carry,
 * ledger and clock. When strata dried is left out: it says nothing of what they are. Two states with the same digest are the same bytes.
 */
export function digest(studio: Studio): string {
  const hash = sha256.create();
  const { painting } = studio;
  hash.update(new TextEncoder().encode(JSON.stringify(encodeStudioState(studio))));
  for (const layer of studio.allLayers) {
    layer.forEachTile((tile, index) => {
      if (tile.bare) return;
      hash.update(new TextEncoder().encode(`${layer.id}:${index}`));
      const image = layer.capture(index, painting.arena)!;
      hash.update(encodeTile({ ...image, strata: undated(image.strata) }));
    });
  }
  return bytesToHex(hash.digest());
}
