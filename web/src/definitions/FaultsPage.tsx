import type { FaultRow } from '@yosegi/contract';
import { Fragment } from 'react';
import { Link } from 'react-router';
import { useQuestion } from '../api/client.ts';
import { LinkButton } from '../ui/Button.tsx';
import { Chip } from '../ui/Chip.tsx';
import { count, useFormat } from '../ui/format.ts';
import { Cell, Grid, Page } from '../ui/layout.ts';
import { Answer, EmptyState } from '../ui/States.tsx';
import { Tile } from '../ui/Tile.tsx';
import { Faint, Lead } from '../ui/text.ts';
import { purposeName } from './behaviour.ts';
import { faultWords } from './productWords.ts';

/** Definitions with something to put right. */
export function FaultsPage() {
  const format = useFormat();
  const faults = useQuestion('definitionFaults', {});
  return (
    <Page $white>
      <Answer of={faults}>
        {(rows) =>
          rows.length === 0 ? (
            <EmptyState
              isPage
              title="Every bill of materials is in order"
              action={<LinkButton to="/define">Back to Define</LinkButton>}
            >
              Every product has a revision in use. All parts have a cost, and nothing sells below cost.
            </EmptyState>
          ) : (
            <>
              <h1>{count(rows.length, 'bill of materials', 'bills of materials')} to fix.</h1>
              <Lead>
                Costs are at moving averages. <Link to="/define">Back to Define</Link>
              </Lead>
              <Grid $top={14}>
                <thead>
                  <tr>
                    <th>Product</th>
                    <th>Problem</th>
                    <th>Parts</th>
                    <th className="num">Costs</th>
                    <th className="num">Sells at</th>
                  </tr>
                </thead>
                <tbody>
                  {rows.map((row) => (
                    <tr key={row.id}>
                      <td>
                        <Cell>
                          <Tile code={row.code} size={28} />
                          <span>
                            <Link to={`/define/${row.id}`}>{row.name}</Link>
                            <br />
                            <Faint>
                              {row.code}
                              {row.purpose !== 'build' && ` · ${purposeName(row.purpose)}`}
                            </Faint>
                          </span>
                        </Cell>
                      </td>
                      <td>
                        {row.faults.map(({ fault }) => (
                          <Chip key={fault} $tone={fault === 'below-cost' ? 'short' : 'coming'}>
                            {faultWords[fault]}
                          </Chip>
                        ))}
                      </td>
                      <td>
                        <Parts row={row} />
                      </td>
                      <td className="num">{row.unitCost === null ? '–' : format.unitCost(row.unitCost)}</td>
                      <td className="num">{row.sellPrice === null ? '–' : format.money(row.sellPrice)}</td>
                    </tr>
                  ))}
                </tbody>
              </Grid>
            </>
          )
        }
      </Answer>
    </Page>
  );
}

function Parts({ row }: { row: FaultRow }) {
  const parts = [...new Map(row.faults.flatMap((fault) => fault.parts).map((part) => [part.id, part])).values()];
  return (
    <>
      {parts.map((part, index) => (
        <Fragment key={`${part.id}`}>
          {index > 0 && ', '}
          <Link to={`/stock/items/${part.id}`}>{part.name}</Link>
        </Fragment>
      ))}
    </>
  );
}
