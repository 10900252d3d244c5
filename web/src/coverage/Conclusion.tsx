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
            <Late>{count(short, 'part')} short.</Late> {completion && <IfBegun {...{ completion, items, by }} />}
          </>
        ) : (
          'What is coming would do, but nobody knows when it comes.'
        )}
      </Lead>
    </div>
  );
}

/** When all of it is complete if it is bought and begun today, or why nobody can say. */
function IfBegun({ completion, items, by }: Pick<Props, 'items' | 'by'> & { readonly completion: Completion }) {
  const format = useFormat();
  const { levels, buy, unknown, wholeOn } = completion;
  const builds = levels.flat().length;
  const also = builds > 0 ? `, with ${count(builds, 'more build')}` : '';
  const [first] = unknown;
  if (first !== undefined)
    return (
      <>
        Nobody has said how long {items.get(first)?.name ?? 'a part'}
        {unknown.length > 1 && ` and ${count(unknown.length - 1, 'other part')}`} would take to come. Enter lead days to
        see the date.
      </>
    );
  if (wholeOn === null) return <>No date can be given for what is already coming.</>;
  const start = buy.length > 0 ? 'If you buy today' : 'If you start today';
  return (
    <>
      {start}: complete on <b>{wholeOn >= LATER ? 'a day later than 2100' : format.day(wholeOn)}</b>
      {also}
      {by === '' ? '' : wholeOn > by ? `, after ${format.day(by)}` : ', in time'}.
    </>
  );
}
