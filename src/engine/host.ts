import { COMMANDS, type Command } from '@/core/commands/commands';
import { ownPaintSchema } from '@/core/journal/journalSchema';
import { pigmentName } from '@/core/colour/pigments';
import { PainterError } from '@/core/errors';
import { readCommand } from '@/core/journal/replay';
import type { Studio } from '@/core/journal/studio';
import type { Timeline } from '@/core/journal/timeline';
import { growRect, isEmpty, noRect, type PixelRect } from '@/core/film/pixelRect';
import { tileRect, wholeRect } from '@/core/commands/change';
import { Flow } from '@/core/flow/flowing';
import { Picture } from '@/core/picture/picture';
import { Pyramid } from '@/core/picture/pyramid';
import { isPlain, PLAIN_VIEW, type ViewOptions } from '@/core/picture/viewOptions';
import { drawView, rectInView, type Aid, type View } from '@/core/picture/view';
import { answerTo } from './answers';
import { Autosave, notKeptSentence } from './autosave';
import { benchState } from './benchState';
import { CatchUp } from './catchUp';
import type { Numbered } from './handLog';
import type { Said } from './journalStore';
import { Keeping, type Opening, type Rebuilding } from './keeping';
import { layerReach } from './layerReach';
import type { FromWorker, ToWorker } from './protocol';
import type { Question } from './questions';
import { Pace } from './pace';
import { ReadyUndo } from './readyUndo';
import { SlabPane } from './slabPane';
import { StaleTiles } from './staleTiles';
import { tilesInView } from './tilesInView';
import { WaterClock } from './waterClock';
import { Uncoloured } from './uncoloured';
import { warmUp } from './warmUp';
import { readPainting, type PaintingRecord } from './shelf';
import { thumbnailPng } from '@/core/formats/thumbnail';

/** What is said without doing anything to the painting. */
const LOOKING: readonly ToWorker['say'][] = ['shown', 'view', 'try', 'without', 'slab-view', 'slab-shown', 'light'];
/** What need not wait until everything is painted that is being painted again. */
const AT_ANY_TIME: readonly ToWorker['say'][] = ['shown', 'view', 'slab-view', 'slab-shown', 'light', 'cancel'];
/** Frames that may be on their way to the page: more would only wait there. */
const FRAMES_AHEAD = 1;
/** Longest time for which strokes are worked off before what came of them is shown, ms. */
const TURN_MS = 14;
/** Longest piece of background work, ms: what a pen may have to wait. */
const SLICE_MS = 7;
/** Quiet time after which time that has passed on wet paper is written down, ms. */
const WAIT_QUIET_MS = 2500;
/** How often the painting's own clock is set forward while something dries by it, ms. */
const TICK_MS = 10_000;
/** How often water is looked at while it flows, ms. A step or two are made at once, so that a pen need not wait. */
const FLOW_MS = 25;
const FLOW_TURN_MS = 8;
/** Time between frames that show nothing but how water goes on, ms: the time is better used for colouring. */
const CALM_FRAME_MS = 60;
/** Time for recolouring what water has changed before a frame of a stroke is shown, ms. */
const WET_MS = 4;
/** A hand that rests for so long lets time pass in its stroke, ms. */
const REST_MS = 60;
/** Time after a stroke until the page is told what the tools and layers are like now: its last frame goes first, ms. */
const TELL_MS = 30;
/** Quiet time after which tiles are prepared for the next stroke, ms. */
const WARM_QUIET_MS = 250;

/** Whether a message ends a step of the painting. */
const isStep = ({ say }: ToWorker): boolean => say === 'stroke-end' || say === 'command';

const BROKEN = 'The engine has stopped. Everything that was painted before is kept: open the painting again.';
const CANNOT_OPEN = 'This painting could not be opened: what this browser has kept of it is damaged or does not fit.';
const FAULT = 'Something went wrong there, and it has been left out. The painting is as it was before.';
const caughtUp = (strokes: number) =>
  strokes === 1
    ? 'A stroke that was not worked off when the browser closed has been painted now.'
    : `${strokes} strokes that were not worked off when the browser closed have been painted now.`;

/**
 * Runs a studio for the page. Messages are worked off in order; after each turn the newest change is shown first,
 * and what is left of the time goes to the background: colouring the rest of the picture, and keeping.
 */
