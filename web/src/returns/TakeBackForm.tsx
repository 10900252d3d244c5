import type { Returnable } from '@yosegi/contract';
import { readExact } from '@yosegi/core/number';
import { type Condition, conditions, usualCredit } from '@yosegi/core/returns';
import { useDeferredValue, useRef } from 'react';
import { Link } from 'react-router';
import styled from 'styled-components';
import { problemAt, problemOf, useCommand, useQuestion } from '../api/client.ts';
import { ReasonChoice } from '../lines/ReasonChoice.tsx';
import { serialsTyped, toggleSerial } from '../lines/typed.ts';
import { labelOf } from '../scan/scans.ts';
import { useScans } from '../scan/wedge.ts';
import { Button } from '../ui/Button.tsx';
import { Choice } from '../ui/Choice.tsx';
import { DayField } from '../ui/DayField.tsx';
import { Field } from '../ui/Field.tsx';
import { count, useFormat } from '../ui/format.ts';
import { Cell, Grid } from '../ui/layout.ts';
import { useNotify } from '../ui/Notice.tsx';
import { Para, Part, Section, Th } from '../ui/space.ts';
import { Tile } from '../ui/Tile.tsx';
import { Faint, Late, Muted, Row } from '../ui/text.ts';
import { useAddress } from '../ui/useAddress.ts';
import { useTyped, useTypedScreen } from '../ui/useTypedScreen.ts';

const Box = styled(
  Section,
)`background: var(--sheet); border: 1px solid var(--line-soft); border-left: 5px solid var(--walnut); padding: 12px 16px;`;
const Serials = styled.div`display: flex; flex-wrap: wrap; gap: 4px; margin-top: 4px;
  button { border: 1px solid var(--line); border-radius: 3px; background: var(--field); padding: 3px 8px; min-height: 28px; font: 600 12.5px var(--text); cursor: pointer; }
  button[aria-pressed='true'] { border: 2px solid var(--moss); background: var(--ok-wash); } button[aria-pressed='true']::before { content: '✓ '; }`;

interface TypedLine {
  readonly quantity: string;
  readonly serials: string;
}
const keyOf = ({ shipmentId, lineId }: Returnable) => `${shipmentId}:${lineId}`;

