/// <reference lib="webworker" />
import { EngineHost } from './host';
import type { ToWorker } from './protocol';

/** The engine's worker: nothing but the wire between the page and the host. */
declare const self: DedicatedWorkerGlobalScope;

const host = new EngineHost((message, transfer) => self.postMessage(message, transfer ?? []));
self.onmessage = (event: MessageEvent<ToWorker>) => host.receive(event.data);
