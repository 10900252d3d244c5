import type { Supplier, SupplierItem } from '@yosegi/contract';
import { found } from '../command/doing.ts';
import type { Reader } from '../db/database.ts';

const SQL = `SELECT s.id, s.code, s.name, s.address, s.email, s.learn_leads, s.delivery_days, s.version,
    (SELECT count(*) FROM item_supplier WHERE supplier_id = s.id) AS items
  FROM supplier s`;

type SupplierRecord = Omit<Supplier, 'learnLeads' | 'deliveryDays'> & { learn_leads: 0 | 1; delivery_days: string };

const toSupplier = ({ learn_leads, delivery_days, ...row }: SupplierRecord): Supplier => ({
  ...row,
  learnLeads: learn_leads === 1,
  deliveryDays: JSON.parse(delivery_days) as number[],
});

export const listSuppliers = async (db: Reader) =>
  (await db.all<SupplierRecord>(`${SQL} ORDER BY s.code COLLATE NOCASE`)).map(toSupplier);
export const supplierRow = async (db: Reader, id: number) =>
  toSupplier(found(await db.one<SupplierRecord>(`${SQL} WHERE s.id = $1`, [id])));

/** What a supplier sells that is in use. */
export const offersOf = (db: Reader, id: number) =>
  db.all<
    Omit<SupplierItem, 'price' | 'pack' | 'minimum' | 'learnt' | 'lead'> & {
      price: number;
      pack: number;
      minimum: number;
    }
  >(
    `SELECT i.id AS itemId, i.code AS itemCode, i.name, u.code AS unit, p.code, p.price, p.pack, p.minimum, p.lead_days AS leadDays
     FROM item_supplier p JOIN item i ON i.id = p.item_id JOIN unit u ON u.id = i.unit_id
     WHERE p.supplier_id = $1 AND i.archived_at IS NULL ORDER BY i.code COLLATE NOCASE LIMIT 5000`,
    [id],
  );

/** What is still to come of a supplier's orders. */
export const openLinesOf = (db: Reader, id: number) =>
  db.all<{ order_id: number; open: number; price: number }>(
    `SELECT l.order_id, l.open, l.price FROM purchase_order_line l JOIN purchase_order o ON o.id = l.order_id
     WHERE o.supplier_id = $1 AND l.open > 0`,
    [id],
  );
