import type { LoggedRecord } from './handLog';
import { DirectHandStore, type HandStore } from './handStore';
import { writeHand } from '@/engine/keeping/shelf';

export type ToHandWorker =
  | { readonly say: 'write'; readonly key: string; readonly record: LoggedRecord }
  | { readonly say: 'remove'; readonly keys: readonly string[] };
/** What came of writing a record. */
export interface FromHandWorker {
  readonly key: string;
  readonly why?: string;
}

/**
 * A store in a thread of its own. A transaction of the storage ends only when its thread has time for it, and the page
 * is busy with the pen and the picture just when most is said: there, a record took up to half a second.
 */
export class WorkerHandStore implements HandStore {
  private readonly worker = new Worker(new URL('./handWorker.ts', import.meta.url), { type: 'module' });
  private readonly underWay = new Map<string, { record: LoggedRecord; done: (why?: string) => void }>();
  private closed = false;
  private instead: DirectHandStore | undefined;
  /** The page goes, and its workers with it: what has not been acknowledged is written from here as well. */
  private readonly leaving = () => {
    for (const [key, { record }] of this.underWay) void writeHand(key, record).catch(() => {});
  };

  constructor() {
    window.addEventListener('pagehide', this.leaving);
    this.worker.onmessage = ({ data: { key, why } }: MessageEvent<FromHandWorker>) => {
      this.underWay.get(key)?.done(why);
      this.underWay.delete(key);
      this.end();
    };
    // a worker that cannot be had: the page does it itself
    this.worker.onerror = () => {
      const instead = (this.instead ??= new DirectHandStore());
      for (const [key, { record, done }] of this.underWay) {
        instead.write(key, record).then(
          () => done(),
          (error) => done(String(error)),
        );
      }
      this.underWay.clear();
      this.end();
    };
  }

  write(key: string, record: LoggedRecord): Promise<void> {
    if (this.instead) return this.instead.write(key, record);
    return new Promise((resolve, reject) => {
      this.underWay.set(key, { record, done: (why) => (why === undefined ? resolve() : reject(new Error(why))) });
      this.worker.postMessage({ say: 'write', key, record } satisfies ToHandWorker);
    });
  }

  remove(keys: readonly string[]): void {
    if (this.instead) this.instead.remove(keys);
    else this.worker.postMessage({ say: 'remove', keys } satisfies ToHandWorker);
  }

  close(): void {
    this.closed = true;
    this.end();
  }

  private end(): void {
    if (!this.closed || this.underWay.size > 0) return;
    window.removeEventListener('pagehide', this.leaving);
    this.worker.terminate();
  }
}
