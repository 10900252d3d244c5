import { required } from '../command/doing.ts';
import { saveAnew } from '../db/versions.ts';
import type { LedgerFeature } from '../ledger/index.ts';
import { wishAgain } from './wishes.sql.ts';

/** A count whose posting is undone is not approved any more: it can be approved again, or cancelled. */
export const countLedger: LedgerFeature = {
  undone: {
    count: async (doing, document) => {
      const count = await doing.tx.models.stock_count.findOne({ where: { document_id: document.id } });
      if (!count) return;
      await saveAnew<'stock_count'>(required(count), { state: 'open', document_id: null });
      await wishAgain(doing.tx, document.id);
      doing.changed('stock', 'items', 'picks');
    },
  },
};
