import type { RunDetail } from '@yosegi/contract';
import styled from 'styled-components';
import { useQuestion } from '../api/client.ts';
import { slotsOf, whereItIs } from '../picking/index.ts';
import { count, useFormat } from '../ui/format.ts';
import { Cell } from '../ui/layout.ts';
import { Answer } from '../ui/States.tsx';
import { Tile } from '../ui/Tile.tsx';
import { OneLine } from '../ui/text.ts';
import { PrintBar } from './PrintBar.tsx';
import { Barcode, Blank, Box, Head, Paper } from './paper.tsx';

const Place = styled.b`font-size: 16pt;`;
const Slot = styled.b`display: inline-block; min-width: 14pt; border: 1pt solid #000; text-align: center; margin-right: 4pt;`;
const Goals = styled.div`display: flex; flex-wrap: wrap; gap: 4mm; margin-top: 8mm;`;
/** One of a bench or a parcel, to be cut out and put on it. */
const Ticket = styled.section`
  border: 1pt dashed #000; padding: 3mm 4mm; break-inside: avoid; width: 52mm; align-content: start; display: grid; grid-template-columns: minmax(0, 1fr); overflow-wrap: anywhere; gap: 1mm; big { font: 700 30pt/1 var(--display); }
`;

/** A run on paper: boxes to tick, a blank for what was really taken, and a ticket for every bench and parcel. */
export function RunPaper({ id }: { id: number }) {
  const run = useQuestion('pickRun', { params: { id } });
  return (
    <>
      <PrintBar to={`/pick/runs/${id}`} back="the run" />
      <Answer of={run}>{(data) => <Sheet run={data} />}</Answer>
    </>
  );
}

function Sheet({ run }: { run: RunDetail }) {
  const format = useFormat();
  const slots = slotsOf(run);
  return (
    <Paper>
      <Head>
        <div>
          <h1>Pick run {run.number}</h1>
          <b>{run.store ?? 'All stores'}</b> · {count(run.stops.length, 'stop')} for {count(run.goals.length, 'job')}
          <br />
          Picked by <Blank $mm={45} />
        </div>
        <Barcode text={run.number} />
      </Head>
      {run.stops.length === 0 ? (
        <p>Everything available is picked.</p>
      ) : (
        <table>
          <thead>
            <tr>
              <th />
              <th>Bin</th>
              <th>Part</th>
              <th className="num">In bin</th>
              <th className="num">To pick</th>
              <th>To</th>
              <th className="num">Actually taken</th>
            </tr>
          </thead>
          <tbody>
            {run.stops.flatMap((stop) =>
              stop.lines.map((line, index) => (
                <tr key={`${stop.key}:${line.kind}:${line.lineId}`}>
                  <td>
                    <Box />
                  </td>
                  <td>
                    {index === 0 && (
                      <>
                        <Place>{stop.bin}</Place>
                        <br />
                        <OneLine>{stop.store}</OneLine>
                      </>
                    )}
                  </td>
                  <td>
                    {index === 0 && (
                      <Cell>
                        <Tile code={stop.item.code} size={28} />
                        <span>
                          <b>{stop.item.name}</b> <OneLine>{stop.item.code}</OneLine>
                          {stop.lot && (
                            <>
                              <br />
                              lot {stop.lot}
                              {stop.lotSays && `, ${stop.lotSays}`}
                            </>
                          )}
                        </span>
                      </Cell>
                    )}
                  </td>
                  <td className="num">
                    {index === 0 && format.quantity(stop.there, stop.item.unit, stop.item.decimals)}
                  </td>
                  <td className="num">
                    <b>{format.quantity(line.quantity, stop.item.unit, stop.item.decimals)}</b>
                  </td>
                  <td>
                    <OneLine>
                      <Slot>{slots.get(`${line.kind}:${line.id}`)?.slot}</Slot>
                      {slots.get(`${line.kind}:${line.id}`)?.number}
                    </OneLine>
                  </td>
                  <td className="num">
                    <Blank />
                    {stop.item.tracking === 'serial' && (
                      <>
                        <br />
                        serial <Blank $mm={28} />
                      </>
                    )}
                  </td>
                </tr>
              )),
            )}
          </tbody>
        </table>
      )}
      {run.missing.map((lacking) => (
        <p key={`${lacking.kind}:${lacking.lineId}`}>
          {lacking.item.name}: {whereItIs(lacking, format)} for {slots.get(`${lacking.kind}:${lacking.id}`)?.number}
        </p>
      ))}
      <Goals>
        {run.goals.map((goal) => (
          <Ticket key={`${goal.kind}:${goal.id}`}>
            <big>{goal.slot}</big>
            <b>{goal.number}</b>
            <span>
              {goal.name}
              {goal.due && `, due ${format.day(goal.due)}`}
            </span>
            <Barcode text={goal.codes.at(-1) ?? goal.number} />
          </Ticket>
        ))}
      </Goals>
    </Paper>
  );
}
