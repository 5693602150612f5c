import type { Layer } from '@/core/film/layer';
import { noChange, type Change } from '@/core/commands/change';
import { wholeRect } from '@/core/film/tilesIn';
import type { Command } from '@/core/commands/commands';
import { COMMANDS } from '@/core/commands/commands';
import { PainterError } from '@/core/errors';
import { handOf } from './history';
import { momentBytes, momentOn, type Moment, type Structure, type Undone } from './moment';
import type { StudioState } from './state';

const NOT_WHOLE = 'What was done before cannot be taken back: strokes of it are missing in what was kept.';

/**
 * The commands that led from the empty ground to the state, and the way back and forth along them.
 *
 * Undo goes back to before the last command that changed the painting, with the tools as they were then, so that the
 * same stroke can be tried again. Of every change the tiles before are kept; when that takes more memory than the
 * budget, the oldest are dropped, and going back that far replays the commands instead: slower, the same bytes.
 */
export class Timeline {
  private line: Command[] = [];
  /** Whether the commands lead from the empty ground to the state; if not, so many of them cannot be taken back. */
  private whole = true;
  private floor = 0;
  private past: Moment[] = [];
  /** Bytes of the moments of the past, as they were counted last. */
  private readonly bytesKept = new WeakMap<Moment, number>();
  private future: Undone[] = [];
  private pending: Moment | undefined;
  /** The place in the history before which steps will be put back, and tiles that time has changed since. */
  private awaited: ({ readonly at: number } & Pick<Moment, 'tiles'>) | undefined;

  /**
   * @param apply applies a command, @param undoable says whether one is a step of undo
   * @param mostBytes that kept tiles may take
   */
  constructor(
    private readonly state: StudioState,
    private readonly apply: (command: Command) => void,
    private readonly mostBytes: number,
    private readonly undoable: (command: Command) => boolean = (command) => COMMANDS.isUndoable(command),
  ) {}

  /** The commands that lead from the empty ground to the present state, undone ones left out. */
  get commands(): readonly Command[] {
    return this.line;
  }
  get canUndo(): boolean {
    for (let i = this.line.length - 1; i >= this.floor; i--) if (this.undoable(this.line[i])) return true;
    return false;
  }
  get canRedo(): boolean {
    return this.future.length > 0;
  }

  // --- a change

  /** Opens a change: from here on, tiles are kept before they are touched. */
  open(): void {
    this.pending = this.state.moment(this.line.length);
  }

  /** Keeps a tile of the change that is open. */
  readonly keep = (layer: Layer, index: number): void => this.keepTile(layer, index, this.pending!);

  /**
   * Keeps a tile before a change that is no step of its own, as when a clock ticks: whoever goes back to the last
   * step, or forward to the next, must find it as it was.
   */
  readonly keepForAll = (layer: Layer, index: number): void => {
    if (this.pending) {
      this.keep(layer, index);
      return;
    }
    for (const moment of [this.past.at(-1) ?? this.awaited, this.future.at(-1)?.kept?.base]) {
      if (moment) this.keepTile(layer, index, moment);
    }
  };

  private keepTile(layer: Layer, index: number, moment: Pick<Moment, 'tiles'>): void {
    let kept = moment.tiles.get(layer);
    if (!kept) moment.tiles.set(layer, (kept = new Map()));
    if (kept.has(index)) return;
    kept.set(index, layer.capture(index, this.state.painting.arena));
  }

  /** Back to where the change that cannot be made was begun. */
  giveUp(): void {
    if (this.pending) this.state.goTo(this.pending);
    this.pending = undefined;
  }

  /** Writes a command down that was done, and ends the change that was open. */
  commit(command: Command): void {
    this.line.push(command);
    if (!this.pending) return;
    this.state.dateStrata(this.pending.tiles);
    this.past.push(this.pending);
    this.pending = undefined;
    this.future = [];
    // only the newest two can have come to keep more: what the others keep was counted before
    const newest = this.past.length - 2;
    let bytes = 0;
    for (let i = this.past.length - 1; i >= 0; i--) {
      const moment = this.past[i];
      const counted = i >= newest ? momentBytes(moment) : (this.bytesKept.get(moment) ?? momentBytes(moment));
      this.bytesKept.set(moment, counted);
      bytes += counted;
      if (bytes > this.mostBytes) {
        this.past = this.past.slice(i + 1);
        break;
      }
    }
  }

