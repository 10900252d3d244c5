import type { StockPlaces } from '@yosegi/contract';
import { Fragment } from 'react';
import { Link } from 'react-router';
import styled from 'styled-components';
import { usePages, useQuestion } from '../api/client.ts';
import { BestBefore } from '../lines/BestBefore.tsx';
import { Chip } from '../ui/Chip.tsx';
import { Choice } from '../ui/Choice.tsx';
import { Finder, useSought } from '../ui/Finder.tsx';
import { count, useFormat } from '../ui/format.ts';
import { Cell, Grid, Page } from '../ui/layout.ts';
import { More } from '../ui/More.tsx';
import { Answer } from '../ui/States.tsx';
import { Swatch } from '../ui/Stave.tsx';
import { Part } from '../ui/space.ts';
import { Tick } from '../ui/Tick.tsx';
import { Tile } from '../ui/Tile.tsx';
import { Faint, Late, Lead, Row } from '../ui/text.ts';
import { useAddress } from '../ui/useAddress.ts';

type ItemPlaces = StockPlaces['rows'][number];
const Places = styled(Grid)`
  tr[data-item] td { border-top: 2px solid var(--line); background: var(--paper); font-weight: 600; }
  tr[data-place] td:first-child { padding-left: 44px; }
`;

/** Everything that stands anywhere: item by item, bin by bin, lot by lot, with what of it is promised and free. */
export function WherePage() {
  const q = useSought();
  const [place, setPlace] = useAddress('in');
  const [held, setHeld] = useAddress('held');
  const stores = useQuestion('stores', {}).data ?? [];
  const [kind, id] = place.split('-');
  const pages = usePages('stockPlaces', {
    q: q || undefined,
    storeId: kind === 'store' ? id : undefined,
    binId: kind === 'bin' ? id : undefined,
    held: held === '1',
    limit: 40,
  });
  return (
    <Page $white>
      <Answer of={pages}>
        {(data) => {
          const rows = data.pages.flatMap((page) => page.rows);
          const over = rows.filter(({ item }) => Number(item.free) < 0).length;
          return (
            <>
              <h1>
                {rows.length === 0
                  ? 'No stock matches.'
                  : `${count(rows.length, 'item')}${pages.hasNextPage ? ' and more' : ''}${over > 0 ? `; ${over} promised more than you have` : ''}.`}
              </h1>
              <Lead>Builds take stock bin by bin in picking order, first to expire first.</Lead>
            </>
          );
        }}
      </Answer>
      <Row $wrap $gap={10} $top={12} $bottom={12}>
        <Part $width={230}>
          <Finder label="Find" placeholder="Item, lot or serial" />
        </Part>
        <Part $width={230}>
          <Choice
            label="Which bin"
            hideLabel
            value={place}
            onChange={setPlace}
            options={[
              ['', 'Everywhere'],
              ...stores.flatMap((store): [string, string][] => [
                [`store-${store.id}`, store.name],
                ...store.bins.map((bin): [string, string] => [
                  `bin-${bin.id}`,
                  `${store.code} · ${bin.code}${bin.kind === 'shelf' ? '' : ` (${bin.kind})`}`,
                ]),
              ]),
            ]}
          />
        </Part>
        <Tick isOn={held === '1'} onChange={(isOn) => setHeld(isOn ? '1' : '')}>
          only what is held
        </Tick>
      </Row>
      <Answer of={pages}>
        {(data) => {
          const rows = data.pages.flatMap((page) => page.rows);
          if (rows.length === 0) return null;
          return (
            <>
              <Places $full>
                <thead>
                  <tr>
                    <th>Item, bin</th>
                    <th>Lot or serials</th>
                    <th className="num">On hand</th>
                    <th className="num">
                      <Swatch $of="promised" />
                      Promised
                    </th>
                    <th className="num">
                      <Swatch $of="free" />
                      Free
                    </th>
                  </tr>
                </thead>
                <tbody>
                  {rows.map((row) => (
                    <OneItem key={row.item.id} row={row} />
                  ))}
                </tbody>
              </Places>
              <More of={pages} />
            </>
          );
        }}
      </Answer>
    </Page>
  );
}

function OneItem({ row: { item, places } }: { row: ItemPlaces }) {
  const format = useFormat();
  const amount = (text: string) => format.quantity(text, item.unit, item.decimals);
  return (
    <Fragment>
      <tr data-item>
        <td>
          <Cell>
            <Tile code={item.code} size={24} />
            <span>
              <Link to={`/stock/items/${item.id}`}>{item.name}</Link> <Faint>{item.code}</Faint>
            </span>
          </Cell>
        </td>
        <td>{Number(item.held) !== 0 && <Faint>{amount(item.held)} held</Faint>}</td>
        <td className="num">{amount(item.onHand)}</td>
        <td className="num">{amount(item.promised)}</td>
        <td className="num">{Number(item.free) < 0 ? <Late>{amount(item.free)}</Late> : amount(item.free)}</td>
      </tr>
      {places.map((place) => (
        <tr key={`${place.binId}.${place.lot}.${place.build}.${place.held}`} data-place>
          <td>
            {place.kind === 'bench' ? `Bench, for ${place.build}` : place.bin} <Faint>{place.store}</Faint>{' '}
            {place.held && <Chip $tone="held">{place.held}</Chip>}
          </td>
          <td>
            {place.lot ?? place.serials}
            {place.bestBefore && (
              <>
                {' '}
                <BestBefore day={place.bestBefore} />
              </>
            )}
          </td>
          <td className="num">{amount(place.quantity)}</td>
          <td className="num">{Number(place.promised) === 0 ? '' : amount(place.promised)}</td>
          <td className="num">{amount(place.free)}</td>
        </tr>
      ))}
    </Fragment>
  );
}
