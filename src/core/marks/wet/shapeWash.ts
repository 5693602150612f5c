import type { Mixture } from '@/core/colour/mixture';
import type { Guard } from '@/core/film/guard';
import type { Layer } from '@/core/film/layer';
import type { Painting } from '@/core/film/painting';
import type { PixelRect } from '@/core/film/pixelRect';
import { flowOf, type BeforeTile } from '@/core/flow/flowing';
import { hypot } from '@/core/maths/maths';
import { OutlineDistance, type Outline } from '@/core/marks/outlineDistance';
import { emptyReservoir, reservoirMass } from '@/core/marks/brush/reservoir';
import { lostEdge } from '@/core/marks/silhouette';
import { MOST_WAVER, WashFace, type Touch } from './washFace';
import { filmOf, touchArea, type WashForm } from './washForms';
import { loadWash, WashInHand } from './washLoad';
import { WashTip } from './washTip';

/** Of the water that a shape takes, how much is made up: what is left is poured away. */
const MADE_UP = 1.15;

/** The face of a wash that is poured into an outline: it wavers with the sheet as the edge of any wash does. */
class OutlineFace extends WashFace {
  constructor(
    form: WashForm,
    relief: number,
    seed: number,
    private readonly distance: OutlineDistance,
    private readonly edgeMm: number,
    private readonly mmPerPx: number,
  ) {
    super(form, relief, seed);
  }

  private at(t: Touch, ex: number, ey: number): number {
    return this.distance.at(Math.floor((t.x + ex) / this.mmPerPx), Math.floor((t.y + ey) / this.mmPerPx));
  }

  override outline(t: Touch, ex: number, ey: number): number {
    return this.at(t, ex, ey) + this.edgeMm / 2;
  }

  override inside(t: Touch, ex: number, ey: number): number {
    return this.outline(t, ex, ey);
  }

  /** Where the edge is lost, clear water lies beyond the paint. */
  override carries(t: Touch, ex: number, ey: number): number {
    return this.edgeMm > 0 ? lostEdge(this.at(t, ex, ey), this.edgeMm) : 1;
  }
}

/**
 * Fills a closed outline with a wash, evenly and at once, and leaves it wet. What was made up for it and is left over is
 * poured away; the ledger has both.
 * @param strength of the paint, 1 = as the tool makes it up @param wetness 0..1
 * @returns cells that changed
 */
export function washShape(
  painting: Painting,
  layer: Layer,
  outline: Outline,
  {
    form,
    mixture,
    strength,
    wetness,
    edgeMm,
    seed,
  }: { form: WashForm; mixture: Mixture; strength: number; wetness: number; edgeMm: number; seed: number },
  before: BeforeTile,
  guard?: Guard,
): PixelRect {
  const { ledger, mmPerPx } = painting;
  const poured: WashForm = { ...form, shape: 'round', point: 0, flow: 1, exchange: 0, scrub: 0, parts: 0 };
  const face = (distance: OutlineDistance) =>
    new OutlineFace(poured, flowOf(painting).bed.relief, seed, distance, edgeMm, mmPerPx);
  // what the sheet makes of the edge reaches beyond the outline
  const wide = face(
    new OutlineDistance(
      painting,
      [
        [0, 0],
        [1, 0],
        [0, 1],
      ],
      0,
    ),
  );
  const all: Touch = { x: 0, y: 0, pressure: 1, dx: 1, dy: 0, speed: 0, radius: 1e3, film: filmOf(wetness) };
  const fringe = wide.ragged(filmOf(wetness)) + MOST_WAVER * wide.waver(all);
  const distance = new OutlineDistance(painting, outline, edgeMm / 2 + fringe + mmPerPx);
  const { left, top, right, bottom } = distance.rect;
  const [w, h] = [(right - left) * mmPerPx, (bottom - top) * mmPerPx];
  if (w <= 0 || h <= 0) return distance.rect;
  const sizeMm = 10;
  const reservoir = emptyReservoir(1, 1, 1, 0);
  const holds = (MADE_UP * w * h) / touchArea(poured, sizeMm);
  loadWash(reservoir, { ...poured, holds }, sizeMm, mixture, strength, wetness);
  reservoirMass(reservoir, ledger.loaded);
  ledger.water.loaded += reservoir.tuftVolume[0] / 1000;
  const load = new WashInHand(reservoir, poured);
  const tip = new WashTip(painting, layer, before, poured, load, seed, 1, 0, guard, face(distance));
  tip.touch({ ...all, x: left * mmPerPx + w / 2, y: top * mmPerPx + h / 2, radius: hypot(w, h) / 2 });
  load.close();
  reservoirMass(reservoir, ledger.removed);
  ledger.water.removed += reservoir.tuftVolume[0] / 1000;
  return tip.takeTouched();
}
