import type { Behaviour, Definition } from '@yosegi/contract';
import { refuseContradiction, type Surroundings } from '@yosegi/core/definition';
import type { Reader } from '../db/database.ts';
import { updateVersioned } from '../db/versions.ts';
import { percentUpTo } from '../http/amounts.ts';
import { type Doing, found } from '../http/context.ts';
import { itemRow } from '../items/store.ts';
import { type DefinitionRecord, definitionRecord, readDefinition } from './store.ts';

/** Sets a kit's switches. @throws Refusal as {@link refuseContradiction} */
export async function setBehaviour(
  doing: Doing,
  id: number,
  input: Behaviour & { version: number },
): Promise<Definition> {
  const { tx } = doing;
  const record = found(await definitionRecord(tx, id));
  const discount = percentUpTo(input.discount, 100, 'discount');
  refuseContradiction({ ...input, discount }, await surroundings(tx, record));
  const values = {
    made: input.made,
    paperwork: input.paperwork,
    on_order: input.onOrder,
    swap_for: input.swapFor,
    price_from: input.price,
    discount,
  };
  await updateVersioned(tx, 'definition', id, input.version, values, () => readDefinition(tx, id));
  doing.changed('definitions', 'items');
  return readDefinition(tx, id);
}

/** What stands around a definition that its behaviour could contradict. */
export async function surroundings(db: Reader, record: DefinitionRecord): Promise<Surroundings> {
  const item = found(await itemRow(db, record.item_id));
  const held = await db.one('SELECT 1 FROM balance WHERE item_id = $1 AND quantity <> 0 LIMIT 1', [item.id]);
  const builds = await db.all<{ number: string }>(
    `SELECT b.number FROM build b JOIN revision r ON r.id = b.revision_id
     WHERE r.definition_id = $1 AND b.state IN ('planned', 'on-bench') ORDER BY b.id LIMIT 20`,
    [record.id],
  );
  const products = await db.all<{ code: string }>(
    `SELECT DISTINCT i.code FROM revision_line l JOIN revision r ON r.id = l.revision_id AND r.state <> 'retired'
     JOIN definition d ON d.id = r.definition_id AND d.purpose <> 'record' JOIN item i ON i.id = d.item_id
     WHERE l.item_id = $1 AND d.id <> $2 ORDER BY i.code LIMIT 20`,
    [item.id, record.id],
  );
  const alternates = await db.one(
    `SELECT 1 FROM revision_line_alternate a JOIN revision_line l ON l.id = a.line_id
     JOIN revision r ON r.id = l.revision_id AND r.state <> 'retired' WHERE r.definition_id = $1 LIMIT 1`,
    [record.id],
  );
  return {
    purpose: record.purpose,
    tracking: item.tracking,
    hasStock: held !== undefined,
    openBuilds: builds.map(({ number }) => number),
    partOf: products.map(({ code }) => code),
    hasAlternates: alternates !== undefined,
  };
}
