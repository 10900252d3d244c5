// @vitest-environment jsdom
import { addresses } from '@yosegi/e2e/addresses';
import { matchRoutes, type RouteObject } from 'react-router';
import { expect, it } from 'vitest';
import { routes } from './routes.tsx';

/** What is shown at an address; what leads elsewhere shows nothing. */
const leaves = (all: readonly RouteObject[]): RouteObject[] =>
  all.flatMap((one) => (one.children ? leaves(one.children) : 'lazy' in one ? [one] : []));

it('no view is left out where all of them are looked at', () => {
  const seen = new Set(addresses.map(([, path]) => matchRoutes(routes, path.split('?')[0] ?? '')?.at(-1)?.route));
  const unseen = leaves(routes).filter((one) => !seen.has(one));
  expect(unseen.map(({ path }) => path)).toEqual([]);
});