  /** Drops everything that is kept. */
  forget(): void {
    this.past = [];
    this.future = [];
    this.pending = undefined;
  }

  // --- back and forth

  /**
   * @param handStays what was done to the tools since is left so, else they are as they were then
   * @throws PainterError when there is nothing to take back
   */
  undo(handStays = false): Change {
    const moment = this.past.pop();
    if (!moment) return this.undoByReplay(handStays);
    const at = moment.timeline;
    const after = this.mirror(moment);
    const commands = this.line.slice(at);
    const hand = handOf(commands, handStays);
    const kept = { base: { ...moment, tiles: new Map() }, after };
    this.future.push({ at, commands, carried: hand.length, kept });
    const change = this.goTo(moment, this.line.slice(0, at));
    this.carry(hand);
    return change;
  }

  /**
   * @param handStays what was done to the tools since is left so, else it is forgotten
   * @throws PainterError when there is nothing to do again
   */
  redo(handStays = false): Change {
    const undone = this.future.at(-1);
    if (!undone) throw new PainterError('There is nothing to do again.');
    const { at, commands, carried, kept } = undone;
    const since = handOf(this.line.slice(at + carried), handStays);
    if (!kept && this.line.length > at && !this.whole) throw new PainterError(NOT_WHOLE);
    this.future.pop();
    if (kept) {
      this.goTo(kept.base, this.line.slice(0, at));
      this.past.push(this.mirror(kept.after));
      const change = this.goTo(kept.after, [...this.line, ...commands]);
      this.carry(since);
      return change;
    }
    const { future } = this;
    if (this.line.length > at) this.rebuild(this.line.slice(0, at));
    for (const command of commands) this.apply(command);
    this.carry(since);
    this.future = future;
    return this.everything();
  }

  /** Does once more what had been done to the tools. */
  private carry(hand: readonly Command[]): void {
    for (const command of hand) this.apply(command);
  }

  private goTo(moment: Moment, line: Command[]): Change {
    const change = this.state.goTo(moment);
    this.line = line;
    return change;
  }

  /** The same tiles as another moment's, as they are now. */
  private mirror(other: Moment): Moment {
    const { painting } = this.state;
    const now = this.state.moment(this.line.length);
    if (other.structure.painting !== painting) {
      // on another canvas: everything on this one
      for (const layer of [...painting.layers, painting.selection]) {
        layer.forEachTile((_, index) => this.keepTile(layer, index, now));
      }
    }
    for (const [layer, tiles] of other.tiles) for (const index of tiles.keys()) this.keepTile(layer, index, now);
    return now;
  }

  private everything(): Change {
    const { painting, slab } = this.state;
    return { ...noChange(), rect: wholeRect(painting), slab: wholeRect(slab), layers: true };
  }

  /** Goes back farther than tiles were kept: from the empty ground through everything but the last change. */
  private undoByReplay(handStays: boolean): Change {
    const next = this.nextUndo(handStays);
    if (!next && this.whole) throw new PainterError('There is nothing to take back.');
    if (!next || !this.whole) throw new PainterError(NOT_WHOLE);
    // moments that were kept belong to layers that are now made anew
    const future = this.undone;
    this.rebuild(this.line.slice(0, next.at));
    this.carry(handOf(next.commands, handStays));
    this.future = [...future, next];
    return this.everything();
  }

  /** Paints everything anew from the empty ground. */
  private rebuild(commands: readonly Command[]): void {
    this.state.clear();
    this.adopt([]);
    for (const command of commands) this.apply(command);
  }

  /** What the next undo takes back; undefined when there is nothing. */
  private nextUndo(handStays: boolean): Undone | undefined {
    const at = this.line.findLastIndex((command) => this.undoable(command));
    const commands = this.line.slice(at);
    return at < this.floor ? undefined : { at, commands, carried: handOf(commands, handStays).length };
  }

  /** What was taken back and can be done again, the last first to come: the commands alone. */
  private get undone(): readonly Undone[] {
    return this.future.map(({ at, commands, carried }) => ({ at, commands, carried }));
  }

