import type { itemRoutes, placeRoutes } from '@yosegi/contract';
import { listSuppliers } from '../buying/suppliers.ts';
import { costEffect } from '../definitions/effect.ts';
import { type HandlersOf, signedIn } from '../http/context.ts';
import { createBin, createStore, updateBin, updateStore } from '../places/service.ts';
import { listStores } from '../places/store.ts';
import { countItems, listItems } from './list.ts';
import { matchItems } from './match.ts';
import { listPictures, removePicture } from './pictures.ts';
import { archiveItem, createItem, deleteItem, setPrices, updateItem } from './service.ts';
import { readItem } from './store.ts';
import { createRate, createUnit, listRates, listUnits, updateUnit } from './units.ts';
import { deleteView, listViews, saveView } from './views.ts';

export const itemHandlers: HandlersOf<typeof itemRoutes & typeof placeRoutes> = {
  units: ({ db }) => listUnits(db),
  createUnit: (command) => createUnit(command, command.body),
  updateUnit: (command) => updateUnit(command, command.params.id, command.body),
  rates: ({ db }) => listRates(db),
  createRate: (command) => createRate(command, command.body),
  suppliers: ({ db }) => listSuppliers(db),
  items: ({ db, query }) => listItems(db, query),
  itemCounts: ({ db }) => countItems(db),
  item: ({ db, params }) => readItem(db, params.id),
  createItem: (command) => createItem(command, command.body),
  updateItem: (command) => updateItem(command, command.params.id, command.body),
  setPrices: (command) => setPrices(command, command.params.id, command.body),
  archiveItem: (command) => archiveItem(command, command.params.id, command.body),
  deleteItem: (command) => deleteItem(command, command.params.id),
  pictures: ({ db }) => listPictures(db),
  removePicture: (command) => removePicture(command, command.params.id),
  matchItems: ({ db, body }) => matchItems(db, body.texts),
  costEffect: ({ db, params, query }) => costEffect(db, params.id, query.cost),
  views: ({ db, person }) => listViews(db, signedIn(person).id),
  saveView: (command) => saveView(command, command.body),
  deleteView: (command) => deleteView(command, command.params.id),
  stores: ({ db }) => listStores(db),
  createStore: (command) => createStore(command, command.body),
  updateStore: (command) => updateStore(command, command.params.id, command.body),
  createBin: (command) => createBin(command, command.params.id, command.body),
  updateBin: (command) => updateBin(command, command.params.id, command.body),
};
