import type { BoughtFor as Bought, PurchaseLine } from '@yosegi/contract';
import { Link } from 'react-router';
import { useFormat } from '../ui/format.ts';
import { KeyValue } from '../ui/layout.ts';
import { H2 } from '../ui/space.ts';
import { Faint, Muted } from '../ui/text.ts';

interface Line {
  readonly needs: readonly PurchaseLine['needs'][number][];
  readonly orders: readonly PurchaseLine['orders'][number][];
  readonly item: Pick<PurchaseLine, 'code' | 'unit' | 'decimals'>;
}

/** For which builds and which customers' orders something is bought; the shelf where for none. */
export function BoughtFor({ lines }: { lines: readonly Line[] }) {
  const format = useFormat();
  const rows = lines.flatMap(({ item, needs, orders }) => [
    ...needs.map((need) => ({ item, to: `/build/${need.buildId}`, number: need.build, whom: need.product, ...need })),
    ...orders.map((need) => ({ item, to: `/orders/${need.orderId}`, whom: need.customer, ...need })),
  ]);
  return (
    <>
      <H2 $top={18}>Bought for</H2>
      {rows.length === 0 && <Muted>The shelf.</Muted>}
      {rows.map(({ item, to, number, whom, quantity }) => (
        <KeyValue key={`${to}.${item.code}`}>
          <span>
            <Link to={to}>{number}</Link> <Faint>{whom}</Faint>
          </span>
          <b>
            {format.quantity(quantity, item.unit, item.decimals)} {item.code}
          </b>
        </KeyValue>
      ))}
    </>
  );
}

/** What a build or an order had bought for it, and whether it is still to come. */
export function BoughtForIt({ purchases }: { purchases: readonly Bought[] }) {
  const format = useFormat();
  if (purchases.length === 0) return null;
  return (
    <>
      <H2 $top={18}>Bought for this</H2>
      {purchases.map(({ id, number, code, unit, decimals, quantity, open }) => (
        <KeyValue key={`${id}.${code}`}>
          <span>
            <Link to={`/buying/orders/${id}`}>{number}</Link> <Faint>{open ? 'to come' : 'not expected'}</Faint>
          </span>
          <b>
            {format.quantity(quantity, unit, decimals)} {code}
          </b>
        </KeyValue>
      ))}
    </>
  );
}
