import type { Order, OrderLine } from '@yosegi/contract';
import { entryFault } from '@yosegi/contract/problems';
import { positive, readForText } from '@yosegi/core/number';
import { z } from 'zod';
import { problemAt } from '../api/client.ts';
import { QuantityCell } from '../ui/Cells.tsx';
import { Cell } from '../ui/layout.ts';
import { plainTyped, readTyped } from '../ui/measuring.ts';
import { Tile } from '../ui/Tile.tsx';
import { type TypedScreen, useTyped } from '../ui/useTypedScreen.ts';

const unitOf = (line: OrderLine) => ({ unit: line.unit, decimals: line.decimals, measures: [] });

/**
 * How much of each open line of an order is meant: what is shipped, or goes on another order. Nothing typed leaves a line
 * as it is.
 * @param begin what stands there to begin with, empty for nothing
 */
export function useOpenLines(order: Order, screen: TypedScreen, begin: (line: OrderLine) => string) {
  const open = order.lines.filter((line) => readForText(line.open) > 0n);
  const [typed, setTyped] = useTyped<Readonly<Record<number, string>>>(
    screen,
    'typed',
    () => Object.fromEntries(open.map((line) => [line.id, begin(line)])),
    z.record(z.string(), z.string()),
  );
  const textOf = (line: OrderLine) => typed[line.id] ?? '';
  const faultOf = (line: OrderLine): string | undefined => {
    try {
      if (textOf(line).trim() !== '') positive(readTyped(textOf(line), unitOf(line)));
      return undefined;
    } catch (error) {
      return entryFault(error);
    }
  };
  const meant = open.filter((line) => textOf(line).trim() !== '');
  return {
    open,
    /** Those of which something is meant. */
    meant,
    isFaulty: meant.some((line) => faultOf(line) !== undefined),
    textOf,
    faultOf,
    set: (texts: Readonly<Record<number, string>>) => setTyped((before) => ({ ...before, ...texts })),
    /** As the wire takes it. */
    quantityOf: (line: OrderLine) => plainTyped(textOf(line), unitOf(line)),
  };
}

/** What a line is of. */
export const LineName = ({ line }: { line: OrderLine }) => (
  <Cell>
    <Tile code={line.code} size={24} />
    {line.name}
  </Cell>
);

/** How much of a line is meant, with what is wrong with it. */
export function MeantQuantity({
  lines,
  line,
  called,
  error,
}: {
  lines: ReturnType<typeof useOpenLines>;
  line: OrderLine;
  /** What it is called before the line's name. */
  called: string;
  /** The refusal of those that were sent, in their order. */
  error: unknown;
}) {
  const at = lines.meant.indexOf(line);
  return (
    <QuantityCell
      label={`${called} ${line.name}`}
      value={lines.textOf(line)}
      unit={line.unit}
      onChange={(text) => lines.set({ [line.id]: text })}
      error={lines.faultOf(line) ?? (at < 0 ? undefined : problemAt(error, `lines.${at}.quantity`))}
    />
  );
}
