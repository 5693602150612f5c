/// <reference lib="webworker" />
import { DirectHandStore } from './handStore';
import type { FromHandWorker, ToHandWorker } from './handThread';

/** The worker of the hand's log: nothing but the wire between the page and a store. */
declare const self: DedicatedWorkerGlobalScope;

const store = new DirectHandStore();
self.onmessage = ({ data }: MessageEvent<ToHandWorker>) => {
  if (data.say === 'remove') {
    store.remove(data.keys);
    return;
  }
  const { key } = data;
  store.write(key, data.record).then(
    () => self.postMessage({ key } satisfies FromHandWorker),
    (error: unknown) => self.postMessage({ key, why: String(error) } satisfies FromHandWorker),
  );
};
