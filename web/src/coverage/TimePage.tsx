import type { Supplier } from '@yosegi/contract';
import type { Change } from '@yosegi/core/coverage';
import { formatDecimal } from '@yosegi/core/number';
import { useMemo } from 'react';
import { useParams, useSearchParams } from 'react-router';
import { useQuestion } from '../api/client.ts';
import { LinkButton } from '../ui/Button.tsx';
import { useFormat } from '../ui/format.ts';
import { AnswerBody, AnswerPane, AskAnswer } from '../ui/layout.ts';
import { Answer, EmptyState } from '../ui/States.tsx';
import { useSearchChange } from '../ui/useAddress.ts';
import { useStable } from '../ui/useStable.ts';
import type { TimeAsk } from '../workers/timeAnswer.ts';
import { ApplyCase } from './ApplyCase.tsx';
import { CasesPane } from './CasesPane.tsx';
import { caseOf, caseText, MOST_CASES, withChange } from './cases.ts';
import { Moved } from './Moved.tsx';
import { TimeSheet } from './TimeSheet.tsx';
import { useCoverItems, useReckoned, useWorld } from './useCoverage.ts';
import { useNames } from './useNames.ts';

const NONE: readonly Supplier[] = [];

export interface CaseDeeds {
  /** Another case beside what is, with a change or without. */
  readonly another: (change?: Change) => void;
  readonly select: (at: number) => void;
  readonly forget: (at: number) => void;
  /** Changes the case that is selected, or begins one. */
  readonly change: (change: Change) => void;
  readonly takeBack: (index: number) => void;
  /** Leaves only some changes of a case; without any it is gone. */
  readonly leave: (at: number, changes: readonly Change[]) => void;
}

/** What is free of an item day by day, and what it would be if something were otherwise. */
export function TimePage() {
  const world = useWorld();
  return <Answer of={world}>{() => <Time />}</Answer>;
}

function Time() {
  const itemId = Number(useParams().id);
  const [search] = useSearchParams();
  const format = useFormat();
  const { texts, cases, at } = useMemo(() => casesIn(search), [search]);
  const deeds = useCaseDeeds();
  const changes = useMemo(() => cases.flat(), [cases]);
  const ask: TimeAsk | null = itemId > 0 ? { itemId, cases, drafts: true, aside: null } : null;
  const { answer, refused } = useReckoned('time', ask);
  const suppliers = useQuestion('suppliers', {}).data ?? NONE;
  const { items, isWhole } = useCoverItems([
    itemId,
    ...cases.flat().flatMap((one) => (one.what === 'instead' ? one.other : [])),
    ...(answer?.alternates ?? []),
  ]);
  const item = items.get(itemId);
  const names = useNames(itemId, answer, changes);
  if (!item) {
    return isWhole ? (
      <EmptyState isPage title="This item does not exist" action={<LinkButton to="/cover">Back to Cover</LinkButton>}>
        The item may have been deleted, or the address is wrong.
      </EmptyState>
    ) : null;
  }
  const amount = (scaled: number) => format.quantity(formatDecimal(scaled), item.unit, item.decimals);
  const shown = answer?.cases[at] ?? answer?.cases[0];
  return (
    <AskAnswer>
      <CasesPane
        item={item}
        items={items}
        answer={answer}
        texts={texts}
        cases={cases}
        at={at}
        names={names}
        amount={amount}
        deeds={deeds}
      />
      <AnswerPane>
        <AnswerBody>
          {refused !== null ? (
            <EmptyState title="This can’t be calculated">{refused}</EmptyState>
          ) : (
            shown && (
              <>
                <TimeSheet
                  answer={shown}
                  changes={cases[at - 1] ?? []}
                  names={names}
                  amount={amount}
                  onMove={deeds.change}
                />
                {at > 0 && <Moved outcome={shown.outcome} names={names} />}
              </>
            )
          )}
        </AnswerBody>
        {at > 0 && shown && (
          <ApplyCase
            changes={cases[at - 1] ?? []}
            deliveries={shown.deliveries}
            names={names}
            items={items}
            suppliers={suppliers}
            format={format}
            onTaken={(rest) => deeds.leave(at, rest)}
          />
        )}
      </AnswerPane>
    </AskAnswer>
  );
}

/** What stands in an address: the cases, and which of them is looked at; 0 is what is. */
function casesIn(search: URLSearchParams) {
  const texts = search.getAll('case').slice(0, MOST_CASES);
  const cases = texts.map(caseOf);
  const at = Number(search.get('at') ?? 0);
  return { texts, cases, at: at >= 0 && at <= cases.length ? at : 0 };
}

function useCaseDeeds(): CaseDeeds {
  const changeAddress = useSearchChange();
  const edit = (to: (cases: Change[][], at: number) => [cases: readonly (readonly Change[])[], at: number]) => {
    const { cases, at } = casesIn(new URLSearchParams(window.location.search));
    const [next, selected] = to(cases, at);
    changeAddress({ case: next.map(caseText), at: selected === 0 ? null : String(selected) });
  };
  return useStable({
    another: (change?: Change) => edit((cases) => [[...cases, change ? [change] : []], cases.length + 1]),
    select: (at: number) => edit((cases) => [cases, at]),
    forget: (at: number) => edit((cases) => [cases.toSpliced(at - 1, 1), 0]),
    change: (change: Change) =>
      edit((cases, at) =>
        at === 0
          ? cases.length < MOST_CASES
            ? [[...cases, [change]], cases.length + 1]
            : [cases.with(-1, withChange(cases.at(-1) ?? [], change)), cases.length]
          : [cases.with(at - 1, withChange(cases[at - 1] ?? [], change)), at],
      ),
    leave: (of: number, changes: readonly Change[]) =>
      edit((cases) =>
        changes.length === 0 ? [cases.toSpliced(of - 1, 1), 0] : [cases.with(of - 1, [...changes]), of],
      ),
    takeBack: (index: number) =>
      edit((cases, at) => [cases.map((one, n) => (n === at - 1 ? one.toSpliced(index, 1) : one)), at]),
  });
}
