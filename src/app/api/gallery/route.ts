import { hangingSchema } from '@/devices/gallery/piece';
import { outside } from '@/devices/outside';
import { forOwnPages } from '../forOwnPages';
import { answerToFile } from '../outsideAnswer';

const MAX_BYTES = 12 * 2 ** 20;

/** The simulated gallery: what hangs there, the newest first, and how it behaves today. */
export const GET = forOwnPages(() => {
  const { pieces, mood } = outside().gallery;
  return Response.json({ pieces, mood });
});

/** Hangs a JPEG with its caption. */
export const POST = forOwnPages((message) => {
  const { gallery } = outside();
  return answerToFile(message, gallery.mood, hangingSchema, MAX_BYTES, (bytes, said) => gallery.hang(bytes, said));
});
