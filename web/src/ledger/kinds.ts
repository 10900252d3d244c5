import { documentKinds } from '@yosegi/contract';

export const kindOptions: [string, string][] = [
  ['', 'Everything'],
  ...Object.entries(documentKinds).map(([kind, { name }]): [string, string] => [kind, name]),
];

/** Where what a document was posted for is shown, and what it is called. */
export const forPath = { build: '/build', order: '/orders', return: '/take-apart/returns' } as const;
export const forNames = { build: 'Build', order: 'Order', return: 'Return' } as const;
