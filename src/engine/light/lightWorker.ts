/// <reference lib="webworker" />
import type { LightSeen, LightWanted } from './lightMessages';
import { lightAtFirst, lightInFull } from './seeLight';

/** The worker of light studies: what was asked for last, coarse at once, and in full when nothing newer has come. */
declare const self: DedicatedWorkerGlobalScope;

let newest: LightWanted | undefined;
let working = false;

self.onmessage = ({ data }: MessageEvent<LightWanted>) => {
  newest = data;
  if (!working) void work();
};

/** Lets what has come meanwhile be heard. */
const listen = () => new Promise((done) => setTimeout(done));
const show = (seen: LightSeen) => self.postMessage(seen, [seen.rgba.buffer]);

async function work(): Promise<void> {
  working = true;
  // all that has come already is one turn
  await listen();
  for (let wanted = newest; wanted; wanted = newest) {
    show(lightAtFirst(wanted));
    await listen();
    if (newest !== wanted) continue;
    show(lightInFull(wanted));
    await listen();
    if (newest === wanted) newest = undefined;
  }
  working = false;
}
