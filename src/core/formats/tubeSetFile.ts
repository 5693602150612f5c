/** A set of tubes as a file to share: JSON, with the own paints that it needs. */
import { z } from '@/core/schema';
import { isTube } from '@/core/colour/pigments';
import type { OwnPaint } from '@/core/colour/ownPaints';
import { ownPaintSchema } from '@/core/journal/journalSchema';
import { PainterError } from '@/core/errors';

const MOST_TUBES = 60;

const schema = z.strictObject({
  format: z.literal('stigmos-tubes'),
  version: z.literal(1),
  name: z.string().trim().min(1).max(80),
  note: z.string().max(2000).default(''),
  tubes: z.array(z.string().max(40)).min(1).max(MOST_TUBES),
  paints: z.array(ownPaintSchema).max(MOST_TUBES).default([]),
});

export interface TubeSetFile {
  readonly name: string;
  readonly note: string;
  readonly tubes: readonly string[];
  readonly paints: readonly OwnPaint[];
}

export const encodeTubeSet = ({ name, note, tubes, paints }: TubeSetFile): string =>
  JSON.stringify({ format: 'stigmos-tubes', version: 1, name, note, tubes, paints }, null, 1) + '\n';

/** @throws PainterError with a sentence when it is no such file, or has tubes that nobody knows */
export function decodeTubeSet(text: string): TubeSetFile {
  if (text.length > 4 * 2 ** 20) throw new PainterError('This file is too large for a set of tubes.');
  let data: unknown;
  try {
    data = JSON.parse(text);
  } catch {
    throw new PainterError('This is no set of tubes, or the file is damaged.');
  }
  if (typeof data !== 'object' || data === null || !('format' in data) || data.format !== 'stigmos-tubes') {
    throw new PainterError('This is no set of tubes.');
  }
  const read = schema.safeParse(data);
  if (!read.success) {
    const [issue] = read.error.issues;
    const where = [...issue.path, ...(issue.code === 'unrecognized_keys' ? issue.keys.slice(0, 1) : [])].join('.');
    const why = issue.code === 'unrecognized_keys' ? 'does not belong there' : 'is not right';
    throw new PainterError(`This set of tubes cannot be read: "${where}" ${why}.`);
  }
  const { name, note, tubes, paints } = read.data;
  const unknown = tubes.find((id) => !isTube(id) && !paints.some((p) => p.id === id));
  if (unknown) throw new PainterError(`This set has a tube “${unknown}” that is not known here.`);
  return { name, note, tubes: [...new Set(tubes)], paints };
}
