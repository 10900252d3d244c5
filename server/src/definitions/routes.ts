import type { DefinitionRow, definitionRoutes } from '@yosegi/contract';
import { CoverageWorld } from '@yosegi/contract/coverage-input';
import { canMake, freeOf } from '@yosegi/core/coverage';
import { readSnapshot } from '../coverage/snapshot.ts';
import type { Reader } from '../db/database.ts';
import { decimal, decimalOrNull } from '../http/amounts.ts';
import type { HandlersOf } from '../http/context.ts';
import { containing, page } from '../http/pages.ts';
import { createDefinition, discardRevision, putInUse, saveRevision, startRevision } from './service.ts';
import { readDefinition } from './store.ts';

export const definitionHandlers: HandlersOf<typeof definitionRoutes> = {
  definitions: ({ db, query }) => listDefinitions(db, query),
  definition: ({ db, params }) => readDefinition(db, params.id),
  createDefinition: (command) => createDefinition(command, command.body.itemId),
  startRevision: (command) => startRevision(command, command.params.id),
  saveRevision: (command) => saveRevision(command, command.params.id, command.body),
  putInUse: (command) => putInUse(command, command.params.id, command.body.version),
  discardRevision: (command) => discardRevision(command, command.params.id),
  async whereUsed({ db, params }) {
    const rows = await db.all<{ id: number; itemId: number; code: string; name: string; amount: number }>(
      `SELECT d.id, d.item_id AS itemId, i.code, i.name, sum(l.amount) AS amount FROM revision_line l
       JOIN revision r ON r.id = l.revision_id AND r.state = 'in-use'
       JOIN definition d ON d.id = r.definition_id JOIN item i ON i.id = d.item_id
       WHERE l.item_id = $1 GROUP BY d.id ORDER BY i.code LIMIT 500`,
      [params.id],
    );
    return rows.map(({ amount, ...row }) => ({ ...row, quantity: decimal(amount) }));
  },
};

async function listDefinitions(db: Reader, query: { q?: string; cursor?: string; limit: number }) {
  const rows = await db.all<Omit<DefinitionRow, 'canMakeNow'>>(
    `SELECT d.id, d.item_id AS itemId, i.code, i.name, u.code AS unit,
       (SELECT number FROM revision WHERE definition_id = d.id AND state = 'in-use') AS inUse,
       (SELECT number FROM revision WHERE definition_id = d.id AND state = 'draft') AS draft
     FROM definition d JOIN item i ON i.id = d.item_id JOIN unit u ON u.id = i.unit_id
     WHERE i.code > $1 COLLATE NOCASE AND (i.code LIKE $2 ESCAPE '\\' OR i.name LIKE $2 ESCAPE '\\')
     ORDER BY i.code COLLATE NOCASE LIMIT $3`,
    [query.cursor ?? '', containing(query.q ?? ''), query.limit + 1],
  );
  const world = new CoverageWorld(await readSnapshot(db));
  const { decimalsOf, stockOf } = world.input([]);
  const shown = page(rows, query.limit, (row) => row.code);
  return {
    ...shown,
    rows: shown.rows.map((row) => {
      const revision = world.revision(row.itemId);
      const can = revision ? canMake(revision, (id) => freeOf(stockOf(id)), decimalsOf(row.itemId)) : null;
      return { ...row, canMakeNow: decimalOrNull(can?.quantity ?? null) };
    }),
  };
}
