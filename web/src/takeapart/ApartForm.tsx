import type { ApartPlan, Item } from '@yosegi/contract';
import { formatDecimal, type Quantity, readForText, SCALE } from '@yosegi/core/number';
import { type Leftover, leftovers } from '@yosegi/core/takeapart';
import { Fragment, useMemo } from 'react';
import { Link, useNavigate } from 'react-router';
import styled from 'styled-components';
import { z } from 'zod';
import { problemAt, problemOf, useCommand, useQuestion } from '../api/client.ts';
import { InFields } from '../lines/InFields.tsx';
import { OutFields } from '../lines/OutFields.tsx';
import { Refusal } from '../lines/Refusal.tsx';
import { stepLines } from '../lines/steps.ts';
import { NOTHING_TYPED, namedInOf, namedOf, type TypedTrack } from '../lines/typed.ts';
import { Button, LinkButton } from '../ui/Button.tsx';
import { Choice } from '../ui/Choice.tsx';
import { Field } from '../ui/Field.tsx';
import { count, useFormat } from '../ui/format.ts';
import { AnswerBody, AnswerPane, Ask, AskAnswer, Cell, Foot, Grid } from '../ui/layout.ts';
import { plainTyped } from '../ui/measuring.ts';
import { useNotify } from '../ui/Notice.ts';
import { EmptyState } from '../ui/States.tsx';
import { shelfOptions } from '../ui/shelves.ts';
import { H2, Para, Stack, Th } from '../ui/space.ts';
import { Tile } from '../ui/Tile.tsx';
import { Faint, Lead, Muted, Push } from '../ui/text.ts';
import { dayOf } from '../ui/today.ts';
import { useAddress } from '../ui/useAddress.ts';
import { useShortcut } from '../ui/useShortcut.ts';
import { useTyped, useTypedScreen } from '../ui/useTypedScreen.ts';
import { ApartList, useApartList } from './ApartList.tsx';
import { Frees } from './Frees.tsx';
import { PromisedAway } from './PromisedAway.tsx';
import { asWentIn, partOf, reckonApart, Typed } from './reckonApart.ts';

/** Fields that say beside themselves what is wrong with them. */
const SHOWN = [
  'quantity',
  'writeOff',
  'lot',
  'serials',
  'lines.*.good',
  'lines.*.share',
  'lines.*.damaged',
  'lines.*.lot',
  'lines.*.serials',
  'lines.*.bestBefore',
];

/** Lot or serials in a narrow column. */
const Narrow = styled.div`> div { padding-left: 0; > * { max-width: 100%; } }`;

