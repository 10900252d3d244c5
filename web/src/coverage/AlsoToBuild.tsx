import type { CoverItem } from '@yosegi/contract';
import type { Completion } from '@yosegi/core/coverage';
import { formatDecimal } from '@yosegi/core/number';
import { Link } from 'react-router';
import { useFormat } from '../ui/format.ts';
import { Section } from '../ui/space.ts';
import { Faint } from '../ui/text.ts';

interface Props extends Pick<Completion, 'levels'> {
  readonly items: ReadonlyMap<number, CoverItem>;
}

/** The builds that the answer takes beside what is asked for: made parts that are short, level by level. */
export function AlsoToBuild({ levels, items }: Props) {
  const format = useFormat();
  return (
    <Section aria-label="Also to build">
      {levels.map((level, depth) => (
        <p key={level.map(({ itemId }) => itemId).join()}>
          {depth === 0 ? 'Also to build' : 'And for these'}:{' '}
          {level.map(({ itemId, quantity }, at) => {
            const item = items.get(itemId);
            return (
              <span key={itemId}>
                {at > 0 && ', '}
                {format.quantity(formatDecimal(quantity), item?.unit ?? 'each', item?.decimals ?? 0)} ×{' '}
                {item ? <Link to={`/stock/items/${itemId}`}>{item.name}</Link> : '…'}
              </span>
            );
          })}
          . <Faint>Planned and bought along with the rest.</Faint>
        </p>
      ))}
    </Section>
  );
}
