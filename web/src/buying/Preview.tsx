import { add, formatDecimal, type Money } from '@yosegi/core/number';
import { useFormat } from '../ui/format.ts';
import { Grid } from '../ui/layout.ts';
import { plainTyped } from '../ui/measuring.ts';
import { Para } from '../ui/space.ts';
import { Faint } from '../ui/text.ts';
import type { DraftLine } from './draftLine.ts';

interface Props {
  readonly lines: readonly DraftLine[];
  /** What each line comes to. */
  readonly amounts: readonly Money[];
  readonly wantedOn: string;
  readonly remark: string;
  /** The address it is mailed to; null where it goes another way. */
  readonly mailedTo: string | null;
}

/** A purchase order as it leaves, to be seen before it does. */
export function Preview({ lines, amounts, wantedOn, remark, mailedTo }: Props) {
  const format = useFormat();
  return (
    <>
      <Para $bottom={8}>
        {mailedTo !== null && (mailedTo ? `Sent by email to ${mailedTo}. ` : 'No email address yet. ')}
        {wantedOn ? `Wanted on ${format.day(wantedOn)}.` : 'No date.'}
        {remark.trim() && ` “${remark.trim()}”`}
      </Para>
      <Grid $full aria-label="Items">
        <tbody>
          {lines.map((line, index) => (
            <tr key={line.key}>
              <td>
                {line.item.name} <Faint>{line.item.code}</Faint>
                {line.wantedOn && <Faint> · {format.day(line.wantedOn)}</Faint>}
              </td>
              <td className="num">
                {format.quantity(plainTyped(line.quantity, line.item), line.item.unit, line.item.decimals)}
              </td>
              <td className="num">{format.unitCost(line.price.trim() || '0')}</td>
              <td className="num">{format.money(formatDecimal(amounts[index] ?? 0))}</td>
            </tr>
          ))}
          <tr>
            <td colSpan={3}>
              <b>Total</b>
            </td>
            <td className="num">
              <b>{format.money(formatDecimal(add(0 as Money, ...amounts)))}</b>
            </td>
          </tr>
        </tbody>
      </Grid>
    </>
  );
}
