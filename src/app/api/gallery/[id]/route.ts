import { outside } from '@/devices/outside';
import { forOwnPages } from '../../forOwnPages';
import { notThere } from '../../outsideAnswer';

/** A picture on the wall, JPEG. */
export const GET = forOwnPages((_, { id }) => {
  const picture = outside().gallery.picture(id);
  return picture ? new Response(picture, { headers: { 'content-type': 'image/jpeg' } }) : notThere();
});
