import type { CommandInput } from '@/core/commands/commands';
import type { Studio } from '@/core/journal/studio';
import { type Plane } from '@/measure/plane';
import { coatsAt, dipped } from './washBench';

/** Washes as they are laid and looked at. */

export const DRY: CommandInput = { do: 'dry' };
export const wait = (seconds: number): CommandInput => ({ do: 'wait', seconds });

/** Coats of a pigment over the whole sheet, however it lies there. */
export function laid(studio: Studio, id: string): Plane {
  const { width, height, mmPerPx } = studio.painting;
  const values = new Float64Array(width * height);
  for (let y = 0; y < height; y++) for (let x = 0; x < width; x++) values[y * width + x] = coatsAt(studio, id, x, y);
  return { width, height, values, mmPerPx };
}

export const line = (x0: number, y0: number, x1: number, y1: number, ms = 900, pressure = 0.7): CommandInput => ({
  do: 'stroke',
  samples: Array.from({ length: 31 }, (_, k) => [
    (ms * k) / 30,
    x0 + ((x1 - x0) * k) / 30,
    y0 + ((y1 - y0) * k) / 30,
    pressure,
  ]),
});
export const drop = (x: number, y: number, pressure = 0.7, ms = 250): CommandInput => ({
  do: 'stroke',
  samples: [
    [0, x, y, pressure],
    [ms, x + 0.05, y, pressure],
  ],
});

/** A wash laid by a flat, loaded for each stroke, with straight sides. */
export function flatWash(
  id: string,
  [x, y, w, h]: readonly [number, number, number, number],
  wet: { size?: number; water?: number; strength?: number } = {},
): CommandInput[] {
  const { size = 13.7, water = 0.8, strength = 0.5 } = wet;
  const out: CommandInput[] = [];
  for (let at = y + size / 2, k = 0; ; k++) {
    out.push(
      ...dipped('wash-flat', size, { [id]: 1 }, { water, strength }),
      k % 2 ? line(x + w, at, x, at) : line(x, at, x + w, at),
    );
    if (at + size / 2 >= y + h - 0.2) return out;
    at = Math.min(at + size * 0.72, y + h - size / 2);
  }
}
