import type { SurfaceKind } from '@/core/surface/heightField';
import { DRAWING_PAPER_KINDS, isDrawingPaper } from '@/core/surface/drawingPaper';
import { isPaper, PAPER_KINDS } from '@/core/surface/paper';
import { studioFor } from './bench';
import type { Studio } from '@/core/journal/studio';

/** One number that was measured on paint, with the bounds within which paint behaves as paint. */
export interface Reading {
  readonly what: string;
  readonly value: number;
  readonly unit?: string;
  readonly least?: number;
  readonly most?: number;
}

/** What a behaviour is tried on. */
export interface Ground {
  readonly surface: SurfaceKind;
  readonly ppi: number;
  readonly seed: number;
}

/** Something that paint does, which is measured by painting it. */
export interface Behaviour {
  readonly id: string;
  /** What is expected, as a painter would say it. */
  readonly says: string;
  /** What it is tried on: watercolour paper, the tooth of drawing paper, any sheet; canvas and panel unless told. */
  readonly on?: 'paper' | 'tooth' | 'sheet';
  readonly measure: (ground: Ground) => Reading[];
}

export const holds = ({ value, least = -Infinity, most = Infinity }: Reading): boolean =>
  value >= least && value <= most;

/** An empty ground to try something on; sizes in mm. */
export const groundFor = ({ surface, ppi, seed }: Ground, widthMm: number, heightMm: number): Studio =>
  studioFor(widthMm, heightMm, { seed, ppi, surface: { kind: surface } });

/** Watercolour papers, at the resolutions that are painted in. */
export const PAPER_GROUNDS: readonly Ground[] = PAPER_KINDS.flatMap((surface) =>
  [100, 150, 300].map((ppi) => ({ surface, ppi, seed: 2 })),
);

/** Papers for sticks. */
export const TOOTH_GROUNDS: readonly Ground[] = DRAWING_PAPER_KINDS.flatMap((surface) =>
  [100, 150, 300].map((ppi) => ({ surface, ppi, seed: 2 })),
);

/** Whether a behaviour is tried on a support. */
export const suits = ({ on }: Behaviour, surface: SurfaceKind): boolean => {
  const kind = isPaper(surface) ? 'paper' : isDrawingPaper(surface) ? 'tooth' : undefined;
  return kind === on || (on === 'sheet' && kind !== undefined);
};

export const groundsFor = ({ on }: Behaviour): readonly Ground[] => {
  if (on === 'sheet') return [...PAPER_GROUNDS, ...TOOTH_GROUNDS];
  return on === 'paper' ? PAPER_GROUNDS : on === 'tooth' ? TOOTH_GROUNDS : GROUNDS;
};

export const GROUNDS: readonly Ground[] = (['linen-fine', 'linen-coarse', 'panel'] as const).flatMap((surface) =>
  [100, 150, 300].map((ppi) => ({ surface, ppi, seed: 2 })),
);
