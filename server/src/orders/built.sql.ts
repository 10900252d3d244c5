import type { BuiltFor } from '@yosegi/contract';
import { add, handOut, minus, type Quantity, ZERO } from '@yosegi/core/number';
import { partKept } from '@yosegi/core/shipping';
import { decimal } from '../command/amounts.ts';
import type { Reader, Writer } from '../db/database.ts';
import type { Row } from '../db/models/index.ts';

/** What a build makes for a part of an order. */
export interface BuiltForRow extends Row<'build_for'> {
  readonly order_id: number;
  readonly number: string;
  readonly customer: string;
  readonly wanted_on: string | null;
}

const BUILT_SQL = `
  SELECT f.*, o.id AS order_id, o.number, c.name AS customer, ifnull(l.wanted_on, o.wanted_on) AS wanted_on
  FROM build_for f JOIN order_part p ON p.id = f.part_id JOIN order_line l ON l.id = p.line_id
  JOIN sales_order o ON o.id = l.order_id JOIN customer c ON c.id = o.customer_id`;
/** The first in turn first. */
const IN_TURN = `ORDER BY f.build_id, ifnull(ifnull(l.wanted_on, o.wanted_on), '9999'), ifnull(o.confirmed_at, o.made_at), o.id, f.part_id`;

/** For whom builds make something, the first in turn first. */
export const builtFor = (db: Reader, buildIds: readonly number[]) =>
  db.all<BuiltForRow>(`${BUILT_SQL} WHERE f.build_id IN (SELECT value FROM json_each($1)) ${IN_TURN}`, [
    JSON.stringify(buildIds),
  ]);

export const toBuiltFor = (row: BuiltForRow): BuiltFor => ({
  orderId: row.order_id,
  order: row.number,
  customer: row.customer,
  wantedOn: row.wanted_on,
  partId: row.part_id,
  quantity: decimal(row.quantity),
  kept: decimal(row.kept),
});

/** What is or was built for parts of orders. */
export const buildsForParts = (db: Reader, partIds: readonly number[]) =>
  db.all<Row<'build_for'> & Pick<Row<'build'>, 'number' | 'state' | 'due'>>(
    `SELECT f.*, b.number, b.state, b.due FROM build_for f JOIN build b ON b.id = f.build_id
     WHERE f.part_id IN (SELECT value FROM json_each($1)) ORDER BY b.id`,
    [JSON.stringify(partIds)],
  );

/** What open builds make for each part beyond what is in its parcel. */
export async function beingBuilt(db: Reader, partIds: readonly number[]): Promise<ReadonlyMap<number, Quantity>> {
  const rows = await db.all<{ part_id: number; quantity: Quantity }>(
    `SELECT part_id, sum(quantity) AS quantity FROM built_for WHERE part_id IN (SELECT value FROM json_each($1))
     GROUP BY part_id`,
    [JSON.stringify(partIds)],
  );
  return new Map(rows.map(({ part_id, quantity }) => [part_id, quantity]));
}

/** Sets what a build makes for parts; nothing of one is for stock. */
export async function setBuilt(tx: Writer, rows: readonly Row<'build_for'>[]): Promise<void> {
  const some = rows.filter(({ quantity }) => quantity > 0);
  await tx.run(
    `DELETE FROM build_for WHERE (build_id, part_id) IN (SELECT value ->> 0, value ->> 1 FROM json_each($1))`,
    [JSON.stringify(rows.map(({ build_id, part_id }) => [build_id, part_id]))],
  );
  await tx.insertMany('build_for', some);
}

/** Takes off builds what parts do not need any more, the newest build first; what was finished for them stays known. */
export async function trimBuilt(tx: Writer, open: ReadonlyMap<number, Quantity>): Promise<void> {
  const rows = await stillBuilt(tx, [...open.keys()]);
  const trimmed = [...open].flatMap(([partId, needed]) => {
    const own = rows.filter(({ part_id }) => part_id === partId);
    const left = handOut(
      needed,
      own.map(({ quantity, kept }) => minus(quantity, kept)),
    );
    return own.map((row, index) => ({ ...row, quantity: add(row.kept, left[index] ?? ZERO) }));
  });
  if (trimmed.length > 0) await setBuilt(tx, trimmed);
}

/** Lets what open builds still make for parts be for others, up to what those need, the oldest build first. */
export async function moveBuilt(
  tx: Writer,
  moves: readonly { readonly from: number; readonly to: number; readonly needed: Quantity }[],
): Promise<void> {
  const rows = await stillBuilt(
    tx,
    moves.map(({ from }) => from),
  );
  const moved = moves.flatMap(({ from, to, needed }) => {
    const own = rows.filter(({ part_id }) => part_id === from);
    const goes = handOut(
      needed,
      own.map(({ quantity, kept }) => minus(quantity, kept)),
    );
    return own.flatMap((row, index) => [
      { ...row, quantity: minus(row.quantity, goes[index] ?? ZERO) },
      { ...row, part_id: to, quantity: goes[index] ?? ZERO, kept: ZERO },
    ]);
  });
  if (moved.length > 0) await setBuilt(tx, moved);
}

