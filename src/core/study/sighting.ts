import { hypot, maths } from '@/core/maths/maths';
import type { CanvasSize, Place } from './register';

/** Measuring as at the easel: lengths against a unit, angles, what hangs plumb or lies level, boxes, contours, drift. */
export const SIGHT_KINDS = ['length', 'angle', 'plumb', 'level', 'box', 'contour', 'drift'] as const;
export type SightKind = (typeof SIGHT_KINDS)[number];

/** Something sighted, in millimetres on the canvas, wherever it was taken. */
export interface Sight {
  readonly id: number;
  readonly kind: SightKind;
  /** Two places; one for plumb and level; many for a contour. For drift: where it is on the motif, where it was drawn. */
  readonly points: readonly Place[];
}

export const lengthOf = ([a, b]: readonly Place[]): number => (a && b ? hypot(b.x - a.x, b.y - a.y) : 0);

/** Degrees above the level, -90..90: 0 lies level, 90 hangs plumb; positive leans up to the right. */
export function angleOf([a, b]: readonly Place[]): number {
  if (!a || !b || lengthOf([a, b]) === 0) return 0;
  const degrees = (maths.atan2(a.y - b.y, b.x - a.x) * 180) / Math.PI;
  return degrees > 90 ? degrees - 180 : degrees <= -90 ? degrees + 180 : degrees;
}

export interface Drift {
  readonly dx: number;
  readonly dy: number;
  readonly mm: number;
}

/** How far what was drawn is from where it is on the motif, millimetres; right and down are positive. */
export function driftOf([motif, drawn]: readonly Place[]): Drift {
  const [dx, dy] = motif && drawn ? [drawn.x - motif.x, drawn.y - motif.y] : [0, 0];
  return { dx, dy, mm: hypot(dx, dy) };
}

const tenth = (v: number) => Math.abs(v).toFixed(1);

/** A drift in words; under a twentieth of a millimetre it is none. */
export function driftWords({ dx, dy }: Drift): string {
  const parts = [
    Math.abs(dx) >= 0.05 ? `${tenth(dx)} mm too far ${dx > 0 ? 'right' : 'left'}` : '',
    Math.abs(dy) >= 0.05 ? `${tenth(dy)} mm too ${dy > 0 ? 'low' : 'high'}` : '',
  ].filter(Boolean);
  return parts.length > 0 ? parts.join(', ') : 'it sits where it should';
}

/** What a sight says. @param unitMm length that others are told in, where the painter has chosen one */
export function sightWords(sight: Sight, unitMm?: number): string {
  const { points } = sight;
  switch (sight.kind) {
    case 'length': {
      const mm = lengthOf(points);
      return unitMm ? `${(mm / unitMm).toFixed(2)} units, ${mm.toFixed(1)} mm` : `${mm.toFixed(1)} mm`;
    }
    case 'angle': {
      const degrees = angleOf(points);
      const lean =
        Math.abs(degrees) < 0.05
          ? 'level'
          : `${Math.abs(degrees).toFixed(1)}° ${degrees > 0 ? 'up' : 'down'} to the right`;
      return Math.abs(Math.abs(degrees) - 90) < 0.05 ? 'plumb' : lean;
    }
    case 'box': {
      const [a, b] = points;
      if (!a || !b) return '';
      const [w, h] = [Math.abs(b.x - a.x), Math.abs(b.y - a.y)];
      const ratio =
        h > w
          ? `${(h / Math.max(1e-6, w)).toFixed(2)} high for 1 wide`
          : `${(w / Math.max(1e-6, h)).toFixed(2)} wide for 1 high`;
      return `${ratio}; ${w.toFixed(1)} × ${h.toFixed(1)} mm`;
    }
    case 'drift':
      return driftWords(driftOf(points));
    case 'plumb':
      return 'plumb line';
    case 'level':
      return 'level';
    case 'contour':
      return 'contour';
  }
}

/** Lines of a proportional grid on the canvas, with the diagonals of its fields if wanted. */
export function gridLines({ widthMm, heightMm }: CanvasSize, columns: number, diagonals: boolean): [Place, Place][] {
  const rows = Math.max(1, Math.round((columns * heightMm) / widthMm));
  const [w, h] = [widthMm / columns, heightMm / rows];
  const lines: [Place, Place][] = [];
  for (let i = 1; i < columns; i++)
    lines.push([
      { x: i * w, y: 0 },
      { x: i * w, y: heightMm },
    ]);
  for (let j = 1; j < rows; j++)
    lines.push([
      { x: 0, y: j * h },
      { x: widthMm, y: j * h },
    ]);
  if (!diagonals) return lines;
  for (let i = 0; i < columns; i++) {
    for (let j = 0; j < rows; j++) {
      const [x, y] = [i * w, j * h];
      lines.push(
        [
          { x, y },
          { x: x + w, y: y + h },
        ],
        [
          { x: x + w, y },
          { x, y: y + h },
        ],
      );
    }
  }
  return lines;
}