export class EngineHost {
  private studio: Studio | undefined;
  private autosave: Autosave | undefined;
  /** Whether the painting is only looked at: another tab paints on it. */
  private looking = false;
  private opened = false;
  /** The last message of the hand that has been worked off. */
  private said: Said | undefined;
  /** Makes the last steps of a painting that was opened ready to be taken back. */
  private readyUndo: ReadyUndo | undefined;
  /** Steps before it that are kept and still to be read, so that they can be taken back at once. */
  private past: Opening['past'];
  /** When everything that had to be painted again on opening was there. */
  private readyFrom = Infinity;
  /** What is being painted again: on opening, or to go far back. */
  private catchUp: CatchUp | undefined;
  private slabView: Extract<ToWorker, { say: 'slab-view' }> | undefined;
  /** Set when the engine has come to a state that it cannot go on from. */
  private broken = false;
  private picture!: Picture;
  private pyramid!: Pyramid;
  private slab!: SlabPane;
  /** The only tubes that may be used, where the painter has made that a rule. */
  private allowed: ReadonlySet<string> | undefined;
  private view: { serial: number; view: View; aid: Aid } | undefined;
  private readonly inbox: ToWorker[] = [];
  /** What the hand said before the browser died, still to be made good; how many steps that were, and how many are done. */
  private owed: ToWorker[] = [];
  private owedSteps = { done: 0, total: 0 };
  private turnPlanned = false;
  /** Whether the picture as it was kept is still to be shown, before what is owed goes on. */
  private pictureFirst = false;
  private uncoloured = new Uncoloured(0, 0);
  private dirtyView = noRect();
  private framesOut = 0;
  /** Whether the page has asked for anything since the last frame, and when that was made. */
  private asked = false;
  private shownAt = 0;
  private newest = 0;
  private unpublished = false;
  private cold = true;
  private lastChange = 0;
  private readonly channel = new MessageChannel();
  private opening: Promise<void> | undefined;
  /** Tiles that are still to be prepared for a stroke, the nearest last; and for which view and layer. */
  private warmed: { key: string; tiles: number[] } = { key: '', tiles: [] };
  private readonly pace = new Pace();
  private readonly waterClock = new WaterClock();
  private wroteWait = 0;
  private flowTimer: ReturnType<typeof setTimeout> | undefined;
  private tellLater: ReturnType<typeof setTimeout> | undefined;
  private stale!: StaleTiles;
  /** What the stroke in the air painted last. */
  private atBrush = noRect();
  /** The last reading of the stroke in the air, and when it came. */
  private resting: { sample: number[]; at: number } | undefined;
  /** When the painting's own clock was last set forward, ms. */
  private clockSet = performance.now();

  constructor(private readonly post: (message: FromWorker, transfer?: Transferable[]) => void) {
    this.channel.port1.onmessage = () => this.turn();
    setInterval(() => this.plan(), 1000);
  }

  /** Takes a message from the page. */
  receive(message: ToWorker): void {
    this.inbox.push(message);
    this.plan();
  }

  private plan(): void {
    if (this.turnPlanned) return;
    this.turnPlanned = true;
    this.channel.port2.postMessage(0);
  }

  private turn(): void {
    this.turnPlanned = false;
    if (this.opening || this.broken) return; // everything waits until the painting is there
    try {
      const start = performance.now();
      for (let message; performance.now() - start < TURN_MS && (message = this.nextMessage());) {
        this.asked ||= message.say !== 'shown';
        this.handle(message);
        if (this.opening) return;
      }
      this.pictureFirst &&= this.uncoloured.length > 0;
      if (!(this.pictureFirst && this.view) && this.catchUp?.run(TURN_MS)) this.catchUp = undefined;
      this.flow();
      // what cannot be shown yet need not be coloured yet: one frame then does for several turns
      if (this.framesOut < FRAMES_AHEAD) {
        this.publishStroke();
        // a turn in which water was stepped is late enough
        if (this.studio?.strokeInAir && performance.now() - start < TURN_MS) this.colourWet(WET_MS, this.atBrush);
        if (this.asked || start - this.shownAt > CALM_FRAME_MS) this.show();
        else if (!isEmpty(this.dirtyView)) this.flowLater();
      }
      if (this.inbox.length > 0 || this.busyOpening) this.plan();
      if (this.busyOpening) this.colourSome(performance.now());
      else if (this.inbox.length === 0) this.background();
    } catch (error) {
      this.broken = true;
      this.post({ say: 'failed', why: BROKEN });
      throw error;
    }
  }

