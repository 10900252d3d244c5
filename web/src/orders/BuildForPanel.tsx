import type { Buildable } from '@yosegi/contract';
import { entryFault } from '@yosegi/contract/problems';
import { formatDecimal, fromZero, type Quantity, readExact, readForText, ZERO } from '@yosegi/core/number';
import { waitsInstead } from '@yosegi/core/orders';
import { useDeferredValue, useState } from 'react';
import { z } from 'zod';
import { problemAt, useCommand, useQuestion } from '../api/client.ts';
import { Button } from '../ui/Button.tsx';
import { QuantityCell } from '../ui/Cells.tsx';
import { Choice } from '../ui/Choice.tsx';
import { count, useFormat } from '../ui/format.ts';
import { Cell, Grid } from '../ui/layout.ts';
import { plainTyped, readTyped } from '../ui/measuring.ts';
import { useNotify } from '../ui/Notice.ts';
import { ProblemBox } from '../ui/Problem.tsx';
import { Answer } from '../ui/States.tsx';
import { Para, Part, Th } from '../ui/space.ts';
import { Tile } from '../ui/Tile.tsx';
import { Faint, Late, Muted, Row } from '../ui/text.ts';
import { useShortcut } from '../ui/useShortcut.ts';
import { useTyped, useTypedScreen } from '../ui/useTypedScreen.ts';
import { whenThere } from './words.ts';

type Together = 'per-product' | 'per-order';

/** Which lines of orders are built for them, how many of each, and what could start. */
export function BuildForPanel({ orderIds, onDone }: { orderIds: readonly number[]; onDone: () => void }) {
  const screen = useTypedScreen(`build-for.${orderIds.join('-')}`);
  const [typed, setTyped] = useTyped<ReadonlyMap<number, string>>(
    screen,
    'typed',
    new Map(),
    z.map(z.number(), z.string()),
  );
  const body = useDeferredValue(JSON.stringify({ orderIds, chosen: typed.size === 0 ? null : chosenOf(typed) }));
  const look = useQuestion('lookToBuild', { body: JSON.parse(body) }, { keep: true });
  return (
    <Part $top={18}>
      <Answer of={look}>
        {(data) =>
          data.lines.length === 0 ? (
            <Row>
              <Muted>No open line has a bill of materials in use.</Muted>
              <Button onPress={onDone}>Cancel</Button>
            </Row>
          ) : (
            <Panel {...{ data, typed, setTyped, onDone }} several={orderIds.length > 1} />
          )
        }
      </Answer>
    </Part>
  );
}

type Look = {
  readonly lines: readonly Buildable[];
  readonly products: readonly { itemId: number; name: string; unit: string; quantity: string; canStart: string }[];
  readonly missing: readonly { itemId: number; name: string; unit: string; short: string; comesOn: string | null }[];
};

interface Props {
  readonly data: Look;
  readonly typed: ReadonlyMap<number, string>;
  readonly setTyped: (typed: ReadonlyMap<number, string>) => void;
  readonly several: boolean;
  readonly onDone: () => void;
}

