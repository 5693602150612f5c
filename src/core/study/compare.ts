/** Comparing two colours as a painter does: value, temperature, chroma. */
import { chroma, type Triple } from '@/core/colour/colorimetry';
import { deltaE2000 } from '@/core/colour/deltaE2000';
import { warmth } from '@/core/colour/warmth';

export interface Comparison {
  /** Steps on the scale of ten values; positive when the first is lighter. */
  readonly valueSteps: number;
  /** Difference of warmth (chroma towards orange) and of chroma, CIELAB units; positive when the first has more. */
  readonly warmer: number;
  readonly cleaner: number;
  readonly deltaE: number;
  /** For example "2 value steps lighter, slightly warmer, duller". */
  readonly words: string;
}

/** One step of ten on the scale of values, CIELAB lightness. */
export const VALUE_STEP = 10;
/** Below this nobody sees a difference at arm's length, Delta E 2000. */
const ALIKE = 1;

/** The first colour compared with the second. */
export function compareColours(first: Readonly<Triple>, second: Readonly<Triple>): Comparison {
  const valueSteps = (first[0] - second[0]) / VALUE_STEP;
  const warmer = warmth(first) - warmth(second);
  const cleaner = chroma(first) - chroma(second);
  const deltaE = deltaE2000(first, second);
  const words =
    deltaE < ALIKE
      ? 'the same'
      : [valueWords(valueSteps), degree(warmer, 'warmer', 'cooler'), degree(cleaner, 'cleaner', 'duller')]
          .filter(Boolean)
          .join(', ') || 'another hue, as light and as strong';
  return { valueSteps, warmer, cleaner, deltaE, words };
}

/** Difference of value in half steps, in words; empty below a tenth of a step. */
function valueWords(steps: number): string {
  const size = Math.abs(steps);
  const way = steps > 0 ? 'lighter' : 'darker';
  if (size < 0.12) return '';
  if (size < 0.35) return `slightly ${way}`;
  const halves = Math.round(size * 2) / 2;
  if (halves === 0.5) return `half a value step ${way}`;
  const whole = Math.floor(halves);
  const count = halves === whole ? `${whole}` : `${whole} ½`;
  return `${count} value ${halves === 1 ? 'step' : 'steps'} ${way}`;
}

/** A difference of some CIELAB units, in words; empty when nobody would say it. */
function degree(units: number, more: string, less: string): string {
  const size = Math.abs(units);
  const way = units > 0 ? more : less;
  if (size < 1.5) return '';
  if (size < 5) return `slightly ${way}`;
  return size < 18 ? way : `much ${way}`;
}
