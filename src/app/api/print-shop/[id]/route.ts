import { outside } from '@/devices/outside';
import { forOwnPages } from '../../forOwnPages';
import { notThere } from '../../outsideAnswer';

export const GET = forOwnPages((_, { id }) => {
  const order = outside().shop.order(id);
  return order ? Response.json(order) : notThere();
});
