/// <reference lib="webworker" />
import { ArchiveError } from '@/core/formats/archive';
import { FileDamaged } from '@/core/formats/readStigmosFile';
import { PainterError } from '@/core/errors';
import { filesIn } from './backup';
import { takeIn } from './intake';

/** A file to be put on the rack, and what came of it. Untrusted files are unpacked here, beside the page. */
export interface ToIntake {
  readonly file: Blob;
  readonly id: string;
  readonly again: boolean;
  /** Whether it is an archive of many. */
  readonly many?: boolean;
}
/** What can be done with a damaged file: it is opened without what is lost, or painted again from its strokes. */
export type Offer = 'rest' | 'painting again';
export type FromIntake =
  /** `paintings`: how many were taken in. */
  | { readonly say: 'done'; readonly paintings: number }
  /** `offers`: what can be done with it all the same. `fault`: what an engineer wants to know. */
  | { readonly say: 'refused'; readonly why: string; readonly offers?: Offer; readonly fault?: string };

declare const self: DedicatedWorkerGlobalScope;

self.onmessage = async ({ data: { file, id, again, many } }: MessageEvent<ToIntake>) => {
  const answer = (message: FromIntake) => self.postMessage(message);
  try {
    const bytes = new Uint8Array(await file.arrayBuffer());
    let paintings = 0;
    if (many) {
      for await (const one of filesIn(bytes)) await takeIn(one, paintings++ === 0 ? id : crypto.randomUUID(), false);
      if (paintings === 0) throw new PainterError('There is no painting in this archive.');
    } else {
      await takeIn(bytes, id, again);
      paintings = 1;
    }
    answer({ say: 'done', paintings });
  } catch (error) {
    if (error instanceof FileDamaged)
      answer({ say: 'refused', why: error.message, offers: error.strokes === undefined ? 'rest' : 'painting again' });
    else if (error instanceof ArchiveError) answer({ say: 'refused', why: 'This archive is damaged.' });
    else if (error instanceof PainterError) answer({ say: 'refused', why: error.message });
    else answer({ say: 'refused', why: 'This file could not be taken in.', fault: String(error) });
  }
};
