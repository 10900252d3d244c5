import type { BuildDetail } from '@yosegi/contract';
import { formatDecimal, least, readForText } from '@yosegi/core/number';
import { Link } from 'react-router';
import { useCommand } from '../api/client.ts';
import { Button } from '../ui/Button.tsx';
import { useFormat } from '../ui/format.ts';
import { KeyValue } from '../ui/layout.ts';
import { useNotify } from '../ui/Notice.ts';
import { ProblemBox } from '../ui/Problem.tsx';
import { H2, Para } from '../ui/space.ts';
import { Faint, Muted } from '../ui/text.ts';
import { leftOf } from './reckonUse.ts';

/** For which orders a build makes how many, and which others could have some of it. */
export function ForOrders({ build }: { build: BuildDetail }) {
  const format = useFormat();
  const notify = useNotify();
  const set = useCommand('setBuildFor', ({ number }) => notify({ text: `${number} updated.` }));
  const isOpen = build.state === 'planned' || build.state === 'on-bench';
  const still = build.orders.filter(({ quantity, kept }) => quantity !== kept);
  const left = BigInt(leftOf(build));
  const given = still.reduce((sum, { quantity, kept }) => sum + readForText(quantity) - readForText(kept), 0n);
  const spare = left - given;
  const offered =
    isOpen && spare > 0n ? build.wanting.filter(({ partId }) => !still.some((own) => own.partId === partId)) : [];
  if (build.orders.length === 0 && offered.length === 0) return null;
  const change = (partId: number, quantity: bigint) => {
    const rest = still
      .filter((own) => own.partId !== partId)
      .map((own) => ({
        partId: own.partId,
        quantity: formatDecimal(readForText(own.quantity) - readForText(own.kept)),
      }));
    const orders = quantity > 0n ? [...rest, { partId, quantity: formatDecimal(quantity) }] : rest;
    set.mutate({ params: { id: build.id }, body: { version: build.version, orders } });
  };
  const amount = (text: string) => format.quantity(text, build.unit, build.decimals);
  return (
    <>
      <H2 $top={22}>For</H2>
      {build.orders.map((own) => (
        <KeyValue key={own.partId}>
          <span>
            <b>{amount(own.quantity)}</b> for <Link to={`/orders/${own.orderId}`}>{own.order}</Link>, {own.customer}
            <br />
            <Faint>
              {own.wantedOn ? `wanted ${format.day(own.wantedOn)}` : 'no date'}
              {own.kept !== '0' && ` · ${amount(own.kept)} in its parcel`}
            </Faint>
          </span>
          {isOpen && own.kept !== own.quantity && (
            <Button
              look="ghost"
              busy={set.isPending}
              aria-label={`Make for stock instead of ${own.order}`}
              onPress={() => change(own.partId, 0n)}
            >
              Make for stock instead
            </Button>
          )}
        </KeyValue>
      ))}
      {isOpen && spare > 0n && (
        <Para $top={6}>
          <Muted>{amount(formatDecimal(spare))} for stock.</Muted>
        </Para>
      )}
      {offered.map((own) => {
        const most = least(readForText(own.quantity), spare);
        return (
          <KeyValue key={own.partId}>
            <span>
              <Link to={`/orders/${own.orderId}`}>{own.order}</Link>, {own.customer} wants {amount(own.quantity)}
            </span>
            <Button
              look="ghost"
              busy={set.isPending}
              aria-label={`Keep ${amount(formatDecimal(most))} for ${own.order}`}
              onPress={() => change(own.partId, most)}
            >
              keep {amount(formatDecimal(most))}
            </Button>
          </KeyValue>
        );
      })}
      <ProblemBox error={set.error} />
    </>
  );
}
