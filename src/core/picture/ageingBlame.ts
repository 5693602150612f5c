import { leftOf, scatterLeftOf, yellowOf, type Ageing } from '@/core/colour/ageing';
import { linearToLab, type Triple } from '@/core/colour/colorimetry';
import { deltaE2000 } from '@/core/colour/deltaE2000';
import { bandsToLinear, masstoneLab } from '@/core/colour/mixture';
import { PIGMENTS, pigmentIndex, tube, type Pigment } from '@/core/colour/pigments';
import { FRESH, type PaintOptics } from './layers/filmTables';
import type { Picture } from './picture';
import { filmsAt } from './readings';
import { laidOver, tubesUsed } from './tubesUsed';

/** What one tube does to a picture by fading. */
export interface TubeBlamed {
  readonly id: string;
  /** Share of its colour that is left, 0..1. */
  readonly left: number;
  /** How far the picture would go by it alone, Delta E 2000: in the mean, and where it goes farthest. */
  readonly mean: number;
  readonly most: number;
  /** The tube that is nearest to it and keeps; undefined where none is near. */
  readonly instead: string | undefined;
}

/** What years do to a picture, and what does it. */
export interface Blame {
  /** Delta E 2000 in the mean: of all of it, and of the oil alone, yellowed and more transparent. */
  readonly mean: number;
  readonly oil: number;
  /** Tubes that fade so that it is seen, those first that do most. */
  readonly tubes: readonly TubeBlamed[];
  /** Tubes that nobody has tested. */
  readonly untested: readonly string[];
}

/** Cells that are looked at, on a net. */
const COLUMNS = 28;
/** A tube keeps that has lost less; one is near enough to stand for another up to this, Delta E of masstone and tint together. */
const KEEPS = 0.98;
const NEAR = 36;
/** What is seen of a tube somewhere, Delta E. */
const SEEN = 0.5;

/** Which tubes are to blame for what a picture loses, and by what each could be replaced. */
export function blameFor(picture: Picture, ageing: Ageing): Blame {
  const { painting } = picture;
  const step = Math.max(1, painting.width / COLUMNS);
  const used = tubesUsed(picture).map(({ id }) => id);
  const faded = used.filter((id) => leftOf(pigmentIndex(id), ageing) < KEEPS);
  const oil: PaintOptics = {
    K: FRESH.K,
    S: (p, b, liesIn) => FRESH.S(p, b, liesIn) * scatterLeftOf(p, ageing),
    binder: (b) => yellowOf(b, ageing),
  };
  const all: PaintOptics = {
    ...oil,
    K: (p, b) => FRESH.K(p, b) * leftOf(p, ageing),
    S: (p, b, liesIn) => oil.S(p, b, liesIn) * leftOf(p, ageing),
  };
  const ways = [all, oil, ...faded.map((id) => fadedAlone(pigmentIndex(id), ageing))];
  const sums = ways.map(() => 0);
  const most = ways.map(() => 0);
  let count = 0;
  for (let y = step / 2; y < painting.height; y += step) {
    for (let x = step / 2; x < painting.width; x += step) {
      const films = filmsAt(picture, Math.floor(x), Math.floor(y));
      const labOf = (optics: PaintOptics): Triple =>
        linearToLab(bandsToLinear(laidOver(films, Float64Array.from(painting.ground), optics)));
      const now = labOf(FRESH);
      ways.forEach((way, i) => {
        const off = deltaE2000(now, labOf(way));
        sums[i] += off;
        most[i] = Math.max(most[i], off);
      });
      count++;
    }
  }
  return {
    mean: sums[0] / count,
    oil: sums[1] / count,
    tubes: faded
      .map((id, i) => ({
        id,
        left: leftOf(pigmentIndex(id), ageing),
        mean: sums[i + 2] / count,
        most: most[i + 2],
        instead: keeperFor(id),
      }))
      .filter((blamed) => blamed.most > SEEN)
      .sort((a, b) => b.mean - a.mean),
    untested: used.filter((id) => tube(id)?.blueWool === undefined),
  };
}

/** Optics of paint in which one pigment has faded, and all else is new. */
function fadedAlone(pigment: number, ageing: Ageing): PaintOptics {
  const left = (p: number) => (p === pigment ? leftOf(p, ageing) : 1);
  return {
    K: (p, b) => FRESH.K(p, b) * left(p),
    S: (p, b, liesIn) => FRESH.S(p, b, liesIn) * left(p),
  };
}

/** Steps of blue wool from which a tube is said to keep. */
const LIGHTFAST = 7;

/** A tube by itself, and thinned with white until it is as strong as others. */
const looksOf = ({ id, tintingStrength }: Pigment): [Triple, Triple] => [
  masstoneLab({ [id]: 1 }),
  masstoneLab({ [id]: 1, PW6: 6 * Math.max(0.1, tintingStrength) }),
];

/** The tube that looks most like another, by itself and in white, and keeps better. */
export function keeperFor(id: string): string | undefined {
  const old = tube(id);
  if (!old) return undefined;
  const [full, tint] = looksOf(old);
  const near = PIGMENTS.filter((p) => p.id !== id && (p.blueWool ?? 0) >= LIGHTFAST && p.tintingStrength > 0)
    .map((p) => {
      const [own, thin] = looksOf(p);
      return { id: p.id, off: deltaE2000(full, own) + deltaE2000(tint, thin) };
    })
    .sort((a, b) => a.off - b.off)[0];
  return near && near.off < NEAR ? near.id : undefined;
}
