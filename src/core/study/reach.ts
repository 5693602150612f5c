/** What of a photo a set of tubes reaches: its colours of one value against the outline of what can be mixed. */
import { chroma, decodeSrgb, hue, linearToLab, type Triple } from '@/core/colour/colorimetry';
import { latticeHash } from '@/core/surface/noise';

/** Colours of a photo at places scattered evenly over it, always the same for the same photo. */
export function scatteredColours(
  rgba: ArrayLike<number>,
  width: number,
  height: number,
  count: number,
): readonly Triple[] {
  return Array.from({ length: count }, (_, i) => {
    const x = Math.floor(latticeHash(i, 1, 5) * width);
    const y = Math.floor(latticeHash(i, 2, 5) * height);
    const at = 4 * (y * width + x);
    return linearToLab([0, 1, 2].map((c) => decodeSrgb(rgba[at + c] / 255)) as Triple);
  });
}

/**
 * Whether a colour lies within an outline of strongest chromas, between whose hues it runs straight.
 * @param hues rising, degrees; @param chromas the strongest reached at each
 */
export function within(lab: Readonly<Triple>, hues: readonly number[], chromas: readonly number[]): boolean {
  const h = hue(lab);
  const after = hues.findIndex((v) => v > h);
  const k = after < 0 ? 0 : after;
  const j = (k + hues.length - 1) % hues.length;
  const gap = (hues[k] - hues[j] + 360) % 360 || 360;
  const t = ((h - hues[j] + 360) % 360) / gap;
  return chroma(lab) <= chromas[j] + (chromas[k] - chromas[j]) * t;
}