  /** Whether something is painted again, before which nothing new is begun. */
  private get busyOpening(): boolean {
    return this.catchUp !== undefined || this.owed.length > 0;
  }

  /** The message that is to be worked off next; while something is painted again, only such as do not depend on it. */
  private nextMessage(): ToWorker | undefined {
    if (!this.busyOpening) return this.inbox.shift();
    const at = this.inbox.findIndex(({ say }) => AT_ANY_TIME.includes(say));
    if (at >= 0) return this.inbox.splice(at, 1)[0];
    if (this.catchUp) return undefined;
    const message = this.owed.shift();
    if (message && isStep(message)) {
      this.owedSteps.done++;
      this.post({ say: 'progress', of: 'opening', ...this.owedSteps });
    }
    return message;
  }

  private handle(message: ToWorker): void {
    const looking = message.say === 'ask' ? message.question.of === 'histogram' : LOOKING.includes(message.say);
    if (!looking) this.endTrial();
    switch (message.say) {
      case 'open':
        this.wait(this.open(message.painting, message.session));
        return;
      case 'cancel':
        this.cancelGoingBack?.();
        return;
      case 'shown':
        this.framesOut--;
        return;
      case 'view':
        this.view = message;
        this.dirtyView = { left: 0, top: 0, right: message.view.width, bottom: message.view.height };
        this.uncoloured.look(message.view);
        return;
      case 'ask':
        void this.answer(message.id, message.question);
        return;
    }
    const { studio } = this;
    if (!studio) return;
    switch (message.say) {
      case 'command':
        this.endWait();
        this.hears(message);
        this.attempt(() => {
          const command = readCommand(message.command);
          this.checkTubes(command);
          this.perform(command);
        });
        return;
      case 'stroke-begin':
        this.endWait();
        this.tick();
        this.resting = undefined;
        this.attempt(() => studio.beginStroke(message.on, this.strokePace()));
        this.pace.begin();
        return;
      case 'stroke-samples':
        if (!studio.strokeInAir) return;
        this.attempt(() =>
          this.pace.work(() => {
            for (const sample of message.samples) studio.addSample(sample);
          }, message.samples),
        );
        if (!studio.strokeInAir) return;
        this.resting = { sample: message.samples.at(-1) ?? [0, 0, 0, 0], at: performance.now() };
        this.newest = message.newest;
        this.unpublished = true;
        return;
      case 'stroke-end':
        this.hears(message);
        this.attempt(() => {
          const ended = studio.strokeInAir ? studio.endStroke() : undefined;
          this.resting = undefined;
          this.unpublished = false;
          if (!ended) {
            this.autosave?.note(this.said);
            return;
          }
          const { command, change, unshown } = ended;
          this.pace.end(studio.tools.current, studio.painting.mmPerPx, this.waterTime(command));
          this.changed(unshown, change.slab, change.flowed);
          this.waterClock.set(performance.now());
          this.keep(command);
          if (this.autosave?.snapshotOverdue) this.beginSnapshot();
          this.tellLater ??= setTimeout(() => this.postBench(), TELL_MS);
        });
        return;
      case 'clock':
        this.endWait();
        this.waterClock.pace = message.pace;
        this.waterClock.set(performance.now());
        this.postBench();
        return;
      case 'try':
        this.tryLook(message);
        return;
      case 'without': {
        const { without } = this.picture.options;
        this.look({ without: message.layers });
        this.colourLater(layerReach(studio.painting, [...without, ...message.layers]));
        return;
      }
      case 'light':
        this.picture.light = message.light;
        this.slab.light(message.light);
        this.relightAll();
        return;
      case 'slab-view':
        this.slabView = message;
        this.slab.look(message.width, message.height);
        return;
      case 'slab-shown':
        this.slab.shown();
        return;
      case 'allow':
        this.allowed = message.tubes && new Set(message.tubes);
        return;
      case 'paint':
        this.hears(message);
        this.autosave?.note(this.said);
        this.attempt(() => {
          try {
            studio.painting.bringPaint(ownPaintSchema.parse(message.paint));
          } catch (error) {
            throw new PainterError(error instanceof RangeError ? error.message : 'This paint cannot be used.');
          }
        });
        return;
    }
  }

