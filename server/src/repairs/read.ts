import type { RepairDetail, RepairRow } from '@yosegi/contract';
import type { LineUse } from '@yosegi/core/builds';
import { add, type Money, ZERO } from '@yosegi/core/number';
import { repairMargin } from '@yosegi/core/repairs';
import { buildRecords, costNow, isOpen, readShares, toBuildRows } from '../builds/index.ts';
import { decimal, decimalOrNull } from '../command/amounts.ts';
import { found, type QueryOf } from '../command/doing.ts';
import type { Reader } from '../db/database.ts';
import { itemRow, toItem } from '../items/index.ts';
import {
  bookedCost,
  earlierOf,
  eventsOf,
  type RepairRecord,
  repairRecord,
  repairRecords,
  soldAs,
  toRepairRow,
} from './sql.ts';

export async function listRepairs(db: Reader, query: QueryOf<'repairs'>, today: string) {
  const { rows, next } = await repairRecords(db, query);
  const waiting = await waitingOf(db, rows, today);
  return { rows: rows.map((row): RepairRow => toRepairRow(row, waiting.get(row.build_id) ?? [], today)), next };
}

/** The parts that each repair waits for, in words, by its build. */
async function waitingOf(db: Reader, rows: readonly RepairRecord[], today: string) {
  const open = rows.filter(({ build_state }) => isOpen(build_state));
  if (open.length === 0) return new Map<number, string[]>();
  const builds = await buildRecords(
    db,
    open.map(({ build_id }) => build_id),
  );
  const shown = await toBuildRows(db, builds, await readShares(db, today), today);
  return new Map(shown.map((row) => [row.id, row.waiting.map((part) => `${part.short} ${part.unit} ${part.name}`)]));
}

export async function readRepair(db: Reader, id: number, today: string): Promise<RepairDetail> {
  const record = found(await repairRecord(db, id));
  const waiting = await waitingOf(db, [record], today);
  const cost = await costOf(db, record);
  return {
    ...toRepairRow(record, waiting.get(record.build_id) ?? [], today),
    item: toItem(found(await itemRow(db, record.item_id))),
    bin: record.bin,
    store: record.store,
    report: record.report,
    takenInBy: record.person,
    cost: {
      parts: decimal(cost.part),
      labour: decimal(cost.labour),
      charges: decimal(cost.charge),
      total: decimal(add(cost.part, cost.labour, cost.charge)),
    },
    margin: decimalOrNull(
      record.state === 'given-back' ? repairMargin(record.charged, add(cost.part, cost.labour, cost.charge)) : null,
    ),
    events: await eventsOf(db, id),
    sold: await soldAs(db, record.serial_id),
    earlier: await earlierOf(db, record),
  };
}

/** What a repair cost, once it is finished; until then what it would with all that is there and written down now. */
async function costOf(db: Reader, record: RepairRecord): Promise<Record<LineUse['kind'], Money>> {
  const sum: Record<LineUse['kind'], Money> = { part: ZERO, labour: ZERO, charge: ZERO };
  const uses: readonly { kind: LineUse['kind']; cost: Money }[] = isOpen(record.build_state)
    ? (await costNow(db, record.build_id)).lines
    : await bookedCost(db, record.build_id);
  for (const { kind, cost } of uses) sum[kind] = add(sum[kind], cost);
  return sum;
}
