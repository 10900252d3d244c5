import type { CoverSource } from '@yosegi/contract';
import { type Source, sourceKey } from '@yosegi/core/demand';
import { problemOf, refetch, useCommand, useQuestion } from '../api/client.ts';
import { useCan } from '../api/person.ts';
import { Button } from '../ui/Button.tsx';
import { Field } from '../ui/Field.tsx';
import { count } from '../ui/format.ts';
import { Foot } from '../ui/layout.ts';
import { useNotify } from '../ui/Notice.ts';
import { ProblemBox } from '../ui/Problem.tsx';
import { Part } from '../ui/space.ts';
import { Muted, Push } from '../ui/text.ts';
import { useTyped, useTypedScreen } from '../ui/useTypedScreen.ts';
import type { ScarceAnswer, WayShown } from '../workers/scarceAnswer.ts';
import type { Search } from './useSearch.ts';
import { gapWords, isSame, type WayName } from './WayCards.tsx';

interface Props {
  readonly answer: ScarceAnswer;
  readonly aim: WayName;
  readonly way: WayShown | null;
  /** Of what was searched for; null for going by date. */
  readonly search: Search | null;
  readonly named: readonly CoverSource[];
}

const reasons = {
  date: '',
  orders: 'Complete the most orders',
  value: 'Complete the most sales value',
} as const;

/** Has the parts shared out in a way: who waits in it is set to wait, everybody else is in turn again. */
export function TakeWay({ answer, aim, way, search, named }: Props) {
  const notify = useNotify();
  const mayTake = useCan('plan');
  const screen = useTypedScreen(`scarce.${aim}`);
  const [reason, setReason] = useTyped(screen, 'reason', reasons[aim]);
  const set = useQuestion('priorities', {}).data;
  const back = useCommand('setPriorities');
  const take = useCommand('setPriorities', ({ before }) => {
    screen.forget();
    notify({ text: 'The parts are allocated this way.', undo: () => back.mutate({ body: { lines: before } }) });
  });
  const ranks = new Map(set?.map(({ kind, id, rank }) => [`${kind}:${id}`, rank]));
  const waits = new Set(way?.waits.map(sourceKey));
  const lines = answer.rivals.flatMap(({ kind, id }) => {
    if (kind !== 'order' && kind !== 'build') return [];
    const was = ranks.get(`${kind}:${id}`) ?? null;
    const rank = waits.has(`${kind}:${id}`) ? (1 as const) : null;
    return was === rank ? [] : [{ kind, id, was, rank, reason: rank === null ? '' : reason }];
  });
  const stands = way !== null && isSame(way.waits, answer.waiting);
  const needsReason = waits.size > 0;
  return (
    <div>
      <ProblemBox error={take.error ?? back.error} />
      <Foot>
        <Muted>{proofWords(search, way)}</Muted>
        <Push />
        {stands ? (
          <Muted>This is the current allocation.</Muted>
        ) : (
          <>
            {needsReason && (
              <>
                <Muted aria-hidden>Reason</Muted>
                <Part $width={260}>
                  <Field label="Reason" hideLabel value={reason} onChange={setReason} />
                </Part>
              </>
            )}
            <Button
              look="go"
              isDisabled={
                !mayTake ||
                way === null ||
                set === undefined ||
                lines.length === 0 ||
                (needsReason && reason.trim() === '')
              }
              busy={take.isPending}
              onPress={() =>
                take.mutate(
                  { body: { lines } },
                  {
                    onError: (error) =>
                      problemOf(error)?.code === 'priority-changed' && refetch(['orders', 'builds', 'stock']),
                  },
                )
              }
            >
              {way === null ? 'Use this allocation' : deedWords(way.waits, named)}
            </Button>
          </>
        )}
      </Foot>
    </div>
  );
}

/** What pressing it does. */
function deedWords(waits: readonly Source[], named: readonly CoverSource[]): string {
  if (waits.length === 0) return 'Serve everyone in turn';
  const names = waits.flatMap(
    (source) => named.find(({ kind, id }) => kind === source.kind && id === source.id)?.number ?? [],
  );
  return names.length > 0 && names.length <= 2
    ? `Put ${names.join(' and ')} last`
    : `Put ${count(waits.length, 'order or build', 'orders and builds')} last`;
}

function proofWords(search: Search | null, way: WayShown | null): string {
  if (search === null) return 'The earliest wanted date goes first.';
  const seconds = search.found ? `${Math.max(0.1, search.found.seconds).toFixed(1)} s` : '';
  if (search.state === 'failed') return 'The search failed; nothing was changed.';
  if (way === null) return search.state === 'stopped' ? 'Stopped before anything was found.' : 'Searching…';
  if (search.found?.isBest) return `Best possible, proved in ${seconds}.`;
  return `${gapWords(search) ?? 'Not proved'}${search.state === 'running' ? '' : `; stopped after ${seconds}`}.`;
}
