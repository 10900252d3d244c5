import type { Item, LotRow, SerialRow } from '@yosegi/contract';
import { unitStates } from '@yosegi/core/tracking';
import { useState } from 'react';
import { Link } from 'react-router';
import { useCommand, usePages } from '../api/client.ts';
import { useCan } from '../api/person.ts';
import { LabelButton } from '../devices/index.ts';
import { BestBefore } from '../lines/BestBefore.tsx';
import { ReasonChoice } from '../lines/ReasonChoice.tsx';
import { Button } from '../ui/Button.tsx';
import { Chip } from '../ui/Chip.tsx';
import { Choice } from '../ui/Choice.tsx';
import { Field } from '../ui/Field.tsx';
import { count, useFormat } from '../ui/format.ts';
import { Cell, Grid } from '../ui/layout.ts';
import { More } from '../ui/More.tsx';
import { useNotify } from '../ui/Notice.tsx';
import { ProblemBox } from '../ui/Problem.tsx';
import { Answer } from '../ui/States.tsx';
import { Para, Part, Th } from '../ui/space.ts';
import { Tick } from '../ui/Tick.tsx';
import { Tile } from '../ui/Tile.tsx';
import { Faint, Lead, Row } from '../ui/text.ts';
import { useTyped, useTypedScreen } from '../ui/useTypedScreen.ts';

interface Filter {
  readonly itemId?: number;
  readonly q?: string;
  readonly until?: string;
  readonly held?: boolean;
}

/** Lots in stock, the first to expire first, to be held and released. */
export function LotTable({ itemId, q, until, held }: Filter) {
  const format = useFormat();
  const pages = usePages('lots', { itemId, q: q || undefined, until, held, limit: 100 });
  const [chosen, setChosen] = useState<ReadonlySet<number>>(new Set());
  return (
    <Answer of={pages}>
      {(data) => {
        const rows = data.pages.flatMap((page) => page.rows);
        if (rows.length === 0) return <Lead>No lot like that is in stock.</Lead>;
        return (
          <>
            <Holding
              chosen={rows.filter((row) => chosen.has(row.id))}
              idsOf={(ids) => ({ lotIds: ids, serialIds: [] })}
              onDone={() => setChosen(new Set())}
              one="lot"
            />
            <Grid>
              <thead>
                <tr>
                  <Th aria-label="Choose" $width={34} />
                  <th>Lot</th>
                  {itemId === undefined && <th>Item</th>}
                  <th>Best before</th>
                  <th className="num">There</th>
                  <th className="num">Value</th>
                  <th>Where</th>
                  <th aria-label="Label" />
                </tr>
              </thead>
              <tbody>
                {rows.map((row) => (
                  <tr key={row.id}>
                    <td>
                      <ChosenTick label={`Choose lot ${row.code}`} id={row.id} chosen={chosen} onChange={setChosen} />
                    </td>
                    <td>
                      <b>{row.code}</b> {row.held && <Chip $tone="held">held: {row.held}</Chip>}
                    </td>
                    {itemId === undefined && (
                      <td>
                        <Cell>
                          <Tile code={row.itemCode} size={26} />
                          <Link to={`/stock/items/${row.itemId}?view=lots`}>{row.item}</Link>
                        </Cell>
                      </td>
                    )}
                    <td>{row.bestBefore === null ? <Faint>keeps</Faint> : <BestBefore day={row.bestBefore} />}</td>
                    <td className="num">{format.quantity(row.quantity, row.unit, row.decimals)}</td>
                    <td className="num">{format.money(row.value)}</td>
                    <td>{row.bins}</td>
                    <td>
                      <LabelButton ask={{ lotId: row.id }} look="ghost">
                        Label
                      </LabelButton>
                    </td>
                  </tr>
                ))}
              </tbody>
            </Grid>
            <More of={pages} />
          </>
        );
      }}
    </Answer>
  );
}

