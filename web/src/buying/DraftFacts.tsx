import type { SupplierDetail } from '@yosegi/contract';
import { packUp } from '@yosegi/core/buying';
import { parseDecimal, type Quantity } from '@yosegi/core/number';
import { Link } from 'react-router';
import { useFormat } from '../ui/format.ts';
import { KeyValue } from '../ui/layout.ts';
import { readTyped } from '../ui/measuring.ts';
import { H2 } from '../ui/space.ts';
import { Faint, Muted } from '../ui/text.ts';
import type { DraftLine, Offers } from './draftLine.ts';
import { keptWords, learntWords } from './words.tsx';

/** What the supplier says of an item: its code, packs and minimum, where the typed quantity does not fit them. */
export function OfferWords({ offer, line }: { offer: Offers[number] | undefined; line: DraftLine }) {
  const format = useFormat();
  if (!offer) return <>no price of this supplier is known</>;
  const [pack, minimum] = [parseDecimal(offer.pack) as Quantity, parseDecimal(offer.minimum) as Quantity];
  let fits = true;
  try {
    const quantity = readTyped(line.quantity, line.item);
    fits = packUp(quantity, { pack, minimum }) === quantity;
  } catch {
    // What is wrong with it is said at the field.
  }
  const size = (text: string) => format.quantity(text, line.item.unit, line.item.decimals);
  const least = minimum > 0 ? `, at least ${size(offer.minimum)}` : '';
  return (
    <>
      {offer.code || 'no supplier code'}
      {!fits && (
        <b>
          {' '}
          · sold in packs of {size(offer.pack)}
          {least}
        </b>
      )}
    </>
  );
}

export function SupplierFacts({ supplier }: { supplier: SupplierDetail | undefined }) {
  const format = useFormat();
  if (!supplier) return <Muted>Choose a supplier.</Muted>;
  return (
    <>
      <Muted>from {supplier.name}</Muted>
      <H2 $top={22}>Delivery record</H2>
      <KeyValue>
        <span>Actual</span>
        <b>{learntWords(supplier.learnt)}</b>
      </KeyValue>
      {keptWords(supplier.learnt) && <Faint>{keptWords(supplier.learnt)}</Faint>}
      <KeyValue>
        <span>Open orders</span>
        <Link to={`/buying/orders?supplier=${supplier.id}`}>
          {supplier.openOrders} · {format.money(supplier.openWorth)}
        </Link>
      </KeyValue>
    </>
  );
}