  /**
   * The history that an undo or a redo leads to when it is not kept at hand, and has to be painted again; and what can
   * be done again from there. Undefined when it is done at once, or refused.
   */
  farWay(
    which: 'undo' | 'redo',
    handStays = false,
  ): { target: readonly Command[]; undone: readonly Undone[] } | undefined {
    if (which === 'undo') {
      const next = this.past.length > 0 ? undefined : this.nextUndo(handStays);
      if (!next) return undefined;
      const target = [...this.line.slice(0, next.at), ...handOf(next.commands, handStays)];
      return { target, undone: [...this.undone, next] };
    }
    const next = this.future.at(-1);
    if (!next || next.kept || this.line.length <= next.at) return undefined;
    const since = handOf(this.line.slice(next.at + next.carried), handStays);
    const target = [...this.line.slice(0, next.at), ...next.commands, ...since];
    return { target, undone: this.undone.slice(0, -1) };
  }

  // --- a history that was kept elsewhere

  /**
   * Takes over a history whose result the state already is (after a snapshot was put back).
   * @param whole false when something is missing in it: then it cannot be taken back, for it does not lead to the state
   */
  adopt(commands: readonly Command[], whole = true): void {
    this.line = [...commands];
    this.whole = whole;
    this.floor = whole ? 0 : commands.length;
    this.past = [];
    this.future = [];
    this.awaited = undefined;
  }

  /** Takes over what can be done again from a studio whose history this one's is. */
  adoptUndone(undone: readonly Undone[]): void {
    this.future = [...undone];
  }

  /** The history up to the first step that can be taken back at once; empty when there is nothing to take back before it. */
  get beforeKept(): readonly Command[] {
    const before = this.line.slice(0, this.past[0]?.timeline ?? this.line.length);
    return before.slice(this.floor).some((command) => this.undoable(command)) ? before : [];
  }

  /**
   * Takes over what lay under the last steps from a studio that has come to this one's state, or to one on the way to it
   * behind which every step is kept here. Steps that have to do with layers that are not there any more are left.
   */
  adoptPast(other: Timeline): void {
    const kept = this.past[0]?.timeline ?? this.line.length;
    if (kept !== other.line.length || other.line.some((command, i) => command !== this.line[i])) return;
    const { painting, allLayers } = this.state;
    const moments: Moment[] = [];
    for (let i = other.past.length - 1; i >= 0; i--) {
      const there = (id: string) => allLayers.find((layer) => layer.id === id);
      const moved = momentOn(other.past[i], other.state.painting, painting, there);
      if (!moved) break;
      moments.unshift(moved);
    }
    this.past = [...moments, ...this.past];
  }

  /**
   * What is kept of the last steps, the latest last. It ends before a step that belongs to another canvas, or to a layer
   * that is not in the painting now.
   */
  pastKept(most: number): readonly Moment[] {
    const { past } = this;
    const { painting, allLayers } = this.state;
    const there = new Set(allLayers);
    const known = (moment: Moment) =>
      moment.structure.painting === painting &&
      moment.structure.layers.every(({ layer }) => there.has(layer)) &&
      [...moment.tiles.keys()].every((layer) => there.has(layer));
    const from = past.findLastIndex((moment) => !known(moment)) + 1;
    return past.slice(Math.max(from, past.length - most));
  }

  /**
   * The steps before the present state are kept somewhere, and will be put back one by one, the latest first: until
   * then, what time changes is kept for them.
   */
  awaitPast(): void {
    this.awaited = { at: this.line.length, tiles: new Map() };
  }

  /** Who was in the stack when steps began to be awaited; undefined when they are not, or would leave a gap. */
  get awaitedPast(): Structure | undefined {
    if (!this.awaited || this.pending) return undefined;
    const [first] = this.past;
    const kept = first?.timeline ?? this.line.length;
    if (kept < this.awaited.at || this.line.slice(this.awaited.at, kept).some((c) => this.undoable(c)))
      return undefined;
    return first?.structure ?? this.state.structure;
  }

  /**
   * Puts back what was kept of the step before.
   * @returns whether it is one: the step that leads to where the awaited ones end
   */
  putBackStep(moment: Moment): boolean {
    const { awaited } = this;
    const steps = awaited && this.line.slice(moment.timeline, awaited.at).filter((c) => this.undoable(c)).length;
    if (!awaited || steps !== 1 || !this.awaitedPast) return false;
    for (const [layer, tiles] of awaited.tiles) {
      moment.tiles.set(layer, new Map([...tiles, ...(moment.tiles.get(layer) ?? [])]));
    }
    this.past.unshift(moment);
    this.awaited = { at: moment.timeline, tiles: new Map() };
    return true;
  }

  /** No more steps will be put back. */
  awaitNoMore(): void {
    this.awaited = undefined;
  }
}
