import { isEmpty, noRect, type PixelRect } from '@/core/film/pixelRect';
import { noChange, type Change } from '@/core/commands/change';
import { wholeRect } from '@/core/film/tilesIn';
import type { Command } from '@/core/commands/commands';
import { PainterError } from '@/core/errors';
import type { Studio } from '@/core/journal/studio';
import type { Autosave } from '@/engine/keeping/autosave';
import { benchState } from './benchState';
import type { CatchUp } from '@/engine/undo/catchUp';
import { GoingBack } from '@/engine/undo/goingBack';
import { HouseRules } from './houseRules';
import type { Inbox } from './inbox';
import type { Said } from '@/engine/keeping/journalStore';
import { Pace } from '@/engine/time/pace';
import type { FromWorker } from './protocol';
import type { Screen } from '@/engine/screen/screen';
import { Simulation } from '@/engine/time/simulation';

/** Time for recolouring what water has changed before a frame of a stroke is shown, ms. */
const WET_MS = 4;
/** Time after a stroke until the page is told what the tools and layers are like now: its last frame goes first, ms. */
const TELL_MS = 30;

export const FAULT = 'Something went wrong there, and it has been left out. The painting is as it was before.';

/** What a host lends to the painting that is open. */
export interface Surroundings {
  readonly screen: Screen;
  readonly inbox: Inbox;
  readonly post: (message: FromWorker, transfer?: Transferable[]) => void;
  /** Another turn is wanted. */
  readonly plan: () => void;
  /** Nothing else is done until this is there. */
  readonly wait: (work: Promise<void>) => void;
}

/** The painting that is open: its studio, and what happens around every change to it. */
export class OpenPainting {
  readonly simulation: Simulation;
  readonly goingBack: GoingBack;
  readonly rules = new HouseRules(() => this.studio.painting.ledger);
  readonly pace = new Pace();
  /** What is being painted again: on opening, or to go far back. */
  catchUp: CatchUp | undefined;
  /** The last message of the hand that has been worked off. */
  said: Said | undefined;
  lastChange = performance.now();
  /** What the stroke in the air painted last; and whether readings of it are not in the picture yet. */
  private atBrush = noRect();
  private unpublished = false;
  private tellLater: ReturnType<typeof setTimeout> | undefined;

  /** @param looking whether it is only looked at: another tab paints on it */
  constructor(
    private present: Studio,
    readonly autosave: Autosave,
    readonly looking: boolean,
    readonly around: Surroundings,
  ) {
    const keep = (command: Command) => this.keep(command);
    this.simulation = new Simulation({
      changed: (change) => this.changed({ ...noChange(), ...change }),
      flowed: (tiles) => around.screen.flowed(tiles),
      keep,
      tell: () => this.tell(),
      plan: around.plan,
      dried: () => (this.lastChange = performance.now()),
    });
    this.goingBack = new GoingBack({
      studio: () => this.studio,
      keeping: () => autosave.keeping,
      post: around.post,
      wait: around.wait,
      catchUp: (work) => (this.catchUp = work),
      attempt: (command) => this.attempt(() => this.perform(command)),
      cancelled: () => autosave.note(this.said),
      arrive: ({ studio, saved }, undone, command) => {
        const { spec } = this.studio.painting;
        studio.timeline.adoptUndone(undone);
        autosave.keeping.snapshots.adopt(saved);
        this.present = studio;
        around.screen.adopt(studio);
        const now = studio.painting.spec;
        this.layOut(now.widthMm !== spec.widthMm || now.heightMm !== spec.heightMm);
        const rect = wholeRect(studio.painting);
        this.changed({ ...noChange(), rect, slab: wholeRect(studio.slab) });
        around.screen.colourLater(rect);
        keep(command);
        this.tell();
      },
    });
    around.screen.adopt(present);
    this.layOut();
  }

  get studio(): Studio {
    return this.present;
  }
  get screen(): Screen {
    return this.around.screen;
  }

  /** Whether something is painted again, before which nothing new is begun. */
  get isBusy(): boolean {
    return this.catchUp !== undefined || this.around.inbox.owes;
  }

  /** Shows the canvas that is there, and tells the page of it when it is another. */
  layOut(tell = true): void {
    const { painting, slab } = this.studio;
    this.screen.layOut(painting);
    if (!tell) return;
    const { spec, width, height, arena } = painting;
    const isolated = typeof SharedArrayBuffer !== 'undefined' && arena.memory.buffer instanceof SharedArrayBuffer;
    const { widthMm, heightMm } = slab.spec;
    this.around.post({ say: 'opened', spec, width, height, slab: { widthMm, heightMm }, isolated });
  }

