/**
 * Functions whose last bit browsers and Node do not agree on, as AssemblyScript's own library computes them. See
 * src/core/maths/maths.ts.
 *   npm run kernels
 */
export function exp(x: f64): f64 {
  return NativeMath.exp(x);
}
export function log(x: f64): f64 {
  return NativeMath.log(x);
}
export function log2(x: f64): f64 {
  return NativeMath.log2(x);
}
export function log10(x: f64): f64 {
  return NativeMath.log10(x);
}
export function pow(x: f64, y: f64): f64 {
  return NativeMath.pow(x, y);
}
export function cbrt(x: f64): f64 {
  return NativeMath.cbrt(x);
}
export function sin(x: f64): f64 {
  return NativeMath.sin(x);
}
export function cos(x: f64): f64 {
  return NativeMath.cos(x);
}
export function tan(x: f64): f64 {
  return NativeMath.tan(x);
}
export function asin(x: f64): f64 {
  return NativeMath.asin(x);
}
export function acos(x: f64): f64 {
  return NativeMath.acos(x);
}
export function atan(x: f64): f64 {
  return NativeMath.atan(x);
}
export function atan2(y: f64, x: f64): f64 {
  return NativeMath.atan2(y, x);
}
export function tanh(x: f64): f64 {
  return NativeMath.tanh(x);
}
