import type { BuyRow } from '@yosegi/contract';
import { formatDecimal, sumForText } from '@yosegi/core/number';
import { useMemo } from 'react';
import { Link, useNavigate, useSearchParams } from 'react-router';
import styled from 'styled-components';
import { z } from 'zod';
import { problemOf, useCommand, useQuestion } from '../api/client.ts';
import { Button, LinkButton } from '../ui/Button.tsx';
import { QuantityCell } from '../ui/Cells.tsx';
import { Choice } from '../ui/Choice.tsx';
import { Export, type FileColumn } from '../ui/Export.tsx';
import { count, useFormat } from '../ui/format.ts';
import { AnswerBody, AnswerPane, Cell, Foot, Grid, LineGrid } from '../ui/layout.ts';
import { plainTyped } from '../ui/measuring.ts';
import { useNotify } from '../ui/Notice.ts';
import { ProblemBox } from '../ui/Problem.tsx';
import { Answer, EmptyState } from '../ui/States.tsx';
import { Part, Th } from '../ui/space.ts';
import { Tick } from '../ui/Tick.tsx';
import { Tile } from '../ui/Tile.tsx';
import { Faint, KeyHint, Late, Lead, Muted, Push, Row } from '../ui/text.ts';
import { useAddress } from '../ui/useAddress.ts';
import { useShortcut } from '../ui/useShortcut.ts';
import { useTyped, useTypedScreen } from '../ui/useTypedScreen.ts';
import { bySupplier, Change, type Chosen, priceOf, withoutSuppliers, worth } from './buyChoice.ts';

const Evenly = styled(LineGrid)`
  @media (min-width: 1041px) { table-layout: fixed; }
  @media (max-width: 1040px) { && th { width: auto; } td { padding: 4px; } }
  @media (max-width: 700px) { td:first-child { position: absolute; right: 0; top: 4px; padding: 0 !important; min-width: 0; } td:nth-child(2) { grid-column: 1 / -1; padding-right: 50px; } }
`;
const Title = styled.h2`margin-top: 16px; small { font: 400 13px var(--text); color: var(--ink-2); }`;

/** What has to be bought so that every promise is kept, by supplier; one press drafts the orders. */
export function BuyListPage() {
  const [by, setBy] = useAddress('by', 'cheapest');
  const need = useSearchParams()[0].get('need');
  const list = useQuestion('buyList', { query: { by: by as 'cheapest', ...(need ? { need } : {}) } }, { keep: true });
  return <Answer of={list}>{(rows) => <BuyList key={need} rows={rows} by={by} setBy={setBy} need={need} />}</Answer>;
}

const FILE: readonly FileColumn<Chosen>[] = [
  { title: 'Item', text: ({ row }) => row.name },
  { title: 'Code', text: ({ row }) => row.code },
  { title: 'Needed', text: ({ row }) => row.needed, isAmount: true },
  { title: 'Order', text: ({ quantity }) => formatDecimal(quantity), isAmount: true },
  { title: 'Unit', text: ({ row }) => row.unit },
  { title: 'Supplier', text: ({ offer }) => offer.supplier },
  { title: 'Supplier code', text: ({ offer }) => offer.code },
  { title: 'Unit price', text: (line) => formatDecimal(priceOf(line)), isAmount: true },
];

interface Props {
  readonly rows: readonly BuyRow[];
  readonly by: string;
  readonly setBy: (by: string) => void;
  /** What a question of Cover lacks; null for everything that is short. */
  readonly need: string | null;
}

