import type { CoverItem } from '@yosegi/contract';
import { formatDecimal } from '@yosegi/core/number';
import { LinkButton } from '../ui/Button.tsx';
import { count, useFormat } from '../ui/format.ts';
import { Late, Lead } from '../ui/text.ts';
import type { CoverAnswer } from '../workers/coverAnswer.ts';

interface Props {
  readonly answer: CoverAnswer;
  readonly items: ReadonlyMap<number, CoverItem>;
  /** The day by which it is wanted; '' for whenever. */
  readonly by: string;
}

/** The answer in a sentence, first. */
export function Conclusion({ answer, items, by }: Props) {
  const format = useFormat();
  const { products, components, wholeOn } = answer;
  const amount = (scaled: number) => format.number(formatDecimal(scaled));
  const undefinedProduct = products.find((product) => product.toMake > 0 && !product.hasDefinition);
  if (undefinedProduct) {
    const item = items.get(undefinedProduct.itemId);
    return (
      <div>
        <h1>{item?.name} has no bill of materials in use.</h1>
        <Lead>
          Define what goes into it, or put its draft in use.{' '}
          <LinkButton look="ghost" to={item?.definitionId ? `/define/${item.definitionId}` : '/define'}>
            Define it
          </LinkButton>
        </Lead>
      </div>
    );
  }
  const isLate = by !== '' && wholeOn !== null && wholeOn > by;
  const stuck = products.filter((product) => product.now < product.toMake);
  const [first] = stuck;
  if (!first) {
    const all = products.reduce((sum, product) => sum + product.quantity, 0);
    return (
      <div>
        <h1>
          {isLate
            ? `Everything is there, but it cannot be done by ${format.day(by)}.`
            : `Everything is there${products.length > 1 ? ` for all ${amount(all)}` : ''}.`}
        </h1>
        <Lead>
          {wholeOn ? (
            <>
              Begun today, it is done on <b>{format.day(wholeOn)}</b>. Plan the{' '}
              {products.length === 1 ? 'build' : 'builds'} and the parts are promised.
            </>
          ) : (
            'It stands on the shelf; nothing has to be made.'
          )}
        </Lead>
      </div>
    );
  }
  // Of several that stop it as much, one that nothing brings is what to see to.
  const worst = components.find(
    ({ short, stopsAt }) => short > 0 && stopsAt?.itemId === first.itemId && stopsAt.enough <= first.now,
  );
  const limitedBy = worst?.itemId ?? first.limitedBy;
  const limit = limitedBy === null ? 'its parts' : items.get(limitedBy)?.name;
  const short = components.filter((component) => component.short > 0).length;
  return (
    <div>
      <h1>
        {amount(first.toMake - first.now)} × {items.get(first.itemId)?.name}: stuck on {limit}.
      </h1>
      <Lead>
        {wholeOn ? (
          <>
            Everything together can be done on <b>{format.day(wholeOn)}</b>
            {by === '' ? '' : isLate ? `, after ${format.day(by)}` : ', in time'}.
          </>
        ) : short > 0 ? (
          <>
            <Late>{count(short, 'part')} short</Late> with nothing coming that would cover {short === 1 ? 'it' : 'them'}
            .
          </>
        ) : (
          'What is coming would do, but nobody knows when it comes.'
        )}
      </Lead>
    </div>
  );
}
