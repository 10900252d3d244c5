import type { ReceiptPrices } from '@yosegi/contract';
import { entryFault } from '@yosegi/contract/problems';
import {
  add,
  formatDecimal,
  fromZero,
  type Money,
  mulDiv,
  parseMoney,
  type Quantity,
  readExact,
  worthOf,
} from '@yosegi/core/number';
import { useNavigate, useParams } from 'react-router';
import { z } from 'zod';
import { problemAt, useCommand, useQuestion } from '../api/client.ts';
import { Button, LinkButton } from '../ui/Button.tsx';
import { MoneyCell } from '../ui/Cells.tsx';
import { Field } from '../ui/Field.tsx';
import { ForOwner } from '../ui/ForOwner.tsx';
import { useFormat } from '../ui/format.ts';
import { AnswerBody, AnswerPane, Cell, Foot, Grid } from '../ui/layout.ts';
import { useNotify } from '../ui/Notice.ts';
import { ProblemBox } from '../ui/Problem.tsx';
import { Answer } from '../ui/States.tsx';
import { Part, Th } from '../ui/space.ts';
import { Tile } from '../ui/Tile.tsx';
import { Faint, Lead, Muted, Push } from '../ui/text.ts';
import { useShortcut } from '../ui/useShortcut.ts';
import { useTyped, useTypedScreen } from '../ui/useTypedScreen.ts';

type Line = ReceiptPrices['lines'][number];

/** What an invoice says otherwise than its receipt did, and where the difference will land. */
export function PricesPage() {
  const { id } = useParams();
  const prices = useQuestion('receiptPrices', { params: { id: Number(id) } });
  return (
    <ForOwner right="value" to="change what was paid for stock">
      <Answer of={prices}>{(data) => <Prices id={Number(id)} receipt={data} />}</Answer>
    </ForOwner>
  );
}

function Prices({ id, receipt }: { id: number; receipt: ReceiptPrices }) {
  const format = useFormat();
  const go = useNavigate();
  const notify = useNotify();
  const screen = useTypedScreen(`prices.${id}`);
  const [typed, setTyped] = useTyped<ReadonlyMap<number, string>>(
    screen,
    'typed',
    new Map(),
    z.map(z.number(), z.string()),
  );
  const [remark, setRemark] = useTyped(screen, 'remark', '');
  const read = receipt.lines.map((line) => readPrice(line, typed.get(line.lineId) ?? line.unitCost));
  const difference = add(0 as Money, ...read.map((line) => line.difference));
  const intoStock = add(0 as Money, ...read.map((line) => line.intoStock));
  const changed = receipt.lines.filter((_, index) => read[index]?.difference !== 0);
  const faulty = read.some(({ error }) => error);
  const post = useCommand(
    'postPrices',
    (document) => {
      notify({ text: `${document.number} corrects the price of ${receipt.number}.`, documentId: document.id });
      void go(`/stock/documents/${document.id}`);
    },
    screen.forget,
  );
  const submit = () => {
    if (faulty || changed.length === 0 || post.isPending) return;
    const lines = changed.map(({ lineId, unitCost }) => ({ lineId, unitCost: typed.get(lineId)?.trim() || unitCost }));
    post.mutate({ params: { id }, body: { remark: remark.trim(), lines } });
  };
  useShortcut('Enter', submit, { ctrl: true });
  return (
    <AnswerPane>
      <AnswerBody>
        <div>
          <h1>
            {difference === 0
              ? `What does the invoice for ${receipt.number} say?`
              : `${format.money(formatDecimal(Math.abs(difference) as Money))} ${difference > 0 ? 'more' : 'less'} than was received: ${format.money(formatDecimal(intoStock))} onto stock, ${format.money(formatDecimal((difference - intoStock) as Money))} as a difference in cost.`}
          </h1>
          <Lead>Stock you still have takes its share. The rest is booked as a cost difference.</Lead>
        </div>
        <Grid>
          <thead>
            <tr>
              <th>Item</th>
              <th className="num">Received</th>
              <th className="num">Still here</th>
              <th className="num">Cost so far</th>
              <Th className="num" $width={150}>
                The invoice says
              </Th>
              <th className="num">Difference</th>
              <th className="num">Onto stock</th>
            </tr>
          </thead>
          <tbody>
            {receipt.lines.map((line, index) => (
              <tr key={line.lineId}>
                <td>
                  <Cell>
                    <Tile code={line.code} size={28} />
                    <span>
                      <b>{line.name}</b>
                      <br />
                      <Faint>
                        {line.code}
                        {line.piece && ` · ${line.piece}`}
                      </Faint>
                    </span>
                  </Cell>
                </td>
                <td className="num">{format.quantity(line.quantity, line.unit, line.decimals)}</td>
                <td className="num">{format.quantity(line.here, line.unit, line.decimals)}</td>
                <td className="num">{format.unitCost(line.unitCost)}</td>
                <td>
                  <MoneyCell
                    label={`Invoiced unit cost of ${line.name}`}
                    value={typed.get(line.lineId) ?? line.unitCost}
                    onChange={(text) => setTyped(new Map(typed).set(line.lineId, text))}
                    error={read[index]?.error ?? priceProblem(post.error, changed.indexOf(line))}
                    autoFocus={index === 0}
                  />
                </td>
                <td className="num">{format.money(formatDecimal(read[index]?.difference ?? 0))}</td>
                <td className="num">{format.money(formatDecimal(read[index]?.intoStock ?? 0))}</td>
              </tr>
            ))}
          </tbody>
        </Grid>
        <ProblemBox error={post.error} shownAt={['lines.*.unitCost']} />
      </AnswerBody>
      <Foot>
        <Part $width={280}>
          <Field label="Remark" hideLabel placeholder="Invoice number" value={remark} onChange={setRemark} />
        </Part>
        <Muted>Posted as one document, which you can undo.</Muted>
        <Push />
        <LinkButton to={`/stock/documents/${id}`}>Back to {receipt.number}</LinkButton>
        <Button look="go" isDisabled={faulty || changed.length === 0} busy={post.isPending} onPress={submit}>
          Post the difference
        </Button>
      </Foot>
    </AnswerPane>
  );
}

const priceProblem = (error: unknown, at: number) => (at < 0 ? undefined : problemAt(error, `lines.${at}.unitCost`));

function readPrice(line: Line, text: string): { difference: Money; intoStock: Money; error?: string } {
  const nothing = { difference: 0 as Money, intoStock: 0 as Money };
  if (text.trim() === line.unitCost) return nothing;
  try {
    const cost = fromZero(parseMoney(text.trim() || '0'));
    const quantity = readExact(line.quantity) as Quantity;
    const difference = (worthOf(quantity, cost) - readExact(line.value)) as Money;
    const here = readExact(line.here);
    return { difference, intoStock: mulDiv(difference, here, quantity, 'nearest') as Money };
  } catch (error) {
    return { ...nothing, error: entryFault(error) };
  }
}
