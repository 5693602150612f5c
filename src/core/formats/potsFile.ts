/** Ready mixtures as a file to share (`.pots.json`): JSON, with the own paints that are in them. */
import { z } from '@/core/schema';
import { isTube } from '@/core/colour/pigments';
import type { Mixture } from '@/core/colour/mixture';
import type { OwnPaint } from '@/core/colour/ownPaints';
import { ownPaintSchema } from '@/core/journal/journalSchema';
import { mixtureSchema } from '@/core/schemaParts';
import { PainterError } from '@/core/errors';
import { sharedFile } from './sharedFile';

/** As many as stand on the bench. */
const MOST_POTS = 32;

export interface PotsFile {
  readonly name: string;
  readonly pots: readonly { readonly name: string; readonly mixture: Mixture }[];
  readonly paints: readonly OwnPaint[];
}

const file = sharedFile({
  format: 'stigmos-pots',
  version: 1,
  called: 'a set of pots',
  schema: z.object({
    name: z.string().trim().min(1).max(80),
    pots: z
      .array(z.strictObject({ name: z.string().max(60).default(''), mixture: mixtureSchema }))
      .min(1)
      .max(MOST_POTS),
    paints: z.array(ownPaintSchema).max(48).default([]),
  }),
  check({ pots, paints }) {
    const used = pots.flatMap(({ mixture }) => Object.keys(mixture));
    const unknown = used.find((id) => !isTube(id) && !paints.some((p) => p.id === id));
    if (unknown) throw new PainterError(`These pots have a tube “${unknown}” that is not known here.`);
  },
});

export const encodePots = ({ name, pots, paints }: PotsFile): string =>
  file.encode({ name, pots: [...pots], paints: paints as z.output<typeof ownPaintSchema>[] });

/** @throws PainterError with a sentence when it is no such file, or has tubes that nobody knows */
export const decodePots = (text: string): PotsFile => file.decode(text);