  /** Brings what the stroke in the air has painted into the picture: once a turn, however many readings came. */
  private publishStroke(): void {
    const { studio } = this;
    if (this.unpublished && studio?.strokeInAir) {
      this.pace.work(() => {
        const rect = studio.publishStroke();
        if (studio.strokeOnSlab) this.slab.changed(rect);
        else {
          if (!isEmpty(rect)) this.atBrush = rect;
          this.changed(rect, noRect(), studio.time.takeFlowed());
        }
      });
    }
    this.unpublished = false;
  }

  /** @throws PainterError when a command uses a tube that the house rules do not allow */
  private checkTubes(command: Command): void {
    if (!this.allowed) return;
    const other = COMMANDS.tubesOf(command).find((id) => !this.allowed!.has(id));
    if (other) throw new PainterError(`By your house rules ${pigmentName(other)} is not for this painting.`);
  }

  /**
   * Lets water flow by the clock while the painter looks on. What has flowed becomes a `wait` of the journal before
   * anything else is done. In a stroke with water time passes by the readings of the pen, for a resting hand as well.
   */
  private flow(): void {
    const { studio } = this;
    const now = performance.now();
    if (!studio?.time.hasWater) {
      this.waterClock.set(now);
      if (studio) this.endWait();
      return;
    }
    if (studio.strokeInAir) {
      const { resting } = this;
      if (studio.strokesTakeTime && resting && now - resting.at > REST_MS) {
        const [t, ...rest] = resting.sample;
        this.resting = { sample: [t + now - resting.at, ...rest], at: now };
        studio.addSample(this.resting.sample);
        this.unpublished = true;
      }
      this.waterClock.set(now);
      this.flowLater();
      return;
    }
    // nor does time pass while something is painted again: what is done next may be to take it back
    if (this.waterClock.pace === 0 || this.looking || this.busyOpening) {
      this.waterClock.set(now);
      return;
    }
    const { wetTiles } = studio.time;
    const due = this.waterClock.due(now, wetTiles);
    let steps = 0;
    while (steps < due && performance.now() - now < FLOW_TURN_MS) {
      studio.time.advance(1);
      steps++;
    }
    this.waterClock.ran(steps, performance.now() - now, wetTiles);
    this.stale.add(studio.time.takeFlowed());
    if (steps < due) this.plan();
    if (!studio.time.hasWater) {
      this.lastChange = now;
      this.endWait();
      this.postBench();
    } else this.flowLater();
  }

  private flowLater(): void {
    this.flowTimer ??= setTimeout(() => {
      this.flowTimer = undefined;
      this.plan();
    }, FLOW_MS);
  }

  /** Writes down the time that has passed on wet paper. */
  private endWait(): void {
    const waited = this.studio?.endWait();
    if (!waited) return;
    this.changed(waited.change.rect);
    this.keep(waited.command);
  }

  /** How fast water goes in a stroke that is about to be made: a tool that lets no time pass has no need of it. */
  private strokePace(): number | undefined {
    const { studio } = this;
    return studio?.strokesTakeTime ? this.waterClock.strokePace(studio.time.wetTiles) : undefined;
  }

  /** Time that water took in a stroke, ms. */
  private waterTime({ samples, pace = 1 }: Extract<Command, { do: 'stroke' }>): number {
    const studio = this.studio!;
    if (!studio.strokesTakeTime) return 0;
    const seconds = (samples[samples.length - 1][0] - samples[0][0]) / 1000;
    return this.waterClock.cost(Flow.steps(seconds * pace), studio.time.wetTiles);
  }

  /** Recolours tiles in which water has moved, those that have changed most first, as far as there is time. */
  private colourWet(time: number, near?: PixelRect): void {
    const { studio } = this;
    if (!studio) return;
    const start = performance.now();
    for (const index of this.stale.mostChanged(near)) {
      this.colour(tileRect(studio.painting, index));
      if (performance.now() - start > time) break;
    }
  }

