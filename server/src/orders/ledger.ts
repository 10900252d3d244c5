import { least, minus, negated } from '@yosegi/core/number';
import type { Doing } from '../command/doing.ts';
import type { LedgerFeature, PostedDocument } from '../ledger/index.ts';
import { touched } from './parcels.ts';
import { addShipped, changeParts, orderParties, type PartChange } from './sql.ts';

export const orderLedger: LedgerFeature = { undone: { shipment: takeBack, pick: unpack }, parties: orderParties };

/** What an undone shipment had sent is open on its order again, and in its parcel what stood in one. */
async function takeBack(doing: Doing, document: PostedDocument): Promise<void> {
  const { tx } = doing;
  const lines = await tx.models.shipment_line.findAll({ where: { document_id: document.id } });
  await addShipped(tx, new Map(lines.map((line) => [line.line_id, negated(line.quantity)])));
  await tx.models.parcel.update({ shipped_id: null }, { where: { shipped_id: document.id } });
  await changeBack(doing, document);
}

/** What was picked for an order is on its shelf again, and no build has kept anything for it by that. */
async function unpack(doing: Doing, document: PostedDocument): Promise<void> {
  if (document.for?.kind !== 'order') return;
  await giveUpKept(doing, document);
  await changeBack(doing, document);
}

async function changeBack(doing: Doing, document: PostedDocument): Promise<void> {
  const changes = new Map<number, PartChange>();
  for (const { lineId, quantity, holder } of document.movements) {
    if (lineId === null) continue;
    const { shipped, packed } = changes.get(lineId) ?? { shipped: 0, packed: 0 };
    changes.set(lineId, {
      shipped: shipped + quantity,
      packed: packed - (holder === null ? 0 : quantity),
    });
  }
  await changeParts(doing.tx, changes);
  await touched(doing, document.for?.id ?? 0);
}

/** What a build had kept for the parts of an undone pick is to be built for them again. */
async function giveUpKept({ tx }: Doing, document: PostedDocument): Promise<void> {
  const { cause_id } = (await tx.models.document.findByPk(document.id)) ?? { cause_id: null };
  const finish = cause_id === null ? null : await tx.models.finish.findByPk(cause_id);
  if (!finish) return;
  for (const { lineId, quantity, holder } of document.movements) {
    if (lineId === null || holder === null) continue;
    const where = { build_id: finish.build_id, part_id: lineId };
    const row = await tx.models.build_for.findOne({ where });
    if (row) await tx.models.build_for.update({ kept: minus(row.kept, least(row.kept, quantity)) }, { where });
  }
}
