import type { Item } from '@yosegi/contract';
import { Link } from 'react-router';
import { useQuestion } from '../api/client.ts';
import { LinkButton } from '../ui/Button.tsx';
import { count, useFormat } from '../ui/format.ts';
import { Cell, Grid } from '../ui/layout.ts';
import { Answer } from '../ui/States.tsx';
import { H2 } from '../ui/space.ts';
import { Tile } from '../ui/Tile.tsx';
import { Faint, Lead, Row } from '../ui/text.ts';
import { purposeName } from './behaviour.ts';

/** Where an item goes into: products in use and drafts, as a part or as an alternate. */
export function UsedView({ item }: { item: Pick<Item, 'id' | 'name' | 'unit' | 'decimals'> }) {
  const format = useFormat();
  const used = useQuestion('whereUsed', { params: { id: item.id } });
  return (
    <Answer of={used}>
      {(rows) =>
        rows.length === 0 ? (
          <Lead $top={12} $bottom={12}>
            No bill of materials contains {item.name}.
          </Lead>
        ) : (
          <>
            <H2 $top={12} $bottom={8}>
              {item.name} goes into {count(new Set(rows.map((row) => row.id)).size, 'product')}.
            </H2>
            <Grid>
              <thead>
                <tr>
                  <th>Product</th>
                  <th>Revision</th>
                  <th>As</th>
                  <th className="num">Quantity</th>
                  <th className="num">For</th>
                </tr>
              </thead>
              <tbody>
                {rows.map((row) => (
                  <tr key={`${row.id}.${row.revision}.${row.as}`}>
                    <td>
                      <Cell>
                        <Tile code={row.code} size={26} />
                        <span>
                          <Link to={`/define/${row.id}?rev=${row.revision}`}>{row.name}</Link> <Faint>{row.code}</Faint>
                        </span>
                      </Cell>
                    </td>
                    <td>
                      rev {row.revision} · {row.state.replace('-', ' ')}
                      {row.purpose !== 'build' && ` · ${purposeName(row.purpose)}`}
                    </td>
                    <td>{row.as}</td>
                    <td className="num">
                      {row.as === 'part'
                        ? format.quantity(row.quantity, item.unit, item.decimals)
                        : `ratio ${format.number(row.quantity)}`}
                    </td>
                    <td className="num">{format.number(row.outputQuantity)}</td>
                  </tr>
                ))}
              </tbody>
            </Grid>
            <Row $top={12}>
              <LinkButton to={`/define/replace?part=${item.id}`}>Replace it with another part…</LinkButton>
            </Row>
          </>
        )
      }
    </Answer>
  );
}
