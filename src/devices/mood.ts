import { z } from '@/core/schema';

/** How a place outside behaves today: for whoever wants to see what happens when it does not go well. */
export const MOODS = ['open', 'busy', 'cut'] as const;
export type Mood = (typeof MOODS)[number];
export const moodSchema = z.strictObject({ mood: z.enum(MOODS) });

/** What is told when a place has no time. */
export const BUSY = 'There is no time for you just now: try again in a moment.';
const RETRY_S = 5;

export const busy = (): Response =>
  Response.json({ why: BUSY }, { status: 503, headers: { 'retry-after': String(RETRY_S) } });

/** An answer that breaks off half way, as when a line is cut. */
export function cutOff(): Response {
  const half = new TextEncoder().encode('{"id":"');
  return new Response(
    new ReadableStream({
      start(controller) {
        controller.enqueue(half);
        setTimeout(() => controller.error(new Error('The line was cut.')), 50);
      },
    }),
    { status: 201, headers: { 'content-type': 'application/json' } },
  );
}
