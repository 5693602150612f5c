import { PainterError } from '@/core/errors';
import type { FromIntake, Offer, ToIntake } from '@/engine/files/intakeWorker';
import { readPainting } from '@/engine/keeping/shelf';

/** The painting that hangs there at first, and the series that can be hung beside it. */
export const DEMO_ID = 'low-tide';
export const DEMO_SERIES = [
  'evening',
  'layered',
  'alla-prima',
  'glazed',
  'knife',
  'ink-and-wash',
  'wet-sky',
  'mussel',
  'heron',
  'charcoal',
] as const;

export const newId = (): string => crypto.randomUUID();

/** A file that is not taken in as it is, and what can be done with it all the same. */
export class FileRefused extends PainterError {
  constructor(
    message: string,
    readonly offers?: Offer,
  ) {
    super(message);
  }
}

/**
 * Puts the painting of a file on the rack. Nothing is listed until everything is stored.
 * @param again takes what is left of a damaged file
 * @returns its id
 * @throws FileRefused with a sentence when the file is no painting, is damaged, or there is no room for it.
 */
export async function hangFile(file: Blob, id: string = newId(), again = false): Promise<string> {
  await intake({ file, id, again });
  return id;
}

/** Puts all paintings of an archive on the rack. @returns how many @throws FileRefused */
export const hangAll = (file: Blob): Promise<number> => intake({ file, id: newId(), again: false, many: true });

/** Lets a worker take a file in. @returns how many paintings it was */
function intake(message: ToIntake): Promise<number> {
  const worker = new Worker(new URL('../../engine/files/intakeWorker.ts', import.meta.url), { type: 'module' });
  return new Promise<number>((resolve, reject) => {
    worker.onmessage = ({ data }: MessageEvent<FromIntake>) => {
      if (data.say === 'done') resolve(data.paintings);
      else {
        if (data.fault) reportError(new Error(data.fault));
        reject(new FileRefused(data.why, data.offers));
      }
    };
    worker.onerror = () => reject(new FileRefused('This file could not be taken in.'));
    worker.postMessage(message);
  }).finally(() => worker.terminate());
}

/** Hangs a demo painting on the rack, unless it is there already. */
export async function hangDemo(id: string = DEMO_ID): Promise<void> {
  if (await readPainting(id)) return;
  const answer = await fetch(`/demo/${id}.stigmos`);
  if (!answer.ok) throw new PainterError('The demo painting is missing from this installation.');
  await hangFile(await answer.blob(), id);
}
