import { deltaE2000 } from '@/core/colour/deltaE2000';
import type { CommandInput } from '@/core/commands/commands';
import { Picture } from '@/core/picture/picture';
import type { Ground, Reading } from './behaviour';
import { mean, paint, type Area } from './bench';
import { groundFor } from './behaviour';
import { apart, grainLength, seenFrom, tonesIn } from './tones';

/** How many times finer the same strokes are painted. */
const FINER = 4;
/** Field that a trial is painted on, and the part of it that is looked at, mm. */
const FIELD = [37, 14] as const;
const LOOKED_AT: Area = [6, 4, 24, 6];

/**
 * The same strokes at four times the resolution, seen from four times as far: in colour, in how its tones are spread, and
 * in the size of its grain.
 */
export function fromAfar(ground: Ground, what: string, strokes: readonly CommandInput[]): Reading[] {
  const [near, far] = [1, FINER].map((scale) => {
    const studio = groundFor({ ...ground, ppi: ground.ppi * scale }, ...FIELD);
    paint(studio, ...strokes);
    const picture = new Picture(studio.painting);
    const [cells, millimetres] = [scale, Math.round(ground.ppi / 25.4) * scale].map((side) =>
      seenFrom(studio, LOOKED_AT, side, picture),
    );
    return { tones: tonesIn(cells), millimetres };
  });
  const colours = near.millimetres.colours.map((lab, i) => deltaE2000(lab, far.millimetres.colours[i]));
  const grain = grainLength(near.tones) / grainLength(far.tones);
  return [
    { what: `${what}: colour of square millimetres`, value: mean(colours), unit: 'Delta E', most: 2 },
    { what: `${what}: distance of the tones`, value: apart(near.tones, far.tones), unit: 'L*', most: 4 },
    // a passage that is even has none
    ...(Number.isFinite(grain) ? [{ what: `${what}: size of grain`, value: grain, least: 0.7, most: 1.34 }] : []),
  ];
}