  /** Remembers up to where the hand has been heard. */
  private hears({ said }: Numbered<object>): void {
    this.said = said ?? this.said;
  }

  /** Does what a painter asked; what cannot be done is said, and changes nothing. */
  private attempt(work: () => void): void {
    try {
      work();
    } catch (error) {
      this.autosave?.note(this.said);
      if (error instanceof PainterError) {
        this.post({ say: 'refused', why: error.message });
        return;
      }
      // a fault of the engine: what it had begun is put back, and the painter can go on
      this.studio!.abandonStroke();
      this.resting = undefined;
      this.unpublished = false;
      this.relightAll();
      this.post({ say: 'refused', why: FAULT, fault: String(error) });
    }
  }

  /**
   * Sets the painting's clock forward by the time that has passed, where paint dries by it (acrylic). It stands still
   * while something that was taken back can be done again, so that this stays possible.
   */
  private tick(): void {
    const { studio } = this;
    const seconds = Math.round((performance.now() - this.clockSet) / 100) / 10;
    if (!studio || this.looking || seconds < 1) return;
    this.clockSet = performance.now();
    // where there is water, its clock goes for everything
    if (!studio.time.driesByTheClock || studio.timeline.canRedo || studio.time.hasWater) return;
    // a painter who went away comes back to what an hour has made of it
    const command: Command = { do: 'wait', seconds: Math.min(seconds, 3599) };
    this.changed(studio.apply(command).rect);
    this.keep(command);
    this.postBench();
  }

  /** Nothing else is done until something is there that comes in its own time. */
  private wait(work: Promise<void>): void {
    this.opening = work
      .catch((error: unknown) => {
        // on opening there is nothing to go back to
        this.broken = !this.opened;
        const why = error instanceof PainterError ? error.message : this.broken ? CANNOT_OPEN : FAULT;
        this.post(this.broken ? { say: 'failed', why } : { say: 'refused', why, fault: String(error) });
      })
      .finally(() => {
        this.opening = undefined;
        this.plan();
      });
  }

  private async open(id: string, session: number | undefined): Promise<void> {
    const record = await readPainting(id);
    if (!record) throw new PainterError('This painting is not on the rack of this browser.');
    const looking = session === undefined;
    this.looking = looking;
    const { studio, keeping, rest, undone, unworked, told, past } = await Keeping.open(
      record,
      {
        kept: (_, said) => this.post({ say: 'kept', at: Date.now(), said }),
        refused: (error) => this.post({ say: 'not-kept', why: notKeptSentence(error) }),
      },
      session,
    );
    const host = {
      studio: () => this.studio!,
      thumbnail: () => this.thumbnail(),
      post: this.post,
    };
    this.autosave = new Autosave(keeping, host, looking);
    await this.autosave.readFace(record.createdAt);
    this.setUp(record);
    this.adopt(studio);
    this.layOut();
    this.opened = true;
    if (told) this.post({ say: 'told', what: told });
    this.catchUp = new CatchUp(
      rest,
      (command) => {
        const change = keeping.redo(studio, command);
        if (change?.canvas) this.layOut();
        else if (change) this.changed(change.rect, change.slab, change.flowed);
      },
      (done, total) => this.post({ say: 'progress', of: 'opening', done, total }),
      () => {
        studio.timeline.adoptUndone(undone);
        if (!looking) void this.makeUndoReady(studio, keeping, past);
        this.readyFrom = performance.now();
        if (!looking) this.owed = [...unworked];
        this.owedSteps = { done: 0, total: this.owed.filter(isStep).length };
        const strokes = unworked.filter(({ say }) => say === 'stroke-end').length;
        if (strokes > 0 && !looking) this.post({ say: 'told', what: caughtUp(strokes) });
        this.colourLater(wholeRect(studio.painting));
        this.postBench();
      },
    );
    this.colourLater(wholeRect(studio.painting));
    this.pictureFirst = true;
    this.lastChange = performance.now();
    this.postBench();
  }

  /** Makes the last steps ready to be taken back: as they were kept, and what was not kept by painting it again beside. */
  private async makeUndoReady(studio: Studio, keeping: Keeping, past: Opening['past']): Promise<void> {
    this.past = past;
    while (await this.putBackStep(studio)) continue;
    this.readyUndo = new ReadyUndo(studio, keeping);
  }

