import { maths } from '@/core/maths/maths';

/**
 * Contact within a cell. A cell is many fibres wide: a face that is pressed against it touches a share of it, and there
 * so deep. Heights in the cell spread about its mean; their tail is long, as of fibres and crumbs.
 */

/** How much of the deviation of heights counts in the tail. */
const TAIL = 0.8;

/** Mean depth of contact within a cell, um. @param above mean height of the cell over the face, @param spread deviation, um */
export const depthOf = (above: number, spread: number): number =>
  0.5 * (above + Math.sqrt(above * above + TAIL * TAIL * spread * spread));

/** Share of the cell that is touched: what `depthOf` gains for each um that the face comes nearer. */
export const touchedShare = (above: number, depth: number): number => depth / (2 * depth - above);

/** Share of what a stick can leave that it leaves in contact so deep (1: its own softness); little in a mere touch. */
export const meeting = (deep: number): number => 1 - maths.exp((-1.08 * deep * deep) / (deep + 0.1));
