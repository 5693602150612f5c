/** A set of tubes as a file to share: JSON, with the own paints that it needs. */
import { z } from '@/core/schema';
import { isTube } from '@/core/colour/pigments';
import type { OwnPaint } from '@/core/colour/ownPaints';
import { ownPaintSchema } from '@/core/journal/journalSchema';
import { PainterError } from '@/core/errors';
import { sharedFile } from './sharedFile';

const MOST_TUBES = 60;

export interface TubeSetFile {
  readonly name: string;
  readonly note: string;
  readonly tubes: readonly string[];
  readonly paints: readonly OwnPaint[];
}

const file = sharedFile({
  format: 'stigmos-tubes',
  version: 1,
  called: 'a set of tubes',
  schema: z.object({
    name: z.string().trim().min(1).max(80),
    note: z.string().max(2000).default(''),
    tubes: z.array(z.string().max(40)).min(1).max(MOST_TUBES),
    paints: z.array(ownPaintSchema).max(MOST_TUBES).default([]),
  }),
  check({ tubes, paints }) {
    const unknown = tubes.find((id) => !isTube(id) && !paints.some((p) => p.id === id));
    if (unknown) throw new PainterError(`This set has a tube “${unknown}” that is not known here.`);
  },
});

export const encodeTubeSet = ({ name, note, tubes, paints }: TubeSetFile): string =>
  file.encode({ name, note, tubes: [...tubes], paints: paints as z.output<typeof ownPaintSchema>[] });

/** @throws PainterError with a sentence when it is no such file, or has tubes that nobody knows */
export function decodeTubeSet(text: string): TubeSetFile {
  const { tubes, ...rest } = file.decode(text);
  return { ...rest, tubes: [...new Set(tubes)] };
}
