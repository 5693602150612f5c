import { strFromU8, strToU8, unzipSync, zipSync } from 'fflate';
import type { Randomness } from '@/measure/randomActs';

/**
 * Damage to files that knows how they are made: what a plain flip of bits never reaches, because a checksum or a bracket
 * stops it first. Each takes a sound file and gives a damaged one.
 */
export type Mutation = (bytes: Uint8Array, random: Randomness) => Uint8Array;

const NUMBERS = [0, -1, 1e-30, 0.5, 255, 1e9, -1e9, 1e308, 2 ** 31, 2 ** 53, NaN] as const;

/** Bytes turned, cut out, put in, doubled; the end cut off. */
export const bytesChanged: Mutation = (bytes, { next, below, pick }) => {
  if (bytes.length === 0) return bytes;
  const at = below(bytes.length);
  const length = 1 + below(Math.min(64, bytes.length - at));
  const join = (...parts: Uint8Array[]) => {
    const out = new Uint8Array(parts.reduce((sum, p) => sum + p.length, 0));
    parts.reduce((to, p) => (out.set(p, to), to + p.length), 0);
    return out;
  };
  const [before, here, after] = [bytes.subarray(0, at), bytes.subarray(at, at + length), bytes.subarray(at + length)];
  return pick([
    () =>
      join(
        before,
        here.map((b) => (next() < 0.5 ? b ^ (1 << below(8)) : b)),
        after,
      ),
    () =>
      join(
        before,
        here.map(() => pick([0, 255, 127, 10])),
        after,
      ),
    () => join(before, after),
    () => join(before, here, here, after),
    () =>
      join(
        before,
        Uint8Array.from({ length }, () => below(256)),
        here,
        after,
      ),
    () => before.slice(),
  ])();
};

/** A value anywhere in JSON replaced, taken out, doubled or put elsewhere. */
export function jsonChanged(data: unknown, random: Randomness): unknown {
  const { below, pick, next } = random;
  const places: { holder: Record<string, unknown> | unknown[]; key: string | number }[] = [];
  const visit = (value: unknown, depth: number) => {
    if (typeof value !== 'object' || value === null || depth > 8) return;
    for (const key of Array.isArray(value) ? value.keys() : Object.keys(value)) {
      places.push({ holder: value as Record<string, unknown>, key });
      if (places.length < 4000) visit((value as Record<string | number, unknown>)[key], depth + 1);
    }
  };
  visit(data, 0);
  if (places.length === 0) return pick([null, 1, [], 'x']);
  const { holder, key } = places[below(places.length)];
  const at = holder as Record<string | number, unknown>;
  const other = places[below(places.length)];
  pick<() => void>([
    () => (at[key] = pick(NUMBERS)),
    () => (at[key] = pick(NUMBERS)),
    () => (at[key] = pick(['', 'PX9', '__proto__', 'x'.repeat(1000), '\u0000', null, true, [], {}])),
    () => (at[key] = (other.holder as Record<string | number, unknown>)[other.key]),
    () => (Array.isArray(holder) ? holder.splice(key as number, 1) : delete at[key]),
    () => (Array.isArray(holder) ? holder.push(at[key]) : (at[`${key}${below(9)}`] = at[key])),
    () =>
      typeof at[key] === 'number' ? (at[key] = (at[key] as number) * (next() < 0.5 ? -1 : 1e6)) : (at[key] = [at[key]]),
  ])();
  return data;
}

const json: Mutation = (bytes, random) => {
  let data: unknown;
  try {
    data = JSON.parse(strFromU8(bytes));
  } catch {
    return bytesChanged(bytes, random);
  }
  let damaged = jsonChanged(data, random);
  if (random.next() < 0.3) damaged = jsonChanged(damaged, random);
  try {
    // a value put into itself cannot be written
    return strToU8(JSON.stringify(damaged) ?? '');
  } catch {
    return bytesChanged(bytes, random);
  }
};
export { json as jsonFileChanged };

/** Lines and words of a text doubled, taken out, moved, made into something else. */
export const textChanged: Mutation = (bytes, random) => {
  const { below, pick } = random;
  const lines = strFromU8(bytes).split('\n');
  const at = below(lines.length);
  const words = lines[at].split(/([\s<>"=]+)/);
  const word = below(words.length);
  pick<() => void>([
    () => lines.splice(at, 1),
    () => lines.splice(at, 0, lines[at]),
    () => lines.splice(at, 0, ...lines.splice(below(lines.length), 1)),
    () => (lines[at] = words.with(word, String(pick(NUMBERS))).join('')),
    () => (lines[at] = words.with(word, '').join('')),
    () =>
      (lines[at] = words.with(word, pick(['"', '<', '&x;', 'END_DATA', '1e999', '\u0000', 'é'.repeat(500)])).join('')),
    () => (lines[at] = lines[at].repeat(1 + below(400))),
    () => lines.splice(at),
  ])();
  return strToU8(lines.join('\n'));
};

/** An entry of an archive damaged by what it is, and packed again with checksums that fit. */
export const entryChanged: Mutation = (bytes, random) => {
  const parts: Record<string, Uint8Array> = unzipSync(bytes);
  const names = Object.keys(parts);
  const name = random.next() < 0.4 ? random.pick(names.filter((n) => n.endsWith('.json'))) : random.pick(names);
  if (random.next() < 0.1) delete parts[name];
  else if (name.endsWith('.json')) parts[name] = json(parts[name], random);
  else if (name.startsWith('tiles/')) parts[name] = wordsChanged(parts[name], random);
  else parts[name] = bytesChanged(parts[name], random);
  return zipSync(parts, { level: 0 });
};

/** 32-bit words of a tile made into other numbers, or the tile cut. */
const wordsChanged: Mutation = (bytes, random) => {
  const { below, pick, next } = random;
  if (next() < 0.2) return bytesChanged(bytes, random);
  const out = bytes.slice();
  const view = new DataView(out.buffer);
  for (let n = 1 + below(3); n > 0; n--) {
    // counts stand at the beginning
    const at = 4 * below(Math.max(1, next() < 0.5 ? Math.min(16, out.length >> 2) : out.length >> 2));
    if (at + 4 > out.length) continue;
    if (next() < 0.5) view.setFloat32(at, pick(NUMBERS), true);
    else view.setUint32(at, pick([0, 1, 127, 0xffffffff, 0x7fffffff, below(2 ** 31)]), true);
  }
  return out;
};
