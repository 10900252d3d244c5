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
  pickingOrder: z.number().int(),
  version: Version,
});
export type Bin = z.infer<typeof Bin>;
export const Store = z.object({ id: Id, code: z.string(), name: z.string(), version: Version, bins: z.array(Bin) });
export type Store = z.infer<typeof Store>;

const ShelfKind = BinKind.exclude(['bench', 'customers']);
/** A store with its bins in walking order; one without an id is new. Bins that are not named stay, behind the others. */
export const StoreInput = z.object({
  code: Code,
  name: Name,
  bins: z
    .array(z.object({ id: Id.nullable(), code: Code, kind: ShelfKind }))
    .max(2000)
    .default([]),
});

export const placeRoutes = {
  stores: route({
    method: 'GET',
    path: '/api/stores',
    tag: 'Places',
    right: 'look',
    summary: 'Stores with their bins in picking order',
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
    summary: 'Change a store and its bins, in picking order',
    params: IdParams,
    body: StoreInput.extend({ version: Version }),
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
      pickingOrder: z.number().int().min(0).max(9999),
      kind: ShelfKind.default('shelf'),
    }),
    response: Bin,
  }),
};
