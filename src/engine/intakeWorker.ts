/// <reference lib="webworker" />
import { PaintDamaged } from '@/core/formats/readStigmosFile';
import { PainterError } from '@/core/journal/errors';
import { takeIn } from './intake';

/** A file to be put on the rack, and what came of it. Untrusted files are unpacked here, beside the page. */
export interface ToIntake {
  readonly file: Blob;
  readonly id: string;
  readonly again: boolean;
}
export type FromIntake =
  | { readonly say: 'done' }
  /** `strokes`: it can be painted again from so many. `fault`: what an engineer wants to know. */
  | { readonly say: 'refused'; readonly why: string; readonly strokes?: number; readonly fault?: string };

declare const self: DedicatedWorkerGlobalScope;

self.onmessage = async ({ data: { file, id, again } }: MessageEvent<ToIntake>) => {
  const answer = (message: FromIntake) => self.postMessage(message);
  try {
    await takeIn(new Uint8Array(await file.arrayBuffer()), id, again);
    answer({ say: 'done' });
  } catch (error) {
    if (error instanceof PaintDamaged) answer({ say: 'refused', why: error.message, strokes: error.strokes });
    else if (error instanceof PainterError) answer({ say: 'refused', why: error.message });
    else answer({ say: 'refused', why: 'This file could not be taken in.', fault: String(error) });
  }
};