function BuyList({ rows, by, setBy, need }: Props) {
  const format = useFormat();
  const go = useNavigate();
  const notify = useNotify();
  const screen = useTypedScreen(need === null ? 'buy-list' : `buy-list.${need}`);
  const [changes, setChanges] = useTyped<ReadonlyMap<number, Change>>(
    screen,
    'changes',
    new Map(),
    z.map(z.number(), Change),
  );
  const change = (itemId: number, part: Change) =>
    setChanges((before) => new Map(before).set(itemId, { ...before.get(itemId), ...part }));
  const { groups, nobody } = useMemo(() => bySupplier(rows, changes), [rows, changes]);
  const ordered = groups
    .map((group) => ({ ...group, lines: group.lines.filter(({ out }) => !out) }))
    .filter(({ lines }) => lines.length > 0);
  const lines = ordered.flatMap((group) => group.lines);
  const total = sumForText(lines.map((line) => worth(line, format.currencyDecimals)));
  const faulty = lines.some(({ error }) => error);
  const create = useCommand(
    'createPurchases',
    ({ orders }) => {
      notify({ text: `${count(orders.length, 'order')} drafted: ${orders.map((order) => order.number).join(', ')}.` });
      void go(orders.length === 1 ? `/buying/orders/${orders[0]?.id}` : '/buying/orders?show=draft');
    },
    screen.forget,
  );
  const post = () => {
    if (faulty || lines.length === 0 || create.isPending) return;
    create.mutate({
      body: {
        orders: ordered.map((group) => ({
          supplierId: group.supplier.supplierId,
          lines: group.lines.map(({ row, offer, quantity }) => ({
            itemId: row.itemId,
            quantity: formatDecimal(quantity),
            price: formatDecimal(priceOf({ quantity, offer })),
            needs: row.needs.map(({ buildId, quantity: wanted }) => ({ buildId, quantity: wanted })),
            orders: row.orders.map(({ orderId, quantity: wanted }) => ({ orderId, quantity: wanted })),
          })),
        })),
      },
    });
  };
  useShortcut('Enter', post, { ctrl: true });
  const waiting = rows.filter((row) => Number(row.short) > 0).length;
  return (
    <AnswerPane>
      <AnswerBody>
        <Row $wrap $end>
          <div>
            <h1>
              {rows.length === 0
                ? 'Nothing to buy.'
                : need !== null
                  ? `You’d need to buy ${count(rows.length, 'item')}.`
                  : `${count(rows.length, 'item')} to buy${
                      waiting > 0 ? `; ${waiting} of them ${waiting === 1 ? 'holds' : 'hold'} up builds` : ''
                    }.`}
            </h1>
            <Lead>
              {need === null
                ? 'Covers every order, build and reorder point, in full packs. Open purchase orders and drafts are counted.'
                : 'What Cover found short for your question, at every level, in full packs.'}
            </Lead>
          </div>
          <Push />
          <Export name="Buy list" columns={FILE} rows={() => lines} />
          <Part $width={220}>
            <Choice
              label="Supplier"
              value={by}
              onChange={(next) => {
                // Suppliers chosen by hand give way to the rule; quantities and what is left out stay.
                setChanges(withoutSuppliers);
                setBy(next);
              }}
              options={[
                ['cheapest', 'cheapest overall'],
                ['fastest', 'fastest'],
                ['usual', 'usual'],
              ]}
            />
          </Part>
        </Row>
        {rows.length === 0 && (
          <EmptyState
            title="Everything is in stock or on order"
            action={<LinkButton to="/buying/orders">See the orders</LinkButton>}
          >
            Items appear here when a build needs more than you have, or stock falls below the reorder point. Each comes
            with its supplier, ready to order.
          </EmptyState>
        )}
        {groups.map((group) => (
          <section key={group.supplier.supplierId}>
            <Title>
              {group.supplier.supplier}{' '}
              <small>
                {count(group.lines.filter(({ out }) => !out).length, 'line')} ·{' '}
                {format.money(
                  formatDecimal(
                    sumForText(
                      group.lines.filter(({ out }) => !out).map((line) => worth(line, format.currencyDecimals)),
                    ),
                  ),
                )}
              </small>
            </Title>
            <Evenly $full>
              <thead>
                <tr>
                  <Th $width={36} aria-label="Add to order" />
                  <th>Item</th>
                  <Th $width={190}>In stock · promised · coming</Th>
                  <Th $width={190}>Bought for</Th>
                  <Th className="num" $width={150}>
                    Order
                  </Th>
                  <Th $width={240}>From</Th>
                  <Th className="num" $width={92}>
                    Amount
                  </Th>
                </tr>
              </thead>
              <tbody>
                {group.lines.map((line) => (
                  <BuyLine
                    key={line.row.itemId}
                    line={line}
                    what={need === null ? 'for promises' : 'for your question'}
                    change={(part) => change(line.row.itemId, part)}
                  />
                ))}
              </tbody>
            </Evenly>
          </section>
        ))}
        {nobody.length > 0 && (
          <section>
            <Title>
              No supplier sells these <small>enter a supplier and a price on the item</small>
            </Title>
            <Grid>
              <tbody>
                {nobody.map((row) => (
                  <tr key={row.itemId}>
                    <td>
                      <ItemCell row={row} />
                    </td>
                    <td className="num">{format.quantity(row.needed, row.unit, row.decimals)} needed</td>
                    <td>
                      <LinkButton look="ghost" to={`/stock/items/${row.itemId}?edit=1`}>
                        Add supplier
                      </LinkButton>
                    </td>
                  </tr>
                ))}
              </tbody>
            </Grid>
          </section>
        )}
        {problemOf(create.error) && <ProblemBox error={create.error} />}
      </AnswerBody>
      {groups.length > 0 && (
        <Foot>
          <Muted>
            {count(lines.length, 'line')} from {count(ordered.length, 'supplier')},{' '}
            <b>{format.money(formatDecimal(total))}</b>
          </Muted>
          <Push />
          <Faint>
            These are drafts; nothing is sent yet. <KeyHint>Ctrl Enter</KeyHint>
          </Faint>
          <Button look="go" isDisabled={faulty || lines.length === 0} busy={create.isPending} onPress={post}>
            Draft {count(ordered.length, 'order')}
          </Button>
        </Foot>
      )}
    </AnswerPane>
  );
}

