import { Link } from 'react-router';
import styled from 'styled-components';
import { usePages } from '../api/client.ts';
import { SignedQuantity } from '../lines/SignedQuantity.tsx';
import { useFormat } from '../ui/format.ts';
import { Grid } from '../ui/layout.ts';
import { More } from '../ui/More.tsx';
import { Answer } from '../ui/States.tsx';
import { Lead } from '../ui/text.ts';
import { When } from '../ui/When.tsx';

const Rows = styled(Grid)`td { height: 34px; }`;

interface Props {
  readonly itemId: number;
  readonly decimals: number;
}

/** The movements of an item, the newest first; each leads to its document. */
export function MovementTable({ itemId, decimals }: Props) {
  const format = useFormat();
  const pages = usePages('movements', { itemId, limit: 50 });
  return (
    <Answer of={pages}>
      {(data) => {
        const rows = data.pages.flatMap((page) => page.rows);
        if (rows.length === 0) return <Lead>Nothing has moved yet.</Lead>;
        return (
          <>
            <Rows>
              <thead>
                <tr>
                  <th>When</th>
                  <th>Document</th>
                  <th>Bin</th>
                  <th className="num">Quantity</th>
                  <th className="num">Value</th>
                  <th>Who</th>
                </tr>
              </thead>
              <tbody>
                {rows.map((row) => (
                  <tr key={row.id}>
                    <td className="one-line">
                      <When at={row.at} />
                    </td>
                    <td className="one-line">
                      <Link to={`/stock/documents/${row.documentId}`}>{row.document}</Link>{' '}
                      <small>{row.kind.replace('-', ' ')}</small>
                    </td>
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
