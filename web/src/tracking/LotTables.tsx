import type { Item, SerialRow } from '@yosegi/contract';
import { unitStates } from '@yosegi/core/tracking';
import { useState } from 'react';
import { Link } from 'react-router';
import { usePages } from '../api/client.ts';
import { LabelButton } from '../devices/index.ts';
import { BestBefore } from '../lines/BestBefore.tsx';
import { Chip } from '../ui/Chip.tsx';
import { Choice } from '../ui/Choice.tsx';
import { Field } from '../ui/Field.tsx';
import { useFormat } from '../ui/format.ts';
import { Grid } from '../ui/layout.ts';
import { More } from '../ui/More.tsx';
import { Answer } from '../ui/States.tsx';
import { Part, Th } from '../ui/space.ts';
import { Tick } from '../ui/Tick.tsx';
import { Faint, Lead, Row } from '../ui/text.ts';
import { Holding } from './Holding.tsx';

/** The lots of an item in stock, the first to expire first, to be held and released. */
export function LotTable({ itemId }: { itemId: number }) {
  const format = useFormat();
  const pages = usePages('lots', { itemId, limit: 100 });
  const [chosen, setChosen] = useState<ReadonlySet<number>>(new Set());
  return (
    <Answer of={pages}>
      {(data) => {
        const rows = data.pages.flatMap((page) => page.rows);
        if (rows.length === 0) return <Lead>No lot matches.</Lead>;
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
                  <th>Best before</th>
                  <th className="num">On hand</th>
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
            options={[['', 'All pieces'], ...unitStates.map((one): [string, string] => [one, one])]}
          />
        </Part>
      </Row>
      <Answer of={pages}>
        {(data) => {
          const rows = data.pages.flatMap((page) => page.rows);
          if (rows.length === 0) return <Lead>No serial number matches.</Lead>;
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
