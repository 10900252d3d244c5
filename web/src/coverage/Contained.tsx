import { formatDecimal } from '@yosegi/core/number';
import { Link } from 'react-router';
import { useQuestion } from '../api/client.ts';
import { useFormat } from '../ui/format.ts';
import { Section } from '../ui/space.ts';

interface Props {
  /** What is short, by item. */
  readonly missing: readonly { readonly itemId: number; readonly short: number; readonly name: string }[];
}
/** The most that are named. */
const MOST = 4;

/** Products on shelves in which parts are that are short: "5 starter kits hold hive tools that you miss". */
export function Contained({ missing }: Props) {
  const format = useFormat();
  const ids = missing.map(({ itemId }) => itemId).slice(0, 100);
  const found = useQuestion(
    'containing',
    { query: { partIds: ids.join(',') } },
    { enabled: ids.length > 0, keep: true },
  );
  const rows = ids.length === 0 ? [] : (found.data ?? []).filter(({ partId }) => ids.includes(partId));
  if (rows.length === 0) return null;
  return (
    <Section aria-label="What could be taken apart">
      {rows.slice(0, MOST).map((row) => {
        const part = missing.find(({ itemId }) => itemId === row.partId);
        return (
          <p key={`${row.itemId} ${row.partId}`}>
            {format.number(row.free)} × {row.name} on the shelves hold{Number(row.free) === 1 ? 's' : ''} {part?.name},
            of which {format.number(formatDecimal(part?.short ?? 0))} {part?.short === 1_000_000 ? 'is' : 'are'}{' '}
            missing. <Link to={`/take-apart/stock?item=${row.itemId}`}>Take some apart</Link>
          </p>
        );
      })}
    </Section>
  );
}
