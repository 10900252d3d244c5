import type { itemRoutes, Rate, Unit } from '@yosegi/contract';
import { decimal } from '../http/amounts.ts';
import { found, type HandlersOf } from '../http/context.ts';
import { createBin, createStore, updateBin, updateStore } from '../places/service.ts';
import { listStores } from '../places/store.ts';
import { createItem, createRate, listItems, updateItem } from './service.ts';
import { itemRow, toItem } from './store.ts';

export const itemHandlers: HandlersOf<typeof itemRoutes> = {
  units: ({ db }) => db.all<Unit>('SELECT id, code, name, decimals FROM unit ORDER BY id'),
  async rates({ db }) {
    const rows = await db.all<Omit<Rate, 'perHour'> & { per_hour: number }>(
      'SELECT id, name, per_hour FROM rate ORDER BY name',
    );
    return rows.map(({ id, name, per_hour }) => ({ id, name, perHour: decimal(per_hour) }));
  },
  createRate: (command) => createRate(command, command.body),
  items: ({ db, query }) => listItems(db, query),
  item: async ({ db, params }) => toItem(found(await itemRow(db, params.id))),
  createItem: (command) => createItem(command, command.body),
  updateItem: (command) => updateItem(command, command.params.id, command.body),
  stores: ({ db }) => listStores(db),
  createStore: (command) => createStore(command, command.body),
  updateStore: (command) => updateStore(command, command.params.id, command.body),
  createBin: (command) => createBin(command, command.params.id, command.body),
  updateBin: (command) => updateBin(command, command.params.id, command.body),
};
