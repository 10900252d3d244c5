import type { Saved } from '@yosegi/contract';
import { refuseContradiction, type Surroundings } from '@yosegi/core/definitions';
import { type BodyOf, type Doing, found } from '../command/doing.ts';
import type { Reader } from '../db/database.ts';
import { saved, updateVersioned } from '../db/versions.ts';
import { itemRow } from '../items/index.ts';
import { hasAlternates, openBuildsOf, partOf, standsSomewhere } from './around.sql.ts';
import { type DefinitionRecord, definitionRecord, readDefinition } from './sql.ts';

/** Sets a kit's switches. @throws Refusal as {@link refuseContradiction} */
export async function setBehaviour(doing: Doing, id: number, input: BodyOf<'setBehaviour'>): Promise<Saved> {
  const { tx } = doing;
  const record = found(await definitionRecord(tx, id));
  refuseContradiction(input, await surroundings(tx, record));
  const values = {
    made: input.made,
    paperwork: input.paperwork,
    on_order: input.onOrder,
    swap_for: input.swapFor,
    price_from: input.price,
    discount: input.discount,
    ...(input.benchDays === undefined ? {} : { bench_days: input.benchDays }),
    ...(input.tasksFirst === undefined ? {} : { tasks_first: input.tasksFirst ? 1 : 0 }),
  };
  await updateVersioned(tx, 'definition', id, input.version, values, () => readDefinition(tx, id));
  doing.changed('definitions', 'items');
  return saved(tx, 'definition', id);
}

/** What stands around a definition that its behaviour could contradict. */
export async function surroundings(db: Reader, record: DefinitionRecord): Promise<Surroundings> {
  const item = found(await itemRow(db, record.item_id));
  return {
    purpose: record.purpose,
    tracking: item.tracking,
    hasStock: await standsSomewhere(db, item.id),
    openBuilds: await openBuildsOf(db, record.id),
    partOf: await partOf(db, item.id, record.id),
    hasAlternates: await hasAlternates(db, record.id),
  };
}
