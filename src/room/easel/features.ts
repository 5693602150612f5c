import { compare } from './compare/feature';
import type { Feature } from './feature';
import { journal } from './journal/feature';
import { lamp } from './lamp/feature';
import { layers } from './layers/feature';
import { light } from './light/feature';
import { paints } from './paints/feature';
import { pieces } from './pieces/feature';
import { guides, sighting } from './sighting/feature';
import { shapes } from './shapes/feature';
import { signature } from './signature/feature';
import { silhouette } from './silhouette/feature';
import { years } from './years/feature';

/** Everything that the easel can do beside painting, in the order of the spine. */
export const FEATURES: readonly Feature[] = [
  layers,
  pieces,
  sighting,
  guides,
  shapes,
  silhouette,
  lamp,
  years,
  light,
  compare,
  paints,
  signature,
  journal,
];

/** Whether the hand does something else than paint. */
export const handIsBusy = (): boolean => FEATURES.some(({ busy }) => busy?.() === true);

/** The hand paints again, whatever it was doing. */
export function releaseHand(): void {
  for (const { release } of FEATURES) release?.();
}
