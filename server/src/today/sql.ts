import { dayAfter } from '@yosegi/core/days';
import type { Reader } from '../db/database.ts';

/** A lot expires soon when its day is no further than this. */
const SOON_DAYS = 30;

/** How many deliveries to be received and lots that expire soon there are. */
export async function needsAnEye(db: Reader, today: string) {
  const eye = await db.one<{ announced: number; expiring: number }>(
    `SELECT (SELECT count(*) FROM mail WHERE kind = 'despatch-advice' AND document_id IS NULL) AS announced,
       (SELECT count(*) FROM lot l WHERE best_before <= $1
         AND EXISTS (SELECT 1 FROM balance WHERE lot_id = l.id AND quantity > 0)) AS expiring`,
    [dayAfter(today, SOON_DAYS)],
  );
  return eye ?? { announced: 0, expiring: 0 };
}
