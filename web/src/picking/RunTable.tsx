import type { RunStop } from '@yosegi/contract';
import { entryFault } from '@yosegi/contract/problems';
import { formatDecimal, readExact, SCALE } from '@yosegi/core/number';
import { takenBy } from '@yosegi/core/picking';
import { readSerials, writeSerials } from '@yosegi/core/tracking';
import { Fragment } from 'react';
import styled from 'styled-components';
import { z } from 'zod';
import { problemOf, useCommand } from '../api/client.ts';
import { usePerson } from '../api/person.ts';
import { lotWords, OutFields } from '../lines/OutFields.tsx';
import { Refusal } from '../lines/Refusal.tsx';
import { stepLines } from '../lines/steps.ts';
import { NOTHING_TYPED } from '../lines/typed.ts';
import { Button, LinkButton } from '../ui/Button.tsx';
import { Choice } from '../ui/Choice.tsx';
import { Field } from '../ui/Field.tsx';
import { count, useFormat } from '../ui/format.ts';
import { AnswerBody, AnswerPane, Cell, Foot, Grid } from '../ui/layout.ts';
import { readTyped } from '../ui/measuring.ts';
import { useNotify } from '../ui/Notice.ts';
import { Th } from '../ui/space.ts';
import { Tile } from '../ui/Tile.tsx';
import { Faint, Lead, Muted, Push, Row } from '../ui/text.ts';
import { useShortcut } from '../ui/useShortcut.ts';
import { useTyped, useTypedScreen } from '../ui/useTypedScreen.ts';
import { useOffline } from './offline.ts';
import { Slot } from './phoneLook.ts';
import { Refused } from './Refused.tsx';
import type { RunProps } from './RunPhone.tsx';
import { RunSide } from './RunSide.tsx';
import { serialsFor, slotsOf, stopsLeft } from './view.ts';
import { walkedWords } from './words.ts';

/** The stops, and beside them whom they are for. */
const Beside = styled.div`
  display: grid; grid-template-columns: minmax(0, 1fr) 286px; gap: 24px; align-items: start; > :only-child { grid-column: 1 / -1; }
  @media (max-width: 1100px) { grid-template-columns: minmax(0, 1fr); }
`;

const Typed = z.object({
  /** By line of the stop. */
  quantities: z.array(z.string()),
  lot: z.string(),
  serials: z.string(),
});
type Typed = Readonly<z.infer<typeof Typed>>;

/**
 * A run at the desk: every stop in walking order with what goes where, as it is asked for or as it was written on the
 * printed run, and brought in one go.
 */
