import type { Mixture } from '@/core/colour/mixture';
import { stageWords, type Told } from './stages';

/** What is said under a moment of a painting. */
export interface Caption {
  /** The stage in words: the painter's own, or what the journal tells of it. */
  readonly stage: string;
  readonly number: number;
  readonly stages: number;
  /** What is in hand, as "Flat 24 mm", and what is on it. */
  readonly tool: string;
  readonly paint: string;
  readonly mixture: Mixture | undefined;
  readonly layer: string;
  /** Time that passes, in words; empty where none does. */
  readonly pause: string;
  readonly stroke: number;
  readonly strokes: number;
}

/** A painter's own words for stages, by the number of the first stroke of each. */
export type OwnWords = Readonly<Record<number, string>>;

/**
 * What is said under a place of a history.
 * @param layerName of a layer by its id; empty where it has none
 */
export function captionAt(
  told: Told,
  done: number,
  words: OwnWords,
  layerName: (id: string) => string,
): Caption | undefined {
  const stage = told.stageAt(done);
  if (!stage) return undefined;
  const hand = told.inHandAt(done);
  return {
    stage: words[stage.strokes[0]] ?? stageWords(stage),
    number: stage.number,
    stages: told.stages.length,
    tool: hand?.tool ?? '',
    paint: hand?.paint ?? '',
    mixture: hand?.mixture,
    layer: hand?.stroke.layer === undefined ? '' : layerName(hand.stroke.layer),
    pause: told.pauseAt(done),
    stroke: Math.min(told.count, told.made(done) + 1),
    strokes: told.count,
  };
}
