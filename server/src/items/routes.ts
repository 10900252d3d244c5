import type { itemRoutes } from '@yosegi/contract';
import { type HandlersOf, signedIn } from '../command/doing.ts';
import { countItems, listItems } from './list.sql.ts';
import { matchItems } from './match.sql.ts';
import { removePicture } from './pictures.ts';
import { archiveItem, createItem, deleteItem, setPrices, updateItem } from './service.ts';
import { listPictures, readItem } from './sql.ts';
import { createRate, createUnit, listRates, listUnits, updateUnit } from './units.ts';
import { deleteView, listViews, saveView } from './views.ts';

export const itemHandlers: HandlersOf<typeof itemRoutes> = {
  units: ({ db }) => listUnits(db),
  createUnit: (command) => createUnit(command, command.body),
  updateUnit: (command) => updateUnit(command, command.params.id, command.body),
  rates: ({ db }) => listRates(db),
  createRate: (command) => createRate(command, command.body),
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
  views: ({ db, person }) => listViews(db, signedIn(person).id),
  saveView: (command) => saveView(command, command.body),
  deleteView: (command) => deleteView(command, command.params.id),
};
