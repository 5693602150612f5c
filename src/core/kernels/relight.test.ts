import { describe, expect, it } from 'vitest';
import { aimLamp, relight, RELIGHT, SHEEN, type Light } from './relight';

const LAMP: Light = { azimuth: 270, elevation: 35, room: 0.3, finish: 0.5, warmth: 0 };
const WIDTH = 64;
const HEIGHT = 24;
const STEPS = 1023;

/** Codes along a row of a grey sheet whose left half stands higher, lit from the left. @param um height of the step */
function besideAWall(um: number, mmPerPx = 0.17, light = LAMP): number[] {
  const cells = WIDTH * HEIGHT;
  const bytes = new ArrayBuffer((64 + 3 * cells + 256) * 4 + STEPS + 1);
  const [f32, i32, u32, u8] = [Float32Array, Int32Array, Uint32Array, Uint8Array].map(
    (kind) => new kind(bytes, 0, kind === Uint8Array ? undefined : Math.floor(bytes.byteLength / 4)),
  ) as [Float32Array, Int32Array, Uint32Array, Uint8Array];
  const [albedo, relief, lit, linear] = [64, 64 + cells, 64 + 2 * cells, 64 + 3 * cells];
  const codes = (linear + 256) * 4;
  i32.set([WIDTH, HEIGHT, albedo, relief, lit, linear, codes]);
  f32[RELIGHT.steps] = STEPS;
  f32[RELIGHT.scale] = 0.001 / mmPerPx;
  aimLamp(f32, i32, 0, light);
  u32.fill(((SHEEN << 24) | 0x808080) >>> 0, albedo, albedo + cells);
  for (let i = 0; i < cells; i++) f32[relief + i] = i % WIDTH < 20 ? um : 0;
  for (let v = 0; v < 256; v++) f32[linear + v] = v / 255;
  for (let v = 0; v <= STEPS; v++) u8[codes + v] = Math.round((v / STEPS) * 255);
  relight(f32, i32, u32, u8, 0, 0, 0, WIDTH, HEIGHT);
  return Array.from({ length: WIDTH }, (_, x) => u32[lit + 12 * WIDTH + x] & 255);
}

/** Cells beyond the wall over which the light comes back from a tenth to nine tenths. */
function penumbra(row: readonly number[]): number {
  const shadow = row.slice(22);
  const [dark, bright] = [Math.min(...shadow), shadow.at(-1)!];
  const at = (share: number) => shadow.findIndex((v) => v >= dark + share * (bright - dark));
  return at(0.9) - at(0.1);
}

describe('shadows of ridges', () => {
  it('are soft, the more so the higher what casts them', () => {
    const [low, high] = [250, 900].map((um) => besideAWall(um));
    expect(Math.min(...low.slice(21))).toBeLessThan(low.at(-1)! - 4);
    expect(penumbra(high)).toBeGreaterThanOrEqual(3);
    expect(penumbra(high)).toBeGreaterThan(penumbra(low));
  });

  it('fall away from the lamp, and grow when it stands lower', () => {
    const dark = (row: readonly number[]) => row.slice(21).filter((v) => v < row.at(-1)! - 3).length;
    const [high, low] = [60, 25].map((elevation) => besideAWall(700, 0.17, { ...LAMP, elevation }));
    expect(dark(low)).toBeGreaterThan(dark(high));
    expect(dark(besideAWall(700, 0.17, { ...LAMP, azimuth: 90 }))).toBeLessThanOrEqual(1);
  });

  it('are not seen on the weave of a canvas: a step of 20 um is not in the dark', () => {
    const row = besideAWall(20);
    expect(Math.min(...row.slice(22))).toBe(row.at(-1));
  });
});
