import type { RunDetail, Store } from '@yosegi/contract';
import { offered } from '@yosegi/core/picking';
import { Volume2, VolumeX } from 'lucide-react';
import { useEffect, useRef, useState } from 'react';
import { Link } from 'react-router';
import { problemOf, useCommand } from '../api/client.ts';
import { usePerson } from '../api/person.ts';
import { Button } from '../ui/Button.tsx';
import { count, useFormat } from '../ui/format.ts';
import { useNotify } from '../ui/Notice.ts';
import { Tile } from '../ui/Tile.tsx';
import { useAwake, useQuiet } from './feedback.ts';
import { useOffline } from './offline.ts';
import { PutBack } from './PutBack.tsx';
import { Bottom, Page, Piece, Progress, Says, Top } from './phoneLook.ts';
import { claim, pickQueue } from './pickQueue.ts';
import type { Queued } from './queue.ts';
import { Refused } from './Refused.tsx';
import { RunOver } from './RunOver.tsx';
import { StopCard } from './StopCard.tsx';
import { slotsOf, stopsLeft } from './view.ts';

export interface RunProps {
  readonly run: RunDetail;
  readonly stores: readonly Store[];
  /** What was picked here on this run and the server may not know yet. */
  readonly queue: readonly Queued[];
  readonly isCutOff: boolean;
  /** This machine has no room to keep what was picked until it is sent. */
  readonly isFull: boolean;
}

/** The most pieces that a bar of progress is drawn in. */
const MOST_PIECES = 60;

/** A run on a phone, one stop at a time. */
export function RunPhone({ run, stores, queue, isCutOff, isFull }: RunProps) {
  const notify = useNotify();
  const personId = usePerson()?.id ?? 0;
  const [later, setLater] = useState<ReadonlySet<string>>(new Set());
  const [last, setLast] = useState<string | null>(null);
  const [wanted, setWanted] = useState<string | null>(null);
  const [puttingBack, setPuttingBack] = useState(false);
  const [isQuiet, setQuiet] = useQuiet();
  useAwake();
  useOffline(run.id);
  const stops = stopsLeft(run, queue);
  const way = useWay(run.stops.map(({ key }) => key));
  const claims = run.claims;
  const ordered = offered(stops, claims, { personId, now: new Date(), later, last }, way);
  const now = ordered.find(({ key }) => key === wanted) ?? ordered[0];
  const next = ordered.find(({ key }) => key !== now?.key);
  useClaim(run.id, now?.key ?? null);
  const notThere = useCommand('notThere', () =>
    notify({ text: `${now?.bin} is on the list of bins to count.`, to: ['/stock/counts', 'See it'] }),
  );
  const done = way.length - stops.length;
  const problem = problemOf(notThere.error);
  return (
    <Page>
      <Top>
        <div>
          <h1>{run.number}</h1>
          <small>
            {run.goals.length > 2 ? count(run.goals.length, 'job') : run.goals.map(({ number }) => number).join(', ')} ·{' '}
            {done} of {count(way.length, 'stop')}
          </small>
        </div>
        <button
          type="button"
          aria-label={isQuiet ? 'Sound and vibration on' : 'Sound and vibration off'}
          onClick={() => setQuiet(!isQuiet)}
        >
          {isQuiet ? <VolumeX size={20} aria-hidden /> : <Volume2 size={20} aria-hidden />}
        </button>
        <Link to="/pick">All</Link>
      </Top>
      <Progress role="img" aria-label={`${done} of ${way.length} stops done`}>
        {Array.from({ length: Math.min(way.length, MOST_PIECES) }, (_, index) => {
          const at = (index * way.length) / Math.min(way.length, MOST_PIECES);
          // biome-ignore lint/suspicious/noArrayIndexKey: pieces have no identity
          return <Piece key={index} $is={at < done ? 'done' : at < done + 1 ? 'now' : 'open'} />;
        })}
      </Progress>
      <Refused queue={queue} isCutOff={isCutOff} isFull={isFull} personId={personId} />
      {problem && <Says role="alert">{problem.detail}</Says>}
      {puttingBack ? (
        <PutBack run={run} onDone={() => setPuttingBack(false)} />
      ) : now ? (
        <StopCard
          key={`${now.key}:${now.quantity}`}
          stop={now}
          stops={stops}
          stores={stores}
          slots={slotsOf(run)}
          confirms={run.confirms}
          onPick={(lines, says) => {
            setLast(now.key);
            setWanted(null);
            pickQueue.add({ runId: run.id, personId, lines, says, at: new Date().toISOString() });
            void pickQueue.flush(personId);
          }}
          onNotThere={() =>
            notThere.mutate({ params: { id: run.id }, body: { binId: now.binId, itemId: now.item.id, lot: now.lot } })
          }
          onLater={
            next
              ? () => {
                  setWanted(null);
                  setLater(new Set(later).add(now.key));
                }
              : null
          }
          onGo={setWanted}
        />
      ) : (
        <RunOver run={run} left={stops.length} isWaiting={queue.length > 0} />
      )}
      <Bottom>
        <NextStop next={next} />
        {!puttingBack && run.brought.length > 0 && <Button onPress={() => setPuttingBack(true)}>Put back</Button>}
        <UndoLast run={run} queue={queue} personId={personId} />
      </Bottom>
    </Page>
  );
}

function NextStop({ next }: { next: RunDetail['stops'][number] | undefined }) {
  const format = useFormat();
  if (!next) return <span />;
  const { item, bin, quantity } = next;
  return (
    <>
      <Tile code={item.code} size={32} />
      <span>
        Next: <b>{item.name}</b>
        <br />
        {bin} · {format.quantity(quantity, item.unit, item.decimals)}
      </span>
    </>
  );
}

/** The stops of the run in the order they were first seen: how far somebody has come, and which way the walk goes. */
function useWay(keys: readonly string[]): readonly string[] {
  const seen = useRef<readonly string[]>([]);
  const fresh = keys.filter((key) => !seen.current.includes(key));
  if (fresh.length > 0) seen.current = [...seen.current, ...fresh];
  return seen.current;
}

/** Tells the others where this person is, and leaves the run to them when the page is left. */
function useClaim(runId: number, stop: string | null): void {
  useEffect(() => {
    if (stop !== null) void claim(runId, stop);
  }, [runId, stop]);
  useEffect(
    () => () => {
      void claim(runId, null);
    },
    [runId],
  );
}

/** Takes the last pick of this person back: what waits is dropped, what is posted is undone. */
function UndoLast({ run, queue, personId }: { run: RunDetail; queue: readonly Queued[]; personId: number }) {
  const notify = useNotify();
  const undo = useCommand('undoDocument', ({ number }) => notify({ text: `Undone by ${number}.` }));
  const waiting = queue.findLast(
    (entry) => entry.personId === personId && entry.problem === null && entry.undoKey === null && entry.act === null,
  );
  const posted = run.picks.find((pick) => pick.personId === personId && !pick.undone);
  const says = waiting?.says ?? posted?.says;
  const refused = problemOf(undo.error)?.detail;
  useEffect(() => {
    if (refused !== undefined) notify({ text: refused });
  }, [refused, notify]);
  if (says === undefined) return null;
  return (
    <Button
      busy={undo.isPending}
      aria-label={`Undo ${says}`}
      onPress={() => {
        if (waiting) pickQueue.takeBack(waiting.key);
        else if (posted) undo.mutate({ params: { id: posted.act }, body: {} });
      }}
    >
      Undo last
    </Button>
  );
}
