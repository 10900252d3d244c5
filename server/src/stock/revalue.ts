import type { Posted } from '@yosegi/contract';
import { Posting, postRevaluation } from '@yosegi/core/ledger';
import type { Money } from '@yosegi/core/number';
import { isRefusal, Refusal } from '@yosegi/core/refusal';
import type { BodyOf, Doing } from '../command/doing.ts';
import { itemRows } from '../items/index.ts';
import { balancesOf, heapAt, readStock, writeDocument } from '../ledger/index.ts';
import { setStandards } from './sql.ts';

/**
 * Makes all there is of some items worth a new cost each, in one document; with `asStandard` that cost becomes their
 * standard too.
 * @throws Refusal `nothing-on-hand`, `no-price-change`, `unknown-item`
 */
export async function revalue(doing: Doing, input: BodyOf<'revalue'>): Promise<Posted> {
  const { tx } = doing;
  const itemIds = input.lines.map((line) => line.itemId);
  const items = await itemRows(tx, itemIds);
  const posting = new Posting(await readStock(tx, itemIds));
  const costs: [number, Money][] = [];
  let changed = false;
  for (const [index, line] of input.lines.entries()) {
    const item = items.get(line.itemId);
    if (!item) throw new Refusal('unknown-item', {}, `lines.${index}.itemId`);
    if (costs.some(([id]) => id === item.id)) throw new Refusal('twice', { name: item.name }, `lines.${index}.itemId`);
    const { unitCost } = line;
    const here = (await balancesOf(tx, [item.id])).map(heapAt).filter(({ quantity }) => quantity > 0);
    try {
      changed = postRevaluation(posting, item.id, unitCost, here) !== 0 || changed;
    } catch (error) {
      const at = `lines.${index}.unitCost`;
      if (isRefusal(error, 'nothing-on-hand')) throw error.at(at, { name: item.name });
      throw error instanceof Refusal ? error.at(at) : error;
    }
    costs.push([item.id, unitCost]);
  }
  if (!changed) throw new Refusal('no-price-change');
  const document = await writeDocument(doing, { kind: 'revaluation', remark: input.remark }, posting.close());
  if (input.asStandard) await setStandards(tx, document.id, costs);
  return document;
}
