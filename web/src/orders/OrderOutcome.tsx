import type { OrderLook } from '@yosegi/contract';
import { dayAfter } from '@yosegi/core/days';
import { latest } from '@yosegi/core/demand';
import { formatDecimal, readForText } from '@yosegi/core/number';
import type { OrderSum } from '@yosegi/core/orders';
import { Button } from '../ui/Button.tsx';
import { count, marginWords, useFormat } from '../ui/format.ts';
import { BigNumber, KeyValue, Margin } from '../ui/layout.ts';
import { H2, Para } from '../ui/space.ts';
import { Late, Muted } from '../ui/text.ts';
import type { Head } from './typedOrder.ts';
import { delayWords, whenThere } from './words.ts';

interface Props {
  /** What the server says of it; undefined while it is not known. */
  readonly look: OrderLook | undefined;
  readonly head: Head;
  readonly change: (part: Partial<Head>) => void;
  /** What it comes to as far as it can be read. */
  readonly sum: OrderSum;
}

/** What an order that is being typed comes to: its day, its worth, and whom it would delay. */
export function OrderOutcome({ look, head, change, sum }: Props) {
  const format = useFormat();
  const goods = sum.lines - sum.takenOff;
  return (
    <Margin aria-label="Total">
      <h2>Complete</h2>
      <BigNumber $small>{look ? whenThere(look.completeOn, format) : '–'}</BigNumber>
      <H2 $top={18}>Total</H2>
      <KeyValue>
        <span>{count(sum.amounts.length, 'line')}</span>
        <b>{format.money(formatDecimal(sum.lines))}</b>
      </KeyValue>
      {sum.takenOff > 0n && (
        <KeyValue>
          <span>{format.percent(head.orderDiscount)} off</span>
          <b>−{format.money(formatDecimal(sum.takenOff))}</b>
        </KeyValue>
      )}
      {sum.total !== sum.lines && (
        <KeyValue>
          <span>{sum.total === goods ? 'Total' : 'Total, with freight'}</span>
          <b>{format.money(formatDecimal(sum.total))}</b>
        </KeyValue>
      )}
      <KeyValue>
        <span>Cost, as planned</span>
        <span>{format.money(formatDecimal(costOf(look)))}</span>
      </KeyValue>
      {look && goods > 0n && (
        <KeyValue>
          <b>Margin</b>
          <b>{marginWords(formatDecimal(goods), formatDecimal(costOf(look)), format)}</b>
        </KeyValue>
      )}
      {look && look.delays.length > 0 && (
        <>
          <H2 $top={18}>Orders delayed</H2>
          {look.delays.map((delay) => (
            <KeyValue key={`${delay.kind}${delay.id}`}>
              <Late>{delayWords(delay)}</Late>
              <span>
                {whenThere(delay.before, format)} → {whenThere(delay.after, format)}
              </span>
            </KeyValue>
          ))}
          <Button onPress={() => change({ turnOn: afterAll(look.delays) })}>
            Don’t delay {look.delays.length === 1 ? 'it' : 'them'}
          </Button>
        </>
      )}
      {head.turnOn && (
        <Para $top={14}>
          <Muted>Earlier orders get their parts first.</Muted>
          <br />
          <Button look="ghost" onPress={() => change({ turnOn: '' })}>
            Use its own priority
          </Button>
        </Para>
      )}
    </Margin>
  );
}

/** The day after the last of those that would be delayed; after everybody with a day where one of them has none. */
function afterAll(delays: OrderLook['delays']): string {
  const last = latest(delays.map(({ turnOn }) => turnOn));
  return last ? dayAfter(last, 1) : '9999-12-31';
}

const costOf = (look: OrderLook | undefined) =>
  (look?.lines ?? []).reduce((sum, { plannedCost }) => sum + readForText(plannedCost), 0n);
