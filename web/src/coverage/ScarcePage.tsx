import type { CoverItem, CoverSource } from '@yosegi/contract';
import { readForText } from '@yosegi/core/number';
import { useMemo, useState } from 'react';
import { Link, useSearchParams } from 'react-router';
import { useQuestion } from '../api/client.ts';
import { LinkButton } from '../ui/Button.tsx';
import { count } from '../ui/format.ts';
import { AnswerBody, AnswerPane, Ask, AskAnswer, Cell } from '../ui/layout.ts';
import { Answer, EmptyState } from '../ui/States.tsx';
import { StaveLegend } from '../ui/Stave.tsx';
import { Para, Stack } from '../ui/space.ts';
import { Tick } from '../ui/Tick.tsx';
import { Tile } from '../ui/Tile.tsx';
import { Faint, Lead, Push, Row } from '../ui/text.ts';
import { useSearchChange } from '../ui/useAddress.ts';
import { aims, type ScarceAnswer, type ScarceAsk } from '../workers/scarceAnswer.ts';
import { Shares } from './Shares.tsx';
import { TakeWay } from './TakeWay.tsx';
import { useCoverItems, useReckoned, useWorld } from './useCoverage.ts';
import { useSearch } from './useSearch.ts';
import { type Searches, WayCards, type WayName, type Ways } from './WayCards.tsx';

/** Who gets parts of which there is not enough in time: by the day wanted, or so that most comes of it. */
export function ScarcePage() {
  const world = useWorld();
  return <Answer of={world}>{() => <Scarce />}</Answer>;
}

/** The most orders and builds whose names are asked for at once. */
const MOST = 600;
const NOT_FOUND = { value: null, orders: null };

function Scarce() {
  const [search] = useSearchParams();
  const change = useSearchChange();
  const items = useMemo(() => itemsIn(search), [search]);
  const first = useReckoned('scarce', askOf(items, null, NOT_FOUND)).answer;
  const ids = (kind: string) =>
    [...(first?.rivals ?? []), ...(first?.orders ?? [])].flatMap((one) => (one.kind === kind ? one.id : []));
  const asked = { orders: [...new Set(ids('order'))], builds: ids('build') };
  const isTooMuch = asked.orders.length > MOST || asked.builds.length > MOST;
  const named = useQuestion(
    'coverSources',
    { query: { orders: asked.orders.join(','), builds: asked.builds.join(','), lines: '' } },
    { enabled: first !== null && first.parts.length > 0 && !isTooMuch, keep: true },
  ).data;
  const worth = useMemo(
    () =>
      named?.flatMap((one) =>
        one.kind === 'order' ? [[one.id, Number(readForText(one.worth ?? '0'))] as const] : [],
      ) ?? null,
    [named],
  );
  // What is searched does not depend on what is found.
  const [programs, setPrograms] = useState<ScarceAnswer['programs']>(null);
  const searches = { value: useSearch(programs?.value ?? null), orders: useSearch(programs?.orders ?? null) };
  const found = { value: searches.value.found?.yes ?? null, orders: searches.orders.found?.yes ?? null };
  const { answer, refused } = useReckoned('scarce', worth && askOf(items, worth, found));
  if (answer?.programs && JSON.stringify(answer.programs) !== JSON.stringify(programs)) setPrograms(answer.programs);
  const shown = answer ?? first;
  const { items: parts } = useCoverItems([...(shown?.scarce ?? []), ...(items ?? [])]);
  const way = (['date', ...aims] as const).find((one) => one === search.get('way')) ?? 'orders';
  const ways: Ways | null = shown && { date: shown.byDate, ...shown.best };
  const toggle = (id: number, isOn: boolean) => {
    const all = items ?? [];
    const next = isOn ? [...all, id] : all.filter((one) => one !== id);
    change({ items: next.length > 0 ? next.join(',') : null });
  };
  return (
    <AskAnswer>
      <Ask aria-label="Scarce parts">
        <h2>Scarce parts</h2>
        <Para $top={4} $bottom={10}>
          <Faint>Parts that some orders get too late. Tick some to allocate only those.</Faint>
        </Para>
        <Stack $gap={4}>
          {(shown?.scarce ?? []).map((id) => {
            const item = parts.get(id);
            return (
              <Tick key={id} isOn={items?.includes(id) ?? false} onChange={(isOn) => toggle(id, isOn)}>
                <Cell>
                  {item && <Tile code={item.code} size={28} />}
                  <span>{item?.name ?? '…'}</span>
                </Cell>
              </Tick>
            );
          })}
        </Stack>
      </Ask>
      <AnswerPane>
        <AnswerBody>
          {refused !== null ? (
            <EmptyState title="This can’t be calculated">{refused}</EmptyState>
          ) : isTooMuch ? (
            <EmptyState title={`${asked.orders.length + asked.builds.length} orders and builds compete`}>
              That is too much to compare at once. Tick the parts that matter most.
            </EmptyState>
          ) : (
            shown &&
            ways && <Shown answer={shown} ways={ways} way={way} searches={searches} named={named ?? []} parts={parts} />
          )}
        </AnswerBody>
        {shown && ways && shown.rivals.length > 0 && named && (
          <TakeWay
            answer={shown}
            way={ways[way]}
            search={way === 'date' ? null : searches[way]}
            named={named}
            key={way}
            aim={way}
          />
        )}
      </AnswerPane>
    </AskAnswer>
  );
}