function Panel({ data, typed, setTyped, several, onDone }: Props) {
  const format = useFormat();
  const notify = useNotify();
  const [together, setTogether] = useState<Together>('per-product');
  const plan = useCommand('buildForOrders', ({ builds }) => {
    notify({
      text: `${builds.map(({ number }) => number).join(', ')} planned. Finished goods are kept for the order.`,
    });
    setTyped(new Map());
    onDone();
  });
  // What nothing else brings is proposed.
  const textOf = (line: Buildable) => typed.get(line.partId) ?? (line.short === '0' ? '' : line.short);
  const faultOf = (line: Buildable) => {
    try {
      if (textOf(line).trim() !== '') fromZero(readTyped(textOf(line), { ...line, measures: [] }));
      return undefined;
    } catch (error) {
      return entryFault(error);
    }
  };
  /** What could leave now and would wait for the build. */
  const waits = (line: Buildable): Quantity => {
    if (faultOf(line) || textOf(line).trim() === '') return ZERO;
    const [open, ready, building] = [line.open, line.ready, line.building].map((text) => readExact(text) as Quantity);
    const build = readTyped(textOf(line), { ...line, measures: [] });
    return build > 0
      ? waitsInstead({ open: open ?? ZERO, ready: ready ?? ZERO, building: building ?? ZERO }, build)
      : ZERO;
  };
  const chosen = data.lines.filter((line) => Number(textOf(line)) > 0 && !faultOf(line));
  const faulty = data.lines.some((line) => faultOf(line) !== undefined);
  const post = () => {
    if (faulty || chosen.length === 0 || plan.isPending) return;
    const body = chosen.map((line) => ({
      partId: line.partId,
      quantity: plainTyped(textOf(line), { ...line, measures: [] }),
      building: line.building,
    }));
    plan.mutate({ body: { chosen: body, together } });
  };
  useShortcut('Enter', post, { ctrl: true });
  const shown = chosen.map((_, index) => `chosen.${index}.quantity`);
  const set = (line: Buildable, text: string) => {
    const all = data.lines.map((one): [number, string] => [one.partId, textOf(one)]);
    setTyped(new Map(all).set(line.partId, text));
  };
  return (
    <>
      <h2>How many to build?</h2>
      <Grid $full $top={6}>
        <thead>
          <tr>
            <th>Product</th>
            {several && <th>For</th>}
            <th className="num">Open</th>
            <th className="num">On the shelf for this order</th>
            <th className="num">Being built</th>
            <Th className="num" $width={120}>
              Build
            </Th>
          </tr>
        </thead>
        <tbody>
          {data.lines.map((line) => {
            const at = chosen.indexOf(line);
            return (
              <tr key={line.partId}>
                <td>
                  <Cell>
                    <Tile code={line.code} size={24} />
                    <span>
                      {line.name}
                      {line.short === '0' && line.completeOn !== '' && (
                        <>
                          <br />
                          <Faint>the rest arrives {whenThere(line.completeOn, format)} without it</Faint>
                        </>
                      )}
                      {waits(line) > 0 && (
                        <>
                          <br />
                          <Late role="status">
                            {format.quantity(formatDecimal(waits(line)), line.unit, line.decimals)} could ship from the
                            shelf now. If you build them, the order ships after the build.
                          </Late>
                        </>
                      )}
                    </span>
                  </Cell>
                </td>
                {several && (
                  <td>
                    {line.customer} <Faint>{line.order}</Faint>
                  </td>
                )}
                <td className="num">{format.quantity(line.open, line.unit, line.decimals)}</td>
                <td className="num">{format.number(line.ready)}</td>
                <td className="num">{line.building === '0' ? '–' : format.number(line.building)}</td>
                <td>
                  <QuantityCell
                    label={`Build of ${line.name} for ${line.order}`}
                    value={textOf(line)}
                    unit={line.unit}
                    onChange={(text) => set(line, text)}
                    error={faultOf(line) ?? (at < 0 ? undefined : problemAt(plan.error, `chosen.${at}.quantity`))}
                  />
                </td>
              </tr>
            );
          })}
        </tbody>
      </Grid>
      <Para $top={10}>
        {data.products.map(({ itemId, name, quantity, canStart }) => (
          <span key={itemId}>
            <b>
              {format.number(canStart)} of {format.number(quantity)}
            </b>{' '}
            {name} could start now.{' '}
          </span>
        ))}
        {data.missing.length > 0 && (
          <Late>
            Missing:{' '}
            {data.missing
              .slice(0, 4)
              .map(
                ({ name, unit, short, comesOn }) =>
                  `${format.quantity(short, unit, 3)} ${name} (${whenThere(comesOn, format)})`,
              )
              .join(', ')}
            {data.missing.length > 4 && ` and ${data.missing.length - 4} more`}
          </Late>
        )}
      </Para>
      <ProblemBox error={plan.error} shownAt={shown} />
      <Row $top={10} $end $wrap>
        {several && (
          <Part $width={220}>
            <Choice
              label="Grouping"
              value={together}
              onChange={(next) => setTogether(next as Together)}
              options={[
                ['per-product', 'one build of each product'],
                ['per-order', 'one build for each order'],
              ]}
            />
          </Part>
        )}
        <Button look="go" busy={plan.isPending} isDisabled={faulty || chosen.length === 0} onPress={post}>
          Plan {count(buildsOf(chosen, together), 'build')}
        </Button>
        <Button onPress={onDone}>Cancel</Button>
      </Row>
    </>
  );
}

const buildsOf = (chosen: readonly Buildable[], together: Together) =>
  new Set(chosen.map(({ itemId, orderId }) => (together === 'per-order' ? `${orderId}:${itemId}` : `${itemId}`))).size;

/** What can be read of what was typed; the rest is as if nothing was wanted of it. */
function chosenOf(typed: ReadonlyMap<number, string>) {
  return [...typed].flatMap(([partId, text]) => {
    try {
      const quantity = readForText(text.trim() || '0');
      return quantity > 0n ? [{ partId, quantity: formatDecimal(quantity) }] : [];
    } catch {
      return [];
    }
  });
}
