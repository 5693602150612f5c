import { moodSchema } from '@/devices/mood';
import { outside } from '@/devices/outside';
import { boundedText } from '../../boundedBody';
import { forOwnPages } from '../../forOwnPages';
import { notThere, refuse } from '../../outsideAnswer';

const MAX_BYTES = 1000;
const MAX_MS = 5000;

/** Says how a place outside behaves from now on. */
export const POST = forOwnPages(async (message, { place }) => {
  const { shop, gallery } = outside();
  const there = place === 'print-shop' ? shop : place === 'gallery' ? gallery : undefined;
  if (!there) return notThere();
  let said: unknown;
  try {
    said = JSON.parse(await boundedText(message, MAX_BYTES, MAX_MS));
  } catch {
    return refuse('That makes no sense.');
  }
  const read = moodSchema.safeParse(said);
  if (!read.success) return refuse('It can be open, busy, or cut.');
  there.mood = read.data.mood;
  return Response.json({ mood: there.mood });
});
