import type { Label, LabelJobDetail, LabelsOf } from '@yosegi/contract';
import { isGtin } from '@yosegi/core/item';
import { formatDecimal } from '@yosegi/core/number';
import { Refusal } from '@yosegi/core/refusal';
import { type ElementString, writeGs1 } from '@yosegi/core/scan';
import type { Reader } from '../db/database.ts';
import { type Doing, found } from '../http/context.ts';
import { page } from '../http/pages.ts';

/** The most labels of one job. */
const MOST_LABELS = 500;
/** Longer data makes bars too fine for a small label; a square symbol holds it. */
const LONGEST_IN_BARS = 30;

/** What Code 128 carries without tricks that some readers do not know. */
const IN_BARS = /^[\x20-\x7e]{1,48}$/;

interface Piece {
  code: string;
  name: string;
  unit: string;
  barcode: string | null;
  lot: string | null;
  best_before: string | null;
  serial: string | null;
  quantity: number | null;
}

const PIECE_SQL = `SELECT i.code, i.name, u.code AS unit, i.barcode, l.code AS lot, l.best_before, s.code AS serial`;
const PIECE_JOIN = 'JOIN item i ON i.id = m.item_id JOIN unit u ON u.id = i.unit_id';

/** The label of an item, a lot or one unit: GS1 data where it has a GTIN, a lot or a serial, else its own barcode or code. */
export function labelOf(piece: Piece): Label {
  const amount = piece.quantity !== null && !piece.serial ? ` · ${formatDecimal(piece.quantity)} ${piece.unit}` : '';
  const lines = [
    piece.code + amount,
    piece.lot ? `Lot ${piece.lot}` : piece.serial ? `Serial ${piece.serial}` : '',
    piece.best_before ? `Best before ${piece.best_before}` : '',
  ].filter(Boolean);
  return { title: piece.name, code: piece.code, lines, ...symbolOf(piece) };
}

function symbolOf(piece: Piece): Pick<Label, 'symbol' | 'text'> {
  const elements: ElementString = {
    ...(piece.barcode && isGtin(piece.barcode) ? { gtin: piece.barcode } : {}),
    ...(piece.lot ? { lot: piece.lot } : {}),
    ...(piece.lot && piece.best_before ? { expires: piece.best_before } : {}),
    ...(piece.serial ? { serial: piece.serial } : {}),
  };
  // The first of its names that bars can carry; a label without any is text alone.
  const names = [piece.serial, piece.lot, piece.barcode, piece.code];
  const plain = { symbol: 'code128', text: names.find((name) => name !== null && IN_BARS.test(name)) ?? '' } as const;
  if (Object.keys(elements).length === 0 || [piece.lot, piece.serial].some((name) => name && /[()]/.test(name)))
    return plain;
  try {
    const text = writeGs1(elements);
    return { symbol: text.length > LONGEST_IN_BARS ? 'gs1datamatrix' : 'gs1-128', text };
  } catch {
    // A lot or serial with letters that the standard does not carry.
    return plain;
  }
}

async function piecesOf(db: Reader, of: LabelsOf): Promise<{ title: string; pieces: Piece[] }> {
  if ('documentId' in of) {
    const { number } = found(
      await db.one<{ number: string }>('SELECT number FROM document WHERE id = $1', [of.documentId]),
    );
    const pieces = await db.all<Piece>(
      `${PIECE_SQL}, m.quantity FROM movement m ${PIECE_JOIN} LEFT JOIN lot l ON l.id = m.lot_id LEFT JOIN serial s ON s.id = m.serial_id
       WHERE m.document_id = $1 AND m.quantity > 0 ORDER BY m.id LIMIT ${MOST_LABELS + 1}`,
      [of.documentId],
    );
    return { title: `What ${number} brought`, pieces };
  }
  if ('serialIds' in of) {
    const pieces = await db.all<Piece>(
      `${PIECE_SQL}, NULL AS quantity FROM serial s JOIN item i ON i.id = s.item_id JOIN unit u ON u.id = i.unit_id
       LEFT JOIN lot l ON l.id = s.lot_id WHERE s.id IN (SELECT value FROM json_each($1)) ORDER BY s.code`,
      [JSON.stringify(of.serialIds)],
    );
    return { title: `Serials of ${pieces[0]?.name ?? 'nothing'}`, pieces };
  }
  if ('lotId' in of) {
    const piece = found(
      await db.one<Piece>(
        `${PIECE_SQL.replace('s.code AS serial', 'NULL AS serial')}, NULL AS quantity FROM lot l
         JOIN item i ON i.id = l.item_id JOIN unit u ON u.id = i.unit_id WHERE l.id = $1`,
        [of.lotId],
      ),
    );
    return { title: `Lot ${piece.lot} of ${piece.name}`, pieces: Array(of.copies ?? 1).fill(piece) };
  }
  if (!('itemId' in of)) throw new Error('labels of nothing');
  const piece = found(
    await db.one<Piece>(
      `SELECT i.code, i.name, u.code AS unit, i.barcode, NULL AS lot, NULL AS best_before, NULL AS serial, NULL AS quantity
       FROM item i JOIN unit u ON u.id = i.unit_id WHERE i.id = $1`,
      [of.itemId],
    ),
  );
  return { title: piece.name, pieces: Array(of.copies ?? 1).fill(piece) };
}

