import type { Mixture } from '@/core/colour/mixture';
import type { BrushForm } from '@/core/marks/brush/brushForms';
import type { Footprint } from '@/core/marks/brush/footprint';
import { PLAINLY_HELD, type HeldTool } from '@/core/marks/heldTool';
import type { LightForm } from '@/core/marks/lightStroke';
import type { Carrier, Reservoir } from '@/core/marks/brush/reservoir';
import type { StrokeInProgress, StrokeSetting } from '@/core/marks/stampedStroke';
import type { StickForm } from '@/core/marks/dry/stickForms';
import type { WashForm } from '@/core/marks/wet/washForms';
import { DIALS, type Dial, type Way } from './dials';
import { round, type ToolOutline, type ToolPicture } from './drawing';

/** What a tool has in the hand of a painter: the paint that is in it, and the hair that it has. */
export interface InHand {
  /** What it was loaded with last; undefined where it never was, or with water alone. */
  readonly lastMixture: Mixture | undefined;
  /** The paint in it. */
  reservoir(): Reservoir;
  /** The same for a watercolour brush: a thirsty one is squeezed out first, and only damp. */
  belly(form: WashForm): Reservoir;
  footprint(form: BrushForm): Footprint;
}

/** A tool as it lies in the roll. */
export interface Card {
  /** What its marks are like: tools of one kind of mark lie together. */
  readonly mark: string;
  readonly name: string;
  /** The edge that it makes. */
  readonly edge: string;
  readonly hint: string;
}

/**
 * Where a tool has its paint:
 * - `reservoir`: hair, a blade or a cup hold some, which is laid and used up
 * - `belly`: a watercolour brush holds water with paint in it
 * - `made`: it is always what it was loaded with last, as a stick is, or a pen that is dipped as it goes
 */
export type Holding = 'reservoir' | 'belly' | 'made';

/** What a shape or an area is filled with by a tool. */
export type Filling =
  | { readonly of: 'film'; readonly coversUm: (held: HeldTool) => number }
  | { readonly of: 'wash'; readonly form: WashForm }
  | { readonly of: 'dust'; readonly form: StickForm };

/** Everything that the house knows of a tool. What a family has in common is said once, by the family. */
export interface ToolDefinition {
  /** Says which bristles, grains and drops are its own. */
  readonly seed: number;
  /** How it is held when it is first taken up. */
  readonly first: HeldTool;
  readonly card: Card;

  readonly holds?: Holding;
  /** Whether a mixture can be loaded on it. */
  readonly takesPaint?: true;
  /** Whether it is for paper and water: what it leaves is dissolved, carried or held off by washes. */
  readonly forWater?: true;
  /** Whether what it does depends on how wet the paper is under it. */
  readonly meetsWater?: true;
  /** Whether it belongs on a drawing layer as well; and whether it may be told to draw on the sketch. */
  readonly draws?: true;
  readonly sketches?: true;
  /** Whether it gives by time, so that it goes on where it is held still. */
  readonly givesByTime?: true;
  /** Whether it mixes paint on the slab; and takes some up there. */
  readonly mixes?: true;
  readonly takesUp?: true;
  /** Whether it only moves the paint that it finds, until it is told otherwise. */
  readonly blender?: true;
  /** Whether it gives no paint, but wets, lifts and softens. */
  readonly thirsty?: true;
  /** Whether water of a wash goes into it, so that time passes in its strokes there. */
  readonly blots?: true;
  /** Whether it can be cleaned: wiped and rinsed. */
  readonly cleaned?: true;
  /** Whether a kept painting says nothing of it while it is held as at first. */
  readonly unspoken?: true;

  readonly fills?: Filling;
  /** How it marks light, pixels and masks; undefined where it has nothing for them. */
  readonly light?: (held: HeldTool) => LightForm;
  /** Form of a brush, as it is held. */
  readonly brush?: (held: HeldTool) => BrushForm;
  /** Forms of a tool that carries water, in whose strokes time passes on wet paper; and of a stick. */
  readonly wash?: WashForm;
  readonly stick?: StickForm;
  /** Where it holds its paint. @param cellArea mm2 of a cell of the painting */
  readonly carrier?: (held: HeldTool, hand: InHand, cellArea: number) => Carrier;
  /** Its stroke. */
  readonly stroke: (setting: StrokeSetting, hand: InHand) => StrokeInProgress;
  /** What it carries, where that cannot be used up. */
  readonly carries?: (hand: InHand) => Mixture | undefined;

  /** What a painter sets, beside size and strength. */
  readonly dials: readonly Dial[];
  /** How it can be held. */
  readonly ways: readonly Way[];
  /** What is said to be in it when no paint is. @param level how full it is, 0..1 */
  readonly bare: (held: HeldTool, level: number) => string;
  readonly outline: (held: HeldTool) => ToolOutline;
  readonly picture: (held: HeldTool) => ToolPicture;
}

/** What one tool of a family adds to it. */
export type Own = Partial<Omit<ToolDefinition, 'first' | 'seed' | 'card'>> & {
  readonly seed: number;
  readonly sizeMm: number;
  readonly start?: Partial<HeldTool>;
  readonly card: readonly [mark: string, name: string, edge: string, hint: string];
};

/** What all tools of a family have in common. */
export type Common = Partial<Omit<ToolDefinition, 'first' | 'seed' | 'card'>>;

/** A tool from what its family has in common and what is its own. @throws Error where something is missing */
export function defineTool(common: Common, { sizeMm, start, card, ...own }: Own): ToolDefinition {
  const [mark, name, edge, hint] = card;
  const first: HeldTool = { sizeMm, ...PLAINLY_HELD, ...start };
  const rest = { ...PLAIN, ...common, ...own };
  if (!rest.stroke) throw new Error(`The tool "${name}" has no stroke.`);
  return { ...rest, stroke: rest.stroke, first, card: { mark, name, edge, hint } };
}

/** What a tool is like that says nothing else. */
const PLAIN = {
  dials: [DIALS.size, DIALS.strength],
  ways: [],
  bare: () => 'clean',
  outline: ({ sizeMm }: HeldTool) => round(sizeMm),
  picture: () => ({ parts: [] }),
};
