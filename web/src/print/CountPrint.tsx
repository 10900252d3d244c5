import styled from 'styled-components';
import { useQuestion } from '../api/client.ts';
import { Cell } from '../ui/layout.ts';
import { Answer } from '../ui/States.tsx';
import { Tile } from '../ui/Tile.tsx';
import { PrintBar } from './PrintBar.tsx';
import { Barcode, Head, Paper } from './paper.tsx';

const Blank = styled.span`display: inline-block; min-width: 34mm; border-bottom: 0.7pt solid #000; height: 16pt;`;

/** The blind sheet of a count on paper, in walking order, with room for what is counted. */
export function CountPrint({ id }: { id: number }) {
  const data = useQuestion('count', { params: { id } });
  return (
    <>
      <PrintBar to={`/stock/counts/${id}`} back="the count" />
      <Answer of={data}>
        {(detail) => (
          <Paper>
            <Head>
              <div>
                <h1>Count {detail.number}</h1>
                <b>{detail.scope}</b>
                <br />
                Counted by <Blank /> on <Blank />
              </div>
              <Barcode text={detail.number} />
            </Head>
            <table>
              <thead>
                <tr>
                  <th>Bin</th>
                  <th>Item</th>
                  <th className="num">Counted</th>
                </tr>
              </thead>
              <tbody>
                {detail.sheet.map((line) => (
                  <tr key={line.id}>
                    <td>
                      <b>{line.bin}</b> {line.store}
                    </td>
                    <td>
                      <Cell>
                        <Tile code={line.code} size={26} />
                        <span>
                          <b>{line.name}</b> {line.code}
                          {line.lot && (
                            <>
                              <br />
                              lot {line.lot}
                            </>
                          )}
                        </span>
                      </Cell>
                    </td>
                    <td className="num">
                      <Blank /> {line.unit === 'each' ? '' : line.unit}
                    </td>
                  </tr>
                ))}
              </tbody>
            </table>
          </Paper>
        )}
      </Answer>
    </>
  );
}
