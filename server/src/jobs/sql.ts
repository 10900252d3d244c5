import type { Job } from '@yosegi/contract';
import type { Money, Quantity } from '@yosegi/core/number';
import type { Reader } from '../db/database.ts';

export type RecordKind = Job['records'][number]['kind'];

/** A record that is booked under a tag. */
export interface JobRecordRow {
  kind: RecordKind;
  id: number;
  number: string;
  about: string;
  state: string;
  /** Of a repair that was given back. */
  charged: Money | null;
  given_back_at: string | null;
}

/** Every tag that is in use. */
export const tagsInUse = (db: Reader) =>
  db.all<{ tag: string; records: number }>(
    `SELECT min(tag) AS tag, count(*) AS records FROM (
       SELECT job_tag AS tag FROM sales_order UNION ALL SELECT job_tag FROM build WHERE repair_id IS NULL
       UNION ALL SELECT job_tag FROM repair UNION ALL SELECT job_tag FROM purchase_order
       UNION ALL SELECT job_tag FROM document WHERE reverses_id IS NULL)
     WHERE tag <> '' GROUP BY tag COLLATE NOCASE ORDER BY tag COLLATE NOCASE LIMIT 500`,
  );

export const recordsOf = (db: Reader, tag: string) =>
  db.all<JobRecordRow>(
    `SELECT 'order' AS kind, o.id, o.number, c.name AS about, iif(o.state = 'confirmed', iif(o.open = 1, 'open', 'shipped'), o.state) AS state,
       NULL AS charged, NULL AS given_back_at
     FROM sales_order o JOIN customer c ON c.id = o.customer_id WHERE o.job_tag = $1 COLLATE NOCASE
     UNION ALL SELECT 'build', b.id, b.number, i.name, replace(b.state, '-', ' '), NULL, NULL
     FROM build b JOIN item i ON i.id = b.item_id WHERE b.job_tag = $1 COLLATE NOCASE AND b.repair_id IS NULL
     UNION ALL SELECT 'repair', r.id, r.number, c.name || ': ' || i.name, replace(r.state, '-', ' '), r.charged, r.given_back_at
     FROM repair r JOIN customer c ON c.id = r.customer_id JOIN item i ON i.id = r.item_id WHERE r.job_tag = $1 COLLATE NOCASE
     UNION ALL SELECT 'purchase', p.id, p.number, s.name, p.state, NULL, NULL
     FROM purchase_order p JOIN supplier s ON s.id = p.supplier_id WHERE p.job_tag = $1 COLLATE NOCASE
     UNION ALL SELECT 'document', d.id, d.number, ifnull(nullif(d.remark, ''), ifnull(r.name, d.kind)), 'posted', NULL, NULL
     FROM document d LEFT JOIN reason r ON r.id = d.reason_id WHERE d.job_tag = $1 COLLATE NOCASE AND d.reverses_id IS NULL
     ORDER BY 1, 2`,
    [tag],
  );

/** A document that was posted for one of these records, with the value that it brought in and what it did to stock. */
export interface JobPostingRow {
  id: number;
  number: string;
  kind: string;
  at: string;
  record_kind: RecordKind;
  record_id: number;
  bought: Money;
  labour: Money;
  charges: Money;
  stock_change: Money;
}

