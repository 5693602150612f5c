import type { Behaviour } from './behaviour';
import { BLENDING } from '@/measure/oil/blending';
import { DRAWN_BEHAVIOURS } from '@/measure/dry/drawn';
import { DRYING } from '@/measure/oil/drying';
import { FILMS } from '@/measure/oil/films';
import { KNIFE } from '@/measure/oil/knife';
import { OIL } from '@/measure/oil/oil';
import { SAMENESS } from './sameness';
import { STICK_BEHAVIOURS } from '@/measure/dry/sticks';
import { STROKES } from '@/measure/oil/strokes';
import { TEXTURE } from '@/measure/oil/texture';
import { WASHES } from '@/measure/water/washes';

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
