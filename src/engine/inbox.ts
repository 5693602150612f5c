import type { ToWorker } from './protocol';

/** What need not wait until everything is painted that is being painted again. */
const AT_ANY_TIME: readonly ToWorker['say'][] = ['shown', 'view', 'slab-view', 'slab-shown', 'light', 'cancel'];

/** Whether a message ends a step of the painting. */
const isStep = ({ say }: ToWorker): boolean => say === 'stroke-end' || say === 'command';

/** Messages that are still to be worked off, in which order. */
export class Inbox {
  private readonly messages: ToWorker[] = [];
  /** What the hand said before the browser died, still to be made good; how many steps that were, and how many are done. */
  private owed: ToWorker[] = [];
  private owedSteps = { done: 0, total: 0 };

  /** @param tell says how much of what is owed is done */
  constructor(private readonly tell: (done: number, total: number) => void) {}

  add(message: ToWorker): void {
    this.messages.push(message);
  }

  get isEmpty(): boolean {
    return this.messages.length === 0;
  }

  /** Whether something is to be made good that the hand said before. */
  get owes(): boolean {
    return this.owed.length > 0;
  }

  /** What the hand said before the browser died comes before everything that it says now. */
  makeGood(messages: readonly ToWorker[]): void {
    this.owed = [...messages];
    this.owedSteps = { done: 0, total: messages.filter(isStep).length };
  }

  /**
   * The message that is to be worked off next; while something is painted again, only such as do not depend on it.
   * @param catchingUp whether commands are being painted again
   */
  next(catchingUp: boolean): ToWorker | undefined {
    if (!catchingUp && !this.owes) return this.messages.shift();
    const at = this.messages.findIndex(({ say }) => AT_ANY_TIME.includes(say));
    if (at >= 0) return this.messages.splice(at, 1)[0];
    if (catchingUp) return undefined;
    const message = this.owed.shift();
    if (message && isStep(message)) this.tell(++this.owedSteps.done, this.owedSteps.total);
    return message;
  }
}
