import type { Arena } from './arena';
import { PLANE_BYTES, TILE_CELLS } from './cells';
import type { Copies } from '@/core/film/packing/copies';

/**
 * Pigment of washes, ink and dry sticks on one tile, in coats, for each pigment that is there.
 *
 * - `suspended` floats in the water film (or lies loose where the film has just gone)
 * - `settled` lies on the paper, can be lifted and dissolves again slowly, the less the more it stains
 * - `under` is what had dried before a later wash went over it: light passes it after the later ones
 * - `soluble` is ink that water takes up eagerly; `fast` is ink that nothing takes up
 * - `loose` is dust of the stick that was there last; `pressed` is the dust below it
 */
export const COATS = ['suspended', 'settled', 'under', 'soluble', 'fast', 'pressed', 'loose'] as const;
export type Coat = (typeof COATS)[number];
/** Coats of dry sticks. */
export const DUST = ['pressed', 'loose'] as const satisfies readonly Coat[];

/** Planes that keep water away: masking fluid, which is rubbed off again, and wax, which stays; 0..1. */
export const RESISTS = ['masking', 'wax'] as const;
export type Resist = (typeof RESISTS)[number];

export class Wash {
  /** Table indices, ascending. */
  pigments: number[] = [];
  /** Address of each pigment's plane in each coat; 0 where there is none. */
  readonly coats = Object.fromEntries(COATS.map((coat) => [coat, []])) as unknown as Record<Coat, number[]>;
  readonly resist: Record<Resist, number> = { masking: 0, wax: 0 };

  constructor(private readonly arena: Arena) {}

  /** Plane of a pigment in a coat, made when it is missing. */
  plane(coat: Coat, pigment: number): number {
    let at = this.pigments.indexOf(pigment);
    if (at < 0) {
      const next = this.pigments.findIndex((p) => p > pigment);
      at = next < 0 ? this.pigments.length : next;
      this.pigments.splice(at, 0, pigment);
      for (const name of COATS) this.coats[name].splice(at, 0, 0);
    }
    return (this.coats[coat][at] ||= this.arena.allocate(PLANE_BYTES));
  }

  /** The plane of a resist, made when it is missing. */
  resistPlane(resist: Resist): number {
    return (this.resist[resist] ||= this.arena.allocate(PLANE_BYTES));
  }

  /** How many planes there are. */
  get planes(): number {
    let count = 0;
    for (const name of RESISTS) if (this.resist[name]) count++;
    for (const coat of COATS) for (const plane of this.coats[coat]) if (plane) count++;
    return count;
  }

  /** Whether nothing is on the tile. */
  get empty(): boolean {
    return this.pigments.length === 0 && !this.resist.masking && !this.resist.wax;
  }

  /** Whether sticks have left dust here. */
  get dusty(): boolean {
    return DUST.some((coat) => this.coats[coat].some((plane) => plane !== 0));
  }

  /** Planes of dust, as word addresses, with their pigments. */
  dust(): { plane: number; pigment: number }[] {
    return DUST.flatMap((coat) =>
      this.coats[coat].flatMap((plane, k) => (plane ? [{ plane: plane >> 2, pigment: this.pigments[k] }] : [])),
    );
  }

  /** Calls back for every plane of pigment. */
  forEach(visit: (plane: number, pigment: number, coat: Coat) => void): void {
    for (const coat of COATS) {
      this.coats[coat].forEach((plane, i) => {
        if (plane) visit(plane, this.pigments[i], coat);
      });
    }
  }

  /** Drops a plane of one coat, and the pigment when it was its last. */
  drop(coat: Coat, pigment: number): void {
    const at = this.pigments.indexOf(pigment);
    if (at < 0) return;
    this.coats[coat][at] = this.release(this.coats[coat][at]);
    if (COATS.every((name) => !this.coats[name][at])) {
      this.pigments.splice(at, 1);
      for (const name of COATS) this.coats[name].splice(at, 1);
    }
  }

  dropResist(resist: Resist): void {
    this.resist[resist] = this.release(this.resist[resist]);
  }

  dispose(): void {
    for (const coat of COATS) {
      this.coats[coat].forEach((plane) => this.release(plane));
      this.coats[coat] = [];
    }
    this.pigments = [];
    for (const resist of RESISTS) this.dropResist(resist);
  }

  private release(plane: number): 0 {
    if (plane) this.arena.free(plane, PLANE_BYTES);
    return 0;
  }
}

/** A copy of a wash outside the arena. */
export interface WashImage {
  readonly pigments: readonly number[];
  readonly coats: Readonly<Record<Coat, readonly (Float32Array | undefined)[]>>;
  readonly resist: Readonly<Partial<Record<Resist, Float32Array>>>;
}

export function captureWash(copies: Copies, wash: Wash): WashImage {
  const copy = (plane: number) => (plane ? copies.plane(plane, TILE_CELLS) : undefined);
  const resist: Partial<Record<Resist, Float32Array>> = {};
  for (const name of RESISTS) if (wash.resist[name]) resist[name] = copy(wash.resist[name]);
  return {
    pigments: [...wash.pigments],
    coats: Object.fromEntries(COATS.map((coat) => [coat, wash.coats[coat].map(copy)])) as unknown as WashImage['coats'],
    resist,
  };
}

export function restoreWash(arena: Arena, wash: Wash, image: WashImage): void {
  wash.dispose();
  image.pigments.forEach((pigment, i) => {
    for (const coat of COATS) {
      const plane = image.coats[coat][i];
      if (plane) arena.write(wash.plane(coat, pigment), plane);
    }
  });
  for (const name of RESISTS) {
    const plane = image.resist[name];
    if (plane) arena.write(wash.resistPlane(name), plane);
  }
}