  /** Waits until one step more is put back that was kept. @returns whether there was one */
  private async putBackStep(studio: Studio): Promise<boolean> {
    try {
      if (this.past && !(await this.past.next()).done) return true;
    } catch {
      studio.timeline.awaitNoMore(); // what cannot be read is painted again
    }
    this.past = undefined;
    return false;
  }

  /** What a painting's record says of how it is worked on. */
  private setUp({ palette, clock }: PaintingRecord): void {
    const { rules, tubes } = palette ?? {};
    this.waterClock.pace = clock ?? 1;
    this.allowed = rules?.onlyTheseTubes && tubes ? new Set(tubes) : undefined;
  }

  /** From now on the painting is this studio's. */
  private adopt(studio: Studio): void {
    this.studio = studio;
    const light = this.picture?.light;
    this.slab = new SlabPane(studio.slab);
    if (light) this.slab.light(light);
    if (this.slabView) this.slab.look(this.slabView.width, this.slabView.height);
  }

  private perform(command: Command): void {
    if (this.goesFar(command)) return;
    const change = this.studio!.apply(command);
    if (change.canvas) this.layOut();
    this.changed(change.rect, change.slab, change.flowed);
    this.keep(command);
    this.postBench();
  }

  // --- going far back

  private cancelGoingBack: (() => void) | undefined;

  /** Begins an undo or redo that has to paint things again. @returns whether it is one */
  private goesFar(command: Command): boolean {
    const way = command.do === 'undo' || command.do === 'redo' ? this.studio!.timeline.farWay(command.do) : undefined;
    if (!way || this.looking) return false;
    if (this.past && command.do === 'undo') {
      this.wait(this.putBackStep(this.studio!).then(() => this.attempt(() => this.perform(command))));
      return true;
    }
    if (command.do === 'undo' && this.readyUndo?.left) {
      this.finishReady(this.readyUndo, command);
      return true;
    }
    const { keeping } = this.autosave!;
    this.readyUndo?.stop();
    let cancelled = false;
    this.cancelGoingBack = () => (cancelled = true);
    this.wait(
      keeping.rebuild(way.target).then((found) => {
        const cancel = () => this.giveUpGoingBack();
        this.cancelGoingBack = cancel;
        this.catchUp = new CatchUp(
          found.rest,
          (step) => void found.studio.apply(step),
          (done, total) => this.post({ say: 'progress', of: 'undo', done, total }),
          () => {
            this.endGoingBack();
            this.arrive(found, way.undone, command);
          },
        );
        if (cancelled) cancel();
      }),
    );
    return true;
  }

  private endGoingBack(): void {
    this.catchUp = undefined;
    this.cancelGoingBack = undefined;
    this.post({ say: 'progress', of: 'undo', done: 0, total: 0 });
  }

  private giveUpGoingBack(): void {
    this.endGoingBack();
    this.autosave!.note(this.said);
  }

  /** The last steps are being made ready to be taken back: that is shorter than to begin anew. */
  private finishReady(ready: ReadyUndo, command: Command): void {
    this.cancelGoingBack = () => this.giveUpGoingBack();
    this.catchUp = new CatchUp(
      Array.from({ length: ready.left }, () => command),
      () => ready.paint(),
      (done, total) => this.post({ say: 'progress', of: 'undo', done, total }),
      () => {
        this.endGoingBack();
        ready.arrive();
        this.attempt(() => this.perform(command));
      },
    );
  }

  /** Puts a state that was painted again in the place of the present one. */
  private arrive(
    { studio, saved }: Rebuilding,
    undone: Parameters<Timeline['adoptUndone']>[0],
    command: Command,
  ): void {
    const { spec } = this.studio!.painting;
    studio.timeline.adoptUndone(undone);
    this.autosave!.keeping.snapshots.adopt(saved);
    this.adopt(studio);
    const now = studio.painting.spec;
    this.layOut(now.widthMm !== spec.widthMm || now.heightMm !== spec.heightMm);
    this.changed(wholeRect(studio.painting), wholeRect(studio.slab));
    this.colourLater(wholeRect(studio.painting));
    this.keep(command);
    this.postBench();
  }

