import { PainterError } from '@/core/errors';
import { outside } from '@/devices/outside';
import { forOwnPages } from '../../forOwnPages';
import { notThere, refuse } from '../../outsideAnswer';

export const GET = forOwnPages((_, { id }) => {
  const order = outside().shop.order(id);
  return order ? Response.json(order) : notThere();
});

/** Confirms an order. */
export const PUT = forOwnPages((_, { id }) => {
  const order = outside().shop.confirm(id);
  return order ? Response.json(order) : notThere();
});

/** Takes an order back. */
export const DELETE = forOwnPages((_, { id }) => {
  try {
    outside().shop.withdraw(id);
    return new Response(null, { status: 204 });
  } catch (error) {
    if (error instanceof PainterError) return refuse(error.message, 409);
    throw error;
  }
});
