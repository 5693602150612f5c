import { TILE, TILE_CELLS } from '@/core/film/cells';
import { imageOf, planesOf, type PlaneSet } from '@/core/film/packing/planeSet';
import type { Stratum } from '@/core/film/packing/stratum';
import type { TileImage } from '@/core/film/tile';
import { COATS, RESISTS, type WashImage } from '@/core/film/wash';

/**
 * Carries what lies on a layer to other cells. Paint keeps its thickness, so its mass grows and shrinks with its area.
 * Whole turns, mirroring and moves by whole cells take every cell as it is: nothing is rounded, and turned back it is the
 * same bytes.
 */

/** A layer's tiles outside the arena, and how they lie. */
export interface Sheet {
  readonly tilesX: number;
  readonly width: number;
  readonly height: number;
  readonly tile: (index: number) => TileImage | undefined;
  /** What a mask shows where there is no tile. */
  readonly maskFill: number;
}

/** Size of the canvas that it comes onto, cells. */
export interface Canvas {
  readonly width: number;
  readonly height: number;
}

/** Where the paint of a cell comes from, cells (the middle of a cell lies at half); undefined where nothing comes. */
export type From = (x: number, y: number) => readonly [x: number, y: number] | undefined;

/** The same for whole cells. */
export type FromCell = (x: number, y: number) => readonly [x: number, y: number];

const tileOfCell = (sheet: Sheet, x: number, y: number) => (y >> 6) * sheet.tilesX + (x >> 6);

/**
 * A tile of what a sheet becomes. Cells of a tile that lie beyond the canvas stay empty: paint there would not be seen,
 * and would come to light in the ledger when a tool cleans them.
 * @param to cells of the canvas that it comes onto
 * @param samples places that are looked at along a side of a cell: more where it gets smaller
 */
export function resampleTile(
  sheet: Sheet,
  planes: (index: number) => PlaneSet | undefined,
  left: number,
  top: number,
  to: Canvas,
  from: From,
  samples: number,
): TileImage | undefined {
  const { width, height, maskFill } = sheet;
  const n2 = samples * samples;
  // for each place: four cells around it with their shares
  const tiles = new Int32Array(TILE_CELLS * n2 * 4).fill(-1);
  const cells = new Uint16Array(TILE_CELLS * n2 * 4);
  const shares = new Float32Array(TILE_CELLS * n2 * 4);
  const involved = new Set<number>();
  let k = 0;
  for (let i = 0; i < TILE_CELLS; i++) {
    if (left + (i & 63) >= to.width || top + (i >> 6) >= to.height) {
      k += 4 * n2;
      continue;
    }
    for (let s = 0; s < n2; s++, k += 4) {
      const x = left + (i & 63) + ((s % samples) + 0.5) / samples;
      const y = top + (i >> 6) + (Math.floor(s / samples) + 0.5) / samples;
      const place = from(x, y);
      if (!place) continue;
      const u = place[0] - 0.5;
      const v = place[1] - 0.5;
      const [fx, fy] = [Math.floor(u), Math.floor(v)];
      for (let q = 0; q < 4; q++) {
        const [cx, cy] = [fx + (q & 1), fy + (q >> 1)];
        if (cx < 0 || cy < 0 || cx >= width || cy >= height) continue;
        const share = (q & 1 ? u - fx : 1 - u + fx) * (q >> 1 ? v - fy : 1 - v + fy);
        if (share <= 1e-6) continue;
        const index = tileOfCell(sheet, cx, cy);
        if (!planes(index)) continue;
        involved.add(index);
        tiles[k + q] = index;
        cells[k + q] = (cy & 63) * TILE + (cx & 63);
        shares[k + q] = share / n2;
      }
    }
  }
  if (involved.size === 0) return undefined;
  const out: PlaneSet = new Map();
  for (const index of involved) {
    for (const [name, plane] of planes(index)!) {
      let sums = out.get(name);
      if (!sums) out.set(name, (sums = new Float32Array(TILE_CELLS)));
      for (let i = 0, j = 0; i < TILE_CELLS; i++) {
        let sum = 0;
        for (let s = 0; s < 4 * n2; s++, j++) if (tiles[j] === index) sum += shares[j] * plane[cells[j]];
        sums[i] += sum;
      }
    }
  }
  fillMask(out, sheet, planes, left, top, to, from, maskFill);
  return imageOf(out, maskFill);
}

