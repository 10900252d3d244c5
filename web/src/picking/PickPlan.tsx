import type { GoalRow, ProposedRun, RunRow } from '@yosegi/contract';
import { Fragment, useState } from 'react';
import { Link, useNavigate } from 'react-router';
import styled from 'styled-components';
import { problemOf, useCommand, usePages, useQuestion } from '../api/client.ts';
import { useScans } from '../scan/wedge.ts';
import { RenamedFilter } from '../shell/Renamed.tsx';
import { Button, LinkButton } from '../ui/Button.tsx';
import { Choice } from '../ui/Choice.tsx';
import { DayField } from '../ui/DayField.tsx';
import { Field } from '../ui/Field.tsx';
import { count, type Format, useFormat } from '../ui/format.ts';
import { Scroll } from '../ui/layout.ts';
import { Answer, EmptyState } from '../ui/States.tsx';
import { Para, Part, Section } from '../ui/space.ts';
import { Tick } from '../ui/Tick.tsx';
import { Tile } from '../ui/Tile.tsx';
import { Faint, Late, Lead, OneLine, Push, Row } from '../ui/text.ts';
import { useAddress } from '../ui/useAddress.ts';
import { When } from '../ui/When.tsx';
import { walkedWords } from './words.ts';

const Page = styled.div`padding: 20px 24px 60px; display: grid; gap: 18px; max-width: 1080px; grid-template-columns: minmax(0, 1fr); @media (max-width: 700px) { padding: 14px; }`;
const Job = styled.div<{ $hot?: boolean }>`
  display: flex; flex-wrap: wrap; gap: 6px 14px; align-items: center; background: var(--sheet); border: 1px solid var(--line-soft); line-height: 1.25;
  border-left: 5px solid ${({ $hot }) => ($hot ? 'var(--honey)' : 'var(--indigo)')}; padding: 10px 14px; border-radius: 2px; min-height: 60px; margin-top: 8px;
  > span:not([class]) { flex: 1; min-width: 180px; }
`;
const Tiles = styled.span`display: inline-flex; gap: 4px;`;

/** What is walked, what is worth walking now, and everything that can be picked for. */
export function PickPlan() {
  const plan = useQuestion('pickPlan', {});
  const go = useNavigate();
  // The barcode of a printed run opens it, those of builds and orders what is picked for them alone.
  useScans((text) => {
    const typed = text.trim().toLowerCase();
    const run = plan.data?.runs.find(({ number }) => number.toLowerCase() === typed);
    const goal = plan.data?.goals.find(({ number }) => number.toLowerCase() === typed);
    const to = run ? `/pick/runs/${run.id}` : goal && aloneOf(goal);
    if (to) void go(to);
    return to !== undefined;
  });
  return (
    <Scroll>
      <Answer of={plan}>
        {({ runs, proposed, goals }) =>
          runs.length + goals.length === 0 ? (
            <EmptyState isPage title="Nothing to pick" action={<LinkButton to="/build">See the builds</LinkButton>}>
              Builds on the bench and orders with stock on the shelf appear here until everything is picked.
            </EmptyState>
          ) : (
            <Page>
              <div>
                <h1>{conclusion(runs, proposed, goals)}</h1>
                <Lead>{whatWaits(goals)}</Lead>
              </div>
              {runs.length > 0 && (
                <Section>
                  <h2>In progress</h2>
                  {runs.map((run) => (
                    <OpenRun key={run.id} run={run} />
                  ))}
                </Section>
              )}
              {proposed.length > 0 && <Proposals proposed={proposed} goals={goals} />}
              <ByHand goals={goals} runs={runs} />
              <Ended />
            </Page>
          )
        }
      </Answer>
    </Scroll>
  );
}

/** The day of a build is ours, that of an order the customer's. */
const dueWords = ({ kind, due }: GoalRow, format: Format) =>
  due === null ? '' : `${kind === 'order' ? 'wanted' : 'due'} ${format.day(due)}`;

/** Where something is picked for by itself. */
const aloneOf = ({ kind, id }: GoalRow) => (kind === 'build' ? `/pick/${id}` : `/pick/orders/${id}`);

function conclusion(runs: readonly RunRow[], proposed: readonly ProposedRun[], goals: readonly GoalRow[]): string {
  const saved = proposed.reduce((sum, run) => sum + run.saved, 0);
  if (proposed.length > 0)
    return `${count(proposed.length, 'pick run')} suggested.${
      saved > 0 ? ` Combining orders saves ${count(saved, 'stop')}.` : ''
    }`;
  if (runs.length > 0) return `${count(runs.length, 'pick run')} in progress.`;
  return `${count(goals.length, 'order or build', 'orders and builds')} to pick for.`;
}

