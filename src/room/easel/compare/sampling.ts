'use client';
import type { Triple } from '@/core/colour/colorimetry';
import { solverFor, type Recipe } from '@/core/mixing/recipe';
import { usePalette } from '@/room/colour/paletteStore';

/** The recipe of the tubes at hand for a colour, by the house rules. */
export function solveFor(lab: Readonly<Triple>): Recipe {
  const { tubes, rules } = usePalette.getState();
  return solverFor(tubes).solve(lab, { mostTubes: rules.mostTubes });
}