export function RunTable({ run, queue, isCutOff, isFull }: RunProps) {
  const format = useFormat();
  const notify = useNotify();
  const personId = usePerson()?.id ?? 0;
  useOffline(run.id);
  const screen = useTypedScreen(`run.${run.id}`);
  const [typed, setTyped] = useTyped<ReadonlyMap<string, Typed>>(screen, 'typed', new Map(), z.map(z.string(), Typed));
  const slots = slotsOf(run);
  const stops = stopsLeft(run, queue);
  const others = new Map(
    stops.flatMap((stop) => {
      const other = takenBy(stop.key, run.claims, { personId, now: new Date() });
      return other ? [[stop.key, run.claims.find((one) => one.personId === other.personId)?.person ?? '']] : [];
    }),
  );
  const rows = stops.map((stop) => readRow(stop, typed.get(stop.key), slots));
  const going = rows.filter((row) => row.total > 0 && !others.has(row.stop.key));
  const faulty = going.some((row) => row.error !== undefined);
  const sent = going.flatMap((row) => row.lines.map((line) => ({ line, key: row.stop.key })));
  const pick = useCommand('pickOnRun', ({ id: documentId, number, stops: left }) => {
    setTyped(new Map());
    notify({
      text: `${number} posted. ${left === 0 ? 'No stops left.' : `${count(left, 'stop')} left.`}`,
      documentId,
    });
  });
  const notThere = useCommand('notThere', () =>
    notify({ text: 'The bin is on the list of bins to count.', to: ['/stock/counts', 'See it'] }),
  );
  const post = () => {
    if (faulty || going.length === 0 || pick.isPending) return;
    pick.mutate({ params: { id: run.id }, body: { lines: sent.map(({ line }) => line) } });
  };
  useShortcut('Enter', post, { ctrl: true });
  const set = (row: ReturnType<typeof readRow>, part: Partial<Typed>) =>
    setTyped(new Map(typed).set(row.stop.key, { ...row.typed, ...part }));
  const problem = problemOf(pick.error);
  const [, refusedIndex, refusedName] = problem?.field?.split('.') ?? [];
  const refusedStop = refusedIndex === undefined ? undefined : sent[Number(refusedIndex)]?.key;
  const errorOf = (stop: RunStop, name: string) =>
    refusedStop === stop.key && refusedName === name ? problem?.detail : undefined;
  const lines = going.reduce((sum, row) => sum + row.lines.length, 0);
  return (
    <AnswerPane>
      <Refused queue={queue} isCutOff={isCutOff} isFull={isFull} personId={personId} />
      <AnswerBody>
        <Row $wrap>
          <div>
            <h1>
              {stops.length === 0
                ? `Everything available is picked for ${run.number}.`
                : `${count(stops.length, 'stop')} to go on ${run.number}.`}
            </h1>
            <Lead>
              {run.store ?? 'All stores'}, in picking order. Pick less and the rest stays open. Enter what was written
              on the printed run here.
            </Lead>
          </div>
          <Push />
          <LinkButton to={`/print/run/${run.id}`}>Print the run</LinkButton>
        </Row>
        <Beside>
          {stops.length > 0 && (
            <Grid $full>
              <thead>
                <tr>
                  <th>Bin</th>
                  <th>Part</th>
                  <th className="num">In bin</th>
                  <th className="num">Needed</th>
                  <Th $width={230}>Take now, and for whom</Th>
                  <th />
                </tr>
              </thead>
              <tbody>
                {rows.map((row) => (
                  <Fragment key={row.stop.key}>
                    <tr data-quiet={others.has(row.stop.key) || undefined}>
                      <td className="one-line">
                        <b>{row.stop.bin}</b>
                        <br />
                        <Faint>{row.stop.store}</Faint>
                      </td>
                      <td>
                        <Cell>
                          <Tile code={row.stop.item.code} size={32} />
                          <span>
                            <b>{row.stop.item.name}</b>
                            <br />
                            <Faint>
                              {row.stop.item.code}
                              {row.stop.lotSays && ` · ${row.stop.lotSays}`}
                            </Faint>
                          </span>
                        </Cell>
                      </td>
                      <td className="num">
                        {format.quantity(row.stop.there, row.stop.item.unit, row.stop.item.decimals)}
                      </td>
                      <td className="num">
                        <b>{format.quantity(row.stop.quantity, row.stop.item.unit, row.stop.item.decimals)}</b>
                      </td>
                      <td>
                        {others.has(row.stop.key) ? (
                          <Muted>{others.get(row.stop.key)} is there</Muted>
                        ) : (
                          row.stop.lines.map((line, index) => {
                            const goal = slots.get(`${line.kind}:${line.id}`);
                            return (
                              <Row key={`${line.kind}:${line.lineId}`} $gap={8}>
                                <Slot aria-hidden>{goal?.slot}</Slot>
                                <Field
                                  label={`${row.stop.item.name} from ${row.stop.bin} to ${goal?.number}`}
                                  hideLabel
                                  numeric
                                  value={row.typed.quantities[index] ?? ''}
                                  onChange={(text) => set(row, { quantities: row.typed.quantities.with(index, text) })}
                                  onKeyDown={(event) => stepLines(event, true)}
                                  error={index === 0 ? (row.error ?? errorOf(row.stop, 'quantity')) : undefined}
                                />
                                <Faint $oneLine>{goal?.number}</Faint>
                              </Row>
                            );
                          })
                        )}
                      </td>
                      <td>
                        <Button
                          look="ghost"
                          aria-label={`Not there: ${row.stop.item.name} in ${row.stop.bin}`}
                          onPress={() =>
                            notThere.mutate({
                              params: { id: run.id },
                              body: { binId: row.stop.binId, itemId: row.stop.item.id, lot: row.stop.lot },
                            })
                          }
                        >
                          Not there
                        </Button>
                      </td>
                    </tr>
                    <Tracking row={row} set={(part) => set(row, part)} errorOf={(name) => errorOf(row.stop, name)} />
                  </Fragment>
                ))}
              </tbody>
            </Grid>
          )}
          <RunSide run={run} isWaiting={queue.length > 0} />
        </Beside>
        <Refusal error={pick.error ?? notThere.error} shownAt={refusedStop ? [problem?.field ?? ''] : []} />
      </AnswerBody>
      <Foot>
        <Muted>
          {run.walked.stops === 0
            ? 'Nothing is picked yet.'
            : `${count(run.walked.stops, 'stop')} and ${count(run.walked.lines, 'line')} picked before${walkedWords(run.walked)}`}
        </Muted>
        <Push />
        {stops.length > 0 && (
          <Button look="go" isDisabled={faulty || going.length === 0} busy={pick.isPending} onPress={post}>
            Pick {count(lines, 'line')} from {count(going.length, 'stop')}
          </Button>
        )}
      </Foot>
    </AnswerPane>
  );
}

