import type { HouseRules } from '@/core/commands/houseRules';
import type { PaintingSpec } from '@/core/film/painting';
import type { LayerKind } from '@/core/film/layer';
import type { Adjustment } from '@/core/colour/adjust';
import type { Ageing } from '@/core/colour/ageing';
import type { BlendMode } from '@/core/colour/blendModes';
import type { Mixture } from '@/core/colour/mixture';
import type { ToolSettings } from '@/core/tools/tools';
import type { Light } from '@/core/picture/picture';
import type { Aid } from '@/core/picture/aids/aids';
import type { Looking } from '@/core/picture/aids/definition';
import type { View } from '@/core/picture/view';
import type { HandMessage, Numbered } from '@/engine/hand/handLog';
import type { Said } from '@/engine/keeping/journalStore';
import type { Answering, NoAnswer, Question, Reply } from './questions';

/**
 * What the page and the engine's worker say to each other. The page sends commands, pen readings and how it looks at
 * the painting; the worker sends pixels, the state of the tools, and whether everything is kept.
 */
export type ToWorker =
  /** `session` counts those who painted on it; without one it is only looked at, and nothing is written. */
  | { readonly say: 'open'; readonly painting: string; readonly session?: number }
  /** What the hand does, with its number in what the hand has said. */
  | Numbered<HandMessage>
  /** Gives up going far back. */
  | { readonly say: 'cancel' }
  | { readonly say: 'view'; readonly serial: number; readonly view: View; readonly aid: Aid; readonly how: Looking }
  | { readonly say: 'light'; readonly light: Light }
  /** Shows the painting after some years; as it is where nothing is said. */
  | { readonly say: 'age'; readonly ageing: Ageing | undefined }
  /** How a layer would look while a slider is held; whatever is said next takes it back. */
  | { readonly say: 'try'; readonly layer: string; readonly opacity?: number; readonly adjust?: Adjustment }
  /** A layer that is left out of the picture for as long as a key is held. */
  | { readonly say: 'without'; readonly layers: readonly string[] }
  /** Device pixels that the page has for the slab; and that the last of its frames has been put on the screen. */
  | { readonly say: 'slab-view'; readonly width: number; readonly height: number }
  | { readonly say: 'slab-shown' }
  /** House rules, the tubes at hand, and whether the time that is set is over. */
  | { readonly say: 'rules'; readonly rules: HouseRules; readonly tubes: readonly string[]; readonly timeUp: boolean }
  /** How fast the clock of wet paper goes: 1 as on the wall, 0 held. */
  | { readonly say: 'clock'; readonly pace: number }
  /** A frame has been put on the screen: the next may come. */
  | { readonly say: 'shown' }
  | { readonly say: 'ask'; readonly id: number; readonly question: Question };

export type FromWorker =
  | {
      readonly say: 'opened';
      readonly spec: PaintingSpec;
      readonly width: number;
      readonly height: number;
      readonly isolated: boolean;
      readonly slab: { readonly widthMm: number; readonly heightMm: number };
    }
  /** How far it is with what has to be painted again; done when nothing is left. */
  | {
      readonly say: 'progress';
      readonly of: 'opening' | 'undo';
      readonly done: number;
      readonly total: number;
    }
  /** Something to know about the painting. */
  | { readonly say: 'told'; readonly what: string }
  | { readonly say: 'bench'; readonly bench: BenchState }
  | {
      readonly say: 'pixels';
      /** The view these pixels belong to. */
      readonly serial: number;
      readonly x: number;
      readonly y: number;
      readonly width: number;
      readonly height: number;
      readonly data: Uint8ClampedArray<ArrayBuffer>;
      /** Whether the whole view has been drawn with this frame. */
      readonly whole: boolean;
      /** Time of the newest pen reading in it, ms since epoch; 0 when there is none. */
      readonly newest: number;
    }
  | {
      readonly say: 'slab-pixels';
      readonly x: number;
      readonly y: number;
      readonly width: number;
      readonly height: number;
      readonly data: Uint8ClampedArray<ArrayBuffer>;
      /** Size of the view that these pixels belong to. */
      readonly of: readonly [width: number, height: number];
    }
  /** Everything up to what the hand said there is in the stored journal. */
  | { readonly say: 'kept'; readonly at: number; readonly said: Said }
  | { readonly say: 'not-kept'; readonly why: string }
  /** `fault` is what an engineer wants to know, where the engine is at fault. */
  | { readonly say: 'refused'; readonly why: string; readonly fault?: string }
  | { readonly say: 'failed'; readonly why: string }
  | Reply
  | Answering
  | NoAnswer;

/** Everything that the bench and the spine show. */
export interface BenchState {
  readonly tool: ToolSettings;
  /** Settings of every tool, so that each can be taken up as it was left. */
  readonly tools: readonly ToolSettings[];
  /** Paint in the brush in hand, 1 = freshly loaded, and its mixture in parts. */
  readonly level: number;
  readonly mixture: Mixture;
  /** Cells of stroke a second that the tool in hand can follow at its size; unknown before its first stroke. */
  readonly pace?: number;
  readonly canUndo: boolean;
  readonly canRedo: boolean;
  readonly layers: readonly LayerState[];
  readonly activeLayer: string;
  /** Whether the mask of that layer is painted on. */
  readonly onMask: boolean;
  /** Counts selections; 0 where nothing is selected. */
  readonly selection: number;
  /** Bytes of the painting in memory, and how many there may be. */
  readonly memory: number;
  readonly memoryMost: number;
  readonly strokes: number;
  /** Whether there is water on any layer; how fast its clock goes; the tilt of the board, degrees. */
  readonly water: boolean;
  readonly clock: number;
  /** Share of that pace which it keeps where a stroke is made: less when very much of the sheet is wet. */
  readonly clockLag: number;
  readonly tilt: readonly [x: number, y: number];
  /** Depth of film, um, that the watercolour brush in hand would leave now; 0 for other tools. */
  readonly brushFilmUm: number;
  /** Whether there is paint on the slab. */
  readonly slabUsed: boolean;
}

export interface LayerState {
  readonly id: string;
  readonly name: string;
  readonly kind: LayerKind;
  readonly visible: boolean;
  readonly opacity: number;
  readonly locked: boolean;
  readonly blend: BlendMode;
  readonly clip: boolean;
  readonly group: string | undefined;
  readonly mask: { readonly fill: number; readonly on: boolean } | undefined;
  readonly onlyPaint: boolean;
  readonly wetThrough: boolean;
  readonly impress: boolean;
  readonly adjust: Adjustment | undefined;
  /** Whether dust of sticks lies on it. */
  readonly dusty: boolean;
  /** Whether it has wet paint, and dry paint. */
  readonly wet: boolean;
  /** Whether what is wet has begun to set. */
  readonly tacky: boolean;
  readonly dry: boolean;
  readonly strata: number;
  /** Mean thickness of its paint where there is some, um: for the cross-section. */
  readonly thicknessUm: number;
}
