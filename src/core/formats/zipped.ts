import { Zip, ZipDeflate, ZipPassThrough } from 'fflate';
import type { Step } from './step';

/** A file in an archive. */
export interface Entry {
  readonly name: string;
  readonly bytes: Uint8Array;
  /** How hard it is packed; 0 as it is. */
  readonly level: 0 | 1 | 4 | 9;
}

/**
 * A zip archive, written one entry after the other: no more than one of them is held unpacked at a time.
 * @param count how many entries there are about, for `step`
 */
export function zipped(entries: Iterable<Entry>, count: number, step: Step = () => {}): Uint8Array<ArrayBuffer> {
  const parts: Uint8Array[] = [];
  const zip = new Zip((error, part) => {
    if (error) throw error;
    parts.push(part);
  });
  let done = 0;
  for (const { name, bytes, level } of entries) {
    step(Math.min(1, done++ / count));
    const file = level === 0 ? new ZipPassThrough(name) : new ZipDeflate(name, { level });
    zip.add(file);
    file.push(bytes, true);
  }
  zip.end();
  const out = new Uint8Array(parts.reduce((sum, { length }) => sum + length, 0));
  let at = 0;
  for (const part of parts) {
    out.set(part, at);
    at += part.length;
  }
  return out;
}
