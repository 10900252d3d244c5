import type { Definition, Line, Revision } from '@yosegi/contract';
import { formatDecimal } from '@yosegi/core/number';
import { useSearchParams } from 'react-router';
import { useQuestion } from '../api/client.ts';
import { draftOf, purposeName, reckon, stateName } from '../definitions/index.ts';
import { useFormat } from '../ui/format.ts';
import { Cell } from '../ui/layout.ts';
import { Answer } from '../ui/States.tsx';
import { Tile } from '../ui/Tile.tsx';
import { PrintBar } from './PrintBar.tsx';
import { Barcode, Head, Paper } from './paper.tsx';

/** A definition on paper: what goes into one, with its costs and take-apart shares. */
export function DefinitionPrint({ id }: { id: number }) {
  const [search] = useSearchParams();
  const definition = useQuestion('definition', { params: { id } });
  const number = Number(search.get('rev'));
  return (
    <>
      <PrintBar to={`/define/${id}`} back="the bill of materials" />
      <Answer of={definition}>
        {(data) => {
          const revision =
            data.revisions.find((one) => one.number === number) ??
            data.revisions.find((one) => one.state === 'in-use') ??
            data.revisions[0];
          return revision ? <DefinitionPaper definition={data} revision={revision} /> : null;
        }}
      </Answer>
    </>
  );
}

function DefinitionPaper({ definition, revision }: { definition: Definition; revision: Revision }) {
  const format = useFormat();
  const rates = useQuestion('rates', {}).data ?? [];
  const { item, purpose } = definition;
  const { cost, shares } = reckon(draftOf(revision), item.decimals, rates);
  const makes = format.quantity(revision.outputQuantity, item.unit, item.decimals);
  const back = shares.some((share) => share !== null);
  return (
    <Paper>
      <Head>
        <Cell>
          <Tile code={item.code} size={64} />
          <div>
            <h1>{item.name}</h1>
            <b>
              {item.code} · {purposeName(purpose)}, makes {makes}
            </b>
            <br />
            Revision {revision.number}, {stateName(revision)}
            {revision.inUseFrom && ` ${revision.state === 'draft' ? 'for' : 'since'} ${format.day(revision.inUseFrom)}`}
          </div>
        </Cell>
        <Barcode text={item.barcode ?? item.code} />
      </Head>
      {definition.fields.length > 0 && (
        <p>
          {definition.fields.map(({ name, value }) => (
            <span key={name}>
              {name}: <b>{value}</b>
              <br />
            </span>
          ))}
        </p>
      )}
      <table>
        <thead>
          <tr>
            <th>#</th>
            <th>Part</th>
            <th className="num">For {makes}</th>
            <th className="num">Waste</th>
            <th>Taken</th>
            <th className="num">Cost</th>
            {back && <th className="num">Back %</th>}
          </tr>
        </thead>
        <tbody>
          {revision.lines.map((line, index) => (
            // biome-ignore lint/suspicious/noArrayIndexKey: printed lines never change places
            <tr key={index}>
              <td>{index + 1}</td>
              {line.kind === 'note' ? (
                <td colSpan={back ? 6 : 5}>
                  <i>{line.text}</i>
                </td>
              ) : (
                <>
                  <td>
                    <Name line={line} />
                  </td>
                  <td className="num">
                    {line.kind === 'part' && format.quantity(line.quantity, line.item.unit, line.item.decimals)}
                    {line.kind === 'labour' && `${format.number(line.minutes)} min`}
                    {line.basis === 'per-run' && ' a batch'}
                  </td>
                  <td className="num">
                    {line.kind === 'part' && line.waste !== '0' ? format.percent(line.waste) : ''}
                  </td>
                  <td className="one-line">{line.kind === 'part' ? line.taken.replace('-', ' ') : line.kind}</td>
                  <td className="num">{format.number(formatDecimal(cost.lines[index] ?? 0), 3, 3)}</td>
                  {back && (
                    <td className="num">
                      {shares[index] === null || shares[index] === undefined ? '' : formatDecimal(shares[index], 2)}
                    </td>
                  )}
                </>
              )}
            </tr>
          ))}
        </tbody>
        <tfoot>
          <tr>
            <td colSpan={5}>
              <b>
                Unit cost{item.unit === 'each' ? '' : ` per ${item.unit}`}:{' '}
                {format.unitCost(formatDecimal(cost.perUnit))} at moving averages
                {item.sellPrice !== null && ` and sells at ${format.money(item.sellPrice)}`}
              </b>
            </td>
            <td className="num">
              <b>{format.number(formatDecimal(cost.total), 3, 3)}</b>
            </td>
            {back && (
              <td className="num">
                <b>100.00</b>
              </td>
            )}
          </tr>
        </tfoot>
      </table>
    </Paper>
  );
}

function Name({ line }: { line: Exclude<Line, { kind: 'note' }> }) {
  if (line.kind !== 'part') return <b>{line.text || 'Labour'}</b>;
  return (
    <Cell>
      <Tile code={line.item.code} size={28} />
      <span>
        <b>{line.item.name}</b> {line.item.code}
        {line.alternates.length > 0 && (
          <>
            <br />
            <small>
              or{' '}
              {line.alternates
                .map(({ item, ratio }) => `${item.name}${ratio === '1' ? '' : ` × ${ratio}`}`)
                .join(', or ')}
            </small>
          </>
        )}
      </span>
    </Cell>
  );
}
