import type { CoverItem } from '@yosegi/contract';
import type { Completion } from '@yosegi/core/coverage';
import { LATER } from '@yosegi/core/days';
import { formatDecimal } from '@yosegi/core/number';
import { LinkButton } from '../ui/Button.tsx';
import { count, useFormat } from '../ui/format.ts';
import { Late, Lead } from '../ui/text.ts';
import type { CoverAnswer } from '../workers/coverAnswer.ts';

interface Props {
  readonly answer: CoverAnswer;
  /** What all of it takes; null while it is worked out. */
  readonly completion: Completion | null;
  readonly items: ReadonlyMap<number, CoverItem>;
  /** The day by which it is wanted; '' for whenever. */
  readonly by: string;
}

/** The answer in a sentence, first. */
export function Conclusion({ answer, completion, items, by }: Props) {
  const format = useFormat();
  const { products, components, completeOn } = answer;
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
  const isLate = by !== '' && completeOn !== null && completeOn > by;
  const stuck = products.filter((product) => product.now < product.toMake);
  const [first] = stuck;
  if (!first) {
    const all = products.reduce((sum, product) => sum + product.quantity, 0);
    return (
      <div>
        <h1>
          {isLate
            ? `All parts are there, but the build can’t be done by ${format.day(by)}.`
            : `Everything is there${products.length > 1 ? ` for all ${amount(all)}` : ''}.`}
        </h1>
        <Lead>
          {completeOn ? (
            <>
              Started today, done on <b>{format.day(completeOn)}</b>. Plan the{' '}
              {products.length === 1 ? 'build' : 'builds'} to promise the parts.
            </>
          ) : (
            'Already in stock. Nothing to make.'
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
        {completeOn ? (
          <>
            Everything together can be done on <b>{format.day(completeOn)}</b>
            {by === '' ? '' : isLate ? `, after ${format.day(by)}` : ', in time'}.
          </>
        ) : short > 0 ? (
          <>
            <Late>{count(short, 'part')} short.</Late> {completion && <IfBegun {...{ completion, items, by }} />}
          </>
        ) : (
          'What is coming would be enough, but has no date.'
        )}
      </Lead>
    </div>
  );
}

/** When all of it is complete if it is bought and begun today, or why nobody can say. */
function IfBegun({ completion, items, by }: Pick<Props, 'items' | 'by'> & { readonly completion: Completion }) {
  const format = useFormat();
  const { levels, buy, unknown, completeOn } = completion;
  const builds = levels.flat().length;
  const also = builds > 0 ? `, with ${count(builds, 'more build')}` : '';
  const [first] = unknown;
  if (first !== undefined)
    return (
      <>
        No delivery time is known for {items.get(first)?.name ?? 'a part'}
        {unknown.length > 1 && ` and ${count(unknown.length - 1, 'other part')}`}. Enter lead days to see the date.
      </>
    );
  if (completeOn === null) return <>What is already coming has no date.</>;
  const start = buy.length > 0 ? 'If you buy today' : 'If you start today';
  return (
    <>
      {start}: complete on <b>{completeOn >= LATER ? 'a day later than 2100' : format.day(completeOn)}</b>
      {also}
      {by === '' ? '' : completeOn > by ? `, after ${format.day(by)}` : ', in time'}.
    </>
  );
}
