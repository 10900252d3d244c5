import { MOST_ON_TODAY, type Today, type todayRoutes } from '@yosegi/contract';
import { dayOf } from '@yosegi/core/days';
import { latest } from '@yosegi/core/demand';
import { type Money, type Quantity, readForText, worthForText } from '@yosegi/core/number';
import { type BuildRecord, openBuilds, readShares, toBuildRows } from '../builds/index.ts';
import { countLateOrders } from '../buying/index.ts';
import { decimal } from '../command/amounts.ts';
import type { HandlersOf } from '../command/doing.ts';
import type { Reader } from '../db/database.ts';
import { type HeldUp, openOrderRows, ordersHeldUp } from '../orders/index.ts';
import { countWaiting, listReturns } from '../returns/index.ts';
import { listPutRight } from '../stock/index.ts';
import { find } from './find.sql.ts';
import { needsAnEye } from './sql.ts';

export const todayHandlers: HandlersOf<typeof todayRoutes> = {
  today: ({ db, now }) => readToday(db, now),
  find: ({ db, query }) => find(db, query.q.trim()),
};

/** What can start, what waits and for which part, what is on the bench, and what was overridden. */
async function readToday(db: Reader, now: Date): Promise<Today> {
  const today = dayOf(now);
  const records = await openBuilds(db);
  const shares = await readShares(db, today);
  const builds = await toBuildRows(db, records, shares, today);
  // A repair whose customer was asked waits for nobody here.
  const planned = builds.filter((build) => build.state === 'planned' && build.repair?.state !== 'asked');
  const ready = planned.filter((build) => build.waiting.length === 0);
  const waiting = planned.filter((build) => build.waiting.length > 0);
  const onBench = builds.filter((build) => build.state === 'on-bench');
  const eye = await needsAnEye(db, today);
  const sales = await openOrderRows(db, shares.pegging, today);
  const holdUps = holdUpsOf(records, builds, await ordersHeldUp(db, shares.pegging));
  const cameBack = (await listReturns(db, { state: 'waiting', limit: MOST_ON_TODAY }, now)).rows;
  const canLeave = sales.filter((order) => order.canLeave);
  const atRisk = sales.filter((order) => !order.canLeave && (order.outlook === 'late' || order.outlook === 'unknown'));
  const putRight = await listPutRight(db);
  return {
    ready: shown(ready),
    waiting: shown(waiting),
    onBench: shown(onBench),
    holdUps: shown(holdUps),
    canLeave: shown(canLeave),
    atRisk: shown(atRisk),
    putRight: shown(putRight),
    cameBack,
    counts: {
      today: ready.length,
      waiting: waiting.length,
      atRisk: atRisk.length,
      putRight: putRight.length,
      late: [...planned, ...onBench].filter((build) => build.late).length,
      define: await db.models.definition.count(),
      cover: holdUps.length,
      build: onBench.length,
      pick:
        onBench.filter((build) => build.pickedLines < build.pickLines).length +
        sales.filter(({ toPick }) => toPick).length,
      orders: canLeave.length,
      lateOrders: await countLateOrders(db, today),
      announced: eye.announced,
      cameBack: await countWaiting(db),
      expiring: eye.expiring,
    },
  };
}

const shown = <Row>(rows: readonly Row[]): Row[] => rows.slice(0, MOST_ON_TODAY);

/** Parts that builds and orders wait for, by the sales value of what cannot be made or sent. */
function holdUpsOf(
  records: readonly BuildRecord[],
  builds: Today['waiting'],
  orders: readonly HeldUp[],
): Today['holdUps'] {
  const parts = new Map<number, Today['holdUps'][number] & { shortSum: bigint; worth: bigint }>();
  for (const [index, build] of builds.entries()) {
    const record = records[index];
    const left = ((record?.quantity ?? 0) - (record?.finished ?? 0) - (record?.rejected ?? 0)) as Quantity;
    const worth = worthForText(left, (record?.sell_price ?? 0) as Money);
    for (const part of build.waiting) {
      const known = parts.get(part.itemId);
      parts.set(part.itemId, {
        ...part,
        ...worstOf(known, part),
        shortSum: (known?.shortSum ?? 0n) + readForText(part.short),
        worth: (known?.worth ?? 0n) + worth,
        builds: (known?.builds ?? 0) + 1,
        orders: 0,
        salesValue: '0',
      });
    }
  }
  for (const { worth, orderIds, short, ...part } of orders) {
    const known = parts.get(part.itemId);
    parts.set(part.itemId, {
      ...part,
      ...known,
      ...worstOf(known, part),
      short: '0',
      shortSum: (known?.shortSum ?? 0n) + short,
      worth: (known?.worth ?? 0n) + worth,
      builds: known?.builds ?? 0,
      orders: orderIds.size,
      salesValue: '0',
    });
  }
  return [...parts.values()]
    .sort((a, b) => descending(a.worth, b.worth) || descending(a.shortSum, b.shortSum))
    .map(({ shortSum, worth, ...part }) => ({ ...part, short: decimal(shortSum), salesValue: decimal(worth) }));
}

type Waiting = Pick<Today['holdUps'][number], 'comesOn' | 'isComing'>;

/** Who waits longest for a part says when it comes. */
const worstOf = (known: Waiting | undefined, part: Waiting): Waiting =>
  known
    ? { comesOn: latest([known.comesOn, part.comesOn]), isComing: known.isComing || part.isComing }
    : { comesOn: part.comesOn, isComing: part.isComing };

const descending = (a: bigint, b: bigint) => (a < b ? 1 : a > b ? -1 : 0);
