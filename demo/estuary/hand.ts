import type { Mixture } from '@/core/colour/mixture';
import type { CommandInput } from '@/core/commands/commands';
import type { ToolId, ToolSettings } from '@/core/tools/tools';
import { noise1, randomFrom } from '@/core/surface/noise';
import { clamp } from './idea';

/** A hand that takes tools, loads them and draws them through places, in mm; what it does is written down. */

export type Place = readonly [x: number, y: number];
/** Pressure by the share of the way. */
export type Press = (share: number) => number;

/** The hand lifts: the tip of the mark opens into the tracks of the hairs. */
export const off =
  (p: number): Press =>
  (s) =>
    p * Math.min(1, 0.55 + s * 5) * (1 - s) ** 0.55;
export const sweep =
  (p: number): Press =>
  (s) =>
    p * Math.sin(Math.PI * clamp(0.93 * s + 0.05)) ** 0.6;
export const firm =
  (p: number): Press =>
  (s) =>
    p * Math.min(1, 0.5 + 4 * s) * (s < 0.72 ? 1 : ((1 - s) / 0.28) ** 0.7);
export const into =
  (p: number): Press =>
  (s) =>
    p * Math.min(1, (s + 0.02) / 0.35) ** 0.7 * (s < 0.85 ? 1 : ((1 - s) / 0.15) ** 0.5);
export const land =
  (p: number, a = 0.12, b = 0.25, low = 0.35): Press =>
  (s) =>
    p * Math.min(1, s < a ? low + ((1 - low) * s) / a : 1, s > 1 - b ? low / 2 + ((1 - low / 2) * (1 - s)) / b : 1);
export const lift =
  (p: number): Press =>
  (s) =>
    p * (1 - 0.85 * s ** 1.6) * Math.min(1, 0.6 + 6 * s);
export const belly =
  (p: number): Press =>
  (s) =>
    p * (0.25 + 0.75 * Math.sin(Math.PI * clamp(s)) ** 0.8);

/** A curve through places (Catmull and Rom 1974), in steps of about so many mm. */
export function curve(places: readonly Place[], step = 1.6): Place[] {
  const steps = (a: Place, b: Place) => Math.max(2, Math.floor(Math.hypot(b[0] - a[0], b[1] - a[1]) / step) + 1);
  if (places.length === 2) {
    const [a, b] = places;
    const n = steps(a, b);
    return Array.from({ length: n }, (_, i): Place => [
      a[0] + ((b[0] - a[0]) * i) / (n - 1),
      a[1] + ((b[1] - a[1]) * i) / (n - 1),
    ]);
  }
  const beyond = (a: Place, b: Place): Place => [2 * a[0] - b[0], 2 * a[1] - b[1]];
  const all = [beyond(places[0], places[1]), ...places, beyond(places.at(-1)!, places.at(-2)!)];
  const out: Place[] = [];
  for (let i = 1; i + 2 < all.length; i++) {
    const [p, q, r, s] = all.slice(i - 1, i + 3);
    const n = steps(q, r);
    for (let k = 0; k < n; k++) {
      const t = k / n;
      out.push(
        [0, 1].map(
          (c) =>
            0.5 *
            (2 * q[c] +
              (r[c] - p[c]) * t +
              (2 * p[c] - 5 * q[c] + 4 * r[c] - s[c]) * t * t +
              (3 * q[c] - p[c] - 3 * r[c] + s[c]) * t ** 3),
        ) as [number, number],
      );
    }
  }
  return [...out, places.at(-1)!];
}

/** Way between readings, mm; most paint that a brush is given. */
const READING_MM = 2.2;
const MOST = 3;
const round = (v: number, digits: number) => Math.round(v * 10 ** digits) / 10 ** digits;

export class Hand {
  readonly entries: CommandInput[] = [];
  readonly random: () => number;
  private held = '';

  constructor(private readonly seed: number) {
    this.random = randomFrom(seed);
  }

  /** A normally distributed number (Box and Muller 1958). */
  normal(deviation = 1): number {
    return deviation * Math.sqrt(-2 * Math.log(1 - this.random())) * Math.cos(2 * Math.PI * this.random());
  }

  between(low: number, high: number): number {
    return low + (high - low) * this.random();
  }

  pick<T>(from: readonly T[]): T {
    return from[Math.floor(this.random() * from.length)];
  }

  do(...entries: CommandInput[]): void {
    this.entries.push(...entries);
  }

  take(tool: ToolId, sizeMm: number, held: Partial<ToolSettings> = {}): void {
    const entry: CommandInput = { do: 'tool', ...held, tool, sizeMm: round(sizeMm, 2) };
    const told = JSON.stringify(entry);
    if (told !== this.held) this.do(entry);
    this.held = told;
  }

  load(mixture: Mixture, amount: number, clean: 'wipe' | 'rinse'): void {
    this.do({ do: clean }, { do: 'load', mixture: { ...mixture }, amount: round(Math.min(MOST, amount), 3) });
  }

  /** @param shake how far the hand trembles, mm @param speed mm/s */
  stroke(through: readonly Place[], press: Press, shake = 0.35, speed = 160): void {
    const places = curve(through);
    const way = [0];
    for (let i = 1; i < places.length; i++)
      way.push(way[i - 1] + Math.hypot(places[i][0] - places[i - 1][0], places[i][1] - places[i - 1][1]));
    const whole = Math.max(way.at(-1)!, 0.01);
    const readings = Math.min(places.length, Math.max(2, Math.floor(whole / READING_MM) + 3));
    const start = 200 * this.random();
    const wobble = (at: number) => noise1(start + at, this.seed + 5);
    let last = -1;
    const samples = Array.from({ length: readings }, (_, k) => {
      const i = Math.round((k * (places.length - 1)) / (readings - 1));
      const share = way[i] / whole;
      const x = places[i][0] + 2 * shake * (wobble(0.11 * way[i]) - 0.5);
      const y = places[i][1] + 2 * shake * (wobble(50 + 0.11 * way[i]) - 0.5);
      const p = clamp(press(share) * (0.93 + 0.14 * wobble(90 + 5 * share)), 0.03);
      last = Math.max(last + 1, Math.floor((1000 * way[i]) / speed));
      return [last, round(x, 2), round(y, 2), round(p, 3)];
    });
    this.do({ do: 'stroke', samples });
  }
}
