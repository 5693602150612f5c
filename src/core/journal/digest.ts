import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex } from '@noble/hashes/utils.js';
import { encodeTile } from '@/core/film/tileCodec';
import { captureTile } from '@/core/film/tile';
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
      if (!tile.volume && tile.strata.length === 0) return;
      hash.update(new TextEncoder().encode(`${layer.id}:${index}`));
      hash.update(encodeTile(captureTile(painting.arena, tile)));
    });
  }
  return bytesToHex(hash.digest());
}
