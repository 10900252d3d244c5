import type { DefinitionRow, DefinitionUse } from '@yosegi/contract';
import { canMake } from '@yosegi/core/coverage';
import { type Quantity, ZERO } from '@yosegi/core/number';
import type { z } from 'zod';
import { decimal, decimalOrNull } from '../command/amounts.ts';
import type { QueryOf } from '../command/doing.ts';
import type { Reader } from '../db/database.ts';
import { containing, page } from '../db/pages.ts';
import { freeOf, itemRows } from '../items/index.ts';
import { loadRevisions } from './inuse.sql.ts';

/** Definitions that are not retired and list an item, as a part or as an alternate. */
export async function whereUsed(db: Reader, itemId: number): Promise<z.infer<typeof DefinitionUse>[]> {
  const rows = await db.all<
    Omit<z.infer<typeof DefinitionUse>, 'quantity' | 'outputQuantity'> & { amount: string; output: number }
  >(
    `SELECT d.id, d.item_id AS itemId, i.code, i.name, d.purpose, r.number AS revision, r.state, u.uses AS "as",
       CAST(sum(u.amount) AS TEXT) AS amount, r.output_quantity AS output
     FROM (SELECT revision_id, 'part' AS uses, amount FROM revision_line WHERE item_id = $1
       UNION ALL SELECT l.revision_id, 'alternate', a.ratio FROM revision_line_alternate a
       JOIN revision_line l ON l.id = a.line_id WHERE a.item_id = $1) u
     JOIN revision r ON r.id = u.revision_id AND r.state <> 'retired'
     JOIN definition d ON d.id = r.definition_id JOIN item i ON i.id = d.item_id
     GROUP BY r.id, u.uses ORDER BY i.code COLLATE NOCASE, r.number, u.uses DESC LIMIT 500`,
    [itemId],
  );
  return rows.map(({ amount, output, ...row }) => ({
    ...row,
    quantity: decimal(BigInt(amount)),
    outputQuantity: decimal(output),
  }));
}

export async function listDefinitions(db: Reader, query: QueryOf<'definitions'>) {
  const [code = '', purpose = ''] = query.cursor?.split('\n') ?? [];
  const rows = await db.all<Omit<DefinitionRow, 'canMakeNow'>>(
    `SELECT d.id, d.item_id AS itemId, i.code, i.name, u.code AS unit, d.purpose, d.made,
       (SELECT number FROM revision WHERE definition_id = d.id AND state = 'in-use') AS inUse,
       (SELECT number FROM revision WHERE definition_id = d.id AND state = 'draft') AS draft
     FROM definition d JOIN item i ON i.id = d.item_id JOIN unit u ON u.id = i.unit_id
     WHERE (i.code > $1 COLLATE NOCASE OR (i.code = $1 COLLATE NOCASE AND d.purpose > $4)) AND i.archived_at IS NULL
       AND (i.code LIKE $2 ESCAPE '\\' OR i.name LIKE $2 ESCAPE '\\')
     ORDER BY i.code COLLATE NOCASE, d.purpose LIMIT $3`,
    [code, containing(query.q ?? ''), query.limit + 1, purpose],
  );
  const shown = page(rows, query.limit, (row) => `${row.code}\n${row.purpose}`);
  const can = await canMakeOf(
    db,
    shown.rows.filter((row) => row.purpose === 'build' && row.inUse !== null).map((row) => row.id),
  );
  return { ...shown, rows: shown.rows.map((row) => ({ ...row, canMakeNow: decimalOrNull(can.get(row.id) ?? null) })) };
}

/** How many of each definition's product the free parts allow now; only what these definitions list is read. */
export async function canMakeOf(db: Reader, definitionIds: readonly number[]): Promise<Map<number, Quantity | null>> {
  const loaded = await loadRevisions(
    db,
    "SELECT id FROM revision WHERE state = 'in-use' AND definition_id IN (SELECT value FROM json_each($1))",
    [JSON.stringify(definitionIds)],
  );
  const parts = await itemRows(
    db,
    loaded.flatMap(({ lines }) => lines.flatMap((line) => line.item_id ?? [])),
  );
  const free = (itemId: number) => {
    const part = parts.get(itemId);
    return part ? freeOf(part) : ZERO;
  };
  return new Map(
    loaded.map(({ revision, core, product }) => [
      revision.definition_id,
      canMake(core, free, product.decimals).quantity,
    ]),
  );
}
