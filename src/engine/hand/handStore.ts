import type { LoggedRecord } from './handLog';
import { removeHand, writeHand } from '@/engine/keeping/shelf';

/** Where the log of the hand is put. */
export interface HandStore {
  /** Resolves when the record is stored. Rejects when the storage refuses. */
  write(key: string, record: LoggedRecord): Promise<void>;
  /** Takes records away that are no longer needed, when nothing else is to be done. */
  remove(keys: readonly string[]): void;
  /** Nothing more is to be written or taken away. Records that are on their way are seen to. */
  close(): void;
}

/** While the hand paints, the storage is for what it says, ms. */
const QUIET_MS = 1500;

/** A store of this thread. */
export class DirectHandStore implements HandStore {
  private old: string[] = [];
  private timer: ReturnType<typeof setTimeout> | undefined;

  /** @param quietMs quiet time after which records are taken away, ms */
  constructor(private readonly quietMs = QUIET_MS) {}

  async write(key: string, record: LoggedRecord): Promise<void> {
    if (this.old.length > 0) this.sweepLater();
    await writeHand(key, record);
  }

  remove(keys: readonly string[]): void {
    this.old.push(...keys);
    this.sweepLater();
  }

  close(): void {
    clearTimeout(this.timer);
  }

  private sweepLater(): void {
    clearTimeout(this.timer);
    this.timer = setTimeout(() => {
      // one that stays behind is known to be done, and goes with the next session
      for (const key of this.old.splice(0)) void removeHand(key).catch(() => {});
    }, this.quietMs);
  }
}
