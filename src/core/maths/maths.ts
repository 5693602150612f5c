import { MATHS } from './compiled';

/**
 * Functions that give the same bits wherever they run. The standard leaves the last bit of `Math.sin`, `Math.pow` and
 * their like to each engine, and a journal must paint the same bytes in any browser and on the command line. So the core
 * takes them from here: a small compiled module (simd/maths.ts), as exact as those of the engines and no slower.
 * What the standard fixes (`Math.sqrt`, `Math.floor`, the four operations) is taken as it is.
 */
export interface Maths {
  exp(x: number): number;
  log(x: number): number;
  log2(x: number): number;
  log10(x: number): number;
  pow(x: number, y: number): number;
  cbrt(x: number): number;
  sin(x: number): number;
  cos(x: number): number;
  tan(x: number): number;
  asin(x: number): number;
  acos(x: number): number;
  atan(x: number): number;
  atan2(y: number, x: number): number;
  tanh(x: number): number;
}

const binary = Uint8Array.from(atob(MATHS), (c) => c.charCodeAt(0));

/** No NaN, infinity or argument throws: they give what `Math` gives. */
export const maths = new WebAssembly.Instance(new WebAssembly.Module(binary)).exports as unknown as Maths;

/** Length of a vector; finite components whose squares are finite. */
export const hypot = (x: number, y: number, z = 0): number => Math.sqrt(x * x + y * y + z * z);
