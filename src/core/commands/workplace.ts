import type { Layer } from '@/core/film/layer';
import type { Painting, PaintingSpec } from '@/core/film/painting';
import type { Toolbox } from '@/core/tools/toolbox';
import type { Change } from './change';

/** What a command works on, and how it keeps what was there before. */
export interface Workplace {
  readonly painting: Painting;
  readonly slab: Painting;
  readonly tools: Toolbox;
  /** What the painting was begun with, and the own paints that came to it. */
  readonly begun: PaintingSpec;
  /** Keeps a tile for undo; to be called before the tile is changed. */
  readonly keep: (layer: Layer, index: number) => void;
  /** Puts another canvas on the easel. */
  readonly setCanvas: (painting: Painting) => void;
  readonly time: TimeThatPasses;
  readonly timeline: HistoryToWalk;
}

/** Simulated time, as commands let it pass. */
export interface TimeThatPasses {
  /** Water flows, paint dries. */
  pass(seconds: number): Change;
  /** Everything is dry at once. */
  dry(): Change;
}

/** The history, for commands that go along it themselves. */
export interface HistoryToWalk {
  stroke(command: {
    readonly samples: readonly (readonly number[])[];
    readonly on?: 'slab';
    readonly pace?: number;
  }): Change;
  /** @param handStays what was done to the tools since is left so */
  undo(handStays: boolean): Change;
  redo(handStays: boolean): Change;
}
