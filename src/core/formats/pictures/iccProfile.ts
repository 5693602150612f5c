import { encodeSrgb, invert } from '@/core/colour/colorimetry';

/** Colour spaces that pictures are sent out in. */
export const SPACES = { srgb: 'sRGB', p3: 'Display P3' } as const;
export type Space = keyof typeof SPACES;

type Row = readonly [number, number, number];
type Matrix = readonly [Row, Row, Row];

/** Chromaticities of the primaries (IEC 61966-2-1; SMPTE EG 432-1); both with white D65 and the curve of sRGB. */
const PRIMARIES: Record<Space, readonly (readonly [x: number, y: number])[]> = {
  srgb: [
    [0.64, 0.33],
    [0.3, 0.6],
    [0.15, 0.06],
  ],
  p3: [
    [0.68, 0.32],
    [0.265, 0.69],
    [0.15, 0.06],
  ],
};
const D65 = [0.3127, 0.329] as const;
/** White of the profile connection space (ICC.1:2022, 7.2.16). */
const D50: Row = [0.9642, 1, 0.8249];
/** Cone responses of the Bradford transform. */
const BRADFORD: Matrix = [
  [0.8951, 0.2664, -0.1614],
  [-0.7502, 1.7135, 0.0367],
  [0.0389, -0.0685, 1.0296],
];

const times = (m: Matrix, [x, y, z]: Row): Row => m.map(([a, b, c]) => a * x + b * y + c * z) as unknown as Row;
const product = (m: Matrix, n: Matrix): Matrix =>
  m.map((row) => [0, 1, 2].map((c) => row[0] * n[0][c] + row[1] * n[1][c] + row[2] * n[2][c])) as unknown as Matrix;

const xyz = ([x, y]: readonly [number, number]): Row => [x / y, 1, (1 - x - y) / y];

/** Linear light of a space to XYZ, white at Y = 1. */
function toXyz(space: Space): Matrix {
  const [r, g, b] = PRIMARIES[space].map(xyz);
  const columns: Matrix = [
    [r[0], g[0], b[0]],
    [r[1], g[1], b[1]],
    [r[2], g[2], b[2]],
  ];
  const gains = times(invert(columns), xyz(D65));
  return columns.map((row) => row.map((v, k) => v * gains[k])) as unknown as Matrix;
}

/** Linear sRGB to linear light of a space. */
export const fromSrgb = (space: Space): Matrix => product(invert(toXyz(space)), toXyz('srgb'));

const adaptation = (): Matrix => {
  const [from, to] = [times(BRADFORD, xyz(D65)), times(BRADFORD, D50)];
  const scale: Matrix = [
    [to[0] / from[0], 0, 0],
    [0, to[1] / from[1], 0],
    [0, 0, to[2] / from[2]],
  ];
  return product(product(invert(BRADFORD), scale), BRADFORD);
};

/**
 * An ICC profile of a space: version 4, three primaries and the curve of sRGB as a formula (ICC.1:2022). Some 600 bytes.
 */
export function iccProfile(space: Space): Uint8Array<ArrayBuffer> {
  const adapt = adaptation();
  const colorants = product(adapt, toXyz(space));
  const curve = bytes('para', 0, u16(3), u16(0), ...[2.4, 1 / 1.055, 0.055 / 1.055, 1 / 12.92, 0.04045].map(fixed));
  const point = (column: number) => bytes('XYZ ', 0, ...colorants.map((row) => fixed(row[column])));
  const tags: readonly (readonly [name: string, data: Uint8Array])[] = [
    ['desc', text(SPACES[space])],
    ['cprt', text('No copyright, use freely')],
    ['wtpt', bytes('XYZ ', 0, ...D50.map(fixed))],
    ['chad', bytes('sf32', 0, ...adapt.flat().map(fixed))],
    ['rXYZ', point(0)],
    ['gXYZ', point(1)],
    ['bXYZ', point(2)],
    ['rTRC', curve],
    ['gTRC', curve],
    ['bTRC', curve],
  ];
  let at = 128 + 4 + 12 * tags.length;
  const table: Uint8Array[] = [u32(tags.length)];
  const data: Uint8Array[] = [];
  const placed = new Map<Uint8Array, number>();
  for (const [name, content] of tags) {
    if (!placed.has(content)) {
      placed.set(content, at);
      data.push(content);
      at += content.length;
    }
    table.push(ascii(name), u32(placed.get(content)!), u32(content.length));
  }
  const head = new Uint8Array(128);
  const put = (offset: number, part: Uint8Array) => head.set(part, offset);
  put(0, u32(at));
  put(8, Uint8Array.of(4, 0x40, 0, 0));
  put(12, ascii('mntrRGB XYZ '));
  put(24, bytes(u16(2026), u16(1), u16(1), u16(0), u16(0), u16(0)));
  put(36, ascii('acsp'));
  put(68, bytes(...D50.map(fixed)));
  return bytes(head, ...table, ...data);
}

const u16 = (v: number) => Uint8Array.of(v >>> 8, v & 255);
const u32 = (v: number) => Uint8Array.of(v >>> 24, (v >>> 16) & 255, (v >>> 8) & 255, v & 255);
/** s15Fixed16Number. */
const fixed = (v: number) => u32(Math.round(v * 65536) >>> 0);
const ascii = (word: string) => Uint8Array.from(word, (c) => c.charCodeAt(0));

/** One English text, as multiLocalizedUnicodeType, padded to four bytes. */
function text(words: string): Uint8Array {
  const utf16 = Uint8Array.from([...words].flatMap((c) => [0, c.charCodeAt(0)]));
  const padding = new Uint8Array((4 - (utf16.length % 4)) % 4);
  return bytes('mluc', 0, u32(1), u32(12), 'enUS', u32(utf16.length), u32(28), utf16, padding);
}

/** Joins parts: words as ASCII, 0 as four zero bytes. */
function bytes(...parts: (Uint8Array | string | 0)[]): Uint8Array<ArrayBuffer> {
  const all = parts.map((part) => (part === 0 ? u32(0) : typeof part === 'string' ? ascii(part) : part));
  const out = new Uint8Array(all.reduce((sum, part) => sum + part.length, 0));
  let at = 0;
  for (const part of all) {
    out.set(part, at);
    at += part.length;
  }
  return out;
}

/** The curve of both spaces, linear to encoded, 0..1, clipped. */
export const encodeCurve = (v: number): number => (v <= 0 ? 0 : v >= 1 ? 1 : encodeSrgb(v));
