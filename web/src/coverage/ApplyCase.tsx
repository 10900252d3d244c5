import type { Change } from '@yosegi/core/coverage';
import { formatDecimal } from '@yosegi/core/number';
import { useState } from 'react';
import { Dialog, Heading } from 'react-aria-components';
import { useCommand, useQuestion } from '../api/client.ts';
import { useCan } from '../api/person.ts';
import { Button, LinkButton } from '../ui/Button.tsx';
import { count } from '../ui/format.ts';
import { Foot } from '../ui/layout.ts';
import { DialogCard, Overlay } from '../ui/Modal.tsx';
import { useNotify } from '../ui/Notice.ts';
import { ProblemBox } from '../ui/Problem.tsx';
import { Para } from '../ui/space.ts';
import { Bullets, Faint, Muted, Push, Row } from '../ui/text.ts';
import type { CaseAnswer } from '../workers/timeAnswer.ts';
import { type Known, wordsOf } from './caseWords.ts';

interface Props extends Known {
  readonly changes: readonly Change[];
  /** What the case comes to, as it was reckoned. */
  readonly deliveries: CaseAnswer['deliveries'];
  /** What stays in the case once the rest is applied. */
  readonly onTaken: (rest: readonly Change[]) => void;
}

/** The most deliveries that are expected on other days at once. */
const MOST = 100;

/** Turns a case into what it consists of: builds that are planned, deliveries expected on other days, who goes first. */
export function ApplyCase({ changes, deliveries, onTaken, ...known }: Props) {
  const [isOpen, setOpen] = useState(false);
  const parts = partsOf(changes, deliveries);
  const mayPlan = useCan('plan');
  const mayBuy = useCan('buy');
  const taken = takenOf(parts);
  const may = (mayPlan || parts.builds.length + parts.turns.length === 0) && (mayBuy || parts.deliveries.length === 0);
  return (
    <Foot>
      <Muted>
        {changes.length === 0
          ? 'Drag a delivery to another day, or change something else.'
          : taken === 0
            ? 'Nothing in this case can be applied. Only a count or a purchase can make it real.'
            : `${sentenceOf(parts)}${parts.rest.length > 0 ? '; the rest stays in the case' : ''}.`}
      </Muted>
      <Push />
      {changes.some(({ what }) => what === 'missing') && <LinkButton to="/stock/counts">Count it</LinkButton>}
      <Button look="go" isDisabled={!may || taken === 0} onPress={() => setOpen(true)}>
        Apply…
      </Button>
      {isOpen && <Look parts={parts} known={known} onTaken={onTaken} onClose={() => setOpen(false)} />}
    </Foot>
  );
}

/** How much of a case can be taken over. */
export const takenOf = ({ builds, turns, deliveries }: Parts) => builds.length + turns.length + deliveries.length;

export interface Parts {
  readonly builds: readonly Extract<Change, { what: 'build' }>[];
  readonly turns: readonly Extract<Change, { what: 'first' | 'last' }>[];
  readonly deliveries: CaseAnswer['deliveries'];
  readonly rest: readonly Change[];
}

export function partsOf(changes: readonly Change[], deliveries: CaseAnswer['deliveries']): Parts {
  const isDay = (one: Change) =>
    (one.what === 'day' && one.kind === 'purchase' && one.on !== null) || (one.what === 'late' && one.days !== null);
  return {
    builds: changes.filter((one) => one.what === 'build'),
    turns: changes.filter((one): one is Parts['turns'][number] => one.what === 'first' || one.what === 'last'),
    deliveries: deliveries.slice(0, MOST),
    // What moves no delivery is nothing to take over.
    rest: changes.filter(
      (one) =>
        (!isDay(one) || deliveries.length === 0) && one.what !== 'build' && one.what !== 'first' && one.what !== 'last',
    ),
  };
}

function sentenceOf({ builds, turns, deliveries }: Parts): string {
  const all = [
    builds.length > 0 && `plans ${count(builds.length, 'build')}`,
    deliveries.length > 0 && `expects ${count(deliveries.length, 'delivery', 'deliveries')} on the day of this case`,
    turns.length > 0 && `changes when ${turns.length === 1 ? 'someone gets' : `${turns.length} get`} their parts`,
  ].filter((part) => part !== false);
  return all.length === 0 ? 'Applying this case changes nothing' : `Applying this case ${all.join(', ')}`;
}