  /** Shows a layer as it would look. It is no command, and gone with the next one. */
  private tryLook({ layer: id, opacity, adjust }: Extract<ToWorker, { say: 'try' }>): void {
    const layer = this.studio!.painting.layer(id);
    if (!layer) return;
    const look = { ...layer.look, ...(opacity !== undefined && { opacity }), ...(adjust && { adjust }) };
    this.look({ looks: new Map([[id, look]]) });
    this.relightAll();
  }

  private endTrial(): void {
    if (!this.trial) return;
    this.look({ looks: PLAIN_VIEW.looks });
    this.relightAll();
  }

  /** Whether a layer is shown as it would look. */
  private get trial(): boolean {
    return this.opened && this.picture.options.looks.size > 0;
  }

  private look(otherwise: Partial<ViewOptions>): void {
    this.picture.options = { ...this.picture.options, ...otherwise };
  }

  /** The picture of the painting as it is, whatever is looked at: for files and for the rack. */
  private plainly<T>(render: (picture: Picture, pyramid: Pyramid) => T): T {
    if (isPlain(this.picture.options)) return render(this.picture, this.pyramid);
    const picture = new Picture(this.studio!.painting);
    const pyramid = new Pyramid(picture);
    picture.light = this.picture.light;
    pyramid.update(picture.update(wholeRect(picture.painting), true));
    try {
      return render(picture, pyramid);
    } finally {
      pyramid.dispose();
      picture.dispose();
    }
  }

  private thumbnail(): Uint8Array<ArrayBuffer> {
    return this.plainly((picture, pyramid) => thumbnailPng(pyramid, picture.painting));
  }

  /** Lays the picture out for the canvas that is there, and tells the page of it when it is another. */
  private layOut(tell = true): void {
    const { painting, slab } = this.studio!;
    const { light, options } = this.picture ?? {};
    this.pyramid?.dispose();
    this.picture?.dispose();
    this.picture = new Picture(painting);
    if (light) this.picture.light = light;
    if (options) this.picture.options = options;
    this.pyramid = new Pyramid(this.picture);
    this.stale = new StaleTiles(painting);
    this.uncoloured = new Uncoloured(painting.width, painting.height);
    this.uncoloured.look(this.view?.view);
    this.warmed = { key: '', tiles: [] };
    if (!tell) return;
    this.post({
      say: 'opened',
      spec: painting.spec,
      width: painting.width,
      height: painting.height,
      slab: { widthMm: slab.spec.widthMm, heightMm: slab.spec.heightMm },
      isolated: typeof SharedArrayBuffer !== 'undefined' && painting.arena.memory.buffer instanceof SharedArrayBuffer,
    });
  }

  // --- the picture

  private changed(rect: PixelRect, slab = noRect(), flowed: ReadonlySet<number> = new Set()): void {
    this.slab.changed(slab);
    this.stale.add(flowed);
    if (flowed.size > 0) {
      this.lastChange = performance.now();
      this.autosave!.faceIsOld = true;
    }
    if (!isEmpty(slab)) this.lastChange = performance.now();
    if (isEmpty(rect)) return;
    this.lastChange = performance.now();
    this.autosave!.faceIsOld = true;
    // a whole painting is recoloured bit by bit; so is what changes many times before anyone can look at it
    if (this.busyOpening || (rect.right - rect.left) * (rect.bottom - rect.top) > 400_000) this.colourLater(rect);
    else this.colour(rect);
  }

  private colour(rect: PixelRect, inPassing = false): void {
    const lit = this.picture.update(rect, inPassing);
    this.pyramid.update(lit);
    if (this.view) growRect(this.dirtyView, rectInView(this.view.view, lit));
  }

  private colourLater(rect: PixelRect): void {
    this.uncoloured.add(rect);
  }

  private relightAll(): void {
    const { width, height } = this.studio!.painting;
    this.colourLater({ left: 0, top: 0, right: width, bottom: height });
  }

