import type { Returnable } from '@yosegi/contract';
import { readExact } from '@yosegi/core/number';
import { type Condition, conditions, usualCredit } from '@yosegi/core/returns';
import { useDeferredValue, useEffect, useRef, useState } from 'react';
import { Link, useNavigate } from 'react-router';
import styled from 'styled-components';
import { z } from 'zod';
import { problemAt, problemOf, useCommand, useQuestion } from '../api/client.ts';
import { ReasonChoice } from '../lines/ReasonChoice.tsx';
import { labelOf } from '../scan/scans.ts';
import { useScans } from '../scan/wedge.ts';
import { Button } from '../ui/Button.tsx';
import { Choice } from '../ui/Choice.tsx';
import { DayField } from '../ui/DayField.tsx';
import { Field } from '../ui/Field.tsx';
import { count, useFormat } from '../ui/format.ts';
import { Cell, Grid } from '../ui/layout.ts';
import { useNotify } from '../ui/Notice.ts';
import { Para, Part, Section, Th } from '../ui/space.ts';
import { Tile } from '../ui/Tile.tsx';
import { Faint, Late, Muted, Row } from '../ui/text.ts';
import { dayOf } from '../ui/today.ts';
import { useAddress } from '../ui/useAddress.ts';
import { useShortcut } from '../ui/useShortcut.ts';
import { useTyped, useTypedScreen } from '../ui/useTypedScreen.ts';
import { Other, Others } from './Others.tsx';
import { joined, Named, NONE_NAMED, namedBy, WhichBack } from './WhichBack.tsx';

const Box = styled(
  Section,
)`background: var(--sheet); border: 1px solid var(--line-soft); border-left: 5px solid var(--walnut); padding: 12px 16px;`;
const TypedLine = Named.extend({ quantity: z.string(), others: z.array(Other).readonly() });
type TypedLine = z.infer<typeof TypedLine>;
const NOTHING_TYPED: TypedLine = { quantity: '', others: [], ...NONE_NAMED };
const keyOf = ({ shipmentId, lineId }: Returnable) => `${shipmentId}:${lineId}`;

