import { undated, type Stratum } from './stratum';
import { COATS, DUST, RESISTS, type Coat, type Resist, type WashImage } from '@/core/film/wash';
import { TILE, TILE_CELLS, type TileImage } from '@/core/film/tile';

/**
 * Bytes of a tile, little-endian: number of wet pigments (u32, 0xffffffff when there is no wet film; its bit 30 is set
 * where drying has begun, bit 29 where something lies on top), their indices (u32), planes (float32: masses, volume,
 * body, drying; of what lies on top masses and volume); number of strata (u32), and for each: number of pigments (u32),
 * indices (u32), mass units (float64), thickness unit (float64), planes (u16: masses, thickness).
 *
 * Where there is a wash or water, that follows: a mark (u32 WASH); number of pigments (u32, NO_FILM when there is no
 * wash), their indices; for each coat and pigment whether there is a plane (u32), and the plane; whether there is
 * masking fluid and wax, with their planes; where the mark is DUSTY, the coats of dust in the same way; then whether
 * there is water (u32), its four scalars (float64), the side of
 * its coarse planes (u32), those, and the cover.
 *
 * Where there are pixels or a mask: a mark (u32 RASTER); whether there are pixels (u32), with their codes (u32); whether
 * there is a mask, with its bytes. Where pieces of strata were carried here: a mark (u32 PIECES); for each stratum the
 * tile it is from (u32, NO_FILM where it is from here) and its place there. Where it is known when strata dried: a mark
 * (u32 DATED); for each stratum strokes (float64, -1 where it is not known) and simulated seconds (float64).
 */
const WASH = 0x57415348;
const DUSTY = 0x44555354;
const RASTER = 0x52415354;
const PIECES = 0x50494543;
const DATED = 0x44415445;
/** Coats that every wash has written down. */
const WET_COATS = COATS.filter((coat) => !(DUST as readonly Coat[]).includes(coat));
const NO_FILM = 0xffffffff;
const CURING = 0x40000000;
const SKIN = 0x20000000;
const MOST_PIGMENTS = 128;

export function encodeTile(image: TileImage): Uint8Array<ArrayBuffer> {
  const skin = image.skin ?? [];
  let bytes = 8 + image.pigments.length * 4 + (image.planes.length + skin.length) * TILE_CELLS * 4;
  for (const s of image.strata) bytes += 4 + s.pigments.length * 12 + 8 + (s.pigments.length + 1) * TILE_CELLS * 2;
  const { wash, water } = image;
  const tail = wash || water;
  const dusty = wash !== undefined && DUST.some((coat) => wash.coats[coat].some(Boolean));
  const coats = dusty ? [...WET_COATS, ...DUST] : WET_COATS;
  if (tail) {
    bytes += 8;
    const planes = wash ? [...coats.flatMap((coat) => wash.coats[coat]), ...RESISTS.map((r) => wash.resist[r])] : [];
    bytes += (wash?.pigments.length ?? 0) * 4;
    for (const plane of planes) bytes += 4 + (plane?.byteLength ?? 0);
    bytes += 4;
    if (water) bytes += 36 + water.planes.reduce((sum, p) => sum + p.byteLength, 0);
  }
  const { pixels, mask } = image;
  if (pixels || mask) bytes += 12 + (pixels?.byteLength ?? 0) + (mask?.byteLength ?? 0);
  const pieces = image.strata.some((s) => s.from);
  if (pieces) bytes += 4 + 8 * image.strata.length;
  const dates = image.strata.some((s) => s.dried);
  if (dates) bytes += 4 + 16 * image.strata.length;
  const out = new Uint8Array(bytes);
  const view = new DataView(out.buffer);
  let at = 0;
  const u32 = (v: number) => {
    view.setUint32(at, v, true);
    at += 4;
  };
  const f64 = (v: number) => {
    view.setFloat64(at, v, true);
    at += 8;
  };
  const plane = (p: Float32Array | Uint16Array | Uint32Array | Uint8Array) => {
    out.set(new Uint8Array(p.buffer, p.byteOffset, p.byteLength), at);
    at += p.byteLength;
  };
  const curing = image.planes.length > image.pigments.length + 2 ? CURING : 0;
  u32(image.planes.length > 0 ? image.pigments.length + curing + (skin.length > 0 ? SKIN : 0) : NO_FILM);
  image.pigments.forEach(u32);
  image.planes.forEach(plane);
  skin.forEach(plane);
  u32(image.strata.length);
  for (const s of image.strata) {
    u32(s.pigments.length);
    s.pigments.forEach(u32);
    s.massStep.forEach(f64);
    f64(s.thicknessStep);
    s.mass.forEach(plane);
    plane(s.thickness);
  }
  if (tail) {
    const maybe = (p: Float32Array | undefined) => {
      u32(p ? 1 : 0);
      if (p) plane(p);
    };
    u32(dusty ? DUSTY : WASH);
    u32(wash ? wash.pigments.length : NO_FILM);
    wash?.pigments.forEach(u32);
    if (wash) {
      for (const coat of WET_COATS) wash.coats[coat].forEach(maybe);
      for (const resist of RESISTS) maybe(wash.resist[resist]);
      if (dusty) for (const coat of DUST) wash.coats[coat].forEach(maybe);
    }
    u32(water ? 1 : 0);
    if (water) {
      water.scalars.forEach(f64);
      u32(Math.sqrt(water.planes[0].length));
      water.planes.forEach(plane);
    }
  }
  if (pixels || mask) {
    u32(RASTER);
    for (const raster of [pixels, mask]) {
      u32(raster ? 1 : 0);
      if (raster) plane(raster);
    }
  }
  if (pieces) {
    u32(PIECES);
    for (const { from } of image.strata) {
      u32(from ? from[0] : NO_FILM);
      u32(from ? from[1] : 0);
    }
  }
  if (dates) {
    u32(DATED);
    for (const { dried } of image.strata) {
      f64(dried ? dried.strokes : -1);
      f64(dried ? dried.clock : 0);
    }
  }
  return out;
}

