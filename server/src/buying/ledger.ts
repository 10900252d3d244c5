import { Refusal } from '@yosegi/core/refusal';
import type { Doing } from '../command/doing.ts';
import type { Reader } from '../db/database.ts';
import type { LedgerFeature, PostedDocument } from '../ledger/index.ts';
import { keepLatestCosts } from './latest.sql.ts';
import { describeReceipt, laterPrice, pricedItems, receiptParties } from './receipts.sql.ts';
import { takeOffOrder } from './receive.ts';

export const buyingLedger: LedgerFeature = {
  refuseUndo: refuseCorrected,
  undone: {
    opening: keepCosts,
    receipt: async (doing, document) => {
      await takeOffOrder(doing, document.id);
      await keepCosts(doing, document);
    },
    'price-difference': keepCosts,
  },
  parties: receiptParties,
  describe: describeReceipt,
};

/**
 * A receipt whose price was put right later is undone after that, and so is a price that was put right once more: the goods
 * are worth what all of them say together, each told as the difference to the one before.
 */
async function refuseCorrected(db: Reader, { id }: PostedDocument): Promise<void> {
  const later = await laterPrice(db, id);
  if (later) throw new Refusal('undo-later-first', { number: later.number });
}

async function keepCosts({ tx }: Doing, { id, movements }: PostedDocument): Promise<void> {
  await keepLatestCosts(tx, [...movements.map(({ itemId }) => itemId), ...(await pricedItems(tx, id))]);
}