/** Finds what may come back, and takes it in or announces it. */
export function TakeBackForm() {
  const format = useFormat();
  const notify = useNotify();
  const [q, setQ] = useAddress('back');
  const asked = useDeferredValue(q.trim());
  const found = useQuestion('returnable', { query: { q: asked } }, { enabled: asked.length > 1, keep: true });
  const screen = useTypedScreen('take-back');
  const [typed, setTyped] = useTyped<ReadonlyMap<string, TypedLine>>(screen, 'lines', new Map());
  const [reasonId, setReasonId] = useTyped(screen, 'reasonId', '');
  const [condition, setCondition] = useTyped<Condition>(screen, 'condition', 'as new');
  const [remark, setRemark] = useTyped(screen, 'remark', '');
  const [expectedOn, setExpectedOn] = useTyped(screen, 'expectedOn', '');
  const field = useRef<HTMLInputElement>(null);
  const rows = asked.length > 1 ? (found.data ?? []) : [];
  const going = rows.filter((row) => (typed.get(keyOf(row))?.quantity ?? '').trim() !== '');
  const take = useCommand(
    'announceReturn',
    ({ number, documentId, id }, { body }) => {
      notify(
        body.arrived && documentId !== null
          ? { text: `${number} is taken in.`, documentId }
          : { text: `${number} is announced.`, to: [`/print/return/${id}`, 'Print its label'] },
      );
    },
    () => {
      setTyped(new Map());
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
        lines: going.map((row) => ({
          shipmentId: row.shipmentId,
          lineId: row.lineId,
          quantity: typed.get(keyOf(row))?.quantity ?? '',
          reasonId: Number(reasonId),
          condition,
          remark,
          serials: serialsTyped(typed.get(keyOf(row))?.serials ?? ''),
        })),
      },
    });
  };
  useScans((text) => {
    // A unit or a lot is looked for by its own code, whatever else its label says.
    const label = labelOf(text);
    setQ(label?.serial ?? label?.lot ?? text.trim());
    field.current?.focus();
  });
  const set = (row: Returnable, part: Partial<TypedLine>) =>
    setTyped(new Map(typed).set(keyOf(row), { quantity: '', serials: '', ...typed.get(keyOf(row)), ...part }));
  const problem = problemOf(take.error);
  const at = (row: Returnable, name: string) => problemAt(take.error, `lines.${going.indexOf(row)}.${name}`);
  const needsReason = reasonId === '';
  return (
    <Box aria-label="Take goods back">
      <Row $wrap $end $gap={12}>
        <Part $width={340}>
          <Field
            label="What comes back?"
            placeholder="Order, shipment, parcel, customer, serial or lot"
            value={q}
            onChange={setQ}
            inputRef={field}
          />
        </Part>
        {rows.length === 0 && asked.length > 1 && found.data && (
          <Muted>Nothing that left is called so. Try the number of the order, or scan the unit.</Muted>
        )}
      </Row>
      {rows.length > 0 && (
        <>
          <Grid $full $top={10}>
            <thead>
              <tr>
                <th>Left</th>
                <th>What</th>
                <th className="num">Still with them</th>
                <Th className="num" $width={110}>
                  Comes back
                </Th>
                <th>Which</th>
              </tr>
            </thead>
            <tbody>
              {rows.map((row) => (
                <tr key={keyOf(row)}>
                  <td>
                    {row.order} · {row.customer}
                    <br />
                    <Faint>
                      {row.shipment}, {format.day(row.shippedAt.slice(0, 10))}
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
                    {row.announced.map(({ id, number }) => (
                      <div key={id}>
                        <Link to={`/take-apart/returns/${id}`}>{number} is announced</Link>
                      </div>
                    ))}
                  </td>
                  <td>
                    <Field
                      label={`How many ${row.name} of ${row.shipment} come back`}
                      hideLabel
                      numeric
                      isDisabled={readExact(row.left) <= 0}
                      value={typed.get(keyOf(row))?.quantity ?? ''}
                      onChange={(quantity) => set(row, { quantity })}
                      error={at(row, 'quantity') ?? at(row, 'lineId') ?? at(row, 'shipmentId')}
                    />
                  </td>
                  <td>
                    {row.serials.length > 0 && (
                      <Serials>
                        {row.serials.slice(0, 40).map((code) => {
                          const own = typed.get(keyOf(row))?.serials ?? '';
                          const isOn = serialsTyped(own).includes(code);
                          return (
                            <button
                              key={code}
                              type="button"
                              aria-pressed={isOn}
                              onClick={() => {
                                const serials = toggleSerial(own, code);
                                set(row, { serials, quantity: String(serialsTyped(serials).length || '') });
                              }}
                            >
                              {code}
                            </button>
                          );
                        })}
                      </Serials>
                    )}
                    {row.lots.length > 0 && <Faint>lot {row.lots.join(', ')}</Faint>}
                    {at(row, 'serials') && <Late role="alert">{at(row, 'serials')}</Late>}
                  </td>
                </tr>
              ))}
            </tbody>
          </Grid>
          <Row $wrap $end $gap={12} $top={12}>
            <ReasonChoice usedFor="return" value={reasonId} onChange={setReasonId} label="Why" hideLabel={false} />
            <Part $width={215}>
              <Choice
                label="Condition"
                value={condition}
                onChange={(next) => setCondition(next as Condition)}
                options={conditions.map((one): [string, string] => [one, `${one} · owed ${usualCredit(one)} %`])}
              />
            </Part>
            <Part $width={240}>
              <Field label="What the customer says" value={remark} onChange={setRemark} />
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
              It is here: take {sumWords(going, typed)} in
            </Button>
            <Button isDisabled={going.length === 0 || needsReason} onPress={() => post(false)}>
              Announce it
            </Button>
            {going.length > 0 && needsReason && <Muted>Say why it comes back.</Muted>}
          </Row>
          {problem && !problem.field?.startsWith('lines.') && <Para role="alert">{problem.detail}</Para>}
          {problem?.field?.endsWith('reasonId') && <Para role="alert">{problem.detail}</Para>}
        </>
      )}
    </Box>
  );
}

function sumWords(going: readonly Returnable[], typed: ReadonlyMap<string, TypedLine>): string {
  if (going.length === 0) return 'it';
  if (going.length > 1) return count(going.length, 'line');
  const [row] = going;
  return `${typed.get(row ? keyOf(row) : '')?.quantity} × ${row?.name}`;
}
