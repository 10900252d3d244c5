import type { Earned } from '@yosegi/contract';
import { formatDecimal, readForText } from '@yosegi/core/number';
import { marginWords, useFormat } from '../ui/format.ts';
import { KeyValue } from '../ui/layout.ts';

/** What was shipped, what of it came back, and what is left of both. */
export function EarnedFigures({ of, shipped = 'Shipped' }: { of: Earned; shipped?: string }) {
  const format = useFormat();
  const isBack = of.returned !== '0';
  return (
    <>
      <KeyValue>
        <span>{shipped}</span>
        <b>{format.money(of.sold)}</b>
      </KeyValue>
      {isBack && (
        <KeyValue>
          <span>Owed for returns</span>
          <span>{format.money(formatDecimal(-readForText(of.owed)))}</span>
        </KeyValue>
      )}
      <KeyValue>
        <span>Cost that left</span>
        <span>{format.money(of.cost)}</span>
      </KeyValue>
      {isBack && (
        <KeyValue>
          <span>Value returned</span>
          <span>{format.money(formatDecimal(-readForText(of.back)))}</span>
        </KeyValue>
      )}
      <KeyValue>
        <b>{isBack ? 'Margin after returns' : 'Margin'}</b>
        <b>{marginWords(of.earned, of.spent, format)}</b>
      </KeyValue>
    </>
  );
}
