import type { Label, LabelsOf } from '@yosegi/contract';
import { isGtin } from '@yosegi/core/items';
import { formatDecimal } from '@yosegi/core/number';
import { Refusal } from '@yosegi/core/refusal';
import { type ElementString, fitsInBars, writeGs1 } from '@yosegi/core/scan';
import { attributesInWords, type LotAttributes } from '@yosegi/core/tracking';
import { type Doing, found, required } from '../command/doing.ts';
import type { Reader } from '../db/database.ts';
import { servedBy } from '../picking/index.ts';
import {
  binsOf,
  type Going,
  type Marked,
  MOST_LABELS,
  type Piece,
  parcelGoing,
  piecesOf,
  type Returning,
  repairToMark,
  returnComing,
  shipmentGoing,
} from './sql.ts';

/** What fits on one line of a label. */
const LONGEST_LINE = 60;
/** Longer data makes bars too fine for a small label; a square symbol holds it. */
const LONGEST_IN_BARS = 30;

/** The label of an item, a lot or one unit: GS1 data where it has a GTIN, a lot or a serial, else its own barcode or code. */
export function labelOf(piece: Piece): Label {
  const amount = piece.quantity !== null && !piece.serial ? ` · ${formatDecimal(piece.quantity)} ${piece.unit}` : '';
  const says = attributesInWords(JSON.parse(piece.attributes ?? '{}') as LotAttributes);
  const which = piece.lot ? `Lot ${piece.lot}` : piece.serial ? `Serial ${piece.serial}` : '';
  const until = piece.best_before ? `Best before ${piece.best_before}` : '';
  // A label has room for three lines: what is written down of a lot puts its number and its day into one.
  const known = says === '' ? [which, until] : [[which, until].filter(Boolean).join(' · '), fitted(says)];
  const lines = [piece.code + amount, ...known].filter(Boolean);
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
  const plain = { symbol: 'code128', text: names.find((name) => name !== null && fitsInBars(name)) ?? '' } as const;
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

async function labelsOf(db: Reader, of: LabelsOf, now: Date): Promise<{ title: string; labels: Label[] }> {
  if ('parcelId' in of) return shippingLabel(found(await parcelGoing(db, of.parcelId)));
  if ('shipmentId' in of) return shippingLabel(found(await shipmentGoing(db, of.shipmentId)));
  if ('repairId' in of) return repairLabel(found(await repairToMark(db, of.repairId)));
  if ('runId' in of) return runLabels(await servedBy(db, of.runId, now));
  if ('returnId' in of) return returnLabel(found(await returnComing(db, of.returnId)));
  if (!('storeId' in of)) {
    const { title, pieces } = await piecesOf(db, of);
    return { title, labels: pieces.map((piece) => labelOf(piece)) };
  }
  const bins = await binsOf(db, of.storeId);
  const labels = bins.map((bin): Label => {
    const text = `${bin.store_code}/${bin.code}`;
    return { title: bin.code, code: '', lines: [bin.store], symbol: 'code128', text: fitsInBars(text) ? text : '' };
  });
  return { title: `Bins of ${bins[0]?.store ?? 'the store'}`, labels };
}

/** Most lines of an address that a label has room for. */
const ADDRESS_LINES = 3;

/** Where a parcel goes, with its number in bars. */
function shippingLabel({ number, customer, address, sales_order: order }: Going): { title: string; labels: Label[] } {
  const lines = address.split('\n').filter((line) => line.trim() !== '');
  const shown = [...lines.slice(0, ADDRESS_LINES - 1), lines.slice(ADDRESS_LINES - 1).join(', ')].filter(Boolean);
  const label: Label = { title: customer, code: '', lines: shown, symbol: 'code128', text: number };
  return { title: `${number} of ${order}`, labels: [label] };
}

/** Whose goods they are and what is wrong with them, with the repair's number in bars. */
function repairLabel(repair: Marked): { title: string; labels: Label[] } {
  const { number, customer, code, name, serial, fault } = repair;
  const lines = [`${name}${serial ? ` · ${serial}` : ''}`, fitted(fault)];
  return { title: `Repair ${number}`, labels: [{ title: customer, code, lines, symbol: 'code128', text: number }] };
}

/** One for each bench and parcel of a run: its place on the cart, whom it is for, and its number in bars. */
function runLabels({ number, goals }: Awaited<ReturnType<typeof servedBy>>): { title: string; labels: Label[] } {
  const labels = goals.map(({ slot, code, name, due, number: of }): Label => {
    const lines = [fitted(name), ...(due ? [`due ${due}`] : [])];
    return { title: `${slot} · ${of}`, code: '', lines, symbol: 'code128', text: code };
  });
  return { title: `Benches and parcels of ${number}`, labels };
}

/** Where goods come back to, from whom, with the return's number in bars. */
function returnLabel({ number, customer, company, address }: Returning): { title: string; labels: Label[] } {
  const lines = [address.split('\n').join(', '), `${number} from ${customer}`].filter(Boolean).map(fitted);
  return { title: `Return ${number}`, labels: [{ title: company, code: '', lines, symbol: 'code128', text: number }] };
}

const fitted = (line: string) => line.slice(0, LONGEST_LINE);

/** Puts labels into the printer's queue. @throws Refusal `no-labels`, `too-many-labels` */
export async function createLabelJob(doing: Doing, of: LabelsOf): Promise<{ id: number; count: number }> {
  const { tx, person, now } = doing;
  const { title, labels } = await labelsOf(tx, of, now);
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
  return { id, count: labels.length };
}

/** Ends a job; one that has ended stays as it is. */
export async function endLabelJob(doing: Doing, id: number, as: 'printed' | 'cancelled'): Promise<{ id: number }> {
  const { tx, now } = doing;
  const ended = { state: as, printed_at: as === 'printed' ? now.toISOString() : null };
  const job = required(await tx.models.label_job.findByPk(id));
  if (job.state === 'waiting') await job.update(ended);
  doing.changed('devices');
  return { id };
}
