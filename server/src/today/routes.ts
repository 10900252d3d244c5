import type { Found, Today, todayRoutes } from '@yosegi/contract';
import { dayAfter } from '@yosegi/core/buying';
import { type Money, type Quantity, readForText, worthForText } from '@yosegi/core/number';
import { BUILD_SQL, type BuildRecord, readShares, toBuildRows } from '../builds/store.ts';
import type { Reader } from '../db/database.ts';
import { decimal } from '../http/amounts.ts';
import { dayOf, type HandlersOf } from '../http/context.ts';
import { containing } from '../http/pages.ts';
import { listPutRight } from '../stock/putright.ts';

/** A lot expires soon when its day is no further than this. */
const SOON_DAYS = 30;

export const todayHandlers: HandlersOf<typeof todayRoutes> = {
  today: ({ db, now }) => readToday(db, dayOf(now)),
  find: ({ db, query }) => find(db, query.q.trim()),
};

/** What can start, what waits and for which part, what is on the bench, and what was overridden. */
async function readToday(db: Reader, today: string): Promise<Today> {
  const records = await db.all<BuildRecord>(
    `${BUILD_SQL} WHERE b.state IN ('planned', 'on-bench') ORDER BY ifnull(b.due, '9999'), b.id LIMIT 1000`,
  );
  const builds = await toBuildRows(db, records, await readShares(db, today), today);
  const planned = builds.filter((build) => build.state === 'planned');
  const ready = planned.filter((build) => build.waiting.length === 0);
  const waiting = planned.filter((build) => build.waiting.length > 0);
  const onBench = builds.filter((build) => build.state === 'on-bench');
  const holdUps = holdUpsOf(records, builds);
  const definitions = await db.one<{ n: number }>('SELECT count(*) AS n FROM definition');
  const eye = await db.one<{ late: number; announced: number; expiring: number }>(
    `SELECT (SELECT count(DISTINCT order_id) FROM purchase_order_line WHERE open > 0 AND expected_on < $1) AS late,
       (SELECT count(*) FROM mail WHERE kind = 'despatch-advice' AND document_id IS NULL) AS announced,
       (SELECT count(*) FROM lot l WHERE best_before <= $2
         AND EXISTS (SELECT 1 FROM balance WHERE lot_id = l.id AND quantity > 0)) AS expiring`,
    [today, dayAfter(today, SOON_DAYS)],
  );
  return {
    ready,
    waiting,
    onBench,
    holdUps,
    putRight: await listPutRight(db),
    counts: {
      today: ready.length,
      define: definitions?.n ?? 0,
      cover: holdUps.length,
      build: onBench.length,
      pick: onBench.filter((build) => build.pickedLines < build.pickLines).length,
      lateOrders: eye?.late ?? 0,
      announced: eye?.announced ?? 0,
      expiring: eye?.expiring ?? 0,
    },
  };
}

/** Parts that builds wait for, by the sales value of what cannot be made. */
function holdUpsOf(records: readonly BuildRecord[], builds: Today['waiting']): Today['holdUps'] {
  const parts = new Map<number, Today['holdUps'][number] & { shortSum: bigint; worth: bigint }>();
  for (const [index, build] of builds.entries()) {
    const record = records[index];
    const left = ((record?.quantity ?? 0) - (record?.finished ?? 0)) as Quantity;
    const worth = worthForText(left, (record?.sell_price ?? 0) as Money);
    for (const part of build.waiting) {
      const known = parts.get(part.itemId);
      parts.set(part.itemId, {
        ...part,
        shortSum: (known?.shortSum ?? 0n) + readForText(part.short),
        worth: (known?.worth ?? 0n) + worth,
        builds: (known?.builds ?? 0) + 1,
        salesValue: '0',
      });
    }
  }
  return [...parts.values()]
    .sort((a, b) => descending(a.worth, b.worth) || descending(a.shortSum, b.shortSum))
    .map(({ shortSum, worth, ...part }) => ({ ...part, short: decimal(shortSum), salesValue: decimal(worth) }));
}

const descending = (a: bigint, b: bigint) => (a < b ? 1 : a > b ? -1 : 0);

/** The best few of each kind; an exact code or number first. */
async function find(db: Reader, text: string): Promise<Found[]> {
  if (text === '') return [];
  return db.all<Found>(
    `SELECT kind, id, code, name, tile FROM (
       SELECT 'item' AS kind, id, code, name, code AS tile, 1 AS turn, barcode FROM item WHERE archived_at IS NULL
       UNION ALL SELECT 'definition', d.id, i.code, i.name, i.code, 2, NULL FROM definition d JOIN item i ON i.id = d.item_id
       UNION ALL SELECT 'build', b.id, b.number, i.name, i.code, 3, NULL FROM build b JOIN item i ON i.id = b.item_id
       UNION ALL SELECT 'order', o.id, o.number, s.name, NULL, 4, NULL FROM purchase_order o JOIN supplier s ON s.id = o.supplier_id
       UNION ALL SELECT 'supplier', id, code, name, NULL, 5, NULL FROM supplier
       UNION ALL SELECT 'document', d.id, d.number, d.kind, NULL, 6, NULL FROM document d
     ) WHERE code LIKE $1 ESCAPE '\\' OR name LIKE $1 ESCAPE '\\' OR barcode = $2
     ORDER BY code <> $2 COLLATE NOCASE, code NOT LIKE $3 ESCAPE '\\', turn, code LIMIT 20`,
    [containing(text), text, containing(text).slice(1)],
  );
}