/** Finds what may come back, and takes it in or announces it. */
export function TakeBackForm() {
  const format = useFormat();
  const notify = useNotify();
  const go = useNavigate();
  const [q, setQ] = useAddress('back');
  const asked = useDeferredValue(q.trim());
  const found = useQuestion('returnable', { query: { q: asked } }, { enabled: asked.length > 1, keep: true });
  const screen = useTypedScreen('returns.take-back');
  const [typed, setTyped] = useTyped<ReadonlyMap<string, TypedLine>>(
    screen,
    'lines',
    new Map(),
    z.map(z.string(), TypedLine),
  );
  const [reasonId, setReasonId] = useTyped(screen, 'reasonId', '');
  const [condition, setCondition] = useTyped<Condition>(screen, 'condition', 'as new', z.enum(conditions));
  const [remark, setRemark] = useTyped(screen, 'remark', '');
  const [expectedOn, setExpectedOn] = useTyped(screen, 'expectedOn', '');
  const field = useRef<HTMLInputElement>(null);
  const rows = asked.length > 1 ? (found.data ?? []) : [];
  const typedOf = (row: Returnable): TypedLine => typed.get(keyOf(row)) ?? NOTHING_TYPED;
  // A unit or a lot that was looked for is what comes back, beside those that were before; said once, so that it can be taken off.
  const said = useRef('');
  const [scanned, setScanned] = useState('');
  useEffect(() => {
    if (!found.data || found.isPlaceholderData) return;
    // The label of a return that was announced opens it.
    const isIt = ({ number }: { number: string }) => number.toLowerCase() === asked.toLowerCase();
    const announced = found.data.flatMap((row) => row.announced).find(isIt);
    if (announced && scanned === asked) {
      setScanned('');
      void go(`/take-apart/returns/${announced.id}`);
    }
    if (said.current === asked) return;
    said.current = asked;
    const named = found.data.flatMap((row): [string, TypedLine][] => {
      const own = namedBy(asked, row);
      const line = typed.get(keyOf(row)) ?? NOTHING_TYPED;
      return own.serials.length + own.lots.length > 0 ? [[keyOf(row), renamed(line, joined(line, own))]] : [];
    });
    if (named.length > 0) setTyped(new Map([...typed, ...named]));
  }, [found.data, found.isPlaceholderData, asked, scanned, typed, setTyped, go]);
  const going = rows.filter((row) => typedOf(row).quantity.trim() !== '');
  /** What is sent of each line: all of it, or what is in each condition. */
  const parts = going.flatMap((row) => {
    const { others, ...own } = typedOf(row);
    const told = others.filter(({ quantity }) => quantity.trim() !== '');
    return [
      { row, nth: -1, own: { ...own, condition } },
      ...told.map((other) => ({ row, nth: others.indexOf(other), own: other })),
    ];
  });
  const take = useCommand(
    'announceReturn',
    ({ number, documentId, id }, { body }) => {
      notify(
        body.arrived && documentId !== null
          ? { text: `${number} taken in.`, documentId }
          : { text: `${number} announced.`, to: [`/print/return/${id}`, 'Print its label'] },
      );
    },
    () => {
      setTyped(new Map([...typed].filter(([key]) => !going.some((row) => keyOf(row) === key))));
      setRemark('');
      setQ('');
    },
  );
  const post = (arrived: boolean) => {
    if (going.length === 0 || take.isPending) return;
    take.mutate({
      body: {
        arrived,
        expectedOn: arrived || expectedOn === '' ? null : expectedOn,
        lines: parts.map(({ row, own }) => ({
          shipmentId: row.shipmentId,
          lineId: row.lineId,
          quantity: own.quantity,
          reasonId: Number(reasonId),
          condition: own.condition,
          remark,
          serials: [...own.serials],
          lots: [...own.lots],
        })),
      },
    });
  };
  const look = (text: string) => {
    // A unit or a lot is looked for by its own code, whatever else its label says.
    const label = labelOf(text);
    const code = label?.serial ?? label?.lot ?? text.trim();
    setQ(code);
    setScanned(code);
  };
  useScans(look);
  const set = (row: Returnable, part: Partial<TypedLine>) =>
    setTyped(new Map(typed).set(keyOf(row), { ...typedOf(row), ...part }));
  const problem = problemOf(take.error);
  const at = (row: Returnable, name: string, nth = -1) =>
    problemAt(take.error, `lines.${parts.findIndex((part) => part.row === row && part.nth === nth)}.${name}`);
  const needsReason = reasonId === '';
  const box = useRef<HTMLElement>(null);
  useShortcut('Enter', () => !needsReason && post(true), { ctrl: true, within: box });
  return (
    <Box aria-label="Take goods back" ref={box} data-own-key="Enter">
      <Row $wrap $end $gap={12}>
        <Part $width={340}>
          <Field
            label="What is coming back?"
            placeholder="Order, shipment, return, customer, serial or lot"
            value={q}
            onChange={setQ}
            inputRef={field}
            onKeyDown={(event) => {
              if (event.key !== 'Enter') return;
              look(q);
              // The next scan takes its place, also where this one is drawn shorter than it was read.
              field.current?.select();
              requestAnimationFrame(() => field.current?.select());
            }}
          />
        </Part>
        {rows.length === 0 && asked.length > 1 && found.data && (
          <Muted>Nothing shipped matches. Try the order number, or scan the serial number.</Muted>
        )}
      </Row>
      {rows.length > 0 && (
        <>
          <Grid $full $top={10}>
            <thead>
              <tr>
                <th>Shipped</th>
                <th>Item</th>
                <th className="num">Not returned</th>
                <Th className="num" $width={110}>
                  Returning
                </Th>
                <th>Which one</th>
              </tr>
            </thead>
            <tbody>
              {rows.map((row) => (
                <tr key={keyOf(row)}>
                  <td>
                    {row.order} · {row.customer}
                    <br />
                    <Faint>
                      {row.shipment}, {format.day(dayOf(row.shippedAt))}
                    </Faint>{' '}
                    {row.tooLate !== null && <Late>{count(row.tooLate, 'day')} too late</Late>}
                  </td>
                  <td>
                    <Cell>
                      <Tile code={row.code} size={28} />
                      <span>
                        <b>{row.name}</b>
                        <br />
                        <Faint>
                          {row.code} · {format.money(row.price)} each
                        </Faint>
                      </span>
                    </Cell>
                  </td>
                  <td className="num">
                    {format.quantity(row.left, row.unit, row.decimals)}
                    {row.announced.map(({ id, number, quantity }) => (
                      <div key={id}>
                        <Link to={`/take-apart/returns/${id}`}>
                          {format.quantity(quantity, row.unit, row.decimals)} announced with {number}
                        </Link>
                      </div>
                    ))}
                  </td>
                  <td>
                    <Field
                      label={`Quantity of ${row.name} of ${row.shipment} returning`}
                      hideLabel
                      numeric
                      isDisabled={readExact(row.left) <= 0}
                      value={typedOf(row).quantity}
                      onChange={(quantity) => set(row, { quantity })}
                      error={at(row, 'quantity') ?? at(row, 'lineId') ?? at(row, 'shipmentId')}
                    />
                  </td>
                  <td>
                    <WhichBack
                      of={row}
                      named={typedOf(row)}
                      onChange={(named) => set(row, renamed(typedOf(row), named))}
                      errorAt={(name) => at(row, name)}
                    />
                    {typedOf(row).quantity.trim() !== '' && (
                      <Others
                        of={row}
                        others={typedOf(row).others}
                        onChange={(others) => set(row, { others })}
                        errorAt={(nth, name) => at(row, name, nth)}
                      />
                    )}
                  </td>
                </tr>
              ))}
            </tbody>
          </Grid>
          <Row $wrap $end $gap={12} $top={12}>
            <ReasonChoice usedFor="return" value={reasonId} onChange={setReasonId} label="Reason" hideLabel={false} />
            <Part $width={215}>
              <Choice
                label="Condition"
                value={condition}
                onChange={(next) => setCondition(next as Condition)}
                options={conditions.map((one): [string, string] => [one, `${one} · owed ${usualCredit(one)}%`])}
              />
            </Part>
            <Part $width={240}>
              <Field label="Customer’s comment" value={remark} onChange={setRemark} />
            </Part>
            <Part $width={150}>
              <DayField label="Expected, if not here" value={expectedOn} onChange={setExpectedOn} />
            </Part>
          </Row>
          <Row $top={12} $gap={10} $wrap>
            <Button
              look="go"
              isDisabled={going.length === 0 || needsReason}
              busy={take.isPending}
              onPress={() => post(true)}
            >
              Receive {sumWords(going, typedOf)}
            </Button>
            <Button isDisabled={going.length === 0 || needsReason} onPress={() => post(false)}>
              Announce return
            </Button>
            {(going.length === 0 || needsReason) && (
              <Muted>{going.length === 0 ? 'Enter how many are returning.' : 'Enter a reason.'}</Muted>
            )}
          </Row>
          {problem && !problem.field?.startsWith('lines.') && <Para role="alert">{problem.detail}</Para>}
          {problem?.field?.endsWith('reasonId') && <Para role="alert">{problem.detail}</Para>}
        </>
      )}
    </Box>
  );
}

function sumWords(going: readonly Returnable[], typedOf: (row: Returnable) => TypedLine): string {
  const [row] = going;
  if (!row) return 'it';
  if (going.length > 1) return count(going.length, 'line');
  const { quantity, others } = typedOf(row);
  return [
    `${quantity} × ${row.name}`,
    ...others.flatMap((own) => (own.quantity ? `${own.quantity} ${own.condition}` : [])),
  ].join(' and ');
}

/** Units that are named are counted; of anything else the number is typed. */
function renamed(line: TypedLine, named: Named): TypedLine {
  const isCounted = line.serials.length + named.serials.length > 0;
  return { ...line, ...named, quantity: isCounted ? String(named.serials.length || '') : line.quantity };
}
