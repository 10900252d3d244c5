import type { PromisedTo } from '@yosegi/contract';
import { readForText } from '@yosegi/core/number';
import { Link } from 'react-router';
import { useFormat } from '../ui/format.ts';
import { KeyValue } from '../ui/layout.ts';
import { Faint, Late } from '../ui/text.ts';

interface Props {
  readonly rows: readonly PromisedTo[];
  readonly unit: string;
  readonly decimals: number;
}

/** The builds and orders that something is promised to, and which of them wait for it. */
export function PromisedRows({ rows, unit, decimals }: Props) {
  const format = useFormat();
  return rows.map((row, index) => (
    // biome-ignore lint/suspicious/noArrayIndexKey: several lines of one order stand apart
    <KeyValue key={`${row.kind}.${row.id}.${index}`}>
      <span>
        <Link to={row.kind === 'build' ? `/build/${row.id}` : `/orders/${row.id}`}>{row.number}</Link>{' '}
        <Faint>
          {row.who}
          {row.wantedOn && ` · ${format.day(row.wantedOn)}`}
        </Faint>
        {readForText(row.now) < readForText(row.quantity) && (
          <>
            <br />
            <Late>
              {row.now === '0' ? 'short' : `${format.number(row.now)} now, the rest later`}
              {row.completeOn ? ` until ${format.day(row.completeOn)}` : ', no date yet'}
            </Late>
          </>
        )}
      </span>
      <b>{format.quantity(row.quantity, unit, decimals)}</b>
    </KeyValue>
  ));
}