  /** Brings a change into the picture. */
  changed({ rect, slab, flowed, canvas }: Change): void {
    if (canvas) this.layOut();
    const { screen } = this;
    screen.slab.changed(slab);
    screen.flowed(flowed);
    const paint = !isEmpty(rect) || flowed.size > 0;
    if (paint || !isEmpty(slab)) this.lastChange = performance.now();
    if (paint) this.autosave.faceIsOld = true;
    screen.changed(rect, this.isBusy);
  }

  /** Writes a command down. */
  keep(command: Command): void {
    this.autosave.keep(command, this.said);
  }

  /** Does a command, shows what it changed, and keeps it. @throws PainterError when it cannot be done */
  perform(command: Command): void {
    if (!this.looking && this.goingBack.goesFar(command)) return;
    this.changed(this.studio.apply(command));
    this.keep(command);
    this.tell();
  }

  /** Does what a painter asked; what cannot be done is said, and changes nothing. */
  attempt(work: () => void): void {
    try {
      work();
    } catch (error) {
      this.autosave.note(this.said);
      if (error instanceof PainterError) {
        this.around.post({ say: 'refused', why: error.message });
        return;
      }
      // a fault of the engine: what it had begun is put back, and the painter can go on
      this.studio.abandonStroke();
      this.simulation.read(undefined);
      this.unpublished = false;
      this.screen.colourLater(wholeRect(this.studio.painting));
      this.around.post({ say: 'refused', why: FAULT, fault: String(error) });
    }
  }

  /** Tells the page what the tools and layers are like. */
  tell(): void {
    clearTimeout(this.tellLater);
    this.tellLater = undefined;
    this.around.post({ say: 'bench', bench: benchState(this.studio, this.pace, this.simulation.clock) });
  }

  /** Writes down the time that has passed on wet paper. */
  endWait(): void {
    this.simulation.endWait(this.studio);
  }

  // --- a stroke

  /** Readings have come that are not in the picture yet. */
  readOn(): void {
    this.unpublished = true;
  }

  /** Brings what the stroke in the air has painted into the picture: once a turn, however many readings came. */
  publishStroke(): void {
    const { studio, screen } = this;
    if (this.unpublished && studio.strokeInAir) {
      this.pace.work(() => {
        const rect = studio.publishStroke();
        if (studio.strokeOnSlab) screen.slab.changed(rect);
        else {
          if (!isEmpty(rect)) this.atBrush = rect;
          this.changed({ ...noChange(), rect, flowed: studio.time.takeFlowed() });
        }
      });
    }
    this.unpublished = false;
  }

  /** Recolours what water has changed around the brush. */
  colourAtBrush(): void {
    if (this.studio.strokeInAir) this.screen.colourWet(WET_MS, this.atBrush);
  }

  endStroke(): void {
    const { studio } = this;
    const ended = studio.strokeInAir ? studio.endStroke() : undefined;
    this.simulation.read(undefined);
    this.unpublished = false;
    if (!ended) {
      this.autosave.note(this.said);
      return;
    }
    const { command, change, unshown } = ended;
    this.pace.end(studio.tools.current, studio.painting.mmPerPx, this.simulation.waterTime(studio, command));
    this.changed({ ...change, rect: unshown });
    this.simulation.clock.set(performance.now());
    this.keep(command);
    if (this.autosave.snapshotOverdue) this.beginSnapshot();
    this.tellLater ??= setTimeout(() => this.tell(), TELL_MS);
  }

  beginSnapshot(): void {
    this.endWait();
    void this.autosave.snapshot();
  }

  // --- how it is looked at

  /** Leaves layers out of the picture, until it is said that none is. @param reach cells of layers by id */
  leaveOut(layers: readonly string[], reach: (ids: readonly string[]) => PixelRect): void {
    const { screen } = this;
    const { without } = screen.options;
    screen.options = { ...screen.options, without: layers };
    const rect = reach([...without, ...layers]);
    if (!isEmpty(rect)) screen.colourLater(rect);
  }

  /** Looks at layers as they would look; none where left out. */
  tryLooks(looks: Screen['options']['looks'] = new Map()): void {
    const { screen } = this;
    if (looks.size === 0 && !screen.tries) return;
    screen.options = { ...screen.options, looks };
    screen.colourLater(wholeRect(this.studio.painting));
  }
}
