import { recipeWords } from '@/core/colour/recipeWords';
import type { Mixture } from '@/core/colour/mixture';
import type { Command } from '@/core/commands/commands';
import { toldStrokes, type ToldStroke } from '@/core/journal/toldStrokes';
import { maths } from '@/core/maths/maths';
import { TOOLS, type ToolId } from '@/core/tools/tools';
import { segments } from './segments';

/** A part of how a painting was made: strokes that are alike in tool, size and layer, and lie near each other. */
export interface Stage {
  /** Counted from 1. */
  readonly number: number;
  /** Places of its first stroke in the history, and of what comes after its last. */
  readonly from: number;
  readonly until: number;
  /** Numbers of its first and last stroke. */
  readonly strokes: readonly [first: number, last: number];
  /** The tools, the one used most first. */
  readonly tools: readonly ToolId[];
  /** Sizes of the tool that was used most, mm. */
  readonly sizes: readonly [least: number, most: number];
  /** Id of the layer, where the journal tells it. */
  readonly layer: string | undefined;
}

/** Most stages, the least strokes of one (a number, a share of all), and what a cut must be worth. */
const MOST = 12;
const FEW = 4;
const SHARE = 0.02;
const GAIN = 0.025;
/** How much it counts that strokes are of other tools, on other layers, of twice the size, on the other side of the picture. */
const OF_TOOL = 1;
const OF_LAYER = 1.6;
const OF_SIZE = 0.7;
const OF_PLACE = 1.8;

/** The stages of a history, in order. Strokes on the slab belong to what is painted after them. */
export function stagesOf(history: readonly Command[]): readonly Stage[] {
  const strokes = [...toldStrokes(history)].filter(({ command }) => !command.on);
  const least = Math.max(Math.min(FEW, strokes.length), Math.round(strokes.length * SHARE));
  const starts = segments(featuresOf(strokes), { most: MOST, least, gain: GAIN });
  return starts.map((from, i) => {
    const next = strokes[starts[i + 1]];
    return told(strokes.slice(from, starts[i + 1]), i + 1, next?.at ?? history.length);
  });
}

/** What strokes are alike or unlike in: one column each. */
function featuresOf(strokes: readonly ToldStroke[]): Float64Array[] {
  const column = (weight: number, of: (stroke: ToldStroke) => number) =>
    Float64Array.from(strokes, (stroke) => weight * of(stroke));
  const ofKind = (weight: number, of: (stroke: ToldStroke) => string | undefined) =>
    [...new Set(strokes.map(of))].map((kind) => column(weight, (stroke) => (of(stroke) === kind ? 1 : 0)));
  const middles = strokes.map(({ command: { samples } }) => samples[samples.length >> 1]);
  const places = [1, 2].map((axis) => {
    const all = middles.map((sample) => sample[axis]);
    const [low, high] = [all.reduce((a, b) => Math.min(a, b), 0), all.reduce((a, b) => Math.max(a, b), 1)];
    return Float64Array.from(all, (at) => (OF_PLACE * (at - low)) / (high - low));
  });
  return [
    column(OF_SIZE, ({ setting }) => maths.log2(setting.sizeMm)),
    ...ofKind(OF_TOOL, ({ setting }) => setting.tool),
    ...ofKind(OF_LAYER, ({ layer }) => layer),
    ...places,
  ];
}

function told(strokes: readonly ToldStroke[], number: number, until: number): Stage {
  const counts = new Map<ToolId, number>();
  for (const { setting } of strokes) counts.set(setting.tool, (counts.get(setting.tool) ?? 0) + 1);
  const tools = [...counts].sort((a, b) => b[1] - a[1]).map(([tool]) => tool);
  const sizes = strokes.filter(({ setting }) => setting.tool === tools[0]).map(({ setting }) => setting.sizeMm);
  const [first, last] = [strokes[0], strokes[strokes.length - 1]];
  return {
    number,
    from: first.at,
    until,
    strokes: [first.number, last.number],
    tools,
    sizes: [Math.min(...sizes), Math.max(...sizes)],
    layer: first.layer === last.layer ? first.layer : undefined,
  };
}