/** The tile of encodeTile's bytes. @throws RangeError when they are cut short or make no sense. */
export function decodeTile(bytes: Uint8Array): TileImage {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  let at = 0;
  const u32 = () => {
    const v = view.getUint32(at, true);
    at += 4;
    return v;
  };
  const f64 = () => {
    const v = view.getFloat64(at, true);
    at += 8;
    return v;
  };
  const count = (most: number) => {
    const n = u32();
    if (n > most) throw new RangeError('The tile is damaged.');
    return n;
  };
  const raw = (length: number) => {
    if (at + length > bytes.byteLength) throw new RangeError('The tile is cut short.');
    const part = bytes.slice(at, at + length);
    at += length;
    return part.buffer;
  };
  const list = <T>(n: number, read: () => T): T[] => Array.from({ length: n }, read);

  const first = u32();
  const wet = first !== NO_FILM;
  const wetPigments = wet ? first & ~(CURING | SKIN) : 0;
  if (wetPigments > MOST_PIGMENTS) throw new RangeError('The tile is damaged.');
  const pigments = list(wetPigments, u32);
  const planeCount = wet ? wetPigments + (first & CURING ? 3 : 2) : 0;
  const planes = list(planeCount, () => new Float32Array(raw(TILE_CELLS * 4)));
  const onTop = wet && first & SKIN ? wetPigments + 1 : 0;
  const skin = onTop > 0 ? { skin: list(onTop, () => new Float32Array(raw(TILE_CELLS * 4))) } : {};
  const strata: Stratum[] = list(count(10_000), () => {
    const n = count(MOST_PIGMENTS);
    const ids = list(n, u32);
    const massStep = list(n, f64);
    const thicknessStep = f64();
    const mass = list(n, () => new Uint16Array(raw(TILE_CELLS * 2)));
    return { pigments: ids, massStep, mass, thicknessStep, thickness: new Uint16Array(raw(TILE_CELLS * 2)) };
  });
  const image: TileImage = { pigments, planes, ...skin, strata };
  const rest: { -readonly [K in keyof TileImage]?: TileImage[K] } = {};
  while (at < bytes.byteLength) {
    const mark = u32();
    if (mark === WASH || mark === DUSTY) Object.assign(rest, washAndWater(mark));
    else if (mark === RASTER) {
      if (count(1)) rest.pixels = new Uint32Array(raw(TILE_CELLS * 4));
      if (count(1)) rest.mask = new Uint8Array(raw(TILE_CELLS));
    } else if (mark === PIECES) {
      rest.strata = strata.map((s) => {
        const [tile, order] = [u32(), u32()];
        return tile === NO_FILM ? s : { ...s, from: [tile, order] as const };
      });
    } else if (mark === DATED) {
      rest.strata = (rest.strata ?? strata).map((s) => {
        const [strokes, clock] = [f64(), f64()];
        return strokes >= 0 && clock >= 0 ? { ...s, dried: { strokes, clock } } : s;
      });
    } else throw new RangeError('The tile is damaged.');
  }
  return { ...image, ...rest };

  function washAndWater(mark: number): Pick<TileImage, 'wash' | 'water'> {
    const maybe = () => (count(1) ? new Float32Array(raw(TILE_CELLS * 4)) : undefined);
    const first = u32();
    let wash: WashImage | undefined;
    if (first !== NO_FILM) {
      if (first > MOST_PIGMENTS) throw new RangeError('The tile is damaged.');
      const ids = list(first, u32);
      const read = (coat: Coat) => [coat, list(first, maybe)] as const;
      const wet = WET_COATS.map(read);
      const resist: Partial<Record<Resist, Float32Array>> = {};
      for (const name of RESISTS) {
        const plane = maybe();
        if (plane) resist[name] = plane;
      }
      const none = (coat: Coat) => [coat, list(first, () => undefined)] as const;
      const dust = DUST.map(mark === DUSTY ? read : none);
      wash = { pigments: ids, coats: Object.fromEntries([...wet, ...dust]) as unknown as WashImage['coats'], resist };
    }
    if (!count(1)) return { wash };
    const scalars = [f64(), f64(), f64(), f64()] as const;
    const side = count(TILE);
    const planes = list(7, () => new Float32Array(raw(side * side * 4)));
    return { wash, water: { scalars, planes: [...planes, new Float32Array(raw(TILE_CELLS * 4))] } };
  }
}

/**
 * A tile's bytes without the times at which its paint dried, which are no part of a digest.
 * @throws RangeError when they are cut short or make no sense
 */
export function undatedTile(bytes: Uint8Array): Uint8Array {
  const image = decodeTile(bytes);
  const strata = undated(image.strata);
  return strata === image.strata ? bytes : encodeTile({ ...image, strata });
}
