// @vitest-environment jsdom

import { render, waitFor } from '@testing-library/react';
import { addresses } from '@yosegi/e2e/addresses';
import { createMemoryRouter, matchRoutes, type RouteObject, RouterProvider } from 'react-router';
import { expect, it } from 'vitest';
import { routes } from './routes.tsx';
import { Renamed, RenamedFilter } from './shell/Renamed.tsx';

/** What is shown at an address; what leads elsewhere shows nothing. */
const leaves = (all: readonly RouteObject[]): RouteObject[] =>
  all.flatMap((one) => (one.children ? leaves(one.children) : 'lazy' in one ? [one] : []));

it('no view is left out where all of them are looked at', () => {
  const seen = new Set(addresses.map(([, path]) => matchRoutes(routes, path.split('?')[0] ?? '')?.at(-1)?.route));
  const unseen = leaves(routes).filter((one) => !seen.has(one));
  expect(unseen.map(({ path }) => path)).toEqual([]);
});

it('an address from before leads to what it is called now, with what was asked there', async () => {
  const route = { path: '/stock/units/:id?', element: <Renamed from="/stock/units" to="/stock/serials" /> };
  const router = createMemoryRouter([route, { path: '*', element: null }], {
    initialEntries: ['/stock/units/3?view=x'],
  });
  render(<RouterProvider router={router} />);
  await waitFor(() => expect(router.state.location).toMatchObject({ pathname: '/stock/serials/3', search: '?view=x' }));
});

it('a filter from before leads to what it is called now, beside what else was asked', async () => {
  const router = createMemoryRouter([{ path: '*', element: <RenamedFilter from="whole" to="ready" /> }], {
    initialEntries: ['/pick?q=hive&whole=1'],
  });
  render(<RouterProvider router={router} />);
  await waitFor(() => expect(router.state.location).toMatchObject({ pathname: '/pick', search: '?q=hive&ready=1' }));
});