  /** Sends the part of the view that changed, when the page is ready for it. */
  private show(): void {
    this.asked = false;
    this.shownAt = performance.now();
    const frame = this.studio && this.slab.frame();
    if (frame) this.post(frame, [frame.data.buffer]);
    if (!this.view || !this.studio || this.framesOut >= FRAMES_AHEAD) return;
    const { view, serial, aid } = this.view;
    const r = this.dirtyView;
    if (!(r.right > r.left && r.bottom > r.top)) return;
    this.dirtyView = noRect();
    const data = drawView(this.pyramid, this.studio.painting.arena.u32, view, r, aid);
    this.framesOut++;
    this.post(
      {
        say: 'pixels',
        serial,
        x: r.left,
        y: r.top,
        width: r.right - r.left,
        height: r.bottom - r.top,
        data,
        whole: r.left === 0 && r.top === 0 && r.right === view.width && r.bottom === view.height,
        newest: this.newest,
      },
      [data.buffer],
    );
    this.newest = 0;
  }

  /** Colours what has not been coloured yet, as far as there is time. */
  private colourSome(start: number): void {
    while (this.uncoloured.length > 0 && performance.now() - start < SLICE_MS)
      this.colour(this.uncoloured.next()!, true);
  }

  private background(): void {
    const { studio, autosave } = this;
    if (!studio || !autosave) return;
    const start = performance.now();
    this.colourSome(start);
    if (this.uncoloured.length > 0) {
      this.plan();
      return;
    }
    // in a stroke this is done with every frame, and no more
    if (this.stale.size > 0 && !studio.strokeInAir) {
      this.colourWet(SLICE_MS);
      this.plan();
    }
    if (studio.strokeInAir || this.trial) return;
    if (this.cold) {
      this.cold = false;
      warmUp();
    }
    if (this.warmTiles(start)) return;
    if (performance.now() - this.clockSet > TICK_MS) {
      this.endWait();
      this.tick();
    }
    const quiet = performance.now() - this.lastChange;
    if (studio.time.hasWater && quiet > WAIT_QUIET_MS && performance.now() - this.wroteWait > TICK_MS) {
      this.wroteWait = performance.now();
      this.endWait();
    }
    if (autosave.snapshotDue(quiet)) this.beginSnapshot();
    if (isPlain(this.picture.options)) autosave.keepFace(quiet);
    if (this.readyUndo?.run(quiet, this.lastChange > this.readyFrom)) this.plan();
  }

  private beginSnapshot(): void {
    this.endWait();
    void this.autosave!.snapshot();
  }

  /** Prepares tiles in view for being painted on, while nothing else is to be done. @returns whether more are left */
  private warmTiles(start: number): boolean {
    const { studio, view } = this;
    if (!studio || !view) return false;
    const { painting } = studio;
    const key = `${painting.activeLayer} ${painting.order} ${view.serial}`;
    if (this.warmed.key !== key) {
      if (performance.now() - this.lastChange < WARM_QUIET_MS) return false;
      this.warmed = { key, tiles: painting.layers.length > 2 ? tilesInView(painting, view.view) : [] };
    }
    const { tiles } = this.warmed;
    while (tiles.length > 0 && performance.now() - start < SLICE_MS) this.picture.warm(tiles.pop()!);
    if (tiles.length > 0) this.plan();
    return tiles.length > 0;
  }

  private keep(command: Command): void {
    this.autosave!.keep(command, this.said);
  }

  // --- questions

  private async answer(id: number, question: Question): Promise<void> {
    try {
      const { studio, autosave, picture, slab } = this;
      if (!studio || !autosave) throw new PainterError('The painting is still being opened.');
      if (question.of === 'png') this.colourAll();
      const reply = await answerTo(id, question, {
        studio,
        keeping: autosave.keeping,
        picture,
        slab: slab.picture,
        plainly: (render) => this.plainly(render),
        thumbnail: () => this.thumbnail(),
        endWait: () => this.endWait(),
      });
      this.post(reply, reply.answer instanceof Uint8Array ? [reply.answer.buffer] : []);
    } catch (error) {
      this.post({ say: 'no-answer', id, why: error instanceof Error ? error.message : String(error) });
    }
  }

  private colourAll(): void {
    while (this.uncoloured.length > 0) this.colour(this.uncoloured.next()!, true);
    for (const index of this.stale.mostChanged()) this.colour(tileRect(this.studio!.painting, index));
  }

  private postBench(): void {
    clearTimeout(this.tellLater);
    this.tellLater = undefined;
    this.post({ say: 'bench', bench: benchState(this.studio!, this.pace, this.waterClock) });
  }
}
