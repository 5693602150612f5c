import { PainterError } from '@/core/errors';
import { outside } from '@/devices/outside';
import { forOwnPages } from '../../../forOwnPages';
import { refuse } from '../../../outsideAnswer';

export const POST = forOwnPages((_, { id }) => {
  try {
    outside().shop.withdraw(id);
    return new Response(null, { status: 204 });
  } catch (error) {
    if (error instanceof PainterError) return refuse(error.message, 409);
    throw error;
  }
});
