import { Unzip, UnzipInflate } from 'fflate';

/** Of what is packed so much is unpacked at a time, so that what unpacks to too much is left soon. */
const CHUNK = 1 << 16;

/**
 * What can be had from a zip archive that was cut off: it is read from its beginning, as it was written, and entries that
 * came whole are kept. Nobody vouches for them: what they hold has to be checked.
 * @param most bytes that an entry of a name may unpack to; 0 where it is of no interest
 */
export function leftOf(bytes: Uint8Array, most: (name: string) => number): Map<string, Uint8Array> {
  const left = new Map<string, Uint8Array>();
  const unzip = new Unzip((entry) => {
    const room = most(entry.name);
    if (room === 0 || left.has(entry.name)) return;
    const parts: Uint8Array[] = [];
    let size = 0;
    entry.ondata = (error, part, last) => {
      if (error || size > room) return;
      size += part.length;
      if (size > room) return entry.terminate();
      parts.push(part);
      if (!last) return;
      const whole = new Uint8Array(size);
      parts.reduce((at, one) => {
        whole.set(one, at);
        return at + one.length;
      }, 0);
      left.set(entry.name, whole);
    };
    entry.start();
  });
  unzip.register(UnzipInflate);
  try {
    for (let at = 0; at < bytes.length; at += CHUNK) unzip.push(bytes.subarray(at, at + CHUNK), false);
  } catch {
    // from here on nothing makes sense
  }
  return left;
}
