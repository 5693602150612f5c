import type { Carrier } from '@/core/marks/brush/reservoir';
import type { HeldTool } from '@/core/marks/heldTool';

/** The blades, as data. Thicknesses um, lengths mm. */
export interface KnifeForm {
  /** How far a light hand holds the blade off, um. */
  readonly standUm: number;
  /** How far stiff paint lifts it, um. */
  readonly liftUm: number;
  /** How deep a pressing hand goes into the grain, share of its depth. */
  readonly dig: number;
  /** Rise of the blade ahead of its edge, um a mm. */
  readonly slopeUmPerMm: number;
  /** How much the edge gives, 0 rigid .. 1. */
  readonly flex: number;
  /** Depth of its nicks, um. */
  readonly nickUm: number;
  /** How far wet paint carries it, 0 a steep blade that cuts through .. 1. */
  readonly floats: number;
  /** Share of the bead that stays as a ridge where the knife is lifted. */
  readonly leaves: number;
}

export const KNIVES: Record<'knife' | 'scraper', KnifeForm> = {
  knife: { standUm: 650, liftUm: 160, dig: 0.3, slopeUmPerMm: 220, flex: 0.5, nickUm: 22, floats: 1, leaves: 0.45 },
  scraper: { standUm: 42.5, liftUm: 10, dig: 0.06, slopeUmPerMm: 500, flex: 0.15, nickUm: 8, floats: 0.1, leaves: 0 },
};

/** Room on both sides of the blade, where paint is pushed out and stands free, mm. */
export const FREE_MM = 1;
const COLUMN_MM = 0.625;
/** Paint on a blade loaded with amount 1: bead and store, um over 1 mm of its length. */
const BEAD_UM = 6000;
const STORE_UM = 20000;

/** Width of the blade that touches: the whole edge, a line along the motion, or the rounded tip. */
export function bladeWidthMm({ sizeMm, hold }: Pick<HeldTool, 'sizeMm' | 'hold'>): number {
  const width = { flat: sizeMm, tip: Math.max(1.2, 0.3 * sizeMm), edge: Math.max(0.8, 0.07 * sizeMm) }[hold];
  return Math.min(sizeMm, width);
}

/** Columns along the blade, free ends included. */
export const columnsOf = (widthMm: number): number =>
  Math.max(4, Math.min(128, Math.round((widthMm + 2 * FREE_MM) / COLUMN_MM)));

/** Where a blade holds its paint: columns along its edge. */
export function knifeCarrier(sizeMm: number): Carrier {
  const across = columnsOf(sizeMm);
  const column = (sizeMm + 2 * FREE_MM) / across;
  const hairy = Uint8Array.from({ length: across }, (_, c) => {
    const u = (c + 0.5) * column - sizeMm / 2 - FREE_MM;
    return Math.abs(u) < sizeMm / 2 ? 1 : 0;
  });
  return { across, along: 1, cellMm2: column, hairy, tipUm: BEAD_UM, tuftUm: STORE_UM };
}
