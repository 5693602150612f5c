import { PainterError } from '@/core/errors';
import type { z } from '@/core/schema';
import { busy, cutOff, type Mood } from '@/devices/mood';
import { BodyRefused, boundedBytes } from './boundedBody';

const MAX_MS = 60_000;

export const refuse = (why: string, status = 400): Response => Response.json({ why }, { status });
export const notThere = (): Response => refuse('That is not here any more.', 404);

/**
 * What a place outside answers to a file that is sent to it: what is said of the file stands in the address.
 * @param most bytes
 */
export async function answerToFile<T>(
  message: Request,
  mood: Mood,
  schema: z.ZodType<T>,
  most: number,
  take: (bytes: Uint8Array<ArrayBuffer>, said: T) => Promise<unknown>,
): Promise<Response> {
  if (mood === 'busy') return busy();
  const said = schema.safeParse(Object.fromEntries(new URL(message.url).searchParams));
  if (!said.success) {
    const [issue] = said.error.issues;
    return refuse(`"${issue.path.join('.')}" is not right (${issue.message}).`);
  }
  try {
    const taken = await take(await boundedBytes(message, most, MAX_MS), said.data);
    // it was taken in, and nobody heard of it: sent again it is the same
    return mood === 'cut' ? cutOff() : Response.json(taken, { status: 201 });
  } catch (error) {
    if (error instanceof BodyRefused) return refuse(error.message, error.status);
    if (error instanceof PainterError) return refuse(error.message, 422);
    throw error;
  }
}