/** A mask goes on beyond its tiles as it is at first. */
function fillMask(
  out: PlaneSet,
  sheet: Sheet,
  planes: (index: number) => PlaneSet | undefined,
  left: number,
  top: number,
  to: Canvas,
  from: From,
  fill: number,
): void {
  if (fill === 0 || !out.has('mask')) return;
  const mask = out.get('mask')!;
  for (let i = 0; i < TILE_CELLS; i++) {
    const place = from(left + (i & 63) + 0.5, top + (i >> 6) + 0.5);
    const [x, y] = place ? [Math.floor(place[0]), Math.floor(place[1])] : [-1, -1];
    const onCanvas = left + (i & 63) < to.width && top + (i >> 6) < to.height;
    const there =
      onCanvas &&
      x >= 0 &&
      y >= 0 &&
      x < sheet.width &&
      y < sheet.height &&
      planes(tileOfCell(sheet, x, y))?.has('mask');
    if (!there) mask[i] = fill;
  }
}

/** A tile of what a sheet becomes when whole cells change places. */
export function permuteTile(
  sheet: Sheet,
  left: number,
  top: number,
  to: Canvas,
  from: FromCell,
  index: number,
): TileImage | undefined {
  const sources = new Map<number, { to: number[]; cells: number[] }>();
  let outside = false;
  for (let i = 0; i < TILE_CELLS; i++) {
    const [dx, dy] = [left + (i & 63), top + (i >> 6)];
    if (dx >= to.width || dy >= to.height) continue;
    const [x, y] = from(dx, dy);
    if (x < 0 || y < 0 || x >= sheet.width || y >= sheet.height) {
      outside = true;
      continue;
    }
    const source = tileOfCell(sheet, x, y);
    let list = sources.get(source);
    if (!list) sources.set(source, (list = { to: [], cells: [] }));
    list.to.push(i);
    list.cells.push((y & 63) * TILE + (x & 63));
  }
  const pieces = [...sources].flatMap(([source, cells]): Piece[] => {
    const image = sheet.tile(source);
    return image ? [{ source, ...cells, image }] : [];
  });
  return pieces.length > 0 ? assemble(pieces, index, sheet.maskFill, outside) : undefined;
}

interface Piece {
  readonly source: number;
  readonly to: readonly number[];
  readonly cells: readonly number[];
  readonly image: TileImage;
}

type Plane = Float32Array | Uint16Array | Uint32Array | Uint8Array;

/** Copies cells of a plane. */
function carry<P extends Plane>(out: P, plane: P, { to, cells }: Piece): P {
  for (let i = 0; i < to.length; i++) out[to[i]] = plane[cells[i]];
  return out;
}
const floats = () => new Float32Array(TILE_CELLS);
const any = (plane: Float32Array | undefined) => plane?.some((v) => v !== 0) ?? false;

function assemble(pieces: readonly Piece[], index: number, maskFill: number, outside: boolean): TileImage | undefined {
  const film = wetOf(pieces);
  const strata = strataOf(pieces, index);
  const wash = washImage(pieces);
  let pixels: Uint32Array<ArrayBuffer> | undefined;
  let mask: Uint8Array<ArrayBuffer> | undefined;
  for (const piece of pieces) {
    const { image } = piece;
    if (image.pixels) carry((pixels ??= new Uint32Array(TILE_CELLS)), image.pixels, piece);
    if (image.mask) carry((mask ??= new Uint8Array(TILE_CELLS).fill(maskFill)), image.mask, piece);
  }
  if (pixels && !pixels.some((v) => v >= 0x01000000)) pixels = undefined;
  if (mask && !outside && !mask.some((v) => v !== maskFill)) mask = undefined;
  if (film.planes.length === 0 && strata.length === 0 && !wash && !pixels && !mask) return undefined;
  return { ...film, strata, ...(wash && { wash }), ...(pixels && { pixels }), ...(mask && { mask }) };
}

