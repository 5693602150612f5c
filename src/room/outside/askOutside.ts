import { PainterError } from '@/core/errors';
import { z } from '@/core/schema';

const whySchema = z.object({ why: z.string() });

export const PLACES = { 'print-shop': 'The print shop', gallery: 'The gallery' } as const;
export type OutsidePlace = keyof typeof PLACES;

/**
 * Asks a place outside.
 * @param path what comes after the place
 * @throws PainterError with a sentence where it refuses, has no time, does not answer, or breaks off half way
 */
export async function askOutside<T>(
  place: OutsidePlace,
  path: string,
  schema: z.ZodType<T>,
  init?: RequestInit,
): Promise<T> {
  const name = PLACES[place];
  let answer: Response;
  try {
    answer = await fetch(`/api/${place}${path}`, { cache: 'no-store', ...init });
  } catch {
    throw new PainterError(`${name} does not answer.`);
  }
  let told: unknown;
  try {
    told = answer.status === 204 ? undefined : await answer.json();
  } catch {
    throw new PainterError(`${name} was cut off half way. Send it again: what has come already is not taken twice.`);
  }
  const why = whySchema.safeParse(told).data?.why;
  if (!answer.ok) throw new PainterError(why ? `${name}: ${why}` : `${name} answers nothing that makes sense.`);
  const read = schema.safeParse(told);
  if (!read.success) throw new PainterError(`${name} answers nothing that makes sense.`);
  return read.data;
}

/** Sends a file to a place outside, with what is said of it. @throws PainterError as `askOutside` */
export const sendOutside = <T>(
  place: OutsidePlace,
  file: Uint8Array<ArrayBuffer>,
  said: Readonly<Record<string, string>>,
  schema: z.ZodType<T>,
): Promise<T> => askOutside(place, `?${new URLSearchParams(said)}`, schema, { method: 'POST', body: new Blob([file]) });
