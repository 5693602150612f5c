import { maths } from '@/core/maths/maths';
import type { Triple } from './colorimetry';

/** The hue that painters call warmest, degrees in CIELAB: orange. Its complement is the coolest. */
export const WARMEST_HUE = 58;
const COS = maths.cos((WARMEST_HUE * Math.PI) / 180);
const SIN = maths.sin((WARMEST_HUE * Math.PI) / 180);

/** How warm a CIELAB colour is: its chroma towards orange; negative towards blue. */
export const warmth = ([, a, b]: Readonly<Triple>): number => COS * a + SIN * b;
