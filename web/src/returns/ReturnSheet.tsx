import type { ReturnDetail, ReturnLine } from '@yosegi/contract';
import { type Condition, conditions } from '@yosegi/core/returns';
import { Link } from 'react-router';
import { z } from 'zod';
import { problemAt, problemOf, useCommand, useQuestion } from '../api/client.ts';
import { useCan } from '../api/person.ts';
import { LabelButton } from '../devices/index.ts';
import { labelOf } from '../scan/scans.ts';
import { useScans } from '../scan/wedge.ts';
import { Button, LinkButton } from '../ui/Button.tsx';
import { Chip } from '../ui/Chip.tsx';
import { Choice } from '../ui/Choice.tsx';
import { Field } from '../ui/Field.tsx';
import { count, useFormat } from '../ui/format.ts';
import { Cell, Grid, Page } from '../ui/layout.ts';
import { useNotify } from '../ui/Notice.ts';
import { Para, Part, Section, Th } from '../ui/space.ts';
import { Tile } from '../ui/Tile.tsx';
import { Faint, Late, Lead, Row } from '../ui/text.ts';
import { dayOf } from '../ui/today.ts';
import { useAtOnce } from '../ui/useAtOnce.ts';
import { useTyped, useTypedScreen } from '../ui/useTypedScreen.ts';
import { When } from '../ui/When.tsx';
import { conditionChoices, Other, Others } from './Others.tsx';
import { Pile } from './Pile.tsx';
import { ReturnPicture } from './ReturnPicture.tsx';
import { joined, Named, NONE_NAMED, namedBy, WhichBack } from './WhichBack.tsx';
import { outcomeWords, pieceName, stateTone, stateWords, waitedWords } from './words.ts';

/** One return: what came back, what became of it, and what is owed for it. */
export function ReturnSheet({ of }: { of: ReturnDetail }) {
  const format = useFormat();
  return (
    <Page>
      <Pile returns={of.state === 'waiting' ? [of] : []} keptAs={`return.${of.id}`}>
        <Row $wrap $gap={14}>
          <Tile code={of.code} size={52} />
          <div>
            <h1>{conclusion(of)}</h1>
            <Lead>
              {of.number} of <Link to={`/orders/customers/${of.customerId}`}>{of.customer}</Link> ·{' '}
              <Chip $tone={stateTone(of.state)}>{stateWords[of.state]}</Chip>{' '}
              {of.state === 'waiting' && waitedWords(of)}
              {of.bin && ` · in bin ${of.bin}`}
              {of.document && ` · worth ${format.money(of.value)}`} ·{' '}
              {of.state === 'announced' ? 'to be refunded' : 'owed'} {format.money(of.owed)}
            </Lead>
          </div>
        </Row>
        {of.calledOff && <Para>Not coming: {of.calledOff}</Para>}
        {of.remark && <Para>“{of.remark}”</Para>}
        {of.state === 'announced' && <Arrive of={of} />}
      </Pile>
      <Section $top={14}>
        <h2>Refunds</h2>
        <Grid $full>
          <thead>
            <tr>
              <th>Item</th>
              <th>Shipped with</th>
              <th>Reason and condition</th>
              <th className="num">Unit price paid</th>
              <Th className="num" $width={120}>
                Owed, %
              </Th>
              <th className="num">Refund</th>
              <th className="num">Written off</th>
            </tr>
          </thead>
          <tbody>
            {of.lines.map((line) => (
              <OwedRow key={line.id} of={of} line={line} />
            ))}
          </tbody>
        </Grid>
      </Section>
      <Became of={of} />
      {of.state !== 'called-off' && <ReturnPicture of={of} />}
      {of.documents.length > 0 && (
        <Section $top={14}>
          <h2>Documents</h2>
          {of.documents.map((document) => (
            <Para key={document.id}>
              <Link to={`/stock/documents/${document.id}`}>{document.number}</Link>{' '}
              <Faint>
                <When at={document.at} />
                {document.undone && ' · undone'}
              </Faint>
            </Para>
          ))}
        </Section>
      )}
    </Page>
  );
}

function conclusion(of: ReturnDetail): string {
  if (of.state === 'announced') return `${of.what}: announced, not received yet.`;
  if (of.state === 'called-off') return `${of.what}: cancelled.`;
  if (of.state === 'settled') return `${of.what}: all decided.`;
  return `${of.what}: ${count(of.waiting, 'item')} to decide.`;
}

