import type { ReactNode } from 'react';
import styled from 'styled-components';
import { useQuestion } from '../api/client.ts';
import { jobOfOrder, type PickJob, stepsOf } from '../picking/index.ts';
import { useFormat } from '../ui/format.ts';
import { Cell } from '../ui/layout.ts';
import { Answer } from '../ui/States.tsx';
import { Tile } from '../ui/Tile.tsx';
import { PrintBar } from './PrintBar.tsx';
import { Barcode, Blank, Head, Paper } from './paper.tsx';

const Place = styled.b`font-size: 16pt;`;

/** The pick list of an order: every part of its kits, whatever its papers show. */
export function OrderPick({ id }: { id: number }) {
  const format = useFormat();
  const order = useQuestion('order', { params: { id } });
  return (
    <>
      <PrintBar to={`/orders/${id}`} back="the order" />
      <Answer of={order}>
        {(data) => (
          <PickPaper
            job={jobOfOrder(data)}
            head={
              <Head>
                <Cell>
                  <Tile code={data.customer} size={64} />
                  <div>
                    <h1>Pick list {data.number}</h1>
                    <b>{data.customer}</b>
                    <br />
                    {data.wantedOn ? `Wanted ${format.day(data.wantedOn)}` : 'No date'}
                    {data.benchNote && (
                      <>
                        <br />
                        {data.benchNote}
                      </>
                    )}
                  </div>
                </Cell>
                <Barcode text={data.number} />
              </Head>
            }
          />
        )}
      </Answer>
    </>
  );
}

/** What is open in walking order, on paper. */
export function PickPaper({ job, head }: { job: PickJob; head: ReactNode }) {
  const format = useFormat();
  const stores = useQuestion('stores', {});
  return (
    <Answer of={stores}>
      {(places) => {
        const steps = stepsOf(job.lines, places);
        return (
          <Paper>
            {head}
            {steps.length === 0 ? (
              <p>Everything has been picked.</p>
            ) : (
              <table>
                <thead>
                  <tr>
                    <th>Bin</th>
                    <th>Part</th>
                    <th className="num">In bin</th>
                    <th className="num">To pick</th>
                    <th className="num">Picked</th>
                  </tr>
                </thead>
                <tbody>
                  {steps.map((step) => (
                    <tr key={step.line.id}>
                      <td>
                        <Place>{step.bins[0]?.bin ?? '–'}</Place>
                        <br />
                        {step.bins[0]?.store}
                      </td>
                      <td>
                        <Cell>
                          <Tile code={step.item.code} size={28} />
                          <span>
                            <b>{step.item.name}</b>
                            <br />
                            {step.item.code}
                          </span>
                        </Cell>
                      </td>
                      <td className="num">
                        {step.bins[0]
                          ? format.quantity(step.bins[0].quantity, step.item.unit, step.item.decimals)
                          : 'none'}
                      </td>
                      <td className="num">
                        <b>{format.quantity(step.line.open, step.item.unit, step.item.decimals)}</b>
                      </td>
                      <td className="num">
                        <Blank />
                      </td>
                    </tr>
                  ))}
                </tbody>
              </table>
            )}
          </Paper>
        );
      }}
    </Answer>
  );
}
