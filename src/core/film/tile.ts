import type { Arena } from './arena';
import { Copies } from '@/core/film/packing/copies';
import type { WaterImage } from './basin';
import { PLANE_BYTES, TILE, TILE_CELLS } from './cells';
import { layerThickness, SOLVENT, type Stratum } from '@/core/film/packing/stratum';
import { captureWash, restoreWash, Wash, type WashImage } from './wash';

export { PLANE_BYTES, TILE, TILE_CELLS };

/** Share of a wet film's thickness that stands as relief once it has dried. */
export const DRY_SHRINK = 0.95;

let made = 1;

/**
 * 64 x 64 cells of one layer. Planes are addresses in the arena (row-major float32, 0 = no such plane); a plane
 * exists only where it is needed.
 */
export class Tile {
  /** Indices of the pigments present in the wet film, ascending, and their mass planes (coats). */
  pigments: number[] = [];
  mass: number[] = [];
  /** Thickness of the wet film, um: binder, medium and pigment. */
  volume = 0;
  /** The part of the film that was laid on top and is not worked in: a plane for each of `mass`, or none at all. */
  skin: number[] = [];
  skinVolume = 0;
  /** Stiffness of the wet film, 0 fluid .. 1 paste. */
  body = 0;
  /** How far the wet film has dried, 0 wet .. 1 dry to the touch; 0 = nowhere. */
  cure = 0;
  /** Pigment of washes and ink, and what keeps them off; undefined where there is none. */
  wash: Wash | undefined;
  /** What the stroke in the air has left here (um), or taken off (0..1) when it rubs out. Gone when the stroke ends. */
  laid = 0;
  /** Whether `laid` says what is being rubbed out. */
  rubbing = false;
  /** Everything that has dried, oldest first. */
  strata: readonly Stratum[] = [];
  /** Thickness of all strata, um; a cache. */
  sealed = 0;
  /** Whether the newest stratum was thinned with solvent somewhere: it dries matte there. */
  dryLean = false;
  /** Pixels of a picture or of light, RGBA codes, not multiplied; and what a mask shows, 0..255. Shared with copies. */
  pixels: Uint32Array<ArrayBuffer> | undefined;
  mask: Uint8Array<ArrayBuffer> | undefined;
  /** Counts changes, so that caches above know; no other tile ever has the same. */
  version = made++ * 2 ** 20;

  constructor(private readonly arena: Arena) {}

  /** Mass plane of a pigment, made when it is missing. */
  massPlane(pigment: number): number {
    const at = this.pigments.indexOf(pigment);
    if (at >= 0) return this.mass[at];
    const plane = this.arena.allocate(PLANE_BYTES);
    const place = this.pigments.findIndex((p) => p > pigment);
    const k = place < 0 ? this.pigments.length : place;
    this.pigments.splice(k, 0, pigment);
    this.mass.splice(k, 0, plane);
    if (this.skinVolume) this.skin.splice(k, 0, this.arena.allocate(PLANE_BYTES));
    return plane;
  }

  /** Makes volume and body planes. */
  wet(): void {
    this.volume ||= this.arena.allocate(PLANE_BYTES);
    this.body ||= this.arena.allocate(PLANE_BYTES);
  }

  /** Makes the planes of what lies on top. */
  skinned(): void {
    if (this.skinVolume) return;
    this.skinVolume = this.arena.allocate(PLANE_BYTES);
    this.skin = this.mass.map(() => this.arena.allocate(PLANE_BYTES));
  }

  /** From now on the film is one: nothing lies on top. */
  dropSkin(): void {
    this.skin.forEach((plane) => this.release(plane));
    this.skin = [];
    this.skinVolume = this.release(this.skinVolume);
  }

  /** Makes the plane of drying. */
  curing(): void {
    this.cure ||= this.arena.allocate(PLANE_BYTES);
  }

  dropCure(): void {
    this.cure = this.release(this.cure);
  }

  /** Replaces the strata and what is derived from them. */
  setStrata(strata: readonly Stratum[]): void {
    this.strata = strata;
    if (strata.length === 0) {
      this.sealed = this.release(this.sealed);
      this.dryLean = false;
      return;
    }
    this.sealed ||= this.arena.allocate(PLANE_BYTES);
    const at = this.sealed >> 2;
    const out = this.arena.f32.subarray(at, at + TILE_CELLS).fill(0);
    for (const stratum of strata) layerThickness(stratum, out);
    this.dryLean = strata.length > 0 && strata.at(-1)!.pigments.includes(SOLVENT);
  }