async function labelsOf(db: Reader, of: LabelsOf): Promise<{ title: string; labels: Label[] }> {
  if (!('storeId' in of)) {
    const { title, pieces } = await piecesOf(db, of);
    return { title, labels: pieces.map((piece) => labelOf(piece)) };
  }
  const bins = await db.all<{ code: string; store_code: string; store: string }>(
    `SELECT n.code, t.code AS store_code, t.name AS store FROM bin n JOIN store t ON t.id = n.store_id
     WHERE t.id = $1 AND n.kind <> 'bench' ORDER BY n.walk_order, n.code`,
    [of.storeId],
  );
  const labels = bins.map(
    (bin): Label => ({
      title: bin.code,
      code: '',
      lines: [bin.store],
      symbol: 'code128',
      text: `${bin.store_code}/${bin.code}`,
    }),
  );
  return { title: `Bins of ${bins[0]?.store ?? 'the store'}`, labels };
}

/** Puts labels into the printer's queue. @throws Refusal `no-labels`, `too-many-labels` */
export async function createLabelJob(doing: Doing, of: LabelsOf): Promise<LabelJobDetail> {
  const { tx, person, now } = doing;
  const { title, labels } = await labelsOf(tx, of);
  if (labels.length === 0) throw new Refusal('no-labels');
  if (labels.length > MOST_LABELS) throw new Refusal('too-many-labels', { most: MOST_LABELS });
  const id = await tx.insert('label_job', {
    at: now.toISOString(),
    person_id: person.id,
    title,
    labels: JSON.stringify(labels),
    state: 'waiting',
  });
  doing.changed('devices');
  return readLabelJob(tx, id);
}

const JOB_SQL = `SELECT j.id, j.at, p.name AS person, j.title, j.state, j.printed_at AS printedAt,
  json_array_length(j.labels) AS count, j.labels FROM label_job j JOIN person p ON p.id = j.person_id`;
type JobRow = Omit<LabelJobDetail, 'labels'> & { labels: string };

export async function readLabelJob(db: Reader, id: number): Promise<LabelJobDetail> {
  const row = found(await db.one<JobRow>(`${JOB_SQL} WHERE j.id = $1`, [id]));
  return { ...row, labels: JSON.parse(row.labels) as Label[] };
}

export async function listLabelJobs(db: Reader, query: { cursor?: string | undefined; limit: number }) {
  const rows = await db.all<JobRow>(`${JOB_SQL} WHERE j.id < $1 ORDER BY j.id DESC LIMIT $2`, [
    query.cursor ? Number(query.cursor) : Number.MAX_SAFE_INTEGER,
    query.limit + 1,
  ]);
  const shown = page(rows, query.limit, (row) => row.id);
  return { rows: shown.rows.map(({ labels: _, ...row }) => row), next: shown.next };
}

/** Ends a job; one that has ended stays as it is. */
export async function endLabelJob(doing: Doing, id: number, as: 'printed' | 'cancelled'): Promise<LabelJobDetail> {
  const { tx, now } = doing;
  await tx.run("UPDATE label_job SET state = $1, printed_at = $2 WHERE id = $3 AND state = 'waiting'", [
    as,
    as === 'printed' ? now.toISOString() : null,
    id,
  ]);
  doing.changed('devices');
  return readLabelJob(tx, id);
}
