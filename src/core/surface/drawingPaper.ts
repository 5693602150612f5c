import { maths } from '@/core/maths/maths';
import { bumps, fibres, standardised, summed } from './periodicNoise';
import { noise1, noise2, randomFrom } from './noise';

/** Papers that dry sticks are drawn on: what holds their dust is ribs, grit or a nap. */
export const DRAWING_PAPER_KINDS = ['paper-laid', 'paper-sanded', 'paper-velour'] as const;
export type DrawingPaperKind = (typeof DRAWING_PAPER_KINDS)[number];
export const isDrawingPaper = (kind: string): kind is DrawingPaperKind =>
  (DRAWING_PAPER_KINDS as readonly string[]).includes(kind);

/** Cells in which the fine structure is made, for a patch of any size. */
const MADE = 512;

/** Depth of the tooth, um, and of laid paper: wires and chains of its mould, mm from one to the next. */
const DEPTH_UM: Record<DrawingPaperKind, number> = { 'paper-laid': 70, 'paper-sanded': 48, 'paper-velour': 60 };
const WIRE_MM = 1.05;
const CHAIN_MM = 28;

/**
 * Fills `um` (size x size, periodic) with the tooth of a drawing paper; mean and depth are set by the caller.
 * Laid: round ribs of the mould's wires under a felt, crossed by chains. Sanded: sharp grit. Velour: a nap of fibres.
 */
export function drawingPaper(
  um: Float32Array,
  size: number,
  patchMm: number,
  kind: DrawingPaperKind,
  seed: number,
): void {
  const made = once(kind, seed);
  const per = (mm: number) => Math.max(1, Math.round(patchMm / mm));
  const [wires, chains] = [per(WIRE_MM), per(CHAIN_MM)];
  // the fine structure repeats several times over the patch, as often as it was made for
  const repeats = Math.max(1, Math.round(patchMm / FINE_MM[kind]));
  const grain = (x: number, y: number) => {
    const fx = ((((x + 0.5) / size) * repeats) % 1) * MADE - 0.5;
    const fy = ((((y + 0.5) / size) * repeats) % 1) * MADE - 0.5;
    const [ix, iy] = [Math.floor(fx), Math.floor(fy)];
    const [u, v] = [fx - ix, fy - iy];
    const at = (i: number, j: number) => made[((j + MADE) % MADE) * MADE + ((i + MADE) % MADE)];
    return (
      (at(ix, iy) * (1 - u) + at(ix + 1, iy) * u) * (1 - v) + (at(ix, iy + 1) * (1 - u) + at(ix + 1, iy + 1) * u) * v
    );
  };
  for (let y = 0; y < size; y++) {
    const v = (y + 0.5) / size;
    for (let x = 0; x < size; x++) {
      const u = (x + 0.5) / size;
      let h = grain(x, y);
      if (kind === 'paper-laid') {
        const sway = 0.25 * (noise2(u * 9, v * wires, seed + 2, 9, wires) - 0.5);
        const rib = maths.cos(2 * Math.PI * (v * wires + sway));
        const chain = maths.exp(-(((u * chains) % 1) - 0.5) * (((u * chains) % 1) - 0.5) * 2200);
        const pressed = 0.6 + 0.8 * noise1(((v * wires) | 0) % wires, seed + 3);
        h = 0.62 * h + 0.75 * rib * pressed + 0.9 * chain;
      }
      um[y * size + x] = h * (DEPTH_UM[kind] / 4.1);
    }
  }
}

/** Side of the piece of fine structure, mm. */
const FINE_MM: Record<DrawingPaperKind, number> = { 'paper-laid': 84, 'paper-sanded': 42, 'paper-velour': 42 };

const kept = new Map<string, Float32Array>();

/** The fine structure of a kind, made once for a seed: mean 0, deviation 1. */
function once(kind: DrawingPaperKind, seed: number): Float32Array {
  const key = `${kind}/${seed}`;
  let field = kept.get(key);
  if (!field) {
    if (kept.size >= 6) kept.delete(kept.keys().next().value!);
    kept.set(key, (field = fineOf(kind, randomFrom(seed * 6151 + 29))));
  }
  return field;
}

function fineOf(kind: DrawingPaperKind, random: () => number): Float32Array {
  switch (kind) {
    case 'paper-laid':
      return standardised(
        summed([
          [0.8, bumps(MADE, random, 0.9, 2.2)],
          [0.5, fibres(MADE, random, { count: 3600, shortest: 14, longest: 46, width: 0.8 })],
          [0.3, bumps(MADE, random, 4, 9)],
        ]),
      );
    case 'paper-sanded': {
      const grit = standardised(bumps(MADE, random, 1.2, 2.4));
      for (let i = 0; i < grit.length; i++) grit[i] = maths.exp(0.75 * grit[i]);
      return standardised(grit);
    }
    case 'paper-velour':
      return standardised(
        summed([
          [0.8, bumps(MADE, random, 0.9, 1.8)],
          [0.8, fibres(MADE, random, { count: 9000, shortest: 4, longest: 12, width: 0.8 })],
        ]),
      );
  }
}
