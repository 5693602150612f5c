/** The small camera that the demo photos are taken with: its colours, blur, vignette and grain. */
import { writeFileSync } from 'node:fs';
import jpeg from 'jpeg-js';
import { decodeSrgb, encodeSrgb, type Triple } from '@/core/colour/colorimetry';
import { randomFrom } from '@/core/surface/noise';

const WIDTH = 1440;
const HEIGHT = 1080;

/** Linear light of a colour written in hexadecimal. */
export const hex = (code: string): Triple =>
  [0, 2, 4].map((i) => decodeSrgb(parseInt(code.slice(i, i + 2), 16) / 255)) as Triple;

/** From one light to another, never beyond either. */
export const mix = (a: Triple, b: Triple, t: number): Triple => {
  const s = Math.max(0, Math.min(1, t));
  return [a[0] + (b[0] - a[0]) * s, a[1] + (b[1] - a[1]) * s, a[2] + (b[2] - a[2]) * s];
};

/** Separable blur with a small kernel: the lens. */
function soften(image: Float32Array): Float32Array {
  const weights = [0.06, 0.24, 0.4, 0.24, 0.06];
  const pass = (from: Float32Array, dx: number, dy: number) => {
    const out = new Float32Array(from.length);
    for (let y = 0; y < HEIGHT; y++) {
      for (let x = 0; x < WIDTH; x++) {
        for (let k = -2; k <= 2; k++) {
          const sx = Math.max(0, Math.min(WIDTH - 1, x + k * dx));
          const sy = Math.max(0, Math.min(HEIGHT - 1, y + k * dy));
          for (let c = 0; c < 3; c++) out[(y * WIDTH + x) * 3 + c] += weights[k + 2] * from[(sy * WIDTH + sx) * 3 + c];
        }
      }
    }
    return out;
  };
  return pass(pass(image, 1, 0), 0, 1);
}

/** Takes a photo of a scene (linear light at a place; units of the picture's width, which is 1 x 0.75). */
export function photograph(path: string, scene: (x: number, y: number) => Triple, seed: number): void {
  const raw = new Float32Array(WIDTH * HEIGHT * 3);
  for (let y = 0; y < HEIGHT; y++) {
    for (let x = 0; x < WIDTH; x++) raw.set(scene((x + 0.5) / WIDTH, (y + 0.5) / WIDTH), (y * WIDTH + x) * 3);
  }
  const image = soften(raw);
  const random = randomFrom(seed);
  const data = new Uint8Array(WIDTH * HEIGHT * 4);
  for (let i = 0; i < WIDTH * HEIGHT; i++) {
    const x = (i % WIDTH) / WIDTH - 0.5;
    const y = Math.floor(i / WIDTH) / WIDTH - 0.375;
    const vignette = 1 - 0.35 * (x * x + y * y);
    const grain = (random() + random() + random() - 1.5) * 0.045;
    for (let c = 0; c < 3; c++) {
      const v = encodeSrgb(Math.max(0, image[i * 3 + c] * vignette)) + grain + (random() - 0.5) * 0.02;
      data[i * 4 + c] = Math.max(0, Math.min(255, Math.round(v * 255)));
    }
    data[i * 4 + 3] = 255;
  }
  writeFileSync(path, jpeg.encode({ width: WIDTH, height: HEIGHT, data }, 86).data);
}
