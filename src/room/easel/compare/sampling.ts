'use client';
import type { Triple } from '@/core/colour/colorimetry';
import { solverFor, type Recipe } from '@/core/mixing/recipe';
import { masstoneLab } from '@/core/colour/mixture';
import { compareColours } from '@/core/study/compare';
import { usePalette } from '@/room/colour/paletteStore';
import { mixtureOf, useEasel } from '@/room/easel/easelStore';
import { inParts } from '@/core/colour/recipeWords';
import { readPhotoSpot } from './spots';

/**
 * Samples a photo at a place: what the tubes at hand make of the spot there.
 * @param x place and radius of the spot, pixels of the photo
 * @param use whether it is taken in hand
 */
export function samplePhoto(bitmap: ImageBitmap, x: number, y: number, radius: number, use: boolean): void {
  const lab = usePalette.getState().rules.samplePhoto ? readPhotoSpot(bitmap, x, y, radius) : undefined;
  const recipe = lab && solveFor(lab);
  useEasel.setState({ photoSample: lab && recipe && { lab, recipe } });
  if (use && recipe) useEasel.getState().loadMixture(inParts(recipe.mixture));
}

/** How a colour differs from the one in hand, in words; '' where there is none in hand. */
export function besideHand(lab: Readonly<Triple>): string {
  const inHand = mixtureOf(useEasel.getState().parts);
  if (Object.keys(inHand).length === 0) return '';
  const { words, deltaE } = compareColours(lab, masstoneLab(inHand));
  return deltaE < 1 ? 'as the mixture in hand' : `${words} than the mixture in hand`;
}

/** The recipe of the tubes at hand for a colour, by the house rules. */
export function solveFor(lab: Readonly<Triple>): Recipe {
  const { tubes, rules } = usePalette.getState();
  return solverFor(tubes).solve(lab, { mostTubes: rules.mostTubes });
}