/** Serials of an item with where each is, what it cost, and whether it is held. */
export function SerialTable({ item }: { item: Item }) {
  const format = useFormat();
  const [q, setQ] = useState('');
  const [state, setState] = useState('');
  const pages = usePages(
    'serials',
    { q: q || undefined, state: state || undefined, limit: 100 },
    { params: { id: item.id } },
  );
  const [chosen, setChosen] = useState<ReadonlySet<number>>(new Set());
  return (
    <>
      <Row $top={8} $bottom={8}>
        <Part $width={230}>
          <Field label="Find a serial" hideLabel placeholder="Find a serial" value={q} onChange={setQ} />
        </Part>
        <Part $width={170}>
          <Choice
            label="Which serials"
            hideLabel
            value={state}
            onChange={setState}
            options={[['', 'All of them'], ...unitStates.map((one): [string, string] => [one, one])]}
          />
        </Part>
      </Row>
      <Answer of={pages}>
        {(data) => {
          const rows = data.pages.flatMap((page) => page.rows);
          if (rows.length === 0) return <Lead>There is no such serial.</Lead>;
          return (
            <>
              <Holding
                chosen={rows.filter((row) => chosen.has(row.id))}
                idsOf={(ids) => ({ lotIds: [], serialIds: ids })}
                onDone={() => setChosen(new Set())}
                one="serial"
              />
              <Grid>
                <thead>
                  <tr>
                    <Th aria-label="Choose" $width={34} />
                    <th>Serial</th>
                    <th>Where</th>
                    <th className="num">Cost</th>
                    <th className="num">Sold for</th>
                    <th>Warranty until</th>
                  </tr>
                </thead>
                <tbody>
                  {rows.map((row) => (
                    <tr key={row.id} {...(row.inStock ? {} : { 'data-quiet': true })}>
                      <td>
                        {row.inStock && (
                          <ChosenTick label={`Choose ${row.code}`} id={row.id} chosen={chosen} onChange={setChosen} />
                        )}
                      </td>
                      <td>
                        <Link to={`/stock/movements?q=${encodeURIComponent(row.code)}`}>{row.code}</Link>{' '}
                        {row.held && <Chip $tone="held">held: {row.held}</Chip>}
                      </td>
                      <td>
                        {row.sold ? (
                          <>
                            {row.sold.customer}, <Link to={`/orders/${row.sold.orderId}`}>{row.sold.order}</Link>{' '}
                            <Faint>{format.day(row.sold.on)}</Faint>
                          </>
                        ) : (
                          row.where
                        )}
                      </td>
                      <td className="num">{costOf(row) === null ? '' : format.money(costOf(row) ?? '0')}</td>
                      <td className="num">
                        {row.sold?.price ? format.money(row.sold.price) : row.sold && <Faint>in a kit</Faint>}
                      </td>
                      <td>{row.sold?.warrantyUntil && format.longerDay(row.sold.warrantyUntil)}</td>
                    </tr>
                  ))}
                </tbody>
              </Grid>
              <More of={pages} />
            </>
          );
        }}
      </Answer>
    </>
  );
}

/** What it cost: while it is here its own cost, and what it left with after that. */
const costOf = (row: SerialRow) => row.cost ?? row.sold?.cost ?? null;

function ChosenTick({
  label,
  id,
  chosen,
  onChange,
}: {
  label: string;
  id: number;
  chosen: ReadonlySet<number>;
  onChange: (chosen: ReadonlySet<number>) => void;
}) {
  return (
    <Tick
      label={label}
      isOn={chosen.has(id)}
      onChange={(isOn) => {
        const next = new Set(chosen);
        if (isOn) next.add(id);
        else next.delete(id);
        onChange(next);
      }}
    />
  );
}

/** Holds what is chosen for a reason, or releases it; nothing moves. */
function Holding({
  chosen,
  idsOf,
  onDone,
  one,
}: {
  chosen: readonly (LotRow | SerialRow)[];
  idsOf: (ids: number[]) => { lotIds: number[]; serialIds: number[] };
  onDone: () => void;
  one: string;
}) {
  const notify = useNotify();
  const mayRelease = useCan('release');
  const screen = useTypedScreen('hold');
  const [reasonId, setReason] = useTyped(screen, 'reasonId', '');
  const [remark, setRemark] = useTyped(screen, 'remark', '');
  const hold = useCommand(
    'hold',
    ({ held }) => {
      notify({
        text: `${count(held, one)} held. Nothing takes ${held === 1 ? 'it' : 'them'} until an owner releases.`,
      });
      setReason('');
      setRemark('');
      onDone();
    },
    screen.forget,
  );
  const release = useCommand('release', ({ released }) => {
    notify({ text: `${count(released, one)} released.` });
    onDone();
  });
  const free = chosen.filter((row) => row.held === null).map((row) => row.id);
  const held = chosen.filter((row) => row.held !== null).map((row) => row.id);
  if (chosen.length === 0)
    return (
      <Para $top={8} $bottom={8}>
        <Faint>Tick a {one} to hold it where it stands, or to release it.</Faint>
      </Para>
    );
  return (
    <>
      <Row $wrap $top={6} $bottom={10} $end>
        {one === 'serial' && (
          <LabelButton
            ask={{ serialIds: chosen.map((row) => row.id) }}
          >{`Labels of ${count(chosen.length, one)}`}</LabelButton>
        )}
        {free.length > 0 && (
          <>
            <ReasonChoice usedFor="hold" label="Hold why?" value={reasonId} onChange={setReason} />
            <Part $width={200}>
              <Field label="Remark" hideLabel placeholder="Remark" value={remark} onChange={setRemark} />
            </Part>
            <Button
              isDisabled={reasonId === ''}
              busy={hold.isPending}
              onPress={() => hold.mutate({ body: { reasonId: Number(reasonId), remark, ...idsOf(free) } })}
            >
              Hold {count(free.length, one)}
            </Button>
          </>
        )}
        {held.length > 0 &&
          (mayRelease ? (
            <Button busy={release.isPending} onPress={() => release.mutate({ body: idsOf(held) })}>
              Release {count(held.length, one)}
            </Button>
          ) : (
            <Faint>An owner releases what is held.</Faint>
          ))}
      </Row>
      <ProblemBox error={hold.error ?? release.error} />
    </>
  );
}
