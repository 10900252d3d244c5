import type { Definition, Revision } from '@yosegi/contract';
import { formatDecimal } from '@yosegi/core/number';
import { Clock, StickyNote, Tag } from 'lucide-react';
import { useQuestion } from '../api/client.ts';
import { useFormat } from '../ui/format.ts';
import { Cell, LineGrid } from '../ui/layout.ts';
import { Tile } from '../ui/Tile.tsx';
import { Faint, VisuallyHidden } from '../ui/text.ts';
import { draftOf, reckon } from './draft.ts';

/** The lines of a frozen revision. */
export function LinesView({ definition, revision }: { definition: Definition; revision: Revision }) {
  const format = useFormat();
  const rates = useQuestion('rates', {});
  const stores = useQuestion('stores', {}).data ?? [];
  const binName = (id: number) => stores.flatMap((store) => store.bins).find((bin) => bin.id === id)?.code ?? '';
  const { item } = definition;
  const reckoning = reckon(draftOf(revision), item.decimals, rates.data ?? []);
  const makes = format.quantity(revision.outputQuantity, item.unit, item.decimals);
  return (
    <LineGrid>
      <thead>
        <tr>
          <th>
            <VisuallyHidden>#</VisuallyHidden>
          </th>
          <th>Part</th>
          <th className="num">For {makes}</th>
          <th className="num">Waste</th>
          <th>Taken</th>
          <th className="num">Cost</th>
          <th className="num">Back %</th>
        </tr>
      </thead>
      <tbody>
        {revision.lines.map((line, index) => {
          const cost = formatDecimal(reckoning.cost.lines[index] ?? 0);
          const share = reckoning.shares[index];
          const perRun = line.kind !== 'note' && line.basis === 'per-run' ? ' a batch' : '';
          return (
            // Lines of a frozen revision never change places.
            // biome-ignore lint/suspicious/noArrayIndexKey: see above
            <tr key={index}>
              <td data-wide>
                <Faint>{index + 1}</Faint>
              </td>
              {line.kind === 'note' ? (
                <td colSpan={6}>
                  <Cell>
                    <StickyNote size={18} aria-label="Note" />
                    <i>{line.text}</i>
                  </Cell>
                </td>
              ) : (
                <>
                  <td>
                    {line.kind === 'part' ? (
                      <Cell>
                        <Tile code={line.item.code} size={28} />
                        <span>
                          <b>{line.item.name}</b>
                          <br />
                          <Faint>
                            {line.item.code}
                            {line.alternates.map(
                              ({ item: other, ratio }) => ` · or ${other.name}${ratio === '1' ? '' : ` × ${ratio}`}`,
                            )}
                            {line.fromBinId !== null && ` · from ${binName(line.fromBinId)} first`}
                          </Faint>
                        </span>
                      </Cell>
                    ) : (
                      <Cell>
                        {line.kind === 'labour' ? <Clock size={20} aria-hidden /> : <Tag size={20} aria-hidden />}
                        <span>
                          <b>{line.text || 'Labour'}</b>
                          <br />
                          <Faint>
                            {line.kind === 'labour' ? `labour, ${format.money(line.ratePerHour)} an hour` : 'charge'}
                          </Faint>
                        </span>
                      </Cell>
                    )}
                  </td>
                  <td className="num" data-label={`For ${makes}`}>
                    {line.kind === 'part' && format.quantity(line.quantity, line.item.unit, line.item.decimals)}
                    {line.kind === 'labour' && `${format.number(line.minutes)} min`}
                    {perRun}
                  </td>
                  <td className="num" data-label="Waste">
                    {line.kind === 'part' && line.waste !== '0' ? format.percent(line.waste) : '–'}
                  </td>
                  <td data-label="Taken">{line.kind === 'part' ? line.taken.replace('-', ' ') : line.kind}</td>
                  <td className="num" data-label="Cost">
                    {format.number(cost, 3, 3)}
                  </td>
                  <td className="num" data-label="Back %">
                    {share === null || share === undefined ? '' : format.number(formatDecimal(share), 2)}
                  </td>
                </>
              )}
            </tr>
          );
        })}
      </tbody>
      <tfoot>
        <tr>
          <td colSpan={5} />
          <td className="num" data-label="Total cost">
            <b>{format.number(formatDecimal(reckoning.cost.total), 3, 3)}</b>
          </td>
          <td className="num">{reckoning.shares.some((share) => share !== null) && <b>100</b>}</td>
        </tr>
      </tfoot>
    </LineGrid>
  );
}