function OwedRow({ of, line }: { of: ReturnDetail; line: ReturnLine }) {
  const format = useFormat();
  const maySell = useCan('sell');
  const { text, typed, type, saved } = useAtOnce(`owed.${line.id}`, line.credit);
  const credit = useCommand('creditReturn');
  const save = () => {
    if (typed === null) return;
    if (typed.trim() === line.credit) saved(typed);
    else
      credit.mutate(
        { params: { id: line.id }, body: { version: of.version, credit: typed.trim() || '0' } },
        { onSuccess: () => saved(typed) },
      );
  };
  return (
    <tr>
      <td>
        <Cell>
          <Tile code={line.code} size={28} />
          <b>
            {format.quantity(line.quantity, line.unit, line.decimals)} × {line.name}
          </b>
        </Cell>
      </td>
      <td>
        <Link to={`/orders/${line.orderId}`}>{line.order}</Link> · {line.shipment}, {format.day(dayOf(line.shippedAt))}{' '}
        {line.tooLate !== null && <Late>{count(line.tooLate, 'day')} too late</Late>}
      </td>
      <td>
        {line.reason} · {line.condition}
        {line.remark && (
          <>
            <br />
            <Faint>“{line.remark}”</Faint>
          </>
        )}
      </td>
      <td className="num">{format.money(line.price)}</td>
      <td>
        <Field
          label={`Percent of the price owed for ${line.name}`}
          hideLabel
          numeric
          suffix="%"
          isDisabled={!maySell}
          value={text}
          onChange={type}
          onBlur={save}
          onKeyDown={(event) => event.key === 'Enter' && save()}
          error={problemOf(credit.error)?.detail}
        />
      </td>
      <td className="num">
        <b>{format.money(line.owed)}</b>
      </td>
      <td className="num">{line.lost === '0' ? '–' : format.money(line.lost)}</td>
    </tr>
  );
}

/** What became of things, by the document that did it. */
function Became({ of }: { of: ReturnDetail }) {
  const format = useFormat();
  const rows = of.lines.flatMap(({ pieces }) =>
    pieces.flatMap((piece) => piece.outcomes.map((outcome) => ({ piece, outcome }))),
  );
  if (rows.length === 0) return null;
  return (
    <Section $top={14}>
      <h2>Decision</h2>
      <Grid $full>
        <tbody>
          {rows.map(({ piece, outcome }) => (
            <tr key={`${outcome.documentId} ${piece.id} ${outcome.outcome}`}>
              <td>
                <Cell>
                  <Tile code={piece.code} size={24} />
                  {format.quantity(outcome.quantity, piece.unit, piece.decimals)} × {pieceName(piece)}
                </Cell>
              </td>
              <td>
                {outcomeWords[outcome.outcome]}
                {outcome.bin && `, bin ${outcome.bin}`}
                {outcome.build && (
                  <>
                    {', '}
                    <Link to={`/build/${outcome.build.id}`}>{outcome.build.number}</Link>
                  </>
                )}
                {outcome.note && ` · ${outcome.note}`}
              </td>
              <td className="num">{format.money(outcome.value)}</td>
              <td>
                <Link to={`/stock/documents/${outcome.documentId}`}>{outcome.number}</Link>{' '}
                <Faint>
                  {outcome.person}, <When at={outcome.at} />
                </Faint>
              </td>
            </tr>
          ))}
        </tbody>
      </Grid>
    </Section>
  );
}

const Quantities = z.array(z.string()).readonly();
const AllNamed = z.array(Named).readonly();
const Conditions = z.array(z.enum(conditions)).readonly();
const AllOthers = z.array(z.array(Other).readonly()).readonly();

