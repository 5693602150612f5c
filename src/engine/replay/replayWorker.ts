/// <reference lib="webworker" />
import { makeFilm } from './film';
import { SANS, SERIF } from './filmFrame';
import { Replayer } from './replayer';
import type { FromReplay, ToReplay } from './replayMessages';

/** The worker that plays a journal. */
declare const self: DedicatedWorkerGlobalScope;

const channel = new MessageChannel();
const waiting: (() => void)[] = [];
channel.port1.onmessage = () => waiting.shift()?.();
const later = (work: () => void, ms = 0) => {
  if (ms > 0) setTimeout(work, ms);
  else {
    waiting.push(work);
    channel.port2.postMessage(0);
  }
};

/** The letters of the room, for what is written in a film. */
const letters = (async () => {
  const faces = [
    [
      SERIF,
      new URL('@fontsource-variable/source-serif-4/files/source-serif-4-latin-wght-normal.woff2', import.meta.url),
    ],
    [SANS, new URL('@fontsource-variable/source-sans-3/files/source-sans-3-latin-wght-normal.woff2', import.meta.url)],
  ] as const;
  for (const [family, file] of faces) {
    const face = new FontFace(family.split('"')[1], `url(${file.href})`, { weight: '200 900' });
    self.fonts.add(await face.load());
  }
  // without them a film has the letters of the machine
})().catch(() => {});

const post = (message: FromReplay, transfer: Transferable[] = []) => self.postMessage(message, transfer);
const replayer = new Replayer(
  post,
  async (making, wanted) => {
    await letters;
    return makeFilm(making, wanted);
  },
  later,
);
self.onmessage = ({ data }: MessageEvent<ToReplay>) => replayer.receive(data);
