import type { Command } from '@/core/commands/commands';
import type { PaintingSpec } from '@/core/film/painting';
import type { Place } from '@/core/journal/playing/player';
import type { Pacing } from '@/core/journal/playing/playTimes';
import type { Light } from '@/core/picture/picture';
import type { FilmWanted } from './filmSettings';

/** What the page and the worker that plays a journal say to each other. Times are seconds of playing. */
export type ToReplay =
  | {
      readonly say: 'open';
      readonly begun: PaintingSpec;
      /** Commands without those that were taken back. */
      readonly history: readonly Command[];
      readonly light: Light;
    }
  /** Device pixels that there are for the picture. */
  | { readonly say: 'look'; readonly width: number; readonly height: number }
  | { readonly say: 'pace'; readonly pacing: Pacing }
  | { readonly say: 'go'; readonly time: number }
  /** On by itself; back by itself, stroke after stroke is taken off. */
  | { readonly say: 'play'; readonly back?: boolean }
  | { readonly say: 'pause' }
  /** A frame has been put on the screen: the next may come. */
  | { readonly say: 'shown' }
  | { readonly say: 'film'; readonly wanted: FilmWanted }
  /** One picture of the end of each of these places of the history, as PNG. */
  | { readonly say: 'steps'; readonly ends: readonly number[]; readonly width: number }
  /** The painting painted again in so many times as many cells each way, as PNG. */
  | { readonly say: 'again'; readonly scale: number }
  /** Gives up what is being made. */
  | { readonly say: 'cancel' };

/** Where the tool is, in mm on the canvas, and the way that it goes, radians. */
export interface Tip {
  readonly x: number;
  readonly y: number;
  readonly angle: number;
}

/** Where a canvas of so many mm lies in a view, device pixels. */
export interface Laid {
  readonly left: number;
  readonly top: number;
  readonly perMm: number;
}

export type FromReplay =
  | {
      readonly say: 'pixels';
      readonly x: number;
      readonly y: number;
      readonly width: number;
      readonly height: number;
      /** Size of the view that they belong to. */
      readonly of: readonly [width: number, height: number];
      readonly data: Uint8ClampedArray<ArrayBuffer>;
    }
  /** Where it is, after every frame; `arriving` while it is still on its way to where it was sent. */
  | {
      readonly say: 'at';
      readonly time: number;
      readonly place: Place;
      readonly tip: Tip | undefined;
      readonly laid: Laid;
      readonly playing: boolean;
      readonly arriving: boolean;
    }
  /** How much of it has been painted once, so that it can be wound to at once: 0..1. */
  | { readonly say: 'explored'; readonly share: number }
  | { readonly say: 'making'; readonly done: number; readonly total: number }
  | { readonly say: 'film'; readonly bytes: Uint8Array<ArrayBuffer>; readonly frames: number; readonly seconds: number }
  | { readonly say: 'steps'; readonly pictures: readonly StepPicture[] }
  | {
      readonly say: 'again';
      readonly png: Uint8Array<ArrayBuffer>;
      readonly width: number;
      readonly height: number;
      readonly ppi: number;
      /** A piece at 1:1, as it is, enlarged, and as it was painted again: RGBA. */
      readonly compared: {
        readonly width: number;
        readonly height: number;
        readonly coarse: Uint8ClampedArray<ArrayBuffer>;
        readonly fine: Uint8ClampedArray<ArrayBuffer>;
      };
    }
  | { readonly say: 'given-up' }
  | { readonly say: 'not-made'; readonly why: string }
  | { readonly say: 'failed'; readonly why: string };

export interface StepPicture {
  readonly width: number;
  readonly height: number;
  readonly png: Uint8Array<ArrayBuffer>;
}