/** Lot or serials of a stop; nothing where the item is not tracked. */
function Tracking({
  row,
  set,
  errorOf,
}: {
  row: ReturnType<typeof readRow>;
  set: (part: Partial<Typed>) => void;
  errorOf: (name: string) => string | undefined;
}) {
  const format = useFormat();
  const { stop, typed } = row;
  const { item } = stop;
  if (item.tracking === 'none') return null;
  const free = stop.pieces.filter((piece) => piece.held === null && piece.lot !== null);
  return (
    <tr>
      <td />
      <td colSpan={5}>
        {item.tracking === 'serial' ? (
          <OutFields
            item={item}
            pieces={stop.pieces}
            typed={{ ...NOTHING_TYPED, serials: typed.serials }}
            onChange={(next) => set({ serials: next.serials })}
            quantity={row.total / SCALE}
            errorAt={(name) => errorOf(name)}
          />
        ) : item.lotOrder === 'free' && free.length > 1 ? (
          <Choice
            label={`Lot of ${item.name}`}
            value={typed.lot}
            onChange={(lot) => set({ lot })}
            options={free.map((piece): [string, string] => [
              piece.lot ?? '',
              lotWords(format, piece, item.unit, item.decimals),
            ])}
          />
        ) : (
          <Muted>
            Lot <b>{stop.lot}</b>
            {stop.bestBefore && ` · best before ${format.longerDay(stop.bestBefore)}`}
          </Muted>
        )}
      </td>
    </tr>
  );
}

/** What is asked for: everything, and of serials the first ones that are there. */
function startOf(stop: RunStop): Typed {
  const serials = stop.pieces.flatMap(({ serial, held }) => (serial !== null && held === null ? [serial] : []));
  return {
    quantities: stop.lines.map(({ quantity }) => quantity),
    lot: stop.lot ?? '',
    serials: writeSerials(serials.slice(0, readExact(stop.quantity) / SCALE)),
  };
}

function readRow(stop: RunStop, kept: Typed | undefined, slots: ReturnType<typeof slotsOf>) {
  // What somebody else picked meanwhile is no longer what was typed for.
  const typed = kept?.quantities.length === stop.lines.length ? kept : startOf(stop);
  const base = { stop, typed };
  try {
    const quantities = typed.quantities.map((text): number => (text.trim() === '' ? 0 : readTyped(text, stop.item)));
    const total = quantities.reduce((sum, one) => sum + one, 0);
    const over = stop.lines.find(
      (line, index) =>
        (quantities[index] ?? 0) > readExact(line.quantity) && !slots.get(`${line.kind}:${line.id}`)?.spare,
    );
    const serials = typed.serials === '' ? [] : readSerials(typed.serials);
    const own = serialsFor(
      quantities.map((one) => one / SCALE),
      serials,
    );
    const lines = stop.lines.flatMap(({ kind, id, lineId }, index) => {
      const quantity = quantities[index] ?? 0;
      if (quantity === 0) return [];
      const lot = stop.item.tracking === 'lot' ? typed.lot || null : null;
      return { kind, id, lineId, binId: stop.binId, quantity: formatDecimal(quantity), lot, serials: own[index] ?? [] };
    });
    const wrongCount = stop.item.tracking === 'serial' && serials.length * SCALE !== total;
    const error = over
      ? `Only ${over.quantity} ${over.quantity === '1' ? 'is' : 'are'} needed here.`
      : wrongCount
        ? `Name ${count(total / SCALE, 'serial number')}.`
        : undefined;
    return { ...base, total, lines, error };
  } catch (error) {
    // It is counted as going, so that nothing is posted beside it.
    return { ...base, total: 1, lines: [], error: entryFault(error) };
  }
}
