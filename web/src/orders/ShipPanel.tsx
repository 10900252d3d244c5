import type { Order, OrderLine } from '@yosegi/contract';
import { wordsOf } from '@yosegi/contract/problems';
import { positive, readForText } from '@yosegi/core/number';
import { readSerials } from '@yosegi/core/tracking';
import { useState } from 'react';
import { problemAt, problemOf, useCommand } from '../api/client.ts';
import { Shortages } from '../lines/Shortages.tsx';
import { useShortcut } from '../shell/useShortcut.ts';
import { Button } from '../ui/Button.tsx';
import { QuantityCell } from '../ui/Cells.tsx';
import { Field } from '../ui/Field.tsx';
import { count } from '../ui/format.ts';
import { Cell, Grid } from '../ui/layout.ts';
import { plainTyped, readTyped } from '../ui/measuring.ts';
import { useNotify } from '../ui/Notice.tsx';
import { ProblemBox } from '../ui/Problem.tsx';
import { Tile } from '../ui/Tile.tsx';
import { Faint, Row } from '../ui/text.ts';

const unitOf = (line: OrderLine) => ({ unit: line.unit, decimals: line.decimals, measures: [] });

/** Sends some or all of an order straight from the shelves: how much of each line, and who takes it. */
export function ShipPanel({ order, onDone }: { order: Order; onDone: () => void }) {
  const notify = useNotify();
  const open = order.lines.filter((line) => readForText(line.open) > 0n);
  const [typed, setTyped] = useState<Readonly<Record<number, string>>>(() =>
    Object.fromEntries(open.map((line) => [line.id, line.canShip === '0' ? '' : line.canShip])),
  );
  const [serials, setSerials] = useState<Readonly<Record<number, string>>>({});
  const [carrier, setCarrier] = useState('');
  const [tracking, setTracking] = useState('');
  const ship = useCommand('shipOrder', ({ id, number, openLines }) => {
    const rest = openLines === 0 ? 'Everything has left.' : `${count(openLines, 'line')} still open.`;
    notify({ text: `${number}: ${order.number} is shipped. ${rest}`, documentId: id });
    onDone();
  });
  const sent = open.filter((line) => (typed[line.id] ?? '').trim() !== '');
  const faultOf = (line: OrderLine): string | undefined => {
    try {
      if ((typed[line.id] ?? '').trim() !== '') positive(readTyped(typed[line.id] ?? '', unitOf(line)));
      return undefined;
    } catch (error) {
      return wordsOf(error) ?? 'This cannot be read.';
    }
  };
  const faulty = sent.some((line) => faultOf(line) !== undefined);
  const post = () => {
    if (faulty || sent.length === 0 || ship.isPending) return;
    ship.mutate({
      params: { id: order.id },
      body: {
        version: order.version,
        carrier: carrier.trim(),
        tracking: tracking.trim(),
        lines: sent.map((line) => ({
          lineId: line.id,
          quantity: plainTyped(typed[line.id] ?? '', unitOf(line)),
          parts: line.parts
            .filter((part) => (serials[part.id] ?? '').trim() !== '')
            .map((part) => ({ partId: part.id, serials: readSerials(serials[part.id] ?? '') })),
        })),
      },
    });
  };
  useShortcut('Enter', post, { ctrl: true });
  const problem = problemOf(ship.error);
  const shown = sent.flatMap((line, index) => [
    `lines.${index}.quantity`,
    ...line.parts.map((_, part) => `lines.${index}.parts.${part}.serials`),
  ]);
  return (
    <div style={{ marginTop: 18 }}>
      <h2>What leaves now?</h2>
      <Grid style={{ width: '100%', marginTop: 6 }}>
        <thead>
          <tr>
            <th>Line</th>
            <th className="num">Open</th>
            <th className="num" style={{ width: 130 }}>
              Ship now
            </th>
            <th>
              {open.some((line) => line.parts.some((part) => part.item.tracking === 'serial')) && 'Serial numbers'}
            </th>
          </tr>
        </thead>
        <tbody>
          {open.map((line) => {
            const at = sent.indexOf(line);
            return (
              <tr key={line.id}>
                <td>
                  <Cell>
                    <Tile code={line.code} size={24} />
                    {line.name}
                  </Cell>
                </td>
                <td className="num">{line.open}</td>
                <td>
                  <QuantityCell
                    label={`Ship now of ${line.name}`}
                    value={typed[line.id] ?? ''}
                    unit={line.unit}
                    onChange={(text) => setTyped({ ...typed, [line.id]: text })}
                    error={faultOf(line) ?? (at < 0 ? undefined : problemAt(ship.error, `lines.${at}.quantity`))}
                  />
                </td>
                <td>
                  {line.parts
                    .filter((part) => part.item.tracking === 'serial')
                    .map((part) => (
                      <Field
                        key={part.id}
                        label={`Serial numbers of ${part.item.name}`}
                        hideLabel
                        placeholder={`Serials of ${part.item.name}, or a range`}
                        value={serials[part.id] ?? ''}
                        onChange={(text) => setSerials({ ...serials, [part.id]: text })}
                        error={at < 0 ? undefined : serialFault(ship.error, at)}
                      />
                    ))}
                  {line.parts.some((part) => part.item.tracking === 'lot') && (
                    <Faint>the first lot to expire goes first</Faint>
                  )}
                </td>
              </tr>
            );
          })}
        </tbody>
      </Grid>
      <Row $wrap style={{ marginTop: 10, alignItems: 'flex-end' }}>
        <div style={{ width: 200 }}>
          <Field label="Who takes it" value={carrier} onChange={setCarrier} />
        </div>
        <div style={{ width: 240 }}>
          <Field label="Tracking number" value={tracking} onChange={setTracking} />
        </div>
        <Button look="go" busy={ship.isPending} isDisabled={faulty || sent.length === 0} onPress={post}>
          Ship {count(sent.length, 'line')}
        </Button>
        <Button onPress={onDone}>Not now</Button>
      </Row>
      {problem && (
        <div style={{ marginTop: 10 }}>
          <ProblemBox error={ship.error} shownAt={shown} />
          <Shortages problem={problem} />
        </div>
      )}
    </div>
  );
}

/** What a refusal says about the serials of a line, whichever of its parts they are of. */
function serialFault(error: unknown, line: number): string | undefined {
  const problem = problemOf(error);
  return problem?.field?.startsWith(`lines.${line}.parts`) ? problem.detail : undefined;
}
