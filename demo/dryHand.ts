/** A draughtsman's hand: sticks laid side by side into shapes, lines, dabs; rubbing and lifting. Lengths in mm. */
import type { Mixture } from '@/core/colour/mixture';
import type { CommandInput } from '@/core/commands/commands';
import type { ToolId } from '@/core/tools/tools';
import type { PaperTint } from '@/core/surface/heightField';
import { noise1, randomFrom } from '@/core/surface/noise';
import type { Inside, Place } from './shapes';
import { writeJournal } from './writeJournal';

export interface Stick {
  readonly tool: ToolId;
  readonly sizeMm: number;
  readonly mixture?: Mixture;
  readonly hold?: 'flat' | 'edge' | 'tip';
}

export function dryHand(seed: number, widthMm: number, heightMm: number) {
  const random = randomFrom(seed);
  const entries: CommandInput[] = [];
  const round = (v: number, by = 100) => Math.round(v * by) / by;
  const vary = (v: number, by: number) => v * (1 + by * (2 * random() - 1));
  let held: Stick | undefined;

  function take(stick: Stick): void {
    if (held === stick) return;
    held = stick;
    const { tool, sizeMm, mixture, hold = 'flat' } = stick;
    entries.push({ do: 'tool', tool, sizeMm: round(sizeMm, 10), hold });
    if (mixture) entries.push({ do: 'load', mixture: { ...mixture } });
  }

  /** A stroke through places with the unsteadiness of a hand. */
  function stroke(places: readonly Place[], pressure: number | ((s: number) => number) = 0.6, shake = 0.4): void {
    const at = typeof pressure === 'number' ? () => pressure : pressure;
    const wobble = Math.floor(random() * 1e6);
    const lengths = places.slice(1).map(([x, y], i) => Math.hypot(x - places[i][0], y - places[i][1]));
    const total = Math.max(
      0.1,
      lengths.reduce((a, b) => a + b, 0),
    );
    const samples: number[][] = [];
    let far = 0;
    places.forEach(([x, y], i) => {
      const [px, py] = places[Math.max(0, i - 1)];
      const steps = i === 0 ? 1 : Math.max(1, Math.ceil(lengths[i - 1] / 4));
      for (let k = 1; k <= steps; k++) {
        const t = i === 0 ? 1 : k / steps;
        const s = i === 0 ? 0 : (far + lengths[i - 1] * t) / total;
        samples.push([
          Math.round((s * total * 1000) / 160),
          round(px + (x - px) * t + shake * (noise1(s * total * 0.12, wobble) - 0.5)),
          round(py + (y - py) * t + shake * (noise1(s * total * 0.12, wobble + 1) - 0.5)),
          round(Math.max(0.03, Math.min(1, at(s) * (0.88 + 0.24 * noise1(s * 5, wobble + 2)))), 1000),
        ]);
      }
      if (i > 0) far += lengths[i - 1];
    });
    entries.push({ do: 'stroke', samples });
  }

  /**
   * Strokes side by side inside a shape.
   * @param angle of the strokes, degrees @param every distance between them @param ragged how far their ends vary
   */
  function hatch(
    stick: Stick,
    inside: Inside,
    {
      angle,
      every,
      pressure = 0.6,
      ragged = 3,
      longest = 60,
      shake = 0.6,
    }: {
      angle: number;
      every: number;
      pressure?: number | ((x: number, y: number) => number);
      ragged?: number;
      longest?: number;
      shake?: number;
    },
  ): void {
    take(stick);
    const at = typeof pressure === 'number' ? () => pressure : pressure;
    const [c, s] = [Math.cos((angle * Math.PI) / 180), Math.sin((angle * Math.PI) / 180)];
    const reach = Math.hypot(widthMm, heightMm) / 2 + 6;
    const place = (u: number, v: number): Place => [widthMm / 2 + u * c - v * s, heightMm / 2 + u * s + v * c];
    const on = (u: number, v: number) => {
      const [x, y] = place(u, v);
      return x > -6 && y > -6 && x < widthMm + 6 && y < heightMm + 6 && inside(x, y);
    };
    let forth = true;
    for (let v = -reach + every * random(); v < reach; v += vary(every, 0.2)) {
      let from: number | undefined;
      for (let u = -reach; u <= reach; u += 0.7) {
        const within = on(u, v) && u < reach - 0.8;
        const long = from !== undefined && u - from > vary(longest, 0.3);
        if (within && !long) from ??= u;
        else if (from !== undefined) {
          const a = from + ragged * (random() - 0.3);
          const b = u - ragged * (random() - 0.3);
          if (b - a > 1.2) {
            const ends: [Place, Place] = [place(a, v), place(b, v + 0.4 * every * (random() - 0.5))];
            const [p, q] = forth ? ends : [ends[1], ends[0]];
            const mid: Place = [(p[0] + q[0]) / 2, (p[1] + q[1]) / 2];
            const press = at(...mid);
            if (press > 0.02) stroke([p, mid, q], (t) => press * (0.75 + 0.35 * Math.sin(Math.PI * t)), shake);
            forth = !forth;
          }
          from = within ? u : undefined;
        }
      }
    }
  }

  const line = (
    stick: Stick,
    places: readonly Place[],
    pressure: number | ((s: number) => number) = 0.6,
    shake = 0.3,
  ) => {
    take(stick);
    stroke(places, pressure, shake);
  };
  /** A touch without drawing. */
  const dab = (stick: Stick, x: number, y: number, pressure = 0.7) => {
    take(stick);
    entries.push({
      do: 'stroke',
      samples: [
        [0, round(x), round(y), round(pressure)],
        [40, round(x + 0.5), round(y + 0.2), round(pressure)],
      ],
    });
  };
  const fix = () => entries.push({ do: 'fix' });
  const blow = () => entries.push({ do: 'blow' });

  function save(path: string, kind: 'paper-laid' | 'paper-sanded' | 'paper-velour', tint: PaperTint): void {
    writeJournal(path, { widthMm, heightMm, ppi: 130, seed, surface: { kind, scale: 1, depth: 1, tint } }, entries);
  }
  return { random, vary, take, stroke, hatch, line, dab, fix, blow, save };
}