const mm = (size: number): string => `${size < 10 ? Number(size.toFixed(1)) : Math.round(size)}`;
const toolName = (tool: ToolId): string => TOOLS.of(tool).card.name;

/** A stage in words, as "Flat, 12 to 40 mm, and Rigger". */
export function stageWords({ tools, sizes: [least, most] }: Stage): string {
  const [main, ...others] = tools;
  const size = mm(least) === mm(most) ? `${mm(most)} mm` : `${mm(least)} to ${mm(most)} mm`;
  const beside = others.slice(0, 2).map(toolName);
  return [`${toolName(main)}, ${size}`, ...(beside.length > 0 ? [`and ${beside.join(', ')}`] : [])].join(', ');
}

/** What is in hand at a place of the history. */
export interface InHand {
  readonly stroke: ToldStroke;
  /** The tool with its size, as "Flat 24 mm". */
  readonly tool: string;
  readonly mixture: Mixture | undefined;
  /** The mixture in parts; what the tool does without one. */
  readonly paint: string;
}

/** What a history says of each of its places. */
export class Told {
  readonly stages: readonly Stage[];
  private readonly strokes: readonly ToldStroke[];

  constructor(private readonly history: readonly Command[]) {
    this.stages = stagesOf(history);
    this.strokes = [...toldStrokes(history)].filter(({ command }) => !command.on);
  }

  /** How many strokes there are on the canvas, and how many of them are made at a place. */
  get count(): number {
    return this.strokes.length;
  }
  made(done: number): number {
    return firstFrom(this.strokes, done);
  }

  /** The stage that a place belongs to; undefined where there is none. */
  stageAt(done: number): Stage | undefined {
    return this.stages.findLast(({ from }) => from <= done) ?? this.stages[0];
  }

  /** The stroke that is under way at a place, or was the last before it. */
  inHandAt(done: number): InHand | undefined {
    const at = firstFrom(this.strokes, done);
    const stroke = this.strokes[at]?.at === done ? this.strokes[at] : this.strokes[at - 1];
    if (!stroke) return undefined;
    const { setting, mixture } = stroke;
    const { takesPaint, blender } = TOOLS.of(setting.tool);
    const bare = !mixture || (blender && !takesPaint);
    return {
      stroke,
      tool: `${toolName(setting.tool)} ${mm(setting.sizeMm)} mm`,
      mixture: bare ? undefined : mixture,
      paint: bare ? '' : recipeWords(mixture),
    };
  }

  /** What is said of time that passes at a place, as "Left for 3 days"; empty where none does. */
  pauseAt(done: number): string {
    const command = this.history[done];
    if (command?.do === 'dry') return 'Dried';
    const hours = command?.do === 'leave' ? command.hours : command?.do === 'wait' ? command.seconds / 3600 : 0;
    return hours >= 1 / 120 ? `Left for ${lengthWords(hours)}` : '';
  }
}

/** How many strokes come before a place. */
function firstFrom(strokes: readonly ToldStroke[], at: number): number {
  let [low, high] = [0, strokes.length];
  while (low < high) {
    const middle = (low + high) >> 1;
    if (strokes[middle].at < at) low = middle + 1;
    else high = middle;
  }
  return low;
}

const count = (n: number, one: string): string => `${n} ${one}${n === 1 ? '' : 's'}`;

function lengthWords(hours: number): string {
  if (hours < 1) return count(Math.max(1, Math.round(hours * 60)), 'minute');
  if (hours < 36) return count(Math.round(hours), 'hour');
  const days = Math.round(hours / 24);
  return days < 60 ? count(days, 'day') : count(Math.round(days / 30), 'month');
}
