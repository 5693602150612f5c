import { outside } from '@/devices/outside';
import { wishSchema } from '@/devices/printShop/order';
import { forOwnPages } from '../forOwnPages';
import { answerToFile } from '../outsideAnswer';

const MAX_BYTES = 128 * 2 ** 20;

/** The simulated print shop: its orders, the newest first, and how it behaves today. */
export const GET = forOwnPages(() => {
  const { orders, mood } = outside().shop;
  return Response.json({ orders, mood });
});

/** Takes a PDF or a PNG in: answers with an order that is not confirmed yet, or with why it cannot be printed. */
export const POST = forOwnPages((message) => {
  const { shop } = outside();
  return answerToFile(message, shop.mood, wishSchema, MAX_BYTES, (bytes, wish) => shop.take(bytes, wish));
});