function ItemCell({ row }: { row: BuyRow }) {
  return (
    <Cell>
      <Tile code={row.code} size={28} />
      <span>
        <Link to={`/stock/items/${row.itemId}`}>
          <b>{row.name}</b>
        </Link>
        <br />
        <Faint>{row.code}</Faint>
      </span>
    </Cell>
  );
}

interface LineProps {
  readonly line: Chosen;
  /** What it is short for. */
  readonly what: string;
  readonly change: (part: Change) => void;
}

function BuyLine({ line, what, change }: LineProps) {
  const format = useFormat();
  const { row, offer, out } = line;
  const amount = (text: string) => format.quantity(text, row.unit, row.decimals);
  const pack = Number(offer.pack) > 1 ? `packs of ${amount(offer.pack)}` : '';
  return (
    <tr {...(out ? { 'data-quiet': true } : {})}>
      <td>
        <Tick label={`Order ${row.name}`} isOn={!out} onChange={(isOn) => change({ out: !isOn })} />
      </td>
      <td>
        <ItemCell row={row} />
      </td>
      <td data-label="In stock · promised · coming">
        {[row.usable, row.promised, row.coming].map((text) => format.number(text)).join(' · ')}
        {row.unit === 'each' ? '' : ` ${row.unit}`}
        <br />
        <Faint>
          {Number(row.short) > 0 ? (
            <Late>
              {amount(row.short)} short {what}
            </Late>
          ) : (
            `reorder at ${amount(row.reorderPoint ?? '0')}`
          )}
          {Number(row.drafted) > 0 && ` · ${amount(row.drafted)} drafted`}
        </Faint>
      </td>
      <td data-label="Bought for">
        {row.needs.length + row.orders.length === 0 ? <Faint>the shelf</Faint> : <Needs row={row} />}
      </td>
      <td data-label="Order">
        <QuantityCell
          label={`Order of ${row.name}`}
          isDisabled={out}
          value={line.typed}
          unit={row.unit}
          onChange={(quantity) => change({ quantity })}
          onBlur={() => change({ quantity: plainTyped(line.typed, row) })}
          error={out ? undefined : line.error}
        />
        {pack && <Faint>{pack}</Faint>}
      </td>
      <td data-label="From">
        {row.offers.length > 1 ? (
          <Choice
            label={`Who sells ${row.name}`}
            hideLabel
            value={String(offer.supplierId)}
            onChange={(supplierId) => change({ supplierId: Number(supplierId) })}
            options={row.offers.map((one) => [
              String(one.supplierId),
              `${one.supplier} · ${format.unitCost(one.price)}`,
            ])}
          />
        ) : (
          <>
            {format.unitCost(formatDecimal(priceOf(line)))}
            <br />
          </>
        )}
        {offer.breaks.length > 0 && (
          <>
            <Faint>
              {offer.breaks.map((one) => `${format.unitCost(one.price)} from ${amount(one.from)}`).join(' · ')}
            </Faint>
            <br />
          </>
        )}
        <Faint>
          {offer.leadDays === null ? 'nothing stated' : `${count(offer.leadDays, 'day')} stated`}
          {offer.learnt && ` · ${offer.learnt.usual} actual`}
          {offer.expectedOn && ` · by ${format.day(offer.expectedOn)}`}
        </Faint>
      </td>
      <td className="num" data-label="Amount">
        {out ? '–' : format.money(formatDecimal(worth(line, format.currencyDecimals)))}
      </td>
    </tr>
  );
}

/** The most of those who wait for something that are named. */
const MOST_NAMED = 2;

/** Builds and orders that wait for it, the first of them by name. */
function Needs({ row }: { row: BuyRow }) {
  const format = useFormat();
  const all = [
    ...row.needs.map((need) => ({ to: `/build/${need.buildId}`, number: need.build, whom: need.product, ...need })),
    ...row.orders.map((need) => ({ to: `/orders/${need.orderId}`, whom: need.customer, ...need })),
  ];
  return (
    <>
      {all.slice(0, MOST_NAMED).map((need) => (
        <div key={need.to}>
          <Link to={need.to}>{need.number}</Link>{' '}
          <Faint>
            {format.quantity(need.quantity, row.unit, row.decimals)} · {need.whom}
          </Faint>
        </div>
      ))}
      {all.length > MOST_NAMED && <Faint>and {all.length - MOST_NAMED} more</Faint>}
    </>
  );
}
