import { groupBy } from '@yosegi/core/lists';
import { Link } from 'react-router';
import { useQuestion } from '../api/client.ts';
import { count, useFormat } from '../ui/format.ts';
import { Section } from '../ui/space.ts';

interface Props {
  /** What is short, by item. */
  readonly missing: readonly { readonly itemId: number; readonly name: string }[];
  /** What is to be made: nobody takes it apart for that. */
  readonly wanted: readonly number[];
}
/** The most products that are named, and parts of each. */
const MOST = 4;
const MOST_PARTS = 2;

/** Products on shelves in which parts are that are short: "5 starter kits hold hive tools, which you need". */
export function Contained({ missing, wanted }: Props) {
  const format = useFormat();
  const ids = missing.map(({ itemId }) => itemId).slice(0, 100);
  const found = useQuestion(
    'containing',
    { query: { partIds: ids.join(',') } },
    { enabled: ids.length > 0, keep: true },
  );
  const rows = (found.data ?? []).filter(
    ({ itemId, partId }) => ids.includes(partId) && !ids.includes(itemId) && !wanted.includes(itemId),
  );
  const products = [...groupBy(rows, ({ itemId }) => itemId).values()].sort((a, b) => b.length - a.length);
  if (products.length === 0) return null;
  return (
    <Section aria-label="Products to take apart">
      {products.slice(0, MOST).map((own) => {
        const [first] = own;
        if (!first) return null;
        const names = own.flatMap(({ partId }) => missing.find(({ itemId }) => itemId === partId)?.name ?? []);
        const more = names.length - MOST_PARTS;
        return (
          <p key={first.itemId}>
            {format.number(first.free)} × {first.name} on the shelves hold{first.free === '1' ? 's' : ''}{' '}
            {names.slice(0, MOST_PARTS).join(' · ')}
            {more > 0 && ` and ${count(more, 'other part')}`}, which you need.{' '}
            <Link to={`/take-apart/stock?item=${first.itemId}`}>Take some apart</Link>
          </p>
        );
      })}
    </Section>
  );
}
