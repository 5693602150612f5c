import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex } from '@noble/hashes/utils.js';
import { encodeTile } from '@/core/film/packing/tileCodec';
import { encodeStudioState } from './snapshot';
import type { Studio } from './studio';

/**
 * SHA-256 of everything that a painting is: its beginning, layers, wet and dry paint, tools with what they carry,
 * ledger and clock. Two states with the same digest are the same bytes.
 */
export function digest(studio: Studio): string {
  const hash = sha256.create();
  const { painting } = studio;
  hash.update(new TextEncoder().encode(JSON.stringify(encodeStudioState(studio))));
  for (const layer of studio.allLayers) {
    layer.forEachTile((tile, index) => {
      if (tile.bare) return;
      hash.update(new TextEncoder().encode(`${layer.id}:${index}`));
      hash.update(encodeTile(layer.capture(index, painting.arena)!));
    });
  }
  return bytesToHex(hash.digest());
}
