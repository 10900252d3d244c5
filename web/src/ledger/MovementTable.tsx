import { Link } from 'react-router';
import styled from 'styled-components';
import { usePages } from '../api/client.ts';
import { SignedQuantity } from '../lines/SignedQuantity.tsx';
import { useFormat } from '../ui/format.ts';
import { Cell, Grid } from '../ui/layout.ts';
import { More } from '../ui/More.tsx';
import { Answer } from '../ui/States.tsx';
import { Tile } from '../ui/Tile.tsx';
import { Lead } from '../ui/text.ts';
import { When } from '../ui/When.tsx';

const Rows = styled(Grid)`td { height: 34px; }`;

interface Props {
  readonly itemId?: number;
  readonly kind?: string;
  readonly decimals?: number;
  /** Further conditions of the question. */
  readonly narrow?: Readonly<Record<string, string | undefined>>;
}

/** Movements, the newest first; each leads to its document. */
export function MovementTable({ itemId, kind, decimals = 3, narrow = {} }: Props) {
  const format = useFormat();
  const pages = usePages('movements', { itemId, kind, ...narrow, limit: 50 });
  return (
    <Answer of={pages}>
      {(data) => {
        const rows = data.pages.flatMap((page) => page.rows);
        if (rows.length === 0)
          return (
            <Lead>
              {Object.values(narrow).some(Boolean) ? 'Nothing like that has moved.' : 'Nothing has moved yet.'}
            </Lead>
          );
        return (
          <>
            <Rows>
              <thead>
                <tr>
                  <th>When</th>
                  <th>Document</th>
                  {itemId === undefined && <th>Item</th>}
                  <th>Bin</th>
                  <th className="num">Quantity</th>
                  <th className="num">Value</th>
                  <th>Who</th>
                </tr>
              </thead>
              <tbody>
                {rows.map((row) => (
                  <tr key={row.id}>
                    <td style={{ whiteSpace: 'nowrap' }}>
                      <When at={row.at} />
                    </td>
                    <td style={{ whiteSpace: 'nowrap' }}>
                      <Link to={`/stock/documents/${row.documentId}`}>{row.document}</Link>{' '}
                      <small>{row.kind.replace('-', ' ')}</small>
                    </td>
                    {itemId === undefined && (
                      <td>
                        <Cell>
                          <Tile code={row.code} size={22} />
                          <Link to={`/stock/items/${row.itemId}`}>{row.name}</Link>
                        </Cell>
                      </td>
                    )}
                    <td>
                      {row.bin}
                      {row.build && <small> for {row.build}</small>}
                      {(row.lot ?? row.serial) && <small> · {row.lot ?? row.serial}</small>}
                    </td>
                    <td className="num">
                      <SignedQuantity quantity={row.quantity} unit={row.unit} decimals={decimals} />
                    </td>
                    <td className="num">{format.money(row.value)}</td>
                    <td>{row.person}</td>
                  </tr>
                ))}
              </tbody>
            </Rows>
            <More of={pages}>Show older</More>
          </>
        );
      }}
    </Answer>
  );
}
