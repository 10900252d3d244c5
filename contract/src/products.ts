import { z } from 'zod';
import { Decimal, PageQuery, pageOf, route } from './common.ts';
import { DefinitionFault, DefinitionRow } from './definitions.ts';

export const ProductSort = z.enum(['worry', 'code', 'name', 'unitCost', 'sellPrice', 'margin', 'canMakeNow']);
export type ProductSort = z.infer<typeof ProductSort>;

/** A product with what it costs, earns and what is wrong with it: the revision in use, or the newest while none is. */
export const ProductRow = DefinitionRow.extend({
  unitCost: Decimal.nullable(),
  /** Some cost in it is not known: it costs at least so much, and no margin can be told. */
  isAtLeast: z.boolean(),
  sellPrice: Decimal.nullable(),
  /** Of the price, in percent. */
  margin: Decimal.nullable(),
  faults: z.array(DefinitionFault),
  /** What it is made of by cost, the dearest first; without a code it is labour and charges. */
  pieces: z.array(z.object({ code: z.string().nullable(), name: z.string(), cost: Decimal })),
});
export type ProductRow = z.infer<typeof ProductRow>;

export const productRoutes = {
  products: route({
    method: 'GET',
    path: '/api/products',
    tag: 'Define',
    right: 'look',
    summary: 'Products with what they cost, earn and need, the most worrying first',
    query: PageQuery.extend({
      q: z.string().max(100).optional(),
      sort: ProductSort.default('worry'),
      down: z.stringbool().default(false),
    }),
    response: pageOf(ProductRow),
  }),
};
