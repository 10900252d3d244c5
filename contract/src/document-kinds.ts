import { buildKinds } from '@yosegi/core/builds';
import { receiptKinds } from '@yosegi/core/buying';
import { countKinds } from '@yosegi/core/counts';
import { type DocumentKindFacts, ledgerKinds } from '@yosegi/core/ledger';
import type { Right } from '@yosegi/core/people';
import { pickKinds } from '@yosegi/core/picking';
import { returnKinds } from '@yosegi/core/returns';
import { shippingKinds } from '@yosegi/core/shipping';
import { stockKinds } from '@yosegi/core/stock';
import { apartKinds } from '@yosegi/core/takeapart';
import { z } from 'zod';

const all = {
  ...receiptKinds,
  ...stockKinds,
  ...countKinds,
  ...pickKinds,
  ...buildKinds,
  ...apartKinds,
  ...shippingKinds,
  ...returnKinds,
  ...ledgerKinds,
};
export type DocumentKind = keyof typeof all;

/** Every kind of document that any feature posts: what numbers them, what they are called, whether they can be undone. */
export const documentKinds: Readonly<Record<DocumentKind, DocumentKindFacts & { readonly right: Right }>> = all;
export const DocumentKind = z.enum(Object.keys(all) as [DocumentKind, ...DocumentKind[]]);