export const postingsOf = (db: Reader, tag: string) =>
  db.all<JobPostingRow>(
    `WITH own (id, record_kind, record_id) AS (
       SELECT d.id, 'order', o.id FROM sales_order o JOIN document d ON d.for_kind = 'order' AND d.for_id = o.id
       WHERE o.job_tag = $1 COLLATE NOCASE
       UNION SELECT d.id, iif(b.repair_id IS NULL, 'build', 'repair'), ifnull(b.repair_id, b.id)
       FROM build b JOIN document d ON d.for_kind = 'build' AND d.for_id = b.id WHERE b.job_tag = $1 COLLATE NOCASE
       UNION SELECT r.document_id, 'purchase', p.id FROM purchase_order p JOIN receipt r ON r.order_id = p.id
       WHERE p.job_tag = $1 COLLATE NOCASE
       UNION SELECT l.document_id, 'purchase', p.id FROM purchase_order p JOIN receipt r ON r.order_id = p.id
       JOIN receipt_line k ON k.document_id = r.document_id JOIN price_difference_line l ON l.receipt_line_id = k.id
       WHERE p.job_tag = $1 COLLATE NOCASE
       UNION SELECT id, 'document', ifnull(reverses_id, id) FROM document WHERE job_tag = $1 COLLATE NOCASE),
     every (id, record_kind, record_id) AS (
       SELECT * FROM own UNION SELECT u.id, o.record_kind, o.record_id FROM own o JOIN document u ON u.reverses_id = o.id)
     SELECT e.id, e.record_kind, e.record_id, d.number, d.kind, d.at,
       ifnull((SELECT sum(amount) FROM document_value WHERE document_id = d.id AND kind IN ('supplier', 'opening')), 0) AS bought,
       ifnull((SELECT sum(amount) FROM document_value WHERE document_id = d.id AND kind = 'labour'), 0) AS labour,
       ifnull((SELECT sum(amount) FROM document_value WHERE document_id = d.id AND kind = 'charge'), 0) AS charges,
       ifnull((SELECT sum(value) FROM movement WHERE document_id = d.id), 0) AS stock_change
     FROM every e JOIN document d ON d.id = e.id WHERE d.kind NOT IN ('pick', 'put-back') ORDER BY d.at, d.id`,
    [tag],
  );

/**
 * What came back of shipments for orders under a tag, and what was lost or sent back of that: each document's part for each
 * order, because a return may be of several.
 */
export const returnPostingsOf = (db: Reader, tag: string) =>
  db.all<JobPostingRow>(
    `WITH piece AS (
       SELECT p.id, p.document_id, p.value, k.order_id FROM sales_order o JOIN order_line k ON k.order_id = o.id
       JOIN return_line l ON l.line_id = k.id JOIN return_piece p ON p.return_line_id = l.id WHERE o.job_tag = $1 COLLATE NOCASE),
     own (id, order_id, change) AS (
       SELECT document_id, order_id, value FROM piece
       UNION ALL SELECT r.document_id, p.order_id, -r.value FROM piece p JOIN return_outcome r ON r.piece_id = p.id
       WHERE r.outcome NOT IN ('shelf', 'rework', 'apart')
       UNION ALL SELECT r.document_id, p.order_id, ifnull((SELECT sum(value) FROM take_apart_line l
         WHERE l.document_id = r.document_id AND l.place = r.position), 0) - r.value
       FROM piece p JOIN return_outcome r ON r.piece_id = p.id WHERE r.outcome = 'apart'),
     every (id, order_id, change) AS (
       SELECT * FROM own UNION ALL SELECT u.id, o.order_id, -o.change FROM own o JOIN document u ON u.reverses_id = o.id)
     SELECT e.id, 'order' AS record_kind, e.order_id AS record_id, d.number, d.kind, d.at, 0 AS bought, 0 AS labour, 0 AS charges,
       sum(e.change) AS stock_change
     FROM every e JOIN document d ON d.id = e.id GROUP BY e.id, e.order_id ORDER BY d.at, d.id`,
    [tag],
  );

/** What customers pay for shipments that stand, by document. */
export const pricesOf = (db: Reader, documentIds: readonly number[]) =>
  db.all<{ document_id: number; quantity: Quantity; price: Money }>(
    `SELECT document_id, quantity, price FROM shipment_line WHERE document_id IN (SELECT value FROM json_each($1))
       AND NOT EXISTS (SELECT 1 FROM document u WHERE u.reverses_id = document_id)`,
    [JSON.stringify(documentIds)],
  );