function wetOf(pieces: readonly Piece[]): Pick<TileImage, 'pigments' | 'planes' | 'skin'> {
  const wet = pieces.filter((p) => p.image.planes.length > 0);
  const ids = [...new Set(wet.flatMap((p) => p.image.pigments))].sort((a, b) => a - b);
  const gather = (plane: (image: TileImage) => Float32Array | undefined) => {
    const out = floats();
    for (const piece of wet) {
      const source = plane(piece.image);
      if (source) carry(out, source, piece);
    }
    return out;
  };
  const of = (image: TileImage, pigment: number) => image.pigments.indexOf(pigment);
  const volume = gather((image) => image.planes[image.pigments.length]);
  if (!any(volume)) return { pigments: [], planes: [] };
  const masses = ids.map((p) => gather((image) => image.planes[of(image, p)]));
  const kept = ids.filter((_, k) => any(masses[k]));
  const planes = [...masses.filter(any), volume, gather((image) => image.planes[image.pigments.length + 1])];
  const cure = gather((image) => image.planes[image.pigments.length + 2]);
  if (any(cure)) planes.push(cure);
  const top = gather((image) => image.skin?.[image.pigments.length]);
  if (!any(top)) return { pigments: kept, planes };
  const skin = kept.map((p) => gather((image) => (of(image, p) < 0 ? undefined : image.skin?.[of(image, p)])));
  return { pigments: kept, planes, skin: [...skin, top] };
}

function washImage(pieces: readonly Piece[]): WashImage | undefined {
  const washed = pieces.filter((p) => p.image.wash);
  if (washed.length === 0) return undefined;
  const ids = [...new Set(washed.flatMap((p) => p.image.wash!.pigments))].sort((a, b) => a - b);
  const gather = (plane: (wash: WashImage) => Float32Array | undefined) => {
    let out: Float32Array | undefined;
    for (const piece of washed) {
      const source = plane(piece.image.wash!);
      if (source) carry((out ??= floats()), source, piece);
    }
    return any(out) ? out : undefined;
  };
  const coats = Object.fromEntries(
    COATS.map((coat) => [coat, ids.map((p) => gather((w) => w.coats[coat][w.pigments.indexOf(p)]))]),
  ) as unknown as Record<(typeof COATS)[number], (Float32Array | undefined)[]>;
  const used = ids.map((_, k) => COATS.some((coat) => coats[coat][k]));
  const resist = Object.fromEntries(
    RESISTS.map((name) => [name, gather((w) => w.resist[name])] as const).filter(([, plane]) => plane),
  );
  if (!used.some(Boolean) && Object.keys(resist).length === 0) return undefined;
  return {
    pigments: ids.filter((_, k) => used[k]),
    coats: Object.fromEntries(
      COATS.map((c) => [c, coats[c].filter((_, k) => used[k])]),
    ) as unknown as WashImage['coats'],
    resist,
  };
}

/** Dry paint stays packed as it is: a tile gets a piece of each stratum of the tiles that its cells come from. */
function strataOf(pieces: readonly Piece[], index: number): Stratum[] {
  const found = new Map<string, Stratum & { from: readonly [number, number] }>();
  for (const piece of pieces) {
    let order = -1;
    for (const stratum of piece.image.strata) {
      const from = stratum.from ?? ([piece.source, order + 1] as const);
      order = Math.max(order, from[1]);
      const name = `${from.join()} ${stratum.thicknessStep} ${stratum.massStep.join()} ${stratum.pigments.join()}`;
      const known = found.get(name);
      const steps = () => new Uint16Array(TILE_CELLS);
      const mass = stratum.mass.map((plane, k) => carry(known?.mass[k] ?? steps(), plane, piece));
      const thickness = carry(known?.thickness ?? steps(), stratum.thickness, piece);
      const { pigments, massStep, thicknessStep } = stratum;
      const carried = { pigments, massStep, mass, thicknessStep, thickness, from };
      found.set(name, stratum.dried ? { ...carried, dried: stratum.dried } : carried);
    }
  }
  const strata = [...found.values()]
    .filter((s) => s.thickness.some((v) => v > 0))
    .sort((a, b) => a.from[1] - b.from[1] || a.from[0] - b.from[0]);
  // all at home again: as if they had never been away
  if (strata.every((s) => s.from[0] === index)) return strata.map(({ from: _, ...home }) => home);
  return strata;
}

/** A lookup of a sheet's tiles as planes, taken apart once. */
export function planeLookup(sheet: Sheet): (index: number) => PlaneSet | undefined {
  const known = new Map<number, PlaneSet | undefined>();
  return (index) => {
    if (!known.has(index)) {
      const image = sheet.tile(index);
      known.set(index, image && planesOf(image));
    }
    return known.get(index);
  };
}
