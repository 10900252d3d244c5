import type { StockDocument } from '@yosegi/contract';
import type { Money, Percent, Quantity } from '@yosegi/core/number';
import { decimal } from '../command/amounts.ts';
import type { Reader } from '../db/database.ts';
import type { Row } from '../db/models/index.ts';

/** What a finish was planned to use and what it did, and what else was said of it. */
export async function describeFinish(db: Reader, id: number): Promise<Pick<StockDocument, 'uses' | 'finished'>> {
  const finish = await db.one<Row<'finish'> & { reason: string | null }>(
    `SELECT f.*, r.name AS reason FROM finish f LEFT JOIN reason r ON r.id = f.reject_reason_id WHERE f.document_id = $1`,
    [id],
  );
  if (!finish) return { uses: [], finished: null };
  return {
    uses: await usesOf(db, id),
    finished: {
      good: decimal(finish.good),
      rejected: decimal(finish.rejected),
      reason: finish.reason,
      writtenOff: decimal(finish.written_off),
      madeOn: finish.made_on,
      conditionBefore: finish.condition_before,
      conditionAfter: finish.condition_after,
      out: await outOf(db, id),
    },
  };
}

type Use = Pick<Row<'finish_line'>, 'planned' | 'actual' | 'cost' | 'planned_cost' | 'because'>;

async function usesOf(db: Reader, id: number): Promise<StockDocument['uses']> {
  const uses = await db.all<Use & { text: string | null; unit: string }>(
    `SELECT ifnull(i.name, nullif(l.text, '')) AS text, ifnull(u.code, CASE l.kind WHEN 'labour' THEN 'min' ELSE '' END) AS unit,
       f.planned, f.actual, f.cost, f.planned_cost, f.because
     FROM finish_line f JOIN build_line l ON l.id = f.build_line_id LEFT JOIN item i ON i.id = l.item_id
     LEFT JOIN unit u ON u.id = i.unit_id WHERE f.document_id = $1 ORDER BY l.position`,
    [id],
  );
  return uses.map((row) => ({
    text: row.text ?? 'Labour',
    unit: row.unit,
    planned: decimal(row.planned),
    actual: decimal(row.actual),
    cost: decimal(row.cost),
    plannedCost: decimal(row.planned_cost),
    because: row.because,
  }));
}

async function outOf(db: Reader, id: number): Promise<NonNullable<StockDocument['finished']>['out']> {
  const out = await db.all<{
    name: string;
    unit: string;
    quantity: Quantity;
    went: Row<'finish_out'>['went'];
    share: Percent;
    value: Money;
  }>(
    `SELECT i.name, u.code AS unit, o.quantity, o.went, o.share, o.value FROM finish_out o JOIN item i ON i.id = o.item_id
     JOIN unit u ON u.id = i.unit_id WHERE o.document_id = $1 ORDER BY o.position`,
    [id],
  );
  return out.map((row) => ({
    ...row,
    quantity: decimal(row.quantity),
    share: decimal(row.share),
    value: decimal(row.value),
  }));
}
