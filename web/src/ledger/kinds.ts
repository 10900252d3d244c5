import { documentKinds } from '@yosegi/contract';

export const kindOptions: [string, string][] = [
  ['', 'Everything'],
  ...Object.entries(documentKinds).map(([kind, { name }]): [string, string] => [kind, name]),
];
