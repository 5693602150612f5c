import { packStratum, unpackSteps, type Stratum } from './stratum';
import { TILE_CELLS, type TileImage } from '@/core/film/tile';
import { COATS, RESISTS, type Coat, type Resist, type WashImage } from '@/core/film/wash';

/**
 * A tile's paint as named planes of amounts, so that whatever lies on it can be carried elsewhere in one way. Stiffness
 * and drying are multiplied by the film's volume: like paint, they then add up when cells are mixed.
 */
export type PlaneSet = Map<string, Float32Array>;

const times = (a: Float32Array, b: Float32Array) => a.map((v, i) => v * b[i]);

/** Takes a tile apart. */
export function planesOf(image: TileImage): PlaneSet {
  const set: PlaneSet = new Map();
  const { pigments, planes, skin, strata, wash, pixels, mask } = image;
  if (planes.length > 0) {
    const volume = planes[pigments.length];
    pigments.forEach((p, k) => set.set(`mass ${p}`, planes[k]));
    set.set('volume', volume);
    set.set('body', times(planes[pigments.length + 1], volume));
    if (planes.length > pigments.length + 2) set.set('cure', times(planes[pigments.length + 2], volume));
    skin?.forEach((plane, k) => set.set(k < pigments.length ? `skin ${pigments[k]}` : 'top', plane));
  }
  strata.forEach((s, n) => {
    const unpack = (steps: Uint16Array, unit: number) => {
      const out = new Float32Array(TILE_CELLS);
      unpackSteps(out, steps, 0, TILE_CELLS, unit, 0);
      return out;
    };
    set.set(`stratum ${n}`, unpack(s.thickness, s.thicknessStep));
    s.pigments.forEach((p, k) => set.set(`dry ${n} ${p}`, unpack(s.mass[k], s.massStep[k])));
  });
  if (wash) {
    for (const coat of COATS) {
      wash.coats[coat].forEach((plane, k) => plane && set.set(`wash ${coat} ${wash.pigments[k]}`, plane));
    }
    for (const name of RESISTS) if (wash.resist[name]) set.set(`resist ${name}`, wash.resist[name]);
  }
  if (pixels) {
    const alpha = Float32Array.from(pixels, (v) => v >>> 24);
    set.set('alpha', alpha);
    for (let c = 0; c < 3; c++) {
      set.set(
        `colour ${c}`,
        Float32Array.from(pixels, (v, i) => (((v >>> (8 * c)) & 255) * alpha[i]) / 255),
      );
    }
  }
  if (mask) set.set('mask', Float32Array.from(mask));
  return set;
}

const some = (plane: Float32Array | undefined) => plane?.some((v) => v > 0) ?? false;

/** Puts a tile together; undefined when nothing is there. */
export function imageOf(set: PlaneSet, maskFill: number): TileImage | undefined {
  const volume = set.get('volume');
  const wet = volume && some(volume);
  const list = (kind: string) =>
    [...set.keys()]
      .filter((name) => name.startsWith(`${kind} `) && some(set.get(name)))
      .map((name) => Number(name.slice(kind.length + 1)))
      .sort((a, b) => a - b);
  const pigments = wet ? list('mass') : [];
  const planes: Float32Array[] = [];
  let skin: Float32Array[] | undefined;
  if (wet) {
    const share = (name: string) => Float32Array.from(volume, (um, i) => (um > 0 ? (set.get(name)?.[i] ?? 0) / um : 0));
    pigments.forEach((p) => planes.push(set.get(`mass ${p}`)!));
    planes.push(volume, share('body'));
    if (some(set.get('cure'))) planes.push(share('cure'));
    if (some(set.get('top'))) {
      skin = pigments.map((p) => set.get(`skin ${p}`) ?? new Float32Array(TILE_CELLS));
      skin.push(set.get('top')!);
    }
  }
  const strata: Stratum[] = [];
  for (const n of list('stratum')) {
    const ids = list(`dry ${n}`);
    strata.push(
      packStratum(
        ids,
        ids.map((p) => set.get(`dry ${n} ${p}`)!),
        set.get(`stratum ${n}`)!,
      ),
    );
  }
  const wash = washOf(set);
  const raster = pixelsOf(set);
  const mask = set.get('mask');
  const shown = mask && Uint8Array.from(mask, (v) => Math.round(Math.max(0, Math.min(255, v))));
  const masked = shown?.some((v) => v !== maskFill) ? { mask: shown } : {};
  if (!wet && strata.length === 0 && !wash && !raster && !masked.mask) return undefined;
  return {
    pigments,
    planes,
    ...(skin && { skin }),
    strata,
    ...(wash && { wash }),
    ...(raster && { pixels: raster }),
    ...masked,
  };
}

function washOf(set: PlaneSet): WashImage | undefined {
  const found = new Map<Coat, Map<number, Float32Array>>();
  const pigments = new Set<number>();
  for (const [name, plane] of set) {
    const [kind, coat, pigment] = name.split(' ');
    if (kind !== 'wash' || !some(plane)) continue;
    pigments.add(Number(pigment));
    found.set(coat as Coat, (found.get(coat as Coat) ?? new Map()).set(Number(pigment), plane));
  }
  const resist: Partial<Record<Resist, Float32Array>> = {};
  for (const name of RESISTS) if (some(set.get(`resist ${name}`))) resist[name] = set.get(`resist ${name}`)!;
  if (pigments.size === 0 && Object.keys(resist).length === 0) return undefined;
  const sorted = [...pigments].sort((a, b) => a - b);
  const coats = Object.fromEntries(COATS.map((coat) => [coat, sorted.map((p) => found.get(coat)?.get(p))]));
  return { pigments: sorted, coats: coats as unknown as WashImage['coats'], resist };
}

function pixelsOf(set: PlaneSet): Uint32Array<ArrayBuffer> | undefined {
  const alpha = set.get('alpha');
  if (!alpha?.some((v) => v >= 0.5)) return undefined;
  return Uint32Array.from(alpha, (a, i) => {
    const code = Math.round(Math.min(255, a));
    if (code === 0) return 0;
    const own = (c: number) => Math.round(Math.max(0, Math.min(255, (set.get(`colour ${c}`)![i] * 255) / a)));
    return (own(0) | (own(1) << 8) | (own(2) << 16) | (code << 24)) >>> 0;
  });
}
