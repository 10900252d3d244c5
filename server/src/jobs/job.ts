import type { Job, JobRow } from '@yosegi/contract';
import { costOf, type JobPosting, jobSum } from '@yosegi/core/jobs';
import { groupBy } from '@yosegi/core/lists';
import { add, lineAmount, type Money, negated, sumForText, toExact, ZERO } from '@yosegi/core/number';
import { decimal } from '../command/amounts.ts';
import { type BodyOf, type Doing, required } from '../command/doing.ts';
import { currencyDecimals } from '../command/money.ts';
import type { Reader } from '../db/database.ts';
import { saveAnew } from '../db/versions.ts';
import { creditsOf } from '../returns/index.ts';
import {
  type JobPostingRow,
  type JobRecordRow,
  postingsOf,
  pricesOf,
  type RecordKind,
  recordsOf,
  returnPostingsOf,
  tagsInUse,
} from './sql.ts';

/** A posting of a job, and what it is for. */
interface Booked extends JobPosting {
  readonly documentId: number | null;
  readonly number: string;
  readonly kind: string;
  readonly at: string;
  readonly of: { readonly kind: RecordKind; readonly id: number };
}

/** Everything that is booked under a tag. */
export async function readJob(db: Reader, tag: string): Promise<Job> {
  const records = tag === '' ? [] : await recordsOf(db, tag);
  const booked = tag === '' ? [] : await bookedOf(db, tag, records);
  const numbers = new Map(records.map(({ kind, id, number }) => [`${kind}:${id}`, number]));
  const sum = (pick: (posting: Booked) => Money) => decimal(add<Money>(ZERO, ...booked.map(pick)));
  return {
    tag,
    ...told(booked),
    bought: sum(({ bought }) => bought),
    labour: sum(({ labour }) => labour),
    charges: sum(({ charges }) => charges),
    records: records.map(({ kind, id, number, about, state }) => ({
      kind,
      id,
      number,
      about,
      state,
      ...told(booked.filter(({ of }) => of.kind === kind && of.id === id)),
    })),
    postings: booked.map(({ of, ...posting }) => ({
      documentId: posting.documentId,
      number: posting.number,
      kind: posting.kind,
      at: posting.at,
      of: numbers.get(`${of.kind}:${of.id}`) ?? '',
      bought: decimal(posting.bought),
      labour: decimal(posting.labour),
      charges: decimal(posting.charges),
      stockChange: decimal(posting.stockChange),
      cost: decimal(costOf(posting)),
      income: decimal(posting.income),
    })),
  };
}

function told(booked: readonly Booked[]) {
  const { cost, income, margin } = jobSum(booked);
  return { cost: decimal(cost), income: decimal(income), margin: decimal(margin) };
}

async function bookedOf(db: Reader, tag: string, records: readonly JobRecordRow[]): Promise<Booked[]> {
  const rows = await postingsOf(db, tag);
  const back = await returnedOf(db, tag, records);
  const income = new Map<number, Money>();
  const prices = await pricesOf(
    db,
    rows.map(({ id }) => id),
  );
  const decimals = await currencyDecimals(db);
  for (const { document_id: id, quantity, price } of prices)
    income.set(id, add<Money>(income.get(id) ?? ZERO, toExact(lineAmount(quantity, price, decimals)) as Money));
  const posted = rows.map((row) => toBooked(row, income.get(row.id) ?? ZERO));
  // A repair brings what it was charged at on the day it is given back, with no document of its own.
  const given = records.flatMap(({ kind, id, number, charged, given_back_at }): Booked[] =>
    charged === null || given_back_at === null
      ? []
      : [
          {
            ...NOTHING,
            documentId: null,
            number,
            kind: 'given back',
            at: given_back_at,
            of: { kind, id },
            income: charged,
          },
        ],
  );
  return [...posted, ...back, ...given].sort((a, b) => a.at.localeCompare(b.at));
}

/** What came back is worth again what it left with, less what was lost of it; its customer no longer pays for it. */
async function returnedOf(db: Reader, tag: string, records: readonly JobRecordRow[]): Promise<Booked[]> {
  const rows = await returnPostingsOf(db, tag);
  const orders = records.flatMap(({ kind, id }) => (kind === 'order' ? [id] : []));
  const owed = groupBy(await creditsOf(db, 'order', orders), ({ documentId, orderId }) => `${documentId}:${orderId}`);
  return rows.map((row) => {
    const credits = owed.get(`${row.id}:${row.record_id}`) ?? [];
    return toBooked(row, negated(toExact(sumForText(credits.map((credit) => credit.owed))) as Money));
  });
}

const toBooked = (row: JobPostingRow, income: Money): Booked => ({
  documentId: row.id,
  number: row.number,
  kind: row.kind,
  at: row.at,
  of: { kind: row.record_kind, id: row.record_id },
  bought: row.bought,
  labour: row.labour,
  charges: row.charges,
  stockChange: row.stock_change,
  income,
});

const NOTHING = { bought: ZERO, labour: ZERO, charges: ZERO, stockChange: ZERO };

export async function listJobs(db: Reader): Promise<JobRow[]> {
  const rows: JobRow[] = [];
  for (const { tag, records } of await tagsInUse(db)) {
    const { cost, income, margin } = await readJob(db, tag);
    rows.push({ tag, records, cost, income, margin });
  }
  return rows;
}

/** Books a record under a tag. */
export async function setJobTag(doing: Doing, { kind, id, jobTag }: BodyOf<'setJobTag'>): Promise<{ tag: string }> {
  const { tx } = doing;
  const values = { job_tag: jobTag };
  if (kind === 'build') {
    const build = required(await tx.models.build.findByPk(id));
    await saveAnew<'build'>(build, values);
    // Its repair is booked where its work is.
    if (build.repair_id !== null)
      await saveAnew<'repair'>(required(await tx.models.repair.findByPk(build.repair_id)), values);
  } else if (kind === 'purchase')
    await saveAnew<'purchase_order'>(required(await tx.models.purchase_order.findByPk(id)), values);
  else await saveAnew<'sales_order'>(required(await tx.models.sales_order.findByPk(id)), values);
  doing.changed('builds', 'orders', 'buying');
  return { tag: jobTag };
}
