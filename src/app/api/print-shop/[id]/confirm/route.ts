import { outside } from '@/devices/outside';
import { forOwnPages } from '../../../forOwnPages';
import { notThere } from '../../../outsideAnswer';

export const POST = forOwnPages((_, { id }) => {
  const order = outside().shop.confirm(id);
  return order ? Response.json(order) : notThere();
});
