import { PainterError } from '@/core/errors';
import type { FromReplay, ToReplay } from './replayMessages';

/** What is made of a whole journal. */
export type MadeOfJournal = Extract<FromReplay, { say: 'film' | 'steps' | 'again' }>;

/** The page's end of the worker that plays a journal. */
export class ReplayClient {
  private readonly worker: Worker;
  private waiting: { resolve: (made: MadeOfJournal | undefined) => void; reject: (error: Error) => void } | undefined;

  /** @param told what it tells without being asked */
  constructor(private readonly told: (message: FromReplay) => void) {
    this.worker = new Worker(new URL('./replayWorker.ts', import.meta.url), { type: 'module' });
    this.worker.onmessage = ({ data }: MessageEvent<FromReplay>) => this.receive(data);
    this.worker.onerror = () =>
      this.receive({ say: 'failed', why: 'Playing has stopped: close it and open it again.' });
  }

  say(message: ToReplay): void {
    this.worker.postMessage(message);
  }

  /**
   * Has a film, steps or a larger painting made; one at a time.
   * @returns undefined where it was given up
   * @throws PainterError with a sentence when it cannot be made
   */
  make(message: Extract<ToReplay, { say: 'film' | 'steps' | 'again' }>): Promise<MadeOfJournal | undefined> {
    if (this.waiting) return Promise.reject(new PainterError('Something else is being made.'));
    return new Promise((resolve, reject) => {
      this.waiting = { resolve, reject };
      this.say(message);
    });
  }

  private receive(message: FromReplay): void {
    const { waiting } = this;
    switch (message.say) {
      case 'film':
      case 'steps':
      case 'again':
        waiting?.resolve(message);
        break;
      case 'given-up':
        waiting?.resolve(undefined);
        break;
      case 'not-made':
      case 'failed':
        waiting?.reject(new PainterError(message.why));
        break;
      default:
        this.told(message);
        return;
    }
    this.waiting = undefined;
    this.told(message);
  }

  close(): void {
    this.worker.terminate();
    this.waiting?.resolve(undefined);
  }
}
