/// <reference lib="webworker" />
import { packAll } from './backup';

/** How packing goes, and what comes of it. */
export type FromBackup =
  | { readonly say: 'progress'; readonly done: number; readonly total: number }
  | { readonly say: 'done'; readonly archive: Blob }
  | { readonly say: 'failed'; readonly fault: string };

declare const self: DedicatedWorkerGlobalScope;

const answer = (message: FromBackup) => self.postMessage(message);
self.onmessage = () => {
  packAll((done, total) => answer({ say: 'progress', done, total })).then(
    (archive) => answer({ say: 'done', archive }),
    (error: unknown) => answer({ say: 'failed', fault: String(error) }),
  );
};
