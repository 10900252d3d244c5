import { formatDecimal, parseDecimal, SCALE } from '@yosegi/core/number';
import { useDeferredValue, useMemo, useState } from 'react';
import { useSearchParams } from 'react-router';
import { Button } from '../ui/Button.tsx';
import { Choice } from '../ui/Choice.tsx';
import { later } from '../ui/later.tsx';
import { AnswerBody, AnswerPane, AskAnswer } from '../ui/layout.ts';
import { Answer, EmptyState } from '../ui/States.tsx';
import { StaveLegend } from '../ui/Stave.tsx';
import { Part } from '../ui/space.ts';
import { Push, Row } from '../ui/text.ts';
import { useSearchChange } from '../ui/useAddress.ts';
import { useStable } from '../ui/useStable.ts';
import type { CoverAsk } from '../workers/coverAnswer.ts';
import { AlsoToBuild } from './AlsoToBuild.tsx';
import { AnotherCase } from './AnotherCase.tsx';
import { type AskDeeds, AskPane } from './AskPane.tsx';
import { Conclusion } from './Conclusion.tsx';
import { FewerNow } from './FewerNow.tsx';
import { missingOf } from './missing.ts';
import type { GroupBy } from './PartsTable.tsx';
import { PlanBar } from './PlanBar.tsx';
import { Promised } from './Promised.tsx';
import { type Reckoned, useCoverItems, useReckoned, useWorld } from './useCoverage.ts';
import { readWant, termsOf, type Want, wantsOf, wantText } from './want.ts';

const Contained = later(() => import('./Contained.tsx'), 'Contained');
const PartsTable = later(() => import('./PartsTable.tsx'), 'PartsTable');
const CoverCases = later(() => import('./CoverCases.tsx'), 'CoverCases');

/** Is there enough? Products and quantities on the left, the staves of their components on the right. */
export function CoverPage() {
  const world = useWorld();
  return <Answer of={world}>{() => <Cover />}</Answer>;
}