function whatWaits(goals: readonly GoalRow[]): string {
  const of = (kind: GoalRow['kind']) => goals.filter((goal) => goal.kind === kind).length;
  const what = [of('build') && count(of('build'), 'build'), of('order') && count(of('order'), 'order')].filter(Boolean);
  const whole = goals.filter((goal) => goal.whole).length;
  if (what.length === 0) return 'Nothing else to pick.';
  if (goals.length === 1) return `${what.join()} to pick for${whole === 1 ? ', with everything on the shelves' : ''}.`;
  const has = whole === 1 ? '1 of them has' : `${whole || 'none'} of them have`;
  return `${what.join(' and ')} to pick for; ${has} everything on the shelves.`;
}

function OpenRun({ run }: { run: RunRow }) {
  return (
    <Job $hot>
      <span>
        <b>{run.number}</b> · {run.goals.map(({ number }) => number).join(', ')}
        <br />
        <Faint>
          {run.store ?? 'all stores'} · {run.stops === 0 ? 'no stops left' : `${count(run.stops, 'stop')} left`} ·{' '}
          {count(run.walked.stops, 'stop')} done · {run.madeBy}, <When at={run.madeAt} />
        </Faint>
      </span>
      <LinkButton look={run.stops > 0 ? 'go' : 'plain'} to={`/pick/runs/${run.id}`}>
        {run.stops > 0 ? `Join ${run.number}` : `Open ${run.number}`}
      </LinkButton>
    </Job>
  );
}

/** Makes a run and goes to it. */
function useMakeRun() {
  const navigate = useNavigate();
  return useCommand('makeRun', ({ id }) => void navigate(`/pick/runs/${id}`));
}

function Proposals({ proposed, goals }: { proposed: readonly ProposedRun[]; goals: readonly GoalRow[] }) {
  const make = useMakeRun();
  const problem = problemOf(make.error);
  const known = new Map(goals.map((goal) => [`${goal.kind}:${goal.id}`, goal]));
  return (
    <Section>
      <h2>Suggested runs</h2>
      {problem && <Para role="alert">{problem.detail}</Para>}
      {proposed.map((run) => {
        const own = run.goals.flatMap(({ kind, id }) => known.get(`${kind}:${id}`) ?? []);
        const key = own.map(({ number }) => number).join(' ');
        return (
          <Job key={`${run.storeId} ${key}`}>
            <Tiles>
              {own.slice(0, 4).map((goal) => (
                <Tile key={goal.number} code={goal.tile} size={36} />
              ))}
            </Tiles>
            <span>
              <b>{sharedWords(run)}</b>
              <br />
              <Faint>
                {run.store}
                {own.map(({ number, name }) => (
                  <Fragment key={number}>
                    {' '}
                    · <OneLine>{number}</OneLine> {name}
                  </Fragment>
                ))}
              </Faint>
            </span>
            <Button
              look="go"
              aria-label={`Start run: ${key}`}
              busy={make.isPending}
              onPress={() => make.mutate({ body: { storeId: run.storeId, goals: run.goals } })}
            >
              Start run
            </Button>
          </Job>
        );
      })}
    </Section>
  );
}

/** "These 5 share 12 of 20 stops", or what one by itself takes. */
function sharedWords({ goals, stops, shared }: ProposedRun): string {
  if (goals.length === 1) return `${count(stops, 'stop')}, on its own`;
  if (shared === stops) return `These ${goals.length} share ${stops === 1 ? 'the one stop' : `all ${stops} stops`}`;
  return `These ${goals.length} share ${shared} of ${count(stops, 'stop')}`;
}

