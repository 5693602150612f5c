import { z } from '@/core/schema';
import { PRINT_PAPERS, type PaperId } from '@/core/formats/print/printPapers';

/** What happens to an order, one after the other: it is offered, and goes on by itself once it is confirmed. */
export const ORDER_STATES = ['offered', 'confirmed', 'printing', 'drying', 'ready'] as const;
export type OrderState = (typeof ORDER_STATES)[number];

const paper = z.enum(Object.keys(PRINT_PAPERS) as [PaperId, ...PaperId[]]);
export const orderId = z.string().regex(/^[0-9a-zA-Z-]{8,64}$/);

/** What is said with a file that is to be printed. `id` is the sender's: a file that is sent twice is one order. */
export const wishSchema = z.strictObject({
  id: orderId,
  title: z.string().trim().min(1).max(200),
  paper,
  copies: z.coerce.number().int().min(1).max(100),
});
export type Wish = z.output<typeof wishSchema>;

/** An order, as the shop tells of it. Lengths in mm, price in euros for all copies. */
export const orderSchema = z.object({
  id: orderId,
  title: z.string(),
  paper,
  copies: z.number(),
  widthMm: z.number(),
  heightMm: z.number(),
  ppi: z.number(),
  bleedMm: z.number(),
  price: z.number(),
  state: z.enum(ORDER_STATES),
  says: z.array(z.string()),
});
export type Order = z.output<typeof orderSchema>;
