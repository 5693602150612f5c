import { Layer } from './layer';
import { Painting, type PaintingSpec } from './painting';

/** Id of the slab's one layer, and what strokes on it are marked with. */
export const SLAB = 'slab';

/** Size of the slab, mm; smaller where cells are so fine that it would take much memory. */
const WIDTH_MM = 150;
const HEIGHT_MM = 75;
const FINE_PPI = 300;

/** A grey on which colours are judged right: about L* 62. */
const STONE = { PW6: 30, PBk9: 2, PBr7BU: 1 };

/** The slab for a painting. */
export function slabSpec({ ppi, seed }: Pick<PaintingSpec, 'ppi' | 'seed'>): PaintingSpec {
  const shrink = Math.min(1, FINE_PPI / ppi);
  return {
    widthMm: WIDTH_MM * shrink,
    heightMm: HEIGHT_MM * shrink,
    ppi,
    seed,
    surface: { kind: 'smooth', scale: 1, depth: 1 },
    tone: { mixture: STONE },
  };
}

/**
 * The slab that goes with a painting: a smooth grey stone to mix on. It is a small painting of its own in the same
 * memory, with the same book of paint and cells of the same size, so that the same brushes work on both.
 */
export function makeSlab({ spec, arena, ledger }: Painting): Painting {
  const slab = new Painting(slabSpec(spec), arena, ledger);
  slab.layers = [new Layer(SLAB, 'Slab', 'paint', slab.tilesX * slab.tilesY)];
  slab.activeLayer = SLAB;
  return slab;
}