function Cover() {
  const [search] = useSearchParams();
  const changeAddress = useSearchChange();
  const wants = useMemo(() => wantsOf(search.get('want') ?? ''), [search]);
  const terms = useMemo(() => termsOf(search), [search]);
  // From the address as it is at this moment: the page follows what is typed when it has time.
  const change = (edit: (wants: readonly Want[]) => readonly Want[], more: Record<string, string | null> = {}) =>
    changeAddress({
      want: wantText(edit(wantsOf(searchNow().get('want') ?? ''))) || null,
      ...more,
    });
  const deeds: AskDeeds = useStable({
    set: (itemId: number, quantity: string) =>
      change((before) => before.map((want) => (want.itemId === itemId ? { ...want, quantity } : want))),
    remove: (itemId: number) => change((before) => before.filter((want) => want.itemId !== itemId)),
    add: (more: readonly Want[]) => change((before) => more.reduce(withMore, before)),
    fill: (next: readonly Want[], aside: string | null) => change(() => next, { aside }),
    change: (named: Readonly<Record<string, string | null>>) => changeAddress(named),
  });
  const asked = useCoverItems(wants.map(({ itemId }) => itemId));
  const read = useMemo(() => wants.map((want) => readWant(want, asked.items, asked.isWhole)), [wants, asked]);
  const wanted = useMemo(() => read.flatMap(({ wanted: one }) => (one ? [one] : [])), [read]);
  const ask: CoverAsk | null = wanted.length > 0 ? { wanted, ...terms, by: terms.by || null } : null;
  const reckoned = useReckoned('cover', ask);
  // An answer to what was asked a moment ago is shown until the next is there, unless it is about other products.
  const { answer } = reckoned;
  const shown = answer && answer.products.length === wanted.length ? answer : null;
  const [below, setBelow] = useState<readonly number[]>(NONE);
  const ids = useDeferredValue(shown ? [...idsOf(shown), ...below] : NONE);
  const { items: parts } = useCoverItems(ids);
  // What all of it takes follows the answer: which parts are to be bought, and then on which day they would come.
  const buyOn = [...parts.values()].map(({ id, buyOn: on }) => [id, on] as const).sort(([a], [b]) => a - b);
  const completed = useReckoned('complete', ask && shown ? { ...ask, buyOn } : null);
  const completion = shown && completed.answer?.products.length === wanted.length ? completed.answer : null;
  const named = completion ? [...completion.levels.flat(), ...completion.buy].map(({ itemId }) => itemId) : NONE;
  if (named.some((id) => !below.includes(id))) setBelow(named);
  const ifBegun = useMemo(
    () => new Map(wanted.map(({ itemId }, index) => [itemId, completion?.products[index] ?? null])),
    [wanted, completion],
  );
  const items = useMemo(() => new Map([...parts, ...asked.items]), [parts, asked.items]);
  const sort = search.get('sort') === 'code' ? 'code' : '';
  const group = (['supplier', 'store'] as const).find((one) => one === search.get('group')) ?? '';
  return (
    <AskAnswer>
      <AskPane
        wants={wants}
        read={read}
        terms={terms}
        isCase={search.has('beside')}
        answer={shown}
        ifBegun={ifBegun}
        items={items}
        deeds={deeds}
      />
      <AnswerPane>
        <AnswerBody>
          {wants.length === 0 ? (
            <Promised />
          ) : reckoned.isBroken ? (
            <Broken />
          ) : reckoned.refused !== null ? (
            <EmptyState title="This can’t be calculated">{reckoned.refused}</EmptyState>
          ) : (
            shown &&
            wanted.length > 0 && (
              <>
                <Row $wrap>
                  <Conclusion answer={shown} completion={completion} items={items} by={terms.by} />
                  <Push />
                  <StaveLegend />
                </Row>
                {search.has('beside') && <CoverCases />}
                <FewerNow reckoned={reckoned as Reckoned<'cover'>} items={items} />
                {shown.components.length > 0 && (
                  <Row $gap={10} $wrap>
                    <Part $width={190}>
                      <Choice
                        label="Order of the parts"
                        hideLabel
                        value={sort}
                        onChange={(next) => deeds.change({ sort: next || null })}
                        options={[
                          ['', 'Most limiting first'],
                          ['code', 'By code'],
                        ]}
                      />
                    </Part>
                    <Part $width={190}>
                      <Choice
                        label="Grouping of the parts"
                        hideLabel
                        value={group}
                        onChange={(next) => deeds.change({ group: next || null })}
                        options={[
                          ['', 'All together'],
                          ['supplier', 'By supplier'],
                          ['store', 'By store'],
                        ]}
                      />
                    </Part>
                    <Push />
                    <AnotherCase />
                  </Row>
                )}
                <Contained missing={missingOf(shown, items)} wanted={wants.map(({ itemId }) => itemId)} />
                {completion && completion.levels.length > 0 && <AlsoToBuild levels={completion.levels} items={items} />}
                <PartsTable
                  answer={shown}
                  items={items}
                  by={terms.by}
                  group={group as GroupBy}
                  sort={sort}
                  stores={terms.stores}
                  onBuild={(itemId, quantity) => deeds.add([{ itemId, quantity }])}
                />
              </>
            )
          )}
        </AnswerBody>
        {wanted.length > 0 && shown && (
          <PlanBar
            answer={shown}
            completion={completion}
            items={items}
            terms={terms}
            isCurrent={() =>
              JSON.stringify(reckoned.to) === JSON.stringify(ask) && search.toString() === searchNow().toString()
            }
            onPlanned={() => deeds.fill([], null)}
            blocked={read.some(({ error }) => error !== undefined)}
          />
        )}
      </AnswerPane>
    </AskAnswer>
  );
}

const NONE: readonly number[] = [];
/** What stands in the address at this moment; what is drawn of it may be the one before. */
const searchNow = () => new URLSearchParams(window.location.search);

/** Every item that an answer speaks of. */
const idsOf = ({
  products,
  components,
}: {
  products: readonly { itemId: number; limitedBy: number | null }[];
  components: readonly { itemId: number; alternates: readonly { itemId: number }[] }[];
}) => [
  ...products.flatMap(({ itemId, limitedBy }) => (limitedBy === null ? [itemId] : [itemId, limitedBy])),
  ...components.flatMap(({ itemId, alternates }) => [itemId, ...alternates.map((other) => other.itemId)]),
];

/** What is asked for, and one more product, or more of it. */
function withMore(wants: readonly Want[], { itemId, quantity }: Want): readonly Want[] {
  if (!wants.some((want) => want.itemId === itemId)) return [...wants, { itemId, quantity }];
  return wants.map((want) => (want.itemId === itemId ? { itemId, quantity: moreOf(want.quantity, quantity) } : want));
}

/** So many more of what is a plain number; what is not is replaced. */
function moreOf(quantity: string, more: string): string {
  try {
    return formatDecimal(parseDecimal(quantity) + (parseDecimal(more) || SCALE));
  } catch {
    return more;
  }
}

/** The worker came to an end again and again with this question. */
function Broken() {
  return (
    <EmptyState
      title="The calculation stopped several times"
      action={<Button onPress={() => window.location.reload()}>Try again</Button>}
    >
      Your question is saved as it is. Try again, or ask for less at once.
    </EmptyState>
  );
}
