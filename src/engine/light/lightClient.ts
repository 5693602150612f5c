import type { LightSeen, LightWanted } from './lightMessages';

/** The page's end of the light worker: boards that were asked for last, as they are seen. */
export class LightClient {
  private readonly worker: Worker;
  private serial = 0;

  /** @param seen what has become visible of the newest board */
  constructor(seen: (seen: LightSeen) => void) {
    this.worker = new Worker(new URL('./lightWorker.ts', import.meta.url), { type: 'module' });
    this.worker.onmessage = ({ data }: MessageEvent<LightSeen>) => data.serial === this.serial && seen(data);
  }

  look(wanted: Omit<LightWanted, 'serial'>): void {
    this.worker.postMessage({ ...wanted, serial: ++this.serial } satisfies LightWanted);
  }

  dispose(): void {
    this.worker.terminate();
  }
}
