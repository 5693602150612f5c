import type { Mixture } from '@/core/colour/mixture';
import type { Layer } from '@/core/film/layer';
import type { Painting } from '@/core/film/painting';
import { flowOf, type BeforeTile } from '@/core/flow/flowing';
import { hypot, maths } from '@/core/maths/maths';
import { randomFrom } from '@/core/surface/noise';
import { emptyReservoir, reservoirMass } from '@/core/marks/brush/reservoir';
import { PLAINLY_HELD } from '@/core/marks/heldTool';
import { WASH_FORMS } from './washForms';
import { loadWash } from './washLoad';
import { DropStroke, WashStroke } from './washStroke';

/** How a prepared paper is washed. */
export const PREPARED_STYLES = ['flat', 'graded', 'variegated', 'blooms'] as const;
export type PreparedStyle = (typeof PREPARED_STYLES)[number];

export interface PreparedWash {
  readonly style: PreparedStyle;
  /** One to three mixtures. */
  readonly mixtures: readonly Mixture[];
  readonly seed: number;
  /** 0..1: how strong, and how much happens in the wash. */
  readonly strength: number;
  readonly texture: number;
}

const STROKES = { hake: WashStroke, dropper: DropStroke };

/** What lays strokes of water over a sheet: each loads a brush, draws it, and puts away what is left in it. */
class Washer {
  private t = 0;
  readonly widest: number;

  constructor(
    private readonly painting: Painting,
    private readonly layer: Layer,
    private readonly before: BeforeTile,
    private readonly random: () => number,
  ) {
    this.widest = Math.max(6, Math.min(60, painting.spec.heightMm / 7));
  }

  draw(
    tool: keyof typeof STROKES,
    sizeMm: number,
    mixture: Mixture,
    amount: number,
    wetness: number,
    points: readonly (readonly [number, number])[],
  ): void {
    const { painting, layer, before, random } = this;
    const form = WASH_FORMS[tool];
    const reservoir = emptyReservoir(1, 1, 1, 0);
    const { ledger } = painting;
    loadWash(reservoir, { ...form, holds: 4 * form.holds }, sizeMm, mixture, amount, wetness);
    reservoirMass(reservoir, ledger.loaded);
    ledger.water.loaded += reservoir.tuftVolume[0] / 1000;
    const settings = { ...PLAINLY_HELD, strength: 0.5, sizeMm };
    const setting = { painting, layer, settings, seed: Math.floor(random() * 2 ** 30), before, pace: 1 };
    const stroke = new STROKES[tool](setting, form, reservoir);
    points.forEach(([x, y], i) => {
      if (i > 0) this.t += (hypot(x - points[i - 1][0], y - points[i - 1][1]) / 400) * 1000;
      stroke.add({ t: this.t, x, y, pressure: 0.9, tiltX: 0, tiltY: 0, twist: 0 });
    });
    stroke.end();
    reservoirMass(reservoir, ledger.removed);
    ledger.water.removed += reservoir.tuftVolume[0] / 1000;
  }

  /** Rows of a wide brush over the whole sheet, to and fro. @param row mixture and amount by the share of the way down */
  rows(waver: number, row: (share: number) => readonly [Mixture, number]): void {
    const { widest, random } = this;
    const { widthMm, heightMm } = this.painting.spec;
    const rows = Math.ceil(heightMm / (widest * 0.72));
    for (let k = 0; k <= rows; k++) {
      const share = k / Math.max(1, rows);
      const y = share * heightMm;
      const [mixture, amount] = row(share);
      const wave = (random() - 0.5) * widest * 0.3 * waver;
      const ends: [number, number][] = [
        [-widest, y],
        [widthMm * 0.5, y + wave],
        [widthMm + widest, y],
      ];
      this.draw('hake', widest * 1.15, mixture, amount, 0.72, k & 1 ? ends.reverse() : ends);
    }
  }
}

/** Lays an even wash over a whole sheet and leaves it wet. Entered in the ledger as any painting. */
export function layEvenWash(
  painting: Painting,
  layer: Layer,
  mixture: Mixture,
  strength: number,
  seed: number,
  before: BeforeTile,
): void {
  new Washer(painting, layer, before, randomFrom(seed * 977 + 5)).rows(0, () => [mixture, 2 * strength]);
}

/**
 * Washes a whole sheet as a painter prepares one, on a layer of its own, and dries it: rows of a wide brush, colours
 * charged into them, drops of water let fall. Entered in the ledger as any painting.
 */
export function layPreparedWash(painting: Painting, layer: Layer, wash: PreparedWash, before: BeforeTile): void {
  const random = randomFrom(wash.seed * 977 + 5);
  const { widthMm, heightMm } = painting.spec;
  const washer = new Washer(painting, layer, before, random);
  const { widest } = washer;
  const { mixtures, strength, texture, style } = wash;
  washer.rows(texture, (share) => {
    const amount = style === 'graded' ? 2 * strength * maths.pow(0.12, share) : 2 * strength * (0.85 + 0.3 * random());
    const many = style === 'variegated' || style === 'graded';
    return [many ? mixtures[Math.min(mixtures.length - 1, Math.floor(share * mixtures.length))] : mixtures[0], amount];
  });
  // what is charged into the wash while it is wet, and water that falls into it as it dries
  const spot = (): [number, number] => [random() * widthMm, random() * heightMm];
  const flow = flowOf(painting);
  const wait = (seconds: number) => {
    for (let i = 0; i < seconds * 20 && layer.basin; i++) flow.step(before, 1, 1, layer);
  };
  const area = (widthMm * heightMm) / 10_000;
  if (style === 'variegated') {
    for (let n = 0; n < 10 * area * texture; n++) {
      washer.draw(
        'dropper',
        widest * (0.3 + 0.5 * random()),
        mixtures[Math.floor(random() * mixtures.length)],
        3 * strength,
        0.9,
        [spot()],
      );
    }
  }
  if (style === 'blooms' || texture > 0.6) {
    wait(style === 'blooms' ? 14 : 10);
    for (let n = 0; n < 7 * area * texture; n++)
      washer.draw('dropper', widest * (0.1 + 0.35 * random() ** 2), {}, 0, 0.9, [spot()]);
  }
  flow.dry(before, layer);
}
