import { deltaE2000 } from '@/core/colour/deltaE2000';
import { labToLinear, linearToHex, type Triple } from '@/core/colour/colorimetry';
import { masstoneLab, normalise, type Mixture } from '@/core/colour/mixture';
import { isTube, pigmentId } from '@/core/colour/pigments';
import { toldStrokes } from '@/core/journal/toldStrokes';
import type { Studio } from '@/core/journal/studio';
import type { Picture } from '@/core/picture/picture';
import { filmsAt } from '@/core/picture/readings';
import { tubesUsed } from '@/core/picture/tubesUsed';

/** A tube to buy. */
export interface TubeToBuy {
  readonly id: string;
  /** On the canvas, ml. */
  readonly ml: number;
  /** What is left on slab, brushes and rag reckoned in. */
  readonly needed: number;
  /** Sizes of tubes that hold so much, ml. */
  readonly tubes: readonly number[];
}

/** A mixture that the picture was painted with. */
export interface RecipeUsed {
  readonly mixture: Mixture;
  /** Colour by itself, laid thickly, #rrggbb. */
  readonly hex: string;
  /** Share of the picture where it is seen on top. */
  readonly share: number;
  /** A place in the middle of it, mm. */
  readonly place: { readonly x: number; readonly y: number };
  /** First stroke that was loaded with it, and on which layer; undefined where it was poured or filled in. */
  readonly firstStroke: number | undefined;
  readonly layer: string | undefined;
}

/** What it takes to paint a picture again in real paint. */
export interface RecipeBook {
  readonly tubes: readonly TubeToBuy[];
  /** In the order in which they were first used. */
  readonly recipes: readonly RecipeUsed[];
  /** Share of the picture whose colour came about on the canvas, of paint worked into paint. */
  readonly blended: number;
}

/** Usual sizes of tubes, ml. */
export const TUBE_ML = [20, 37, 60, 200] as const;
/** Of paint that is mixed so much more is used than comes to lie on the canvas. */
const WASTE = 1.5;
/** Places that are looked at, across and down at most. */
const PLACES = 160;
/** A recipe that covers less of the picture is not listed. */
const LEAST_SHARE = 0.005;
/** Mixtures that differ by less are one recipe; and paint that differs by more from each is no recipe's. */
const SAME = 2;
const STRANGE = 8;
/** A film thinner than this is not what is seen, um. */
const LEAST_UM = 1;

/** Tubes that hold so much, the fewest and then the smallest. */
export function tubesFor(ml: number): number[] {
  const largest = TUBE_ML[TUBE_ML.length - 1];
  const many = Math.floor(ml / largest);
  const rest = ml - many * largest;
  const last = rest > 0 ? [TUBE_ML.find((size) => size >= rest)!] : [];
  return [...Array.from({ length: many }, () => largest), ...last];
}

interface Known {
  readonly mixture: Mixture;
  readonly lab: Triple;
  readonly firstStroke: number | undefined;
  readonly layer: string | undefined;
  readonly places: { x: number; y: number }[];
}

/** Mixtures of the journal, the first used first; those that look alike are one. */
function mixturesUsed({ history }: Studio): Known[] {
  const known: Known[] = [];
  const add = (mixture: Mixture, firstStroke?: number, layer?: string) => {
    if (!Object.values(mixture).some((part) => part > 0)) return;
    const lab = masstoneLab(normalise({ ...mixture }));
    if (known.some((one) => deltaE2000(one.lab, lab) < SAME)) return;
    known.push({ mixture: normalise({ ...mixture }), lab, firstStroke, layer, places: [] });
  };
  const seen = new Set<Mixture>();
  for (const { mixture, number, layer, command } of toldStrokes(history)) {
    if (!mixture || seen.has(mixture) || command.on) continue;
    seen.add(mixture);
    add(mixture, number, layer);
  }
  for (const command of history) {
    if (command.do !== 'load' && 'mixture' in command && command.mixture && !('on' in command)) add(command.mixture);
  }
  return known;
}

/** Works out the recipe book of a painting. */
export function recipeBook(picture: Picture, studio: Studio): RecipeBook {
  const { painting } = picture;
  const { width, height, mmPerPx } = painting;
  const known = mixturesUsed(studio);
  const step = Math.max(1, Math.max(width, height) / PLACES);
  let places = 0;
  let blended = 0;
  for (let y = step / 2; y < height; y += step) {
    for (let x = step / 2; x < width; x += step) {
      places++;
      const film = filmsAt(picture, Math.floor(x), Math.floor(y)).findLast(
        ({ um, masses }) => um >= LEAST_UM && masses.some(([, coats]) => coats > 0),
      );
      if (!film) continue;
      const parts = film.masses.filter(([, coats]) => coats > 0).map(([p, coats]) => [pigmentId(p), coats] as const);
      const lab = masstoneLab(normalise(Object.fromEntries(parts)));
      let nearest: Known | undefined;
      let far = STRANGE;
      for (const one of known) {
        const distance = deltaE2000(one.lab, lab);
        if (distance < far) [nearest, far] = [one, distance];
      }
      if (nearest) nearest.places.push({ x: x * mmPerPx, y: y * mmPerPx });
      else blended++;
    }
  }
  const recipes = known
    .filter((one) => one.places.length >= LEAST_SHARE * places)
    .map(({ mixture, lab, firstStroke, layer, places: at }) => ({
      mixture,
      hex: linearToHex(labToLinear(lab)),
      share: at.length / places,
      place: middleOf(at),
      firstStroke,
      layer: layer && (painting.layer(layer)?.name ?? undefined),
    }));
  const tubes = tubesUsed(picture)
    .filter(({ id }) => isTube(id))
    .map(({ id, ml }) => ({ id, ml, needed: WASTE * ml, tubes: tubesFor(WASTE * ml) }));
  return { tubes, recipes, blended: places ? blended / places : 0 };
}

/** Of some places the one nearest to their mean. */
function middleOf(places: readonly { x: number; y: number }[]): { x: number; y: number } {
  const x = places.reduce((sum, p) => sum + p.x, 0) / places.length;
  const y = places.reduce((sum, p) => sum + p.y, 0) / places.length;
  const far = (p: { x: number; y: number }) => (p.x - x) ** 2 + (p.y - y) ** 2;
  return places.reduce((best, p) => (far(p) < far(best) ? p : best));
}
