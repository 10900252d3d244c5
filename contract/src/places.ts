import { binKinds } from '@yosegi/core/places';
import { z } from 'zod';
import { Code, Id, IdParams, Name, route, Version } from './common.ts';

export const BinKind = z.enum(binKinds);
export const Bin = z.object({
  id: Id,
  storeId: Id,
  code: z.string(),
  /** Where goods stand to be used, where picked parts stand, where goods wait for a decision. */
  kind: BinKind,
  /** Order in which a person walks past the store's bins. */
  walkOrder: z.number().int(),
  version: Version,
});
export type Bin = z.infer<typeof Bin>;
export const Store = z.object({ id: Id, code: z.string(), name: z.string(), version: Version, bins: z.array(Bin) });
export type Store = z.infer<typeof Store>;

export const placeRoutes = {
  stores: route({
    method: 'GET',
    path: '/api/stores',
    tag: 'Places',
    right: 'look',
    summary: 'Stores with their bins in walking order',
    response: z.array(Store),
  }),
  createStore: route({
    method: 'POST',
    path: '/api/stores',
    tag: 'Places',
    right: 'set-up',
    summary: 'Add a store, with a bench of its own',
    body: z.object({ code: Code, name: Name }),
    response: Store,
  }),
  updateStore: route({
    method: 'PUT',
    path: '/api/stores/:id',
    tag: 'Places',
    right: 'set-up',
    summary: 'Rename a store',
    params: IdParams,
    body: z.object({ code: Code, name: Name, version: Version }),
    response: Store,
  }),
  createBin: route({
    method: 'POST',
    path: '/api/stores/:id/bins',
    tag: 'Places',
    right: 'set-up',
    summary: 'Add a bin to a store',
    params: IdParams,
    body: z.object({
      code: Code,
      walkOrder: z.number().int().min(0).max(9999),
      kind: BinKind.exclude(['bench']).default('shelf'),
    }),
    response: Bin,
  }),
  updateBin: route({
    method: 'PUT',
    path: '/api/bins/:id',
    tag: 'Places',
    right: 'set-up',
    summary: 'Rename a bin or move it in the walk',
    params: IdParams,
    body: z.object({
      code: Code,
      walkOrder: z.number().int().min(0).max(9999),
      kind: BinKind.exclude(['bench']).default('shelf'),
      version: Version,
    }),
    response: Bin,
  }),
};