export interface LookProps {
  readonly parts: Parts;
  readonly known: Known;
  readonly onTaken: Props['onTaken'];
  readonly onClose: () => void;
}

/** The list of what it consists of, looked at once before it is taken. */
export function Look({ parts: { builds, turns, deliveries, rest }, known: words, onTaken, onClose }: LookProps) {
  const { names, format } = words;
  const known = deliveries.filter(({ lineId }) => names.supply('purchase', lineId).to !== null);
  const notify = useNotify();
  const set = useQuestion('priorities', {}).data;
  const plan = useCommand('planBuilds');
  const expect = useCommand('expectOn');
  const order = useCommand('setPriorities');
  const [planned, setPlanned] = useState<readonly string[] | null>(null);
  const ranks = new Map(set?.map(({ kind, id, rank }) => [`${kind}:${id}`, rank]));
  const take = async () => {
    // Each is done once: what went through before a refusal is not done again.
    const made =
      planned ??
      (builds.length === 0
        ? []
        : (await plan.mutateAsync({ body: { builds: bodyOf(builds) } })).builds.map(({ number }) => number));
    setPlanned(made);
    const days = deliveries.length === 0 ? null : await expect.mutateAsync({ body: { lines: [...deliveries] } });
    const lines = turns.flatMap(({ what, source: { kind, id } }) => {
      if (kind !== 'order' && kind !== 'build') return [];
      const was = ranks.get(`${kind}:${id}`) ?? null;
      return [
        {
          kind,
          id,
          was,
          rank: what === 'first' ? (-1 as const) : (1 as const),
          reason: 'Applied from a what-if case',
        },
      ];
    });
    const before = lines.length === 0 ? null : await order.mutateAsync({ body: { lines } });
    notify({
      text: ['The case is applied.', made.length > 0 && `Planned ${made.join(', ')}.`].filter(Boolean).join(' '),
      ...(days || before
        ? {
            undo: () => {
              if (days) expect.mutate({ body: { lines: days.before } });
              if (before) order.mutate({ body: { lines: before.before } });
            },
          }
        : {}),
    });
    onClose();
    onTaken(rest);
  };
  const isBusy = plan.isPending || expect.isPending || order.isPending;
  return (
    <Overlay isOpen isDismissable onOpenChange={(open) => !open && onClose()}>
      <DialogCard>
        <Dialog>
          <Heading slot="title">Apply this case?</Heading>
          {[plan, expect, order].map(({ error }, index) => (
            // biome-ignore lint/suspicious/noArrayIndexKey: the three deeds in their order
            <ProblemBox key={index} error={error} />
          ))}
          <Bullets $top={8}>
            {builds.map((one) => (
              <li key={wordsOf(one, words)}>Plan: {wordsOf(one, words)}</li>
            ))}
            {known.map(({ lineId, on }) => (
              <li key={lineId}>
                Expect {names.supply('purchase', lineId).number} on {format.day(on)}
              </li>
            ))}
            {known.length < deliveries.length && (
              <li>
                Expect {count(deliveries.length - known.length, 'delivery', 'deliveries')} of other items as much later
              </li>
            )}
            {turns.map((one) => (
              <li key={wordsOf(one, words)}>{wordsOf(one, words)}</li>
            ))}
          </Bullets>
          {rest.length > 0 && (
            <Para $top={8}>
              <Faint>Stays in the case: {rest.map((one) => wordsOf(one, words)).join('; ')}.</Faint>
            </Para>
          )}
          <Row $gap={8} $top={14}>
            <Push />
            <Button look="ghost" onPress={onClose}>
              Cancel
            </Button>
            <Button look="go" autoFocus busy={isBusy} onPress={() => void take().catch(() => undefined)}>
              Use
            </Button>
          </Row>
        </Dialog>
      </DialogCard>
    </Overlay>
  );
}

const bodyOf = (builds: Parts['builds']) =>
  builds.map(({ itemId, quantity, on }) => ({ itemId, quantity: formatDecimal(quantity), due: on }));
