import type { Layer } from '@/core/film/layer';

/** Cells of a painting or a window, both ends included. */
export interface CellRect {
  left: number;
  top: number;
  right: number;
  bottom: number;
}

/** Called before a tile is changed for the first time, so that undo can keep what was there. */
export type BeforeTile = (layer: Layer, index: number) => void;

/**
 * Cells laid out side by side. `film` holds for each cell its channels: the mass (coats) of every pigment in play, then
 * the volume (um), padded to a multiple of four; then the same again for the part of them that lies on top and is not
 * worked in. The other planes have one float a cell.
 */
export interface WindowPlanes {
  /** Cell of the painting at its upper left. */
  readonly x0: number;
  readonly y0: number;
  readonly width: number;
  readonly height: number;
  /** Pigment index of each mass channel. */
  readonly pigments: readonly number[];
  /** Byte addresses. */
  readonly film: number;
  /** Height of everything sealed under the wet film: surface and dry paint, um. */
  readonly relief: number;
  readonly body: number;
  /** Paint left by this stroke, or the share that it has taken off. */
  readonly laid: number;
  /** How far the wet film has dried. */
  readonly cure: number;
  /** Channels a cell: pigments, padding to a multiple of four (always 0), and the volume, last. */
  readonly channels: number;
  /** Floats a cell: its channels, and as many for what lies on top. */
  readonly stride: number;
  /** Whether anything in it has begun to dry. */
  curing: boolean;
}