/** Everything that can be picked for, to be put on a run by hand or by what it is. */
function ByHand({ goals, runs }: { goals: readonly GoalRow[]; runs: readonly RunRow[] }) {
  const format = useFormat();
  const make = useMakeRun();
  const stores = useQuestion('stores', {});
  const [q, setQ] = useAddress('q');
  const [ready, setReady] = useAddress('ready');
  const [before] = useAddress('whole');
  const [dueBy, setDueBy] = useAddress('due');
  const [store, setStore] = useAddress('store');
  const [confirms, setConfirms] = useState(false);
  const [chosen, setChosen] = useState<ReadonlySet<string>>(new Set());
  const served = new Set(runs.flatMap((run) => run.goals.map(({ number }) => number)));
  const fits = (goal: GoalRow) =>
    (ready === '' || goal.whole) &&
    (dueBy === '' || (goal.due !== null && goal.due <= dueBy)) &&
    (store === '' || goal.storeIds.includes(Number(store))) &&
    `${goal.number} ${goal.name}`.toLowerCase().includes(q.trim().toLowerCase());
  const shown = goals.filter(fits);
  const keyOf = ({ kind, id }: Pick<GoalRow, 'kind' | 'id'>) => `${kind}:${id}`;
  const free = shown.filter(({ number }) => !served.has(number));
  const going = free.filter((goal) => chosen.has(keyOf(goal)));
  const problem = problemOf(make.error);
  const all = going.length === free.length && free.length > 0;
  return (
    <Section>
      {before !== '' && <RenamedFilter from="whole" to="ready" />}
      <h2>Everything to pick</h2>
      <Row $wrap $end $gap={12} $top={8}>
        <Part $width={210}>
          <Field label="Number, product or customer" value={q} onChange={setQ} />
        </Part>
        <Part $width={160}>
          <DayField label="Due by" value={dueBy} onChange={setDueBy} />
        </Part>
        {(stores.data ?? []).length > 1 && (
          <Part $width={170}>
            <Choice
              label="Store"
              value={store}
              onChange={setStore}
              options={[
                ['', 'all stores'],
                ...(stores.data ?? []).map(({ id, name }): [string, string] => [String(id), name]),
              ]}
            />
          </Part>
        )}
        <Tick isOn={ready !== ''} onChange={(isOn) => setReady(isOn ? '1' : '')}>
          Only what can ship or be built today
        </Tick>
      </Row>
      {shown.length === 0 && <Para $top={10}>Nothing to pick matches. Clear a filter.</Para>}
      {shown.length > 1 && (
        <Row $top={10} $gap={12} $wrap>
          <Tick
            isOn={all}
            isSome={going.length > 0 && !all}
            onChange={(isOn) => setChosen(new Set(isOn ? free.map(keyOf) : []))}
          >
            All of these
          </Tick>
          <Push />
          <Tick isOn={confirms} onChange={setConfirms}>
            Scan each bench and parcel to confirm
          </Tick>
          <Button
            isDisabled={going.length === 0}
            busy={make.isPending}
            onPress={() =>
              make.mutate({
                body: {
                  goals: going.map(({ kind, id }) => ({ kind, id })),
                  storeId: store === '' ? null : Number(store),
                  confirms,
                },
              })
            }
          >
            Put {count(going.length, 'job')} on one run
          </Button>
        </Row>
      )}
      {problem && <Para role="alert">{problem.detail}</Para>}
      {shown.map((goal) => {
        const key = keyOf(goal);
        const isServed = served.has(goal.number);
        return (
          <Job key={key}>
            <Tick
              label={`Put ${goal.number} on the run`}
              isOn={chosen.has(key) && !isServed}
              isDisabled={isServed}
              onChange={(isOn) =>
                setChosen(new Set(isOn ? [...chosen, key] : [...chosen].filter((one) => one !== key)))
              }
            />
            <Tile code={goal.tile} size={36} />
            <span>
              <Link to={aloneOf(goal)}>{goal.number}</Link> · <b>{goal.name}</b>
              <br />
              <Faint>
                {goal.whole
                  ? `${count(goal.lines, 'line')}, everything is on the shelves`
                  : `${goal.there} of ${count(goal.lines, 'line')} on the shelves`}
                {isServed &&
                  ` · on ${runs.find((run) => run.goals.some(({ number }) => number === goal.number))?.number}`}
              </Faint>
            </span>
            {goal.due && (goal.late ? <Late>{dueWords(goal, format)}</Late> : <span>{dueWords(goal, format)}</span>)}
          </Job>
        );
      })}
    </Section>
  );
}

/** Runs that have ended, with what was walked; folded until somebody asks. */
function Ended() {
  const [isOpen, setOpen] = useAddress('ended');
  if (isOpen === '')
    return (
      <div>
        <Button look="ghost" onPress={() => setOpen('1')}>
          See finished runs
        </Button>
      </div>
    );
  return <EndedRuns />;
}

function EndedRuns() {
  const runs = usePages('pickRuns', {});
  return (
    <Section>
      <h2>Ended</h2>
      <Answer of={runs}>
        {({ pages }) => {
          const rows = pages.flatMap((page) => page.rows);
          if (rows.length === 0) return <Para>No run has ended yet.</Para>;
          return rows.map((run) => (
            <Job key={run.id}>
              <span>
                <Link to={`/pick/runs/${run.id}`}>{run.number}</Link> ·{' '}
                {run.goals.map(({ number }) => number).join(', ')}
                <br />
                <Faint>
                  {count(run.walked.stops, 'stop')} and {count(run.walked.lines, 'line')}
                  {walkedWords(run.walked)} · <When at={run.endedAt ?? run.madeAt} />
                </Faint>
              </span>
            </Job>
          ));
        }}
      </Answer>
      {runs.hasNextPage && (
        <Button look="ghost" busy={runs.isFetchingNextPage} onPress={() => void runs.fetchNextPage()}>
          More
        </Button>
      )}
    </Section>
  );
}
