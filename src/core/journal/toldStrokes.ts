import type { Mixture } from '@/core/colour/mixture';
import { COMMANDS, type Command } from '@/core/commands/commands';
import type { StrokeCommand } from '@/core/commands/families/timeline';
import { FIRST_IN_HAND, TOOLS, type ToolId, type ToolSettings } from '@/core/tools/tools';

/** A stroke with what the journal tells of it: no paint is needed to know it. */
export interface ToldStroke {
  /** From 1 on, those on the slab among them. */
  readonly number: number;
  /** Its place among the commands. */
  readonly at: number;
  /** Simulated seconds from the beginning of the painting. */
  readonly clock: number;
  readonly setting: ToolSettings;
  /** What the tool was loaded with last. */
  readonly mixture: Mixture | undefined;
  /** Id of the layer that it was made on; undefined where the journal does not tell. */
  readonly layer: string | undefined;
  readonly command: StrokeCommand;
}

/** The layers that a painting is begun with, and the one of them that is painted on. */
const FIRST_LAYERS = 2;
const layerId = (number: number) => `L${number}`;

/**
 * The strokes of a history, the first first.
 * @param history commands without those that were taken back
 */
export function* toldStrokes(history: readonly Command[]): Generator<ToldStroke> {
  const settings = new Map<ToolId, ToolSettings>(TOOLS.all.map(([tool, { first }]) => [tool, { tool, ...first }]));
  const loads = new Map<ToolId, Mixture>();
  const layers = new KnownLayers();
  let inHand: ToolId = FIRST_IN_HAND;
  let clock = 0;
  let number = 0;
  for (const [at, command] of history.entries()) {
    if (command.do === 'tool') {
      const { do: _, tool, ...changes } = command;
      const given = Object.fromEntries(Object.entries(changes).filter(([, value]) => value !== undefined));
      settings.set(tool, { ...settings.get(tool)!, ...given });
      inHand = tool;
    } else if (command.do === 'load') loads.set(inHand, command.mixture);
    else if (command.do === 'wait') clock += command.seconds;
    else if (command.do === 'leave') clock += command.hours * 3600;
    else if (command.do === 'stroke') {
      const [setting, mixture] = [settings.get(inHand)!, loads.get(inHand)];
      yield { number: ++number, at, clock, setting, mixture, layer: layers.chosen, command };
    } else layers.follow(command);
  }
}

/** Which layer is painted on, as far as the commands alone say it. */
class KnownLayers {
  chosen: string | undefined = layerId(FIRST_LAYERS);
  private made: number | undefined = FIRST_LAYERS;

  follow(command: Command): void {
    if (command.do === 'layer.choose') this.chosen = command.layer;
    else if (command.do === 'layer.duplicate') {
      // of a group all that is in it is copied: how many that are is not told
      this.made = undefined;
      this.chosen = undefined;
    } else if (command.do === 'layer.merge' || (command.do === 'layer.remove' && command.layer === this.chosen)) {
      this.chosen = undefined;
    } else if (COMMANDS.definitionOf(command).addsLayer) {
      // a sheet that is washed again is no new layer, and a new one is not chosen
      const prepared = command.do === 'layer.prepare';
      if (this.made !== undefined && !(prepared && command.layer !== undefined)) this.made++;
      if (!prepared) this.chosen = this.made === undefined ? undefined : layerId(this.made);
    }
  }
}

/** Whether a stroke went over a place of the canvas, as far as its path and the size of its tool say. @param place mm */
export function goesOver({ command, setting }: ToldStroke, place: { readonly x: number; readonly y: number }): boolean {
  if (command.on) return false;
  const reach = Math.max(setting.sizeMm / 2, 0.5);
  const { samples } = command;
  return samples.some(([, x, y], i) => {
    const [, fromX, fromY] = samples[Math.max(0, i - 1)];
    const [alongX, alongY] = [x - fromX, y - fromY];
    const long = alongX * alongX + alongY * alongY;
    const t = long > 0 ? ((place.x - fromX) * alongX + (place.y - fromY) * alongY) / long : 0;
    const near = Math.max(0, Math.min(1, t));
    const [offX, offY] = [place.x - fromX - near * alongX, place.y - fromY - near * alongY];
    return offX * offX + offY * offY <= reach * reach;
  });
}
