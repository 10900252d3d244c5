import { createBrowserRouter, type RouteObject } from 'react-router';
import { isLate } from './api/client.ts';

/**
 * The router of the whole. Most deeds lead on to what they made; where the answer was long in coming and one has gone
 * elsewhere meanwhile, one stays there. Links, `useNavigate` and changes of the address all come through here.
 */
export function makeRouter(routes: RouteObject[]) {
  const router = createBrowserRouter(routes);
  const navigate = router.navigate.bind(router) as (...way: unknown[]) => Promise<void>;
  router.navigate = (...way: unknown[]) => (isLate() ? Promise.resolve() : navigate(...way));
  return router;
}
