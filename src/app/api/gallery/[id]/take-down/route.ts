import { outside } from '@/devices/outside';
import { forOwnPages } from '../../../forOwnPages';

export const POST = forOwnPages((_, { id }) => {
  outside().gallery.takeDown(id);
  return new Response(null, { status: 204 });
});
