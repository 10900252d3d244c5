import { mailDirections, mailKinds } from '@yosegi/core/buying';
import { z } from 'zod';
import { Decimal, Id } from './common.ts';

export const Mail = z.object({
  id: Id,
  orderId: Id,
  order: z.string(),
  supplier: z.string(),
  direction: z.enum(mailDirections),
  kind: z.enum(mailKinds),
  at: z.string(),
  subject: z.string(),
  content: z.string(),
  /** The receipt that an announced delivery became. */
  received: z.string().nullable(),
});
export type Mail = z.infer<typeof Mail>;

/** A delivery that its supplier has announced: what the receipt begins with. */
export const Announced = z.object({
  mailId: Id,
  deliveryNote: z.string(),
  lines: z.array(
    z.object({
      lineId: Id,
      quantity: Decimal,
      lot: z.string().nullable(),
      bestBefore: z.string().nullable(),
      serials: z.array(z.string()),
    }),
  ),
});
export type Announced = z.infer<typeof Announced>;
