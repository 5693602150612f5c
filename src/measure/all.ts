import type { Behaviour } from './behaviour';
import { BLENDING } from './blending';
import { DRAWN_BEHAVIOURS } from './drawn';
import { DRYING } from './drying';
import { FILMS } from './films';
import { KNIFE } from './knife';
import { OIL } from './oil';
import { SAMENESS } from './sameness';
import { STICK_BEHAVIOURS } from './sticks';
import { STROKES } from './strokes';
import { TEXTURE } from './texture';
import { WASHES } from './washes';

/** Everything that is measured on paint with a body. */
export const BEHAVIOURS: readonly Behaviour[] = [
  ...STROKES,
  ...BLENDING,
  ...KNIFE,
  ...OIL,
  ...TEXTURE,
  ...FILMS,
  ...DRYING,
  ...SAMENESS,
  ...WASHES,
  ...STICK_BEHAVIOURS,
  ...DRAWN_BEHAVIOURS,
];