/** Taking one product apart: what is good, damaged or missing, and where the value goes. */
export function ApartForm({
  item,
  plan,
  isOther,
  picker,
}: {
  item: Item;
  plan: ApartPlan;
  /** What is shown is still of the units before: those that are named now are on their way. */
  isOther: boolean;
  picker: React.ReactNode;
}) {
  const format = useFormat();
  const notify = useNotify();
  const stores = useQuestion('stores', {});
  const shelves = shelfOptions(stores.data ?? []);
  const go = useNavigate();
  const screen = useTypedScreen(plan.piece ? `apart.piece.${plan.piece.id}` : `apart.${item.id}`);
  const [quantity, setQuantity] = useTyped(screen, 'quantity', plan.piece?.waiting ?? '1');
  const [binId, setBinId] = useTyped(
    screen,
    'binId',
    String(plan.bins[0]?.binId ?? item.homeBinId ?? shelves[0]?.[0] ?? ''),
  );
  const [leftover, setLeftover] = useTyped<Leftover>(screen, 'leftover', 'written-off', z.enum(leftovers));
  const [writeOff, setWriteOff] = useTyped(screen, 'writeOff', '');
  const [remark, setRemark] = useTyped(screen, 'remark', '');
  const [typed, setTyped] = useTyped<ReadonlyMap<number, Typed>>(screen, 'typed', new Map(), z.map(z.number(), Typed));
  const [lot, setLot] = useAddress('lot');
  const [serials, setSerials] = useAddress('serials');
  const [buildId, setBuildId] = useAddress('build');
  const unit: TypedTrack = { ...NOTHING_TYPED, lot, serials };
  const reckoning = useMemo(
    () => reckonApart(plan, quantity, typed, leftover, writeOff),
    [plan, quantity, typed, leftover, writeOff],
  );
  const { faults, rows, value, writtenOff } = reckoning;
  // Taking apart what is promised says to whom, before.
  const isPromised =
    plan.piece === null &&
    !faults.has('quantity') &&
    item.promised !== '0' &&
    readForText(plainTyped(quantity, plan)) > readForText(item.free);
  const apart = useCommand(
    'takeApart',
    (document) => {
      setTyped(new Map());
      const all = [...list.map(({ says }) => says), `${quantity} × ${item.name}`];
      setList([]);
      notify({ text: `${document.number}: ${all.join(', ')} back in parts.`, documentId: document.id });
      // The next thing of the pile waits.
      if (plan.piece) void go('/take-apart');
    },
    screen.forget,
  );
  const [list, setList] = useApartList();
  const product = () => ({
    itemId: item.id,
    revisionId: plan.revisionId,
    buildId: Number(buildId) || null,
    binId: plan.piece ? (shelves[0] ? Number(shelves[0][0]) : 1) : Number(binId),
    pieceId: plan.piece?.id ?? null,
    quantity: plainTyped(quantity, plan),
    ...namedOf(item, unit),
    leftover,
    writeOff: writeOff.trim() || '0',
    lines: rows.map((row) => ({
      lineId: row.line.lineId,
      good: formatDecimal(row.good),
      damaged: formatDecimal(row.damaged),
      binId: Number(binOf(row.line)),
      share: typed.get(row.line.lineId)?.share?.trim() || null,
      ...(row.good > 0 ? namedInOf(partOf(row.line), trackOf(row.line, row.good)) : {}),
    })),
  });
  const post = (override?: { reason: string }, alsoThose = false) => {
    if (faults.size > 0 || apart.isPending || isOther) return;
    const others = list.map((one) => one.product);
    const alsoPromised = isPromised || alsoThose;
    apart.mutate({ body: { ...product(), others, remark, alsoPromised, ...(override ? { override } : {}) } });
  };
  /** Keeps this one for the document of the next. */
  const another = () => {
    const says = `${quantity} × ${item.name}`;
    const amounts = { value: formatDecimal(value), writtenOff: formatDecimal(writtenOff) };
    setList([...list, { code: item.code, says, ...amounts, product: product() }]);
    screen.forget();
    void go('/take-apart/stock');
  };
  useShortcut('Enter', () => post(), { ctrl: true });
  const binOf = (line: ApartPlan['lines'][number]) =>
    typed.get(line.lineId)?.binId ?? String(line.homeBinId ?? shelves[0]?.[0] ?? '');
  const trackOf = (line: ApartPlan['lines'][number], good: Quantity) =>
    typed.get(line.lineId)?.track ?? asWentIn(line, good);
  const set = (lineId: number, part: Typed) => setTyped(new Map(typed).set(lineId, { ...typed.get(lineId), ...part }));
  const money = (amount: number) => format.money(formatDecimal(amount));
  const exact = (amount: number) => format.exactMoney(formatDecimal(amount));
  const fromBins: [string, string][] =
    plan.bins.length > 0
      ? plan.bins.map((bin) => [
          String(bin.binId),
          `${bin.bin} · ${bin.store} · ${format.quantity(bin.quantity, plan.unit, plan.decimals)}`,
        ])
      : shelves;
  return (
    <AskAnswer>
      <Ask>
        <H2 $bottom={10}>What do you take apart?</H2>
        {picker}
        <Stack $gap={12} $top={14}>
          <Field
            label="Quantity"
            numeric
            value={quantity}
            suffix={plan.unit}
            onChange={setQuantity}
            error={faults.get('quantity') ?? problemAt(apart.error, 'quantity')}
          />
          {plan.piece ? (
            <Para>
              As returned with <Link to={`/take-apart/returns/${plan.piece.returnId}`}>{plan.piece.number}</Link>, from
              bin {plan.piece.bin}, at exactly the value it left with.
            </Para>
          ) : (
            <Choice label="From bin" value={binId} onChange={setBinId} options={fromBins} />
          )}
          {item.tracking !== 'none' && plan.piece === null && (
            <Narrow>
              <OutFields
                item={item}
                pieces={plan.bins.find((bin) => String(bin.binId) === binId)?.pieces ?? []}
                typed={unit}
                onChange={(next) => (item.tracking === 'lot' ? setLot(next.lot) : setSerials(next.serials))}
                quantity={Number(quantity) || 0}
                setCount={(n) => setQuantity(String(n))}
                errorAt={(name) => problemAt(apart.error, name)}
              />
            </Narrow>
          )}
          {plan.madeBy.length > 0 && (
            <Choice
              label="Made with"
              value={buildId}
              onChange={setBuildId}
              options={[
                ['', plan.build !== null && buildId === '' ? `${plan.build}, as it is known` : 'not known'],
                ...plan.madeBy.map(({ buildId: id, build, revision, at }): [string, string] => [
                  String(id),
                  `${build} · revision ${revision} · ${format.day(dayOf(at))}`,
                ]),
              ]}
            />
          )}
          <Choice
            label="Value of what is damaged or missing"
            value={leftover}
            onChange={(next) => setLeftover(next as Leftover)}
            options={[
              ['written-off', 'is written off'],
              ['spread', 'spread over the good parts'],
            ]}
          />
          <Field
            label="Written off for what never comes back"
            numeric
            suffix="%"
            placeholder="0"
            value={writeOff}
            onChange={setWriteOff}
            error={faults.get('writeOff') ?? problemAt(apart.error, 'writeOff')}
          />
          {plan.asBuilt !== null && plan.asBuilt.never.length > 0 && (
            <Faint>
              Never comes back: {plan.asBuilt.never.map(({ text, cost }) => `${text} ${format.money(cost)}`).join(', ')}
              . Without a percentage, its value goes to the parts.
            </Faint>
          )}
          <Field label="Remark" value={remark} onChange={setRemark} />
        </Stack>
        <Para $top={16}>
          <Muted>
            {format.quantity(item.onHand, item.unit, item.decimals)} on hand, worth {format.unitCost(item.averageCost)}{' '}
            each.{' '}
            {plan.asBuilt
              ? `By what actually went in with ${plan.asBuilt.builds.join(' and ')}.`
              : `By revision ${plan.revision}${plan.build === null ? (plan.isInUse ? ', which is in use' : ', by which it was last built') : `, which ${plan.build} took`}.`}
          </Muted>
        </Para>
      </Ask>
      <AnswerPane>
        <AnswerBody>
          <div>
            <h1>
              {money(value - writtenOff)} of parts come back
              {writtenOff > 0 ? `, ${money(writtenOff)} is written off` : ''}.
            </h1>
            <Lead>
              {quantity || '0'} × {item.name} is worth {money(value)}; each part carries its share of it.
            </Lead>
          </div>
          {rows.length === 0 ? (
            <EmptyState
              title="Nothing comes back"
              action={<LinkButton to={`/define/${plan.definitionId}`}>Open its bill of materials</LinkButton>}
            >
              No line of this revision comes back on take-apart; all of its value would be written off.
            </EmptyState>
          ) : (
            <Grid>
              <thead>
                <tr>
                  <th>Part</th>
                  <Th className="num" $width={104}>
                    Share
                  </Th>
                  <th className="num">Expected</th>
                  <Th className="num" $width={112}>
                    Good
                  </Th>
                  <Th className="num" $width={112}>
                    Damaged
                  </Th>
                  <th className="num">Missing</th>
                  <Th $width={150}>Into bin</Th>
                  <th className="num">Value</th>
                </tr>
              </thead>
              <tbody>
                {rows.map((row, index) => {
                  const { line } = row;
                  const unit = line.unit === 'each' ? '' : line.unit;
                  const faultOf = (name: string) =>
                    faults.get(`lines.${index}.${name}`) ?? problemAt(apart.error, `lines.${index}.${name}`);
                  return (
                    <Fragment key={line.lineId}>
                      <tr>
                        <td>
                          <Cell>
                            <Tile code={line.code} size={28} />
                            <span>
                              <b>{line.name}</b>
                              <br />
                              <Faint>{line.code}</Faint>
                            </span>
                          </Cell>
                        </td>
                        <td>
                          <Field
                            label={`Share of ${line.name}, this time only`}
                            hideLabel
                            numeric
                            suffix="%"
                            placeholder={format.number(formatDecimal(row.share), 2)}
                            value={typed.get(line.lineId)?.share ?? ''}
                            onChange={(share) => set(line.lineId, { share })}
                            onKeyDown={(event) => stepLines(event, true)}
                            error={faultOf('share')}
                          />
                        </td>
                        <td className="num">
                          {format.quantity(formatDecimal(row.expected), line.unit, line.decimals)}
                        </td>
                        <td>
                          <Field
                            label={`Good ${line.name}`}
                            hideLabel
                            numeric
                            suffix={unit}
                            value={typed.get(line.lineId)?.good ?? formatDecimal(row.good)}
                            onChange={(good) => set(line.lineId, { good })}
                            onKeyDown={(event) => stepLines(event, true)}
                            error={faultOf('good')}
                          />
                        </td>
                        <td>
                          <Field
                            label={`Damaged ${line.name}`}
                            hideLabel
                            numeric
                            suffix={unit}
                            value={typed.get(line.lineId)?.damaged ?? formatDecimal(row.damaged)}
                            onChange={(damaged) => set(line.lineId, { damaged })}
                            onKeyDown={(event) => stepLines(event, true)}
                            error={faultOf('damaged')}
                          />
                        </td>
                        <td className="num">
                          {row.missing > 0 ? (
                            <b>{format.quantity(formatDecimal(row.missing), line.unit, line.decimals)}</b>
                          ) : (
                            '–'
                          )}
                        </td>
                        <td>
                          <Choice
                            label={`Bin for ${line.name}`}
                            hideLabel
                            value={binOf(line)}
                            options={shelves}
                            onChange={(next) => set(line.lineId, { binId: next })}
                          />
                        </td>
                        <td className="num">{money(row.value)}</td>
                      </tr>
                      {line.tracking !== 'none' && row.good > 0 && (
                        <tr>
                          <td colSpan={8}>
                            <InFields
                              item={partOf(line)}
                              typed={trackOf(line, row.good)}
                              onChange={(track) => set(line.lineId, { track })}
                              quantity={row.good / SCALE}
                              errorAt={(name) => problemAt(apart.error, `lines.${index}.${name}`)}
                              mayReturn
                            />
                          </td>
                        </tr>
                      )}
                    </Fragment>
                  );
                })}
              </tbody>
            </Grid>
          )}
          {isPromised && <PromisedAway item={item} />}
          <Frees
            taken={{ itemId: item.id, quantity: faults.has('quantity') ? '0' : plainTyped(quantity, plan) }}
            parts={rows.map((row) => ({ itemId: row.line.itemId, quantity: formatDecimal(row.good) }))}
          />
          <ApartList list={list} onChange={setList} />
          <Refusal
            error={apart.error}
            shownAt={SHOWN}
            ways={
              problemOf(apart.error)?.code === 'apart-promised' && (
                <Button busy={apart.isPending} onPress={() => post(undefined, true)}>
                  Include promised stock
                </Button>
              )
            }
            over={{
              action: 'Take apart below zero',
              busy: apart.isPending,
              post: (reason) => post({ reason }),
            }}
          />
        </AnswerBody>
        <Foot>
          <Muted>
            {exact(value)} = {exact(value - writtenOff)} into stock + {exact(writtenOff)} written off
          </Muted>
          <Push />
          {plan.piece === null && (
            <Button look="ghost" isDisabled={faults.size > 0} onPress={another}>
              Add another product…
            </Button>
          )}
          <Button look="go" isDisabled={faults.size > 0} busy={apart.isPending || isOther} onPress={() => post()}>
            {list.length === 0
              ? `Take ${quantity || '0'} apart${isPromised ? ', including promised stock' : ''}`
              : `Take ${count(list.length + 1, 'product')} apart`}
          </Button>
        </Foot>
      </AnswerPane>
    </AskAnswer>
  );
}
