import type { BuildDetail, BuildLine } from '@yosegi/contract';
import { lineCode } from '@yosegi/core/builds';
import { useParams } from 'react-router';
import styled from 'styled-components';
import { useQuestion } from '../api/client.ts';
import { jobOfBuild } from '../picking/index.ts';
import { useFormat } from '../ui/format.ts';
import { Cell } from '../ui/layout.ts';
import { NothingHere } from '../ui/NothingHere.tsx';
import { Answer } from '../ui/States.tsx';
import { Tile } from '../ui/Tile.tsx';
import { BinLabels } from './BinLabels.tsx';
import { CountPrint } from './CountPrint.tsx';
import { DefinitionPrint } from './DefinitionPrint.tsx';
import { OrderPrint } from './OrderPrint.tsx';
import { OrderPick, PickPaper } from './PickPaper.tsx';
import { PrintBar } from './PrintBar.tsx';
import { Barcode, Blank, Box, Head, LabelMark, Paper } from './paper.tsx';
import { isRepairPaper, RepairPaper } from './RepairPaper.tsx';
import { ReturnPaper } from './ReturnPaper.tsx';
import { RunPaper } from './RunPaper.tsx';

const Note = styled.p`margin: 4mm 0 0; font-weight: 600;`;

/**
 * A sheet of paper in black on white: the bench sheet or pick list of a build, a definition, a count, a purchase order, or the labels of a
 * store's bins.
 */
export function PrintPage() {
  const { sheet, id } = useParams();
  if (sheet === 'definition') return <DefinitionPrint id={Number(id)} />;
  if (sheet === 'count') return <CountPrint id={Number(id)} />;
  if (sheet === 'order') return <OrderPrint id={Number(id)} />;
  if (sheet === 'order-pick') return <OrderPick id={Number(id)} />;
  if (sheet && isRepairPaper(sheet)) return <RepairPaper kind={sheet} id={Number(id)} />;
  if (sheet === 'return') return <ReturnPaper id={Number(id)} />;
  if (sheet === 'run') return <RunPaper id={Number(id)} />;
  if (sheet === 'bins') return <BinLabels storeId={Number(id)} />;
  if (sheet === 'bench' || sheet === 'pick') return <BuildPrint sheet={sheet} id={Number(id)} />;
  return <NothingHere />;
}

function BuildPrint({ sheet, id }: { sheet: 'bench' | 'pick'; id: number }) {
  const build = useQuestion('build', { params: { id } });
  return (
    <>
      <PrintBar to={`/build/${id}`} back="the build" />
      <Answer of={build}>
        {(data) =>
          sheet === 'pick' ? (
            <PickPaper job={jobOfBuild(data)} head={<SheetHead build={data} title="Pick list" />} />
          ) : (
            <BenchSheet build={data} />
          )
        }
      </Answer>
    </>
  );
}

function SheetHead({ build, title }: { build: BuildDetail; title: string }) {
  const format = useFormat();
  return (
    <Head>
      <Cell>
        <Tile code={build.code} size={64} />
        <div>
          <h1>
            {title} {build.number}
          </h1>
          <b>
            {format.quantity(build.quantity, build.unit, build.decimals)} × {build.name} ({build.code})
          </b>
          <br />
          {build.due ? `Due ${format.day(build.due)}` : 'No due day'}
          {build.definition && ` · into bin ${build.outputBin} · revision ${build.definition.revision}`}
          {build.repair &&
            ` · ${build.repair.serial ?? 'no serial number'} of ${build.repair.customer}: ${build.repair.fault}`}
          {build.remark && (
            <>
              <br />
              {build.remark}
            </>
          )}
        </div>
      </Cell>
      <Barcode text={build.number} />
    </Head>
  );
}

function BenchSheet({ build }: { build: BuildDetail }) {
  const format = useFormat();
  const amount = (line: BuildLine, text: string) =>
    line.item ? format.quantity(text, line.item.unit, line.item.decimals) : text;
  const parts = build.lines.filter((line) => line.item);
  const work = build.lines.filter((line) => line.kind === 'labour' || line.kind === 'charge');
  const notes = build.lines.filter((line) => line.kind === 'note');
  return (
    <Paper>
      <SheetHead build={build} title="Bench sheet" />
      {notes.map((note) => (
        <Note key={note.id}>▸ {note.text}</Note>
      ))}
      <table>
        <thead>
          <tr>
            <th />
            <th>Part</th>
            <th>Taken</th>
            <th className="num">Needed</th>
            <th className="num">Actually used</th>
            <th />
          </tr>
        </thead>
        <tbody>
          {parts.map((line) => (
            <tr key={line.id}>
              <td>
                <Box />
              </td>
              <td>
                <Cell>
                  <Tile code={line.item?.code ?? ''} size={24} />
                  <span>
                    <b>{line.item?.name}</b> {line.item?.code}
                    {lotsOf(line) && (
                      <>
                        <br />
                        {lotsOf(line)}
                      </>
                    )}
                  </span>
                </Cell>
              </td>
              <td>
                {line.taken === 'picked-first'
                  ? `picked first from ${line.bins.map((bin) => bin.bin).join(', ') || 'no bin'}`
                  : `from ${line.bins.map((bin) => bin.bin).join(', ') || 'no bin'}`}
              </td>
              <td className="num">{amount(line, line.required)}</td>
              <td className="num">
                <Blank />
              </td>
              <LineMark build={build} line={line} />
            </tr>
          ))}
          {work.map((line) => (
            <tr key={line.id}>
              <td>
                <Box />
              </td>
              <td>
                <b>{line.text || 'Labour'}</b>
              </td>
              <td>{line.kind}</td>
              <td className="num">
                {line.kind === 'labour'
                  ? `${format.number(line.amount)} min ${line.basis === 'per-run' ? 'a batch' : `for ${format.number(build.outputQuantity)}`}`
                  : ''}
              </td>
              <td className="num">
                <Blank />
              </td>
              <LineMark build={build} line={line} />
            </tr>
          ))}
        </tbody>
      </table>
      <h2>
        Good: <Blank /> Who: <Blank $mm={40} /> Day: <Blank />
      </h2>
    </Paper>
  );
}

/** The barcode that opens a line wherever it is scanned. */
function LineMark({ build, line }: { build: BuildDetail; line: BuildLine }) {
  return (
    <td>
      <LabelMark symbol="code128" text={lineCode(build.number, line.id)} width={110} />
    </td>
  );
}

/** Which lots and serials are meant: those on the bench, else those at hand in the order to take them. */
const lotsOf = ({ pieces, bins }: BuildLine): string =>
  (pieces.length > 0 ? pieces : bins.flatMap((bin) => bin.pieces))
    .slice(0, 4)
    .flatMap(({ lot, serial }) => lot ?? serial ?? [])
    .join(', ');
