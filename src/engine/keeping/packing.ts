import { deflateSync, inflateSync } from 'fflate';
import type { TileImage } from '@/core/film/tile';
import { decodeTile, encodeTile } from '@/core/film/packing/tileCodec';

/** Words that are looked at to see whether packing is worth its time: every so many. */
const EVERY = 16;
/** Share of empty words from which it is. Planes of paint hardly pack, and unpacking them is most of the time of opening. */
const EMPTY = 0.25;

/** Bytes as they are stored, packed where that makes them much smaller: a deflate stream in either case. */
export function packed(bytes: Uint8Array): Uint8Array {
  const { byteLength } = bytes;
  let seen = 0;
  let empty = 0;
  for (let at = 0; at + 4 <= byteLength; at += 4 * EVERY) {
    seen++;
    if (bytes[at] === 0 && bytes[at + 1] === 0 && bytes[at + 2] === 0 && bytes[at + 3] === 0) empty++;
  }
  return deflateSync(bytes, { level: empty > EMPTY * seen ? 1 : 0 });
}

export const packedTile = (image: TileImage): Uint8Array => packed(encodeTile(image));

/** @throws RangeError or another when it is damaged */
export const unpackedTile = (bytes: Uint8Array): TileImage => decodeTile(inflateSync(bytes));