/** Takes announced goods in, as many as really came, or says why they do not. */
function Arrive({ of }: { of: ReturnDetail }) {
  const notify = useNotify();
  const screen = useTypedScreen(`return.${of.id}`);
  const ofEach = <T,>(each: (line: ReturnLine) => T) => of.lines.map(each) as readonly T[];
  const [quantities, setQuantities] = useTyped(screen, 'quantities', () => ofEach((line) => line.quantity), Quantities);
  const [named, setNamed] = useTyped(screen, 'named', () => ofEach((line): Named => line.announced), AllNamed);
  const [found, setFound] = useTyped(screen, 'found', () => ofEach((line) => line.condition), Conditions);
  const [others, setOthers] = useTyped(screen, 'others', () => ofEach((): readonly Other[] => []), AllOthers);
  const [because, setBecause] = useTyped(screen, 'because', '');
  const reasons = useQuestion('reasons', {}).data ?? [];
  const arrive = useCommand('arriveReturn', ({ number, documentId }) => {
    screen.forget();
    notify({ text: `${number} received.`, ...(documentId === null ? {} : { documentId }) });
  });
  const callOff = useCommand('callOffReturn', ({ number }) => {
    screen.forget();
    notify({ text: `${number} cancelled.` });
  });
  const coming = of.lines
    .map((line, index) => ({ line, index }))
    .filter(({ index }) => Number(quantities[index]) !== 0);
  const parts = coming.flatMap(({ line, index }) => {
    const own = {
      ...(named[index] ?? NONE_NAMED),
      quantity: quantities[index] ?? '',
      condition: found[index] ?? line.condition,
    };
    const more = (others[index] ?? []).filter(({ quantity }) => quantity.trim() !== '');
    return [
      { line, index, nth: -1, own },
      ...more.map((other) => ({ line, index, nth: (others[index] ?? []).indexOf(other), own: other })),
    ];
  });
  const take = () =>
    arrive.mutate({
      params: { id: of.id },
      body: {
        version: of.version,
        lines: parts.map(({ line, own }) => ({
          shipmentId: line.shipmentId,
          lineId: line.orderLineId,
          quantity: own.quantity,
          reasonId: reasons.find(({ name, usedFor }) => usedFor === 'return' && name === line.reason)?.id ?? 0,
          condition: own.condition,
          remark: line.remark,
          // What is owed was said of the condition that was announced.
          credit: own.condition === line.condition ? line.credit : null,
          serials: [...own.serials],
          lots: [...own.lots],
        })),
      },
    });
  const name = (index: number, next: Named) => {
    setNamed(named.with(index, next));
    if (next.serials.length > 0) setQuantities(quantities.with(index, String(next.serials.length)));
  };
  useScans((text) => {
    const code = labelOf(text)?.serial ?? text;
    const index = of.lines.findIndex(({ withThem }) => namedBy(code, withThem).serials.length > 0);
    const [line, own] = [of.lines[index], named[index]];
    if (!line || !own) return false;
    name(index, joined(own, namedBy(code, line.withThem)));
    return true;
  });
  const problem = problemOf(arrive.error ?? callOff.error);
  return (
    <Section $top={12}>
      {of.lines.map((line, index) => {
        const errorAt = (name: string, nth = -1) => {
          const at = parts.findIndex((one) => one.index === index && one.nth === nth);
          return problemAt(arrive.error, `lines.${at}.${name}`);
        };
        return (
          <Row key={line.id} $gap={12} $end $wrap $top={6}>
            <Tile code={line.code} size={32} />
            <Part $width={150}>
              <Field
                label={`${line.name} that came`}
                numeric
                value={quantities[index] ?? ''}
                onChange={(text) => setQuantities(quantities.with(index, text))}
                error={errorAt('quantity')}
              />
            </Part>
            <Part $width={150}>
              <Choice
                label={`Condition of ${line.name}`}
                value={found[index] ?? line.condition}
                onChange={(next) => setFound(found.with(index, next as Condition))}
                options={conditionChoices}
              />
            </Part>
            <WhichBack
              of={line.withThem}
              named={named[index] ?? NONE_NAMED}
              onChange={(next) => name(index, next)}
              errorAt={(name) => errorAt(name)}
            />
            <Others
              of={{ ...line.withThem, name: line.name }}
              others={others[index] ?? []}
              onChange={(next) => setOthers(others.with(index, next))}
              errorAt={(nth, name) => errorAt(name, nth)}
            />
          </Row>
        );
      })}
      <Row $top={12} $gap={10} $end $wrap>
        <Button look="go" busy={arrive.isPending} isDisabled={coming.length === 0} onPress={take}>
          Receive
        </Button>
        <LinkButton to={`/print/return/${of.id}`}>Print its label</LinkButton>
        <LabelButton ask={{ returnId: of.id }}>To the label printer</LabelButton>
        <Part $width={240}>
          <Field label="Reason it isn’t coming" value={because} onChange={setBecause} />
        </Part>
        <Button
          look="danger"
          isDisabled={because.trim() === ''}
          busy={callOff.isPending}
          onPress={() => callOff.mutate({ params: { id: of.id }, body: { version: of.version, because } })}
        >
          Cancel return
        </Button>
      </Row>
      {problem && !problem.field && <Para role="alert">{problem.detail}</Para>}
    </Section>
  );
}
