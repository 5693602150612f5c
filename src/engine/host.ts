import { PainterError } from '@/core/errors';
import { replyTo } from './answers';
import { Background } from './background';
import { Inbox } from './inbox';
import { handle, LOOKING } from './messages';
import { FAULT, type OpenPainting, type Surroundings } from './openPainting';
import { openPainting } from './opener';
import type { FromWorker, ToWorker } from './protocol';
import type { Question } from './questions';
import { Screen } from '@/engine/screen/screen';

/** Longest time for which strokes are worked off before what came of them is shown, ms. */
const TURN_MS = 14;
/** Time between frames that show nothing but how water goes on, ms: the time is better used for colouring. */
const CALM_FRAME_MS = 60;
/** How often it is looked whether there is anything to do, ms. */
const IDLE_MS = 1000;

const BROKEN = 'The engine has stopped. Everything that was painted before is kept: open the painting again.';
const CANNOT_OPEN = 'This painting could not be opened: what this browser has kept of it is damaged or does not fit.';

/**
 * Runs a studio for the page. Messages are worked off in order; after each turn the newest change is shown first,
 * and what is left of the time goes to the background: colouring the rest of the picture, and keeping.
 */
export class EngineHost {
  private open: OpenPainting | undefined;
  private readonly screen: Screen;
  private readonly inbox: Inbox;
  /** Set when the engine has come to a state that it cannot go on from. */
  private broken = false;
  /** What everything waits for. */
  private awaited: Promise<void> | undefined;
  private readonly channel = new MessageChannel();
  private turnPlanned = false;
  /** Whether the picture as it was kept is still to be shown, before what is owed goes on. */
  private pictureFirst = false;
  /** Whether the page has asked for anything since the last frame, and when that was made. */
  private asked = false;
  private shownAt = 0;
  private readonly background: Background;
  /** Questions that are answered once nothing is left to be done or shown. */
  private resting: number[] = [];

  constructor(private readonly post: (message: FromWorker, transfer?: Transferable[]) => void) {
    this.screen = new Screen(post);
    this.background = new Background(this.screen);
    this.inbox = new Inbox((done, total) => post({ say: 'progress', of: 'opening', done, total }));
    this.channel.port1.onmessage = () => this.turn();
    setInterval(() => this.plan(), IDLE_MS);
  }

  /** Takes a message from the page. */
  receive(message: ToWorker): void {
    this.inbox.add(message);
    this.plan();
  }

  private plan(): void {
    if (this.turnPlanned) return;
    this.turnPlanned = true;
    this.channel.port2.postMessage(0);
  }

  private turn(): void {
    this.turnPlanned = false;
    if (this.awaited || this.broken) return; // everything waits until the painting is there
    try {
      const start = performance.now();
      this.workOff(start);
      if (this.awaited) return;
      this.pictureFirst &&= !this.screen.isColoured;
      const { open } = this;
      if (open) {
        if (!(this.pictureFirst && this.screen.isLookedAt) && open.catchUp?.run(TURN_MS)) open.catchUp = undefined;
        if (open.simulation.flow(open.studio, open.looking || open.isBusy)) open.readOn();
      }
      this.show(start);
      const busy = open?.isBusy ?? false;
      if (!this.inbox.isEmpty || busy) this.plan();
      if (busy) this.screen.colourSome(performance.now());
      else if (this.inbox.isEmpty && open && this.background.work(open)) this.plan();
      if (!busy) this.answerAtRest();
    } catch (error) {
      this.broken = true;
      this.post({ say: 'failed', why: BROKEN });
      throw error;
    }
  }

  /** Works messages off, as many as there is time for. */
  private workOff(start: number): void {
    while (performance.now() - start < TURN_MS) {
      const message = this.inbox.next(this.open?.catchUp !== undefined);
      if (!message) return;
      this.asked ||= message.say !== 'shown';
      this.handle(message);
      if (this.awaited) return;
    }
  }

  private handle(message: ToWorker): void {
    const { open, screen } = this;
    const looking = message.say === 'ask' ? message.question.of === 'histogram' : LOOKING.includes(message.say);
    if (!looking) open?.tryLooks();
    switch (message.say) {
      case 'open':
        this.wait(this.begin(message.painting, message.session));
        return;
      case 'shown':
        screen.shown();
        return;
      case 'view':
        if (!open || open.rules.isNearEnough(message.view.zoom)) screen.look(message);
        return;
      case 'ask':
        if (message.question.of === 'rest') this.resting.push(message.id);
        else void this.answer(message.id, message.question);
        return;
      default:
        if (open) handle(open, message);
    }
  }

  /** Brings what was painted into the picture, and shows it when the page is ready for it. */
  private show(start: number): void {
    const { screen, open } = this;
    // what cannot be shown yet need not be coloured yet: one frame then does for several turns
    if (!screen.isAwaited) return;
    open?.publishStroke();
    // a turn in which water was stepped is late enough
    if (performance.now() - start < TURN_MS) open?.colourAtBrush();
    if (this.asked || start - this.shownAt > CALM_FRAME_MS) {
      this.asked = false;
      this.shownAt = performance.now();
      screen.show(open?.studio.strokeInAir ?? false);
    } else if (screen.hasChanged) open?.simulation.later();
  }

  private answerAtRest(): void {
    if (!this.inbox.isEmpty || !this.screen.isColoured || !this.screen.isShown) return;
    for (const id of this.resting.splice(0)) void this.answer(id, { of: 'rest' });
  }

  /** Nothing else is done until something is there that comes in its own time. */
  private wait(work: Promise<void>): void {
    this.awaited = work
      .catch((error: unknown) => {
        // on opening there is nothing to go back to
        this.broken = !this.open;
        const why = error instanceof PainterError ? error.message : this.broken ? CANNOT_OPEN : FAULT;
        this.post(this.broken ? { say: 'failed', why } : { say: 'refused', why, fault: String(error) });
      })
      .finally(() => {
        this.awaited = undefined;
        this.plan();
      });
  }

  private async begin(id: string, session: number | undefined): Promise<void> {
    const { screen, inbox, post } = this;
    const around: Surroundings = { screen, inbox, post, plan: () => this.plan(), wait: (work) => this.wait(work) };
    this.open = await openPainting(id, session, around);
    this.pictureFirst = true;
  }

  private async answer(id: number, question: Question): Promise<void> {
    let told = -1;
    const reply = await replyTo(id, question, this.open, (share) => {
      const percent = Math.floor(100 * share);
      if (percent > told) this.post({ say: 'answering', id, share });
      told = Math.max(told, percent);
    });
    const bytes = reply.say === 'answer' && reply.answer instanceof Uint8Array ? [reply.answer.buffer] : [];
    this.post(reply, bytes);
  }
}
