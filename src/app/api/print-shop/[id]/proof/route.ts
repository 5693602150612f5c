import { outside } from '@/devices/outside';
import { forOwnPages } from '../../../forOwnPages';
import { notThere } from '../../../outsideAnswer';

/** How an order will look on its paper, PNG. */
export const GET = forOwnPages((_, { id }) => {
  const proof = outside().shop.proof(id);
  return proof ? new Response(proof, { headers: { 'content-type': 'image/png' } }) : notThere();
});
