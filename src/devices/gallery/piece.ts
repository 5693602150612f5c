import { z } from '@/core/schema';

const pieceId = z.string().regex(/^[0-9a-zA-Z-]{8,64}$/);

/** What is said with a picture that is to be hung. `id` is the sender's: a picture that is sent twice hangs once. */
export const hangingSchema = z.strictObject({
  id: pieceId,
  title: z.string().trim().min(1).max(200),
  caption: z.string().trim().max(600),
});
export type Hanging = z.output<typeof hangingSchema>;

/** A picture on the wall, as the gallery tells of it. */
export const pieceSchema = hangingSchema.extend({ width: z.number(), height: z.number() });
export type Piece = z.output<typeof pieceSchema>;