  /** Gives the wet film's planes back. */
  dropWet(): void {
    this.mass.forEach((plane) => this.release(plane));
    this.pigments = [];
    this.mass = [];
    this.volume = this.release(this.volume);
    this.body = this.release(this.body);
    this.dropSkin();
    this.dropCure();
  }

  dropLaid(): void {
    this.rubbing = false;
    this.laid = this.release(this.laid);
  }

  /** Removes the mass plane of one pigment. */
  dropPigment(pigment: number): void {
    const at = this.pigments.indexOf(pigment);
    if (at < 0) return;
    this.release(this.mass[at]);
    this.pigments.splice(at, 1);
    this.mass.splice(at, 1);
    if (this.skinVolume) this.release(this.skin.splice(at, 1)[0]);
  }

  /** Gives everything back. */
  dispose(): void {
    this.dropWet();
    this.dropLaid();
    this.wash?.dispose();
    this.wash = undefined;
    this.sealed = this.release(this.sealed);
    this.pixels = undefined;
    this.mask = undefined;
  }

  /** Words of the planes that a copy of it has (see `captureTile`). */
  get words(): number {
    const wet = this.volume ? this.mass.length + 2 + (this.cure ? 1 : 0) : 0;
    const skin = this.skinVolume ? this.skin.length + 1 : 0;
    return TILE_CELLS * (wet + skin + (this.wash?.planes ?? 0));
  }

  /** Whether there is nothing on it. */
  get bare(): boolean {
    return !this.volume && this.strata.length === 0 && !this.wash && !this.pixels && !this.mask;
  }

  private release(plane: number): 0 {
    if (plane) this.arena.free(plane, PLANE_BYTES);
    return 0;
  }
}

/** A copy of a tile outside the arena: for undo and for keeping. Strata never change, so they are shared. */
export interface TileImage {
  readonly pigments: readonly number[];
  /** One plane a pigment, then volume and body, then drying where it has begun; empty when there is no wet film. */
  readonly planes: readonly Float32Array[];
  /** What lies on top: one plane a pigment, then its volume; absent when there is nothing. */
  readonly skin?: readonly Float32Array[];
  readonly strata: readonly Stratum[];
  readonly wash?: WashImage;
  /** The layer's water on it, while there is some. */
  readonly water?: WaterImage;
  /** Shared with the tile: whoever changes a tile's pixels or mask gives it others. */
  readonly pixels?: Uint32Array<ArrayBuffer>;
  readonly mask?: Uint8Array<ArrayBuffer>;
}

/** Copies a tile out of the arena; `copies` has room for its `words`. */
export function captureTile(arena: Arena, tile: Tile, copies = new Copies(arena, tile.words)): TileImage {
  const copy = (plane: number) => copies.plane(plane, TILE_CELLS);
  const planes = tile.volume ? [...tile.mass, tile.volume, tile.body, ...(tile.cure ? [tile.cure] : [])].map(copy) : [];
  const skin = tile.skinVolume ? { skin: [...tile.skin, tile.skinVolume].map(copy) } : {};
  const wash = tile.wash ? { wash: captureWash(copies, tile.wash) } : {};
  const { pixels, mask } = tile;
  const raster = { ...(pixels && { pixels }), ...(mask && { mask }) };
  return { pigments: [...tile.pigments], planes, ...skin, strata: tile.strata, ...wash, ...raster };
}

/** Puts a copy back into a tile. */
export function restoreTile(arena: Arena, tile: Tile, image: TileImage): void {
  tile.dropWet();
  tile.dropLaid();
  if (image.planes.length > 0) {
    tile.wet();
    const planes = [...image.pigments.map((p) => tile.massPlane(p)), tile.volume, tile.body];
    if (image.planes.length > planes.length) {
      tile.curing();
      planes.push(tile.cure);
    }
    if (image.skin) tile.skinned();
    planes.forEach((plane, i) => arena.write(plane, image.planes[i]));
    image.skin?.forEach((plane, i) => arena.write(tile.skin[i] ?? tile.skinVolume, plane));
  }
  if (image.wash) restoreWash(arena, (tile.wash ??= new Wash(arena)), image.wash);
  else {
    tile.wash?.dispose();
    tile.wash = undefined;
  }
  if (tile.strata !== image.strata) tile.setStrata(image.strata);
  tile.pixels = image.pixels;
  tile.mask = image.mask;
  tile.version++;
}
