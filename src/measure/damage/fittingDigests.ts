import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex } from '@noble/hashes/utils.js';
import { strFromU8, strToU8, type Unzipped } from 'fflate';
import { undatedTile } from '@/core/film/packing/tileCodec';

/** The manifest of a painting's file with digests that fit its parts, whatever was done to these: what a checksum does not find. */
export function fittingDigests(parts: Unzipped): Uint8Array<ArrayBuffer> {
  const manifest = JSON.parse(strFromU8(parts['manifest.json']));
  const hash = sha256.create().update(parts['state.json']);
  for (const { layer, index, file } of manifest.tiles)
    hash.update(strToU8(`${layer}:${index}`)).update(undatedOr(parts[file] ?? new Uint8Array()));
  Object.assign(manifest, {
    digest: bytesToHex(hash.digest()),
    journal: bytesToHex(sha256(parts['journal.json'])),
  });
  return strToU8(JSON.stringify(manifest));
}

/** What makes no sense any more as a tile stays as it is. */
function undatedOr(tile: Uint8Array): Uint8Array {
  try {
    return undatedTile(tile);
  } catch {
    return tile;
  }
}
