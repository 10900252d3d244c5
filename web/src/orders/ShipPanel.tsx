import type { Order, Problem } from '@yosegi/contract';
import { wordsOf } from '@yosegi/contract/problems';
import { readSerials } from '@yosegi/core/tracking';
import { useState } from 'react';
import { z } from 'zod';
import { problemOf, useCommand } from '../api/client.ts';
import { Refusal } from '../lines/Refusal.tsx';
import { useScans } from '../scan/wedge.ts';
import { Button } from '../ui/Button.tsx';
import { Field } from '../ui/Field.tsx';
import { count, useFormat } from '../ui/format.ts';
import { Grid } from '../ui/layout.ts';
import { useNotify } from '../ui/Notice.ts';
import { Para, Part, Th } from '../ui/space.ts';
import { Faint, Late, Muted, Row } from '../ui/text.ts';
import { useShortcut } from '../ui/useShortcut.ts';
import { useTyped, useTypedScreen } from '../ui/useTypedScreen.ts';
import { FinishFirst, type Finishing } from './FinishFirst.tsx';
import { LineName, MeantQuantity, useOpenLines } from './openLines.tsx';
import { proposed, stillBuilt } from './serving.ts';

const Finishes = z.map(
  z.number(),
  z.custom<Finishing>((one) => typeof one === 'object'),
);

/** Sends some or all of an order, from its parcel and its shelves: how much of each line, and who takes it. */
export function ShipPanel({ order, onDone }: { order: Order; onDone: () => void }) {
  const format = useFormat();
  const notify = useNotify();
  const screen = useTypedScreen(`ship.${order.id}`);
  const lines = useOpenLines(order, screen, ({ canShip }) => (canShip === '0' ? '' : canShip));
  const { open, meant: sent } = lines;
  const [serials, setSerials] = useTyped<Readonly<Record<number, string>>>(
    screen,
    'serials',
    {},
    z.record(z.string(), z.string()),
  );
  const [carrier, setCarrier] = useTyped(screen, 'carrier', '');
  const [tracking, setTracking] = useTyped(screen, 'tracking', '');
  const [finishes, setFinishes] = useTyped<ReadonlyMap<number, Finishing>>(screen, 'finishes', new Map(), Finishes);
  const [parcelId, setParcelId] = useState<number | null>(null);
  const [scanned, setScanned] = useState<string | null>(null);
  const builds = stillBuilt(order);
  useScans((text) => {
    const parcel = order.parcels.find(({ number }) => number.toLowerCase() === text.trim().toLowerCase());
    setParcelId(parcel?.id ?? null);
    setScanned(
      parcel ? `${parcel.number} is a parcel of this order.` : `${text.trim()} is not a parcel of ${order.number}.`,
    );
  });
  /** What a build brings is proposed to leave with the rest. */
  const setFinishing = (buildId: number, finishing: Finishing | undefined) => {
    const next = new Map(finishes);
    if (finishing === undefined) next.delete(buildId);
    else next.set(buildId, finishing);
    setFinishes(next);
    const isNew = finishing !== undefined && !finishes.has(buildId);
    if (!isNew && finishing !== undefined) return;
    lines.set(proposed(open, next));
  };
  const ship = useCommand(
    'shipOrder',
    ({ id, number, openLines }) => {
      const rest = openLines === 0 ? 'Everything has shipped.' : `${count(openLines, 'line')} still open.`;
      notify({ text: `${number}: ${order.number} shipped. ${rest}`, documentId: id });
      onDone();
    },
    screen.forget,
  );
  const faulty = lines.isFaulty || [...finishes.values()].includes(null) || Object.values(serials).some(serialsWrong);
  const post = () => {
    if (faulty || sent.length === 0 || ship.isPending) return;
    ship.mutate({
      params: { id: order.id },
      body: {
        version: order.version,
        parcelId,
        finishes: [...finishes.values()].flatMap((finishing) => finishing ?? []),
        carrier: carrier.trim(),
        tracking: tracking.trim(),
        lines: sent.map((line) => ({
          lineId: line.id,
          quantity: lines.quantityOf(line),
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
    <Part $top={18}>
      <h2>What ships now?</h2>
      <Grid $full $top={6}>
        <thead>
          <tr>
            <th>Line</th>
            <th className="num">Open</th>
            <Th className="num" $width={130}>
              Ship now
            </Th>
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
                  <LineName line={line} />
                </td>
                <td className="num">
                  {format.quantity(line.open, line.unit, line.decimals)}
                  {line.inParcel !== '0' && <Faint> {format.number(line.inParcel)} in the parcel</Faint>}
                </td>
                <td>
                  <MeantQuantity lines={lines} line={line} called="Ship now of" error={ship.error} />
                </td>
                <td>
                  {line.parts
                    .filter((part) => part.item.tracking === 'serial' && part.packed !== part.required)
                    .map((part) => (
                      <Field
                        key={part.id}
                        label={`Serial numbers of ${part.item.name}`}
                        hideLabel
                        placeholder={`Serials of ${part.item.name}, or a range`}
                        value={serials[part.id] ?? ''}
                        onChange={(text) => setSerials({ ...serials, [part.id]: text })}
                        error={
                          serialsWrong(serials[part.id] ?? '') ?? (at < 0 ? undefined : serialFault(ship.error, at))
                        }
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
      {builds.map(({ id, number }) => (
        <FinishFirst
          key={id}
          screen={screen}
          buildId={id}
          number={number}
          finishing={finishes.get(id)}
          onChange={(finishing) => setFinishing(id, finishing)}
          refused={refusedFinish(problem, [...finishes.keys()].indexOf(id))}
        />
      ))}
      {scanned && <Para $top={8}>{parcelId === null ? <Late>{scanned}</Late> : <Muted>✓ {scanned}</Muted>}</Para>}
      <Row $wrap $top={10} $end>
        <Part $width={200}>
          <Field label="Carrier" value={carrier} onChange={setCarrier} />
        </Part>
        <Part $width={240}>
          <Field label="Tracking number" value={tracking} onChange={setTracking} />
        </Part>
        <Button look="go" busy={ship.isPending} isDisabled={faulty || sent.length === 0} onPress={post}>
          Ship {count(sent.length, 'line')}
        </Button>
        <Button onPress={onDone}>Cancel</Button>
      </Row>
      <Part $top={10}>
        <Refusal error={ship.error} shownAt={shown} />
      </Part>
    </Part>
  );
}

/** What a refusal says of one of the builds that are finished, at that build's own fields. */
function refusedFinish(problem: Problem | null, index: number): Problem | null {
  const prefix = `finishes.${index}.`;
  return index >= 0 && problem?.field?.startsWith(prefix)
    ? { ...problem, field: problem.field.slice(prefix.length) }
    : null;
}

/** What is wrong with serials as they are typed. */
function serialsWrong(text: string): string | undefined {
  try {
    readSerials(text);
    return undefined;
  } catch (error) {
    return wordsOf(error) ?? 'Enter serial numbers, or a range like SC-0001..SC-0010.';
  }
}

/** What a refusal says about the serials of a line, whichever of its parts they are of. */
function serialFault(error: unknown, line: number): string | undefined {
  const problem = problemOf(error);
  return problem?.field?.startsWith(`lines.${line}.parts`) ? problem.detail : undefined;
}