function Shown({ answer, ways, way, searches, named, parts }: ShownProps) {
  const change = useSearchChange();
  if (answer.parts.length === 0)
    return (
      <EmptyState isPage title="Nothing is scarce" action={<LinkButton to="/cover">Back to Cover</LinkButton>}>
        {answer.scarce.length > 0
          ? 'Nobody is short of the ticked parts. Tick others, or none to see them all.'
          : 'Every open order gets all its goods in time.'}
      </EmptyState>
    );
  const chosen = ways[way];
  return (
    <>
      <Row $wrap>
        <Conclusion answer={answer} ways={ways} searches={searches} />
        <Push />
        <StaveLegend />
      </Row>
      <WayCards
        ways={ways}
        way={way}
        searches={searches}
        waiting={answer.waiting}
        named={named}
        onSelect={(next) => change({ way: next === 'orders' ? null : next })}
      />
      {chosen && <Shares way={chosen} items={parts} named={named} />}
    </>
  );
}

interface ShownProps {
  readonly answer: ScarceAnswer;
  readonly ways: Ways;
  readonly way: WayName;
  readonly searches: Searches;
  readonly named: readonly CoverSource[];
  readonly parts: ReadonlyMap<number, CoverItem>;
}

function Conclusion({ answer, ways, searches }: Pick<ShownProps, 'answer' | 'ways' | 'searches'>) {
  const before = ways.date.whole.length;
  const more = Math.max(0, ...aims.map((aim) => (ways[aim]?.whole.length ?? 0) - before));
  const isOpen = aims.some((aim) => searches[aim].state === 'running' || searches[aim].state === 'waiting');
  const isOther = aims.some((aim) => (ways[aim]?.waits.length ?? 0) > 0);
  return (
    <div>
      <h1>
        {more > 0
          ? `${count(more, 'more order')} could have everything in time.`
          : isOther
            ? 'Higher-value orders could have everything in time.'
            : isOpen
              ? 'Looking for a better allocation…'
              : 'By date is already the best way.'}
      </h1>
      <Lead>
        {count(answer.orders.length, 'order')} {answer.orders.length === 1 ? 'depends' : 'depend'} on{' '}
        {count(answer.parts.length, 'scarce part')}. By date,{' '}
        {before === 0 ? 'none has' : `${before} of them ${before === 1 ? 'has' : 'have'}`} everything in time.{' '}
        <Link to="/buying">Buying more</Link> helps them all.
      </Lead>
    </div>
  );
}

const askOf = (items: ScarceAsk['items'], worth: ScarceAsk['worth'], found: ScarceAsk['found']): ScarceAsk => ({
  items,
  worth,
  found,
  drafts: false,
  aside: null,
});

function itemsIn(search: URLSearchParams): readonly number[] | null {
  const ids = (search.get('items') ?? '')
    .split(',')
    .map(Number)
    .filter((id) => Number.isSafeInteger(id) && id > 0);
  return ids.length > 0 ? ids : null;
}
