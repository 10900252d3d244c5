import type { definitionRoutes, productRoutes } from '@yosegi/contract';
import type { HandlersOf } from '../command/doing.ts';
import { setBehaviour } from './behaviour.ts';
import { createDefinition, discardRevision, saveRevision, startRevision } from './drafts.ts';
import { costEffect } from './effect.ts';
import { listFaults } from './faults.ts';
import { setDefinitionFields } from './fields.ts';
import { listDefinitions, whereUsed } from './lists.sql.ts';
import { listProducts } from './products.ts';
import { previewReplacement, replacePart } from './replace.ts';
import { holdBack, putInUse, retireRevision } from './revisions.ts';
import { readDefinition } from './sql.ts';

export const definitionHandlers: HandlersOf<typeof definitionRoutes & typeof productRoutes> = {
  definitions: ({ db, query }) => listDefinitions(db, query),
  definition: ({ db, params }) => readDefinition(db, params.id),
  createDefinition: (command) => createDefinition(command, command.body),
  startRevision: (command) => startRevision(command, command.params.id),
  saveRevision: (command) => saveRevision(command, command.params.id, command.body),
  putInUse: (command) => putInUse(command, command.params.id, command.body),
  holdBack: (command) => holdBack(command, command.params.id, command.body.version),
  retireRevision: (command) => retireRevision(command, command.params.id, command.body.version),
  discardRevision: (command) => discardRevision(command, command.params.id),
  setBehaviour: (command) => setBehaviour(command, command.params.id, command.body),
  setDefinitionFields: (command) => setDefinitionFields(command, command.params.id, command.body),
  definitionFaults: ({ db }) => listFaults(db),
  products: ({ db, query }) => listProducts(db, query),
  replacements: ({ db, query }) => previewReplacement(db, query),
  replacePart: (command) => replacePart(command, command.body),
  costEffect: ({ db, params, query }) => costEffect(db, params.id, query.cost),
  whereUsed: ({ db, params }) => whereUsed(db, params.id),
};
