import type { Arena } from '@/core/film/arena';
import { noise1, noise2, randomFrom } from '@/core/surface/noise';
import { columnsOf, FREE_MM, type KnifeForm } from './knifeForm';

/** Nicks and roughness are known four times as closely as what the blade feels. */
const FINE = 4;

/**
 * The edge of a blade, column by column: its nicks, how rough it is at this moment, what it feels and what it rides on.
 * Heights are um. It lives in the arena, where the kernels of a stroke find it, until it is freed.
 */
export class BladeEdge {
  readonly columns: number;
  /** Word addresses: the ground that each column rides on; nicks as the blade drags now; what was felt (sum, highest, count). */
  readonly ride: number;
  readonly rough: number;
  readonly felt: number;
  private readonly nick: number;
  private readonly fine: number;

  /** @param width of the blade, mm @param wear seed of its nicks: the same in every stroke of a painting */
  constructor(
    private readonly arena: Arena,
    private readonly form: KnifeForm,
    private readonly width: number,
    wear: number,
  ) {
    this.columns = columnsOf(width);
    this.fine = this.columns * FINE + 8;
    const row = (words: number) => arena.allocate(words * 4) >> 2;
    this.ride = row(this.columns);
    this.nick = row(this.fine);
    this.rough = row(this.fine);
    this.felt = row(this.columns * 3);
    const random = randomFrom(wear);
    for (let i = 0; i < this.fine; i++) {
      const r = random();
      arena.f32[this.nick + i] = 0.45 * r * r + 0.8 * noise1(i / 9, wear + 3) + (random() < 0.03 ? 0.9 : 0);
    }
  }

  free(): void {
    const give = (at: number, words: number) => this.arena.free(at << 2, words * 4);
    give(this.ride, this.columns);
    give(this.nick, this.fine);
    give(this.rough, this.fine);
    give(this.felt, this.columns * 3);
  }

  /** Width of a column, mm. The blade stands free beyond both of its ends. */
  get columnMm(): number {
    return (this.width + 2 * FREE_MM) / this.columns;
  }

  /** Depth of its nicks where the blade stands so high, um: a blade that is pressed gives. */
  nickUm(stand: number): number {
    return this.form.nickUm * (0.5 + 0.0035 * Math.max(0, stand));
  }

  /**
   * What the edge is at this moment: its nicks, and on them lumps and dried crumbs that it drags along for a while,
   * chatter that runs along it, and, where it was set down, places to which the paint has not run yet.
   * @param starved how little paint is left on it, 0..1: what is left hangs in strings, and misses what lies between
   * @param way of the stroke, mm @param since way since it was set down, mm
   */
  roughen(stand: number, starved: number, way: number, since: number, seed: number): void {
    const { f32 } = this.arena;
    const { form } = this;
    const scale = 1 / this.nickUm(stand);
    const deep = scale * Math.min(1, Math.max(0.3 * form.floats, stand / 140));
    for (let i = 0; i < this.fine; i++) {
      const x = i * (this.columnMm / FINE);
      const crumb = noise2(x / 0.35, way / 13, seed + 51);
      let um = crumb > 0.74 ? (crumb - 0.74) * 330 : 0;
      um += (noise2(x / 2.6, way / 1.1, seed + 52) - 0.5) * 34 + (noise2(x / 1.1, way / 0.45, seed + 53) - 0.5) * 18;
      um += (noise2(x / 1.5, way / 9, seed + 54) - 0.5) * 50;
      const landing = 0.15 + 2.1 * noise1(x / 0.7, seed + 55) * noise1(x / 2.4, seed + 56);
      let at = f32[this.nick + i] + um * deep;
      if (starved > 0) {
        const strings =
          noise2(x / 0.9, way / 11, seed + 57) +
          0.6 * noise2(x / 0.35, way / 5, seed + 58) +
          0.8 * noise2(x / 3.1, way / 4, seed + 59);
        at += scale * starved * STRINGS_UM * (strings - 1.05);
      }
      if (since < landing) at += 2600 * scale * (1 - since / landing);
      f32[this.rough + i] = at;
    }
  }

  /** Forgets what was felt. */
  clearFelt(): void {
    const { f32 } = this.arena;
    for (let c = 0; c < this.columns; c++) {
      f32[this.felt + 3 * c] = 0;
      f32[this.felt + 3 * c + 1] = -1e9;
      f32[this.felt + 3 * c + 2] = 0;
    }
  }

  /** Settles on the ground that was felt. @param share how much of what it rode on is forgotten */
  settle(share: number): void {
    const { f32 } = this.arena;
    for (let c = 0; c < this.columns; c++) {
      const count = f32[this.felt + 3 * c + 2];
      if (count > 0) this.rideOn(c, restsOn(f32[this.felt + 3 * c] / count, f32[this.felt + 3 * c + 1]), share);
    }
    this.stiffen(3);
  }

  /** Is set down: comes to rest on the ground under each column. @param ground mean and highest; nothing beyond the sheet */
  setDown(ground: readonly ({ readonly mean: number; readonly most: number } | undefined)[]): void {
    const { f32 } = this.arena;
    ground.forEach((g, c) => (f32[this.ride + c] = g ? restsOn(g.mean, g.most) : 0));
    this.stiffen(20);
  }

  private rideOn(c: number, under: number, share: number): void {
    const { f32 } = this.arena;
    f32[this.ride + c] += (under - f32[this.ride + c]) * share;
  }

  /** A blade gives little: its columns ride on their neighbours' ground too. */
  private stiffen(times: number): void {
    const { f32 } = this.arena;
    const share = 0.3 * (1.2 - this.form.flex);
    for (let k = 0; k < times; k++) {
      for (let c = this.ride; c + 1 < this.ride + this.columns; c++) {
        const d = (f32[c] - f32[c + 1]) * share;
        f32[c] -= d;
        f32[c + 1] += d;
      }
    }
  }
}

/** How much higher and lower the paint hangs on a blade that is nearly empty, um. */
const STRINGS_UM = 260;

/** A blade rests mostly on what stands highest. */
const restsOn = (mean: number, most: number): number => 0.4 * mean + 0.6 * most;