/** What open builds still make for parts, the oldest build first. */
const stillBuilt = (tx: Writer, partIds: readonly number[]) =>
  tx.all<Row<'build_for'>>(
    `SELECT f.* FROM build_for f JOIN build b ON b.id = f.build_id AND b.state IN ('planned', 'on-bench')
     WHERE f.quantity > f.kept AND f.part_id IN (SELECT value FROM json_each($1)) ORDER BY f.build_id`,
    [JSON.stringify(partIds)],
  );

/**
 * A build that is over makes nothing more for anybody.
 * @param because the finish that ended it, with which this is undone
 */
export const endBuilt = async (tx: Writer, buildId: number, because: number | null = null) =>
  lessBuilt(
    tx,
    (await builtRows(tx, buildId)).map((row) => [row, row.kept] as const),
    because,
  );

/** Lets a build make less for parts than it did, and keeps how much less with the finish that it was because of. */
async function lessBuilt(
  tx: Writer,
  rows: readonly (readonly [row: Row<'build_for'>, stays: Quantity])[],
  because: number | null,
): Promise<void> {
  await setBuilt(
    tx,
    rows.map(([row, quantity]) => ({ ...row, quantity })),
  );
  if (because === null) return;
  const less = rows.filter(([row, stays]) => row.quantity > stays);
  await tx.insertMany(
    'finish_less',
    less.map(([row, stays]) => ({
      document_id: because,
      part_id: row.part_id,
      quantity: minus(row.quantity, stays),
    })),
  );
}

/** A finish is undone: its build makes again what it made for orders, as far as these still need it. */
export async function makeAgain(tx: Writer, buildId: number, finishId: number): Promise<void> {
  const less = await tx.models.finish_less.findAll({ where: { document_id: finishId } });
  const now = await builtRows(tx, buildId);
  const parts = new Set([...less, ...now].map(({ part_id }) => part_id));
  const open = await tx.all<{ id: number; open: Quantity }>(
    'SELECT id, open FROM order_part WHERE id IN (SELECT value FROM json_each($1))',
    [JSON.stringify([...parts])],
  );
  // What has been taken off its order since wants nothing any more.
  const wanting = new Set(open.map(({ id }) => id));
  await setBuilt(
    tx,
    less
      .filter(({ part_id }) => wanting.has(part_id))
      .map(({ part_id, quantity }) => {
        const row = now.find((one) => one.part_id === part_id) ?? {
          build_id: buildId,
          part_id,
          quantity: ZERO,
          kept: ZERO,
        };
        return { ...row, quantity: add(row.quantity, quantity) };
      }),
  );
  await trimBuilt(tx, new Map(open.map((part) => [part.id, part.open])));
}

/** Parts what a build makes for orders, when so much of it goes ahead and the rest is another build. */
export async function partBuilt(tx: Writer, from: number, to: number, ahead: Quantity): Promise<void> {
  const rows = (await builtFor(tx, [from])).map(({ build_id, part_id, quantity, kept }) => ({
    build_id,
    part_id,
    quantity,
    kept,
  }));
  const parted = partKept(ahead, rows);
  await setBuilt(
    tx,
    rows.flatMap((row, index) => {
      const { stays = row.quantity, goes } = parted[index] ?? {};
      const gone = { ...row, build_id: to, quantity: goes ?? ZERO, kept: ZERO };
      return [{ ...row, quantity: stays }, gone];
    }),
  );
}

/** What is rejected is made for nobody: whoever is last in turn gets less of what is left to make. */
export async function rejectBuilt(tx: Writer, buildId: number, left: Quantity, because: number): Promise<void> {
  const rows = await builtFor(tx, [buildId]);
  const parted = partKept(left, rows);
  await lessBuilt(
    tx,
    rows.map(({ build_id, part_id, quantity, kept }, index) => [
      { build_id, part_id, quantity, kept },
      parted[index]?.stays ?? quantity,
    ]),
    because,
  );
}

const builtRows = (tx: Writer, buildId: number) =>
  tx.all<Row<'build_for'>>('SELECT * FROM build_for WHERE build_id = $1', [buildId]);

/** The most lines that are offered to a build. */
const MOST_WANTING = 20;

/** Open lines of orders that want more of an item than is being built for them, the first wanted first. */
export const wantingMore = (db: Reader, itemId: number) =>
  db.all<Omit<BuiltForRow, 'build_id' | 'kept'>>(
    `SELECT p.id AS part_id, o.id AS order_id, o.number, c.name AS customer, ifnull(l.wanted_on, o.wanted_on) AS wanted_on,
       p.open - ifnull((SELECT sum(quantity) FROM built_for WHERE part_id = p.id), 0) AS quantity
     FROM order_part p JOIN order_line l ON l.id = p.line_id JOIN sales_order o ON o.id = l.order_id
     JOIN customer c ON c.id = o.customer_id
     WHERE p.item_id = $1 AND p.open > 0
       AND p.open > ifnull((SELECT sum(quantity) FROM built_for WHERE part_id = p.id), 0)
     ORDER BY ifnull(l.wanted_on, ifnull(o.wanted_on, '9999')), ifnull(o.confirmed_at, o.made_at), o.id LIMIT ${MOST_WANTING}`,
    [itemId],
  );
