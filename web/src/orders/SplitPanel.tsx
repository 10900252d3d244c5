import type { Order, OrderLine } from '@yosegi/contract';
import { formatDecimal, readForText } from '@yosegi/core/number';
import { useNavigate } from 'react-router';
import { useCommand } from '../api/client.ts';
import { Button } from '../ui/Button.tsx';
import { DayField } from '../ui/DayField.tsx';
import { count, useFormat } from '../ui/format.ts';
import { Grid } from '../ui/layout.ts';
import { useNotify } from '../ui/Notice.ts';
import { ProblemBox } from '../ui/Problem.tsx';
import { Part, Th } from '../ui/space.ts';
import { Row } from '../ui/text.ts';
import { useShortcut } from '../ui/useShortcut.ts';
import { useTyped, useTypedScreen } from '../ui/useTypedScreen.ts';
import { LineName, MeantQuantity, useOpenLines } from './openLines.tsx';

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
  const screen = useTypedScreen(`split.${order.id}`);
  const lines = useOpenLines(order, screen, waiting);
  const [wantedOn, setWantedOn] = useTyped(screen, 'wantedOn', order.wantedOn ?? '');
  const split = useCommand(
    'splitOrder',
    ({ id, number }) => {
      notify({ text: `${number} split off.`, to: [`/orders/${order.id}`, `Back to ${order.number}`] });
      void go(`/orders/${id}`);
    },
    screen.forget,
  );
  const ready = !lines.isFaulty && lines.meant.length > 0;
  const post = () => {
    if (!ready || split.isPending) return;
    split.mutate({
      params: { id: order.id },
      body: {
        version: order.version,
        wantedOn: wantedOn || null,
        lines: lines.meant.map((line) => ({ lineId: line.id, quantity: lines.quantityOf(line) })),
      },
    });
  };
  useShortcut('Enter', post, { ctrl: true });
  return (
    <Part $top={18}>
      <h2>What goes on the new order?</h2>
      <Grid $full $top={6}>
        <thead>
          <tr>
            <th>Line</th>
            <th className="num">Open</th>
            <Th className="num" $width={130}>
              To new order
            </Th>
          </tr>
        </thead>
        <tbody>
          {lines.open.map((line) => (
            <tr key={line.id}>
              <td>
                <LineName line={line} />
              </td>
              <td className="num">{format.quantity(line.open, line.unit, line.decimals)}</td>
              <td>
                <MeantQuantity lines={lines} line={line} called="To new order of" error={split.error} />
              </td>
            </tr>
          ))}
        </tbody>
      </Grid>
      <ProblemBox error={split.error} shownAt={['lines.*.quantity']} />
      <Row $wrap $top={10} $end>
        <Part $width={170}>
          <DayField label="New order wanted on" value={wantedOn} onChange={setWantedOn} />
        </Part>
        <Button look="go" busy={split.isPending} isDisabled={!ready} onPress={post}>
          Split off {count(lines.meant.length, 'line')}
        </Button>
        <Button onPress={onDone}>Cancel</Button>
      </Row>
    </Part>
  );
}
