import type { Order, OrderLine } from '@yosegi/contract';
import { wordsOf } from '@yosegi/contract/problems';
import { formatDecimal, positive, readForText } from '@yosegi/core/number';
import { useNavigate } from 'react-router';
import { problemAt, useCommand } from '../api/client.ts';
import { Button } from '../ui/Button.tsx';
import { QuantityCell } from '../ui/Cells.tsx';
import { DayField } from '../ui/DayField.tsx';
import { count, useFormat } from '../ui/format.ts';
import { Cell, Grid } from '../ui/layout.ts';
import { plainTyped, readTyped } from '../ui/measuring.ts';
import { useNotify } from '../ui/Notice.tsx';
import { ProblemBox } from '../ui/Problem.tsx';
import { Part, Th } from '../ui/space.ts';
import { Tile } from '../ui/Tile.tsx';
import { Row } from '../ui/text.ts';
import { useShortcut } from '../ui/useShortcut.ts';
import { useTyped, useTypedScreen } from '../ui/useTypedScreen.ts';

const unitOf = (line: OrderLine) => ({ unit: line.unit, decimals: line.decimals, measures: [] });

/** What of a line cannot leave now; nothing where all of it can. */
function waiting(line: OrderLine): string {
  const left = readForText(line.open) - readForText(line.canShip);
  return left > 0n ? formatDecimal(left) : '';
}

/** Takes lines, or some of them, off an order and makes another order of them: what waits goes to the other. */
export function SplitPanel({ order, onDone }: { order: Order; onDone: () => void }) {
  const format = useFormat();
  const go = useNavigate();
  const notify = useNotify();
  const open = order.lines.filter((line) => readForText(line.open) > 0n);
  const screen = useTypedScreen(`split.${order.id}`);
  const [typed, setTyped] = useTyped<Readonly<Record<number, string>>>(screen, 'typed', () =>
    Object.fromEntries(open.map((line) => [line.id, waiting(line)])),
  );
  const [wantedOn, setWantedOn] = useTyped(screen, 'wantedOn', order.wantedOn ?? '');
  const split = useCommand(
    'splitOrder',
    ({ id, number }) => {
      notify({ text: `${number} has them now.`, to: [`/orders/${order.id}`, `Back to ${order.number}`] });
      void go(`/orders/${id}`);
    },
    screen.forget,
  );
  const going = open.filter((line) => (typed[line.id] ?? '').trim() !== '');
  const faultOf = (line: OrderLine) => {
    try {
      if ((typed[line.id] ?? '').trim() !== '') positive(readTyped(typed[line.id] ?? '', unitOf(line)));
      return undefined;
    } catch (error) {
      return wordsOf(error) ?? 'This cannot be read.';
    }
  };
  const faulty = going.some((line) => faultOf(line) !== undefined);
  const post = () => {
    if (faulty || going.length === 0 || split.isPending) return;
    split.mutate({
      params: { id: order.id },
      body: {
        version: order.version,
        wantedOn: wantedOn || null,
        lines: going.map((line) => ({ lineId: line.id, quantity: plainTyped(typed[line.id] ?? '', unitOf(line)) })),
      },
    });
  };
  useShortcut('Enter', post, { ctrl: true });
  return (
    <Part $top={18}>
      <h2>What goes on another order?</h2>
      <Grid $full $top={6}>
        <thead>
          <tr>
            <th>Line</th>
            <th className="num">Open</th>
            <Th className="num" $width={130}>
              To the other
            </Th>
          </tr>
        </thead>
        <tbody>
          {open.map((line) => {
            const at = going.indexOf(line);
            return (
              <tr key={line.id}>
                <td>
                  <Cell>
                    <Tile code={line.code} size={24} />
                    {line.name}
                  </Cell>
                </td>
                <td className="num">{format.quantity(line.open, line.unit, line.decimals)}</td>
                <td>
                  <QuantityCell
                    label={`To the other order of ${line.name}`}
                    value={typed[line.id] ?? ''}
                    unit={line.unit}
                    onChange={(text) => setTyped({ ...typed, [line.id]: text })}
                    error={faultOf(line) ?? (at < 0 ? undefined : problemAt(split.error, `lines.${at}.quantity`))}
                  />
                </td>
              </tr>
            );
          })}
        </tbody>
      </Grid>
      <ProblemBox error={split.error} shownAt={going.map((_, index) => `lines.${index}.quantity`)} />
      <Row $wrap $top={10} $end>
        <Part $width={170}>
          <DayField label="The other is wanted on" value={wantedOn} onChange={setWantedOn} />
        </Part>
        <Button look="go" busy={split.isPending} isDisabled={faulty || going.length === 0} onPress={post}>
          Make another order of {count(going.length, 'line')}
        </Button>
        <Button onPress={onDone}>Not now</Button>
      </Row>
    </Part>
  );
}
