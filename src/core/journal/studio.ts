import { Arena } from '@/core/film/arena';
import type { Layer } from '@/core/film/layer';
import type { MassBalance } from '@/core/film/ledger';
import type { Painting, PaintingSpec } from '@/core/film/painting';
import type { PixelRect } from '@/core/film/pixelRect';
import type { SLAB } from '@/core/film/slab';
import type { Toolbox } from '@/core/tools/toolbox';
import type { ToolId } from '@/core/tools/tools';
import type { ToolSet } from '@/core/tools/toolSet';
import { noChange, type Change } from '@/core/commands/change';
import { COMMANDS, type Command } from '@/core/commands/commands';
import type { StrokeCommand } from '@/core/commands/families/timeline';
import type { Workplace } from '@/core/commands/workplace';
import { PainterError } from '@/core/errors';
import { massBalance, waterBalance } from './massBalance';
import { SimulatedTime } from './simulatedTime';
import { StudioState } from './state';
import { StrokeInAir, type EndedStroke } from './strokeInAir';
import { Timeline } from './timeline';

/** The one place where a painting changes. Commands go in, the state changes, and what changed comes out. */
export class Studio {
  readonly state: StudioState;
  readonly time: SimulatedTime;
  readonly timeline: Timeline;
  private inAir: StrokeInAir | undefined;

  /** @param historyBytes that steps of undo may take, @param commands, tools that it knows */
  constructor(
    begun: PaintingSpec,
    historyBytes = 600e6,
    arena = new Arena(),
    private readonly commands = COMMANDS,
    tools?: ToolSet<ToolId>,
  ) {
    const undoable = (command: Command) => commands.isUndoable(command);
    this.state = new StudioState(begun, arena, tools);
    this.timeline = new Timeline(this.state, (command) => this.apply(command), historyBytes, undoable);
    this.time = new SimulatedTime(this.state, this.timeline.keep, this.timeline.keepForAll);
  }

  get painting(): Painting {
    return this.state.painting;
  }
  get slab(): Painting {
    return this.state.slab;
  }
  get tools(): Toolbox {
    return this.state.tools;
  }
  get spec(): PaintingSpec {
    return this.painting.spec;
  }
  get begun(): PaintingSpec {
    return this.state.begun;
  }
  get allLayers(): readonly Layer[] {
    return this.state.allLayers;
  }
  /** A layer of the painting or the slab by its id. */
  layer(id: string): Layer | undefined {
    return this.allLayers.find((l) => l.id === id);
  }
  /** The commands that lead from the empty ground to the present state, undone ones left out. */
  get history(): readonly Command[] {
    return this.timeline.commands;
  }

  /**
   * Applies a command.
   * @throws PainterError when it cannot be done; the painting is then unchanged.
   */
  apply(command: Command): Change {
    this.needQuiet();
    const definition = this.commands.definitionOf(command);
    if (definition.opensItself) return definition.apply(this.workplace, command);
    if (definition.undoable) this.timeline.open();
    let change: Change;
    try {
      change = definition.apply(this.workplace, command);
    } catch (error) {
      this.timeline.giveUp();
      throw error;
    }
    this.timeline.commit(command);
    return change;
  }

  /** What commands work on. */
  private get workplace(): Workplace {
    const { state, timeline, time } = this;
    const { painting, slab, tools, begun } = state;
    return {
      painting,
      slab,
      tools,
      begun,
      keep: timeline.keep,
      setCanvas: (canvas) => state.setCanvas(canvas),
      time,
      timeline: {
        stroke: (command) => this.wholeStroke(command as StrokeCommand),
        undo: (handStays) => timeline.undo(handStays),
        redo: (handStays) => timeline.redo(handStays),
      },
    };
  }

  private wholeStroke(command: StrokeCommand): Change {
    this.beginStroke(command.on, command.pace);
    for (const s of command.samples) this.addSample(s);
    return this.endStroke(command)?.change ?? noChange();
  }

  private needQuiet(): void {
    if (this.inAir) throw new PainterError('A stroke is still being made.');
    if (this.time.waiting) throw new Error('A wait is not over yet.');
  }

  // --- a stroke, reading by reading

  /**
   * Puts the tool down, on the painting or on the slab.
   * @param pace how fast water flows by the times of the readings
   * @throws PainterError when the layer (or the slab) and the tool do not go together.
   */
  beginStroke(on?: typeof SLAB, pace?: number): void {
    this.needQuiet();
    this.timeline.open();
    try {
      this.inAir = new StrokeInAir(this.state, { on, pace }, this.timeline.keep);
    } catch (error) {
      this.timeline.giveUp();
      throw error;
    }
    this.state.strokes++;
  }

  /** Adds a reading of the pen to the stroke in the air: [t, x, y, pressure, tiltX, tiltY, twist]. */
  addSample(sample: readonly number[]): void {
    this.inAir!.add(sample);
  }

  /** Brings the stroke in the air into the tiles. @returns the cells that changed since the last call. */
  publishStroke(): PixelRect {
    const { rect, flowed } = this.inAir!.publish();
    this.time.note(flowed);
    return rect;
  }

  /**
   * Lifts the tool.
   * @param as the command that the stroke was read from, which then stands in the history itself
   * @returns what it has come to; undefined when there was no reading: then nothing has happened
   */
  endStroke(as?: StrokeCommand): EndedStroke | undefined {
    const ended = this.inAir!.end(as);
    this.inAir = undefined;
    if (!ended) {
      this.timeline.giveUp();
      return undefined;
    }
    this.state.dropLaid();
    this.timeline.commit(ended.command);
    return ended;
  }

  /** Puts everything back that the stroke in the air has done: something is wrong with it. */
  abandonStroke(): void {
    if (!this.inAir) return;
    this.inAir = undefined;
    this.state.dropLaid();
    this.timeline.giveUp();
  }

  get strokeInAir(): boolean {
    return this.inAir !== undefined;
  }
  /** Whether the stroke in the air is on the slab. */
  get strokeOnSlab(): boolean {
    return this.inAir?.onSlab ?? false;
  }

  /** Ends the wait that the clock began. @returns it as a command; undefined when no time has passed */
  endWait(): { command: Command; change: Change } | undefined {
    const ended = this.time.endWait();
    if (!ended) return undefined;
    const command: Command = { do: 'wait', seconds: ended.seconds };
    this.timeline.commit(command);
    return { command, change: ended.change };
  }

  massBalance(): Record<string, MassBalance> {
    return massBalance(this.state);
  }
  waterBalance(): ReturnType<typeof waterBalance> {
    return waterBalance(this.state);
  }

  /** Gives all memory back: the painting is put away, and nothing more can be done with it. */
  dispose(): void {
    this.abandonStroke();
    this.timeline.forget();
    this.state.dispose();
  }
}
