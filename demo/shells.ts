/** Two mussel shells on a plank, as the photo shows them and as painters draw them. Units of the picture's width. */

/** A valve: where its beak is, which way it points (degrees), how long it is, and which side bulges (1 or -1). */
export interface Valve {
  readonly beak: readonly [x: number, y: number];
  readonly turn: number;
  readonly long: number;
  readonly bulge: 1 | -1;
}

/** One seen from outside, one from inside. */
export const OUTSIDE: Valve = { beak: [0.16, 0.63], turn: -9, long: 0.36, bulge: -1 };
export const INSIDE: Valve = { beak: [0.93, 0.5], turn: 164, long: 0.31, bulge: 1 };

/** Angles (degrees) from the beak to either side, and the one in which the shell is longest. */
const STRAIGHT = 13;
const ROUND = 36;

/**
 * Where a place lies on a valve. Shells grow in all directions from the beak, so that earlier rims are the same rim,
 * smaller.
 * @returns growth 0 (beak) .. 1 (rim), and side -1 (the straight side) .. 1 (the round one); undefined off the shell
 */
export function onValve(v: Valve, x: number, y: number, rim = 1): { growth: number; side: number } | undefined {
  const a = (v.turn * Math.PI) / 180;
  const dx = x - v.beak[0];
  const dy = y - v.beak[1];
  const angle = Math.atan2(-dx * Math.sin(a) + dy * Math.cos(a), dx * Math.cos(a) + dy * Math.sin(a)) * v.bulge;
  const side = (angle * 180) / Math.PI / (angle > 0 ? ROUND : STRAIGHT);
  if (Math.abs(side) >= 1) return undefined;
  const growth = Math.hypot(dx, dy) / (v.long * reach(side));
  return growth <= rim ? { growth, side } : undefined;
}

/** A place on the picture from growth and side. */
export function valvePoint(v: Valve, growth: number, side: number): [number, number] {
  const angle = ((side * (side > 0 ? ROUND : STRAIGHT) * v.bulge + v.turn) * Math.PI) / 180;
  const r = growth * v.long * reach(side);
  return [v.beak[0] + r * Math.cos(angle), v.beak[1] + r * Math.sin(angle)];
}

/** How far the rim is from the beak, share of the length: straight flanks and a broad round end. */
function reach(side: number): number {
  const s = Math.min(1, Math.abs(side));
  return side > 0 ? Math.cos((Math.PI / 2) * s) ** 0.55 * (1 - 0.1 * s) : Math.cos((Math.PI / 2) * s) ** 0.36;
}

/** Height of the dome, share of the length. */
export const dome = (growth: number, side: number): number =>
  0.24 * Math.sqrt(Math.max(0, 1 - side * side)) * Math.min(1, growth * 1.4) * Math.sqrt(Math.max(0, 1 - growth ** 3));
