import type { DocumentKindFacts } from '../ledger/index.ts';

export const shippingKinds = {
  shipment: { prefix: 'SH', name: 'Shipment', final: null, right: 'ship' },
} as const satisfies Record<string, DocumentKindFacts>;
