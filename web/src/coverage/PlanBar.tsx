import type { CoverItem } from '@yosegi/contract';
import type { Completion } from '@yosegi/core/coverage';
import { formatDecimal, minus, SCALE } from '@yosegi/core/number';
import { useEffect, useState } from 'react';
import { useNavigate } from 'react-router';
import styled from 'styled-components';
import { problemOf, refetch, useCommand } from '../api/client.ts';
import { useCan } from '../api/person.ts';
import { buyPath } from '../buying/index.ts';
import { Button, LinkButton } from '../ui/Button.tsx';
import { count, useFormat } from '../ui/format.ts';
import { Foot } from '../ui/layout.ts';
import { useNotify } from '../ui/Notice.ts';
import { ProblemBox } from '../ui/Problem.tsx';
import { Faint, Muted, Push } from '../ui/text.ts';
import { useShortcut } from '../ui/useShortcut.ts';
import type { CoverAnswer } from '../workers/coverAnswer.ts';
import type { Terms } from './want.ts';

const Under = styled.div`padding: 0 24px 10px;`;

interface Props {
  readonly answer: CoverAnswer;
  /** What all of it takes; null while it is worked out. */
  readonly completion: Completion | null;
  readonly items: ReadonlyMap<number, CoverItem>;
  readonly terms: Terms;
  /** Something typed cannot be read. */
  readonly blocked: boolean;
  /** Whether the answer is to what stands in the address at this moment. */
  readonly isCurrent: () => boolean;
  readonly onPlanned: () => void;
}

/** What the answer comes to, and the steps from it. */
export function PlanBar({ answer, completion, items, terms, blocked, isCurrent, onPlanned }: Props) {
  const format = useFormat();
  const go = useNavigate();
  const notify = useNotify();
  const mayPlan = useCan('plan');
  const { components, cost, minutes } = answer;
  const plan = useCommand('planBuilds', ({ builds }) => {
    notify({ text: `Planned ${builds.map((build) => build.number).join(', ')}. Their parts are promised.` });
    onPlanned();
    void go(builds.length === 1 ? `/build/${builds[0]?.id}` : '/build');
  });
  const products = answer.products.filter(({ toMake }) => toMake > 0);
  const below = (completion?.levels ?? []).flat();
  const isPlanned = terms.aside === 'builds';
  const possible =
    !blocked &&
    mayPlan &&
    !isPlanned &&
    products.length > 0 &&
    products.every((one) => one.hasDefinition && !one.isDraft);
  const isParted = ({ now, toMake }: (typeof products)[number]) => now > 0 && now < toMake;
  // A hand may be quicker than the answer to what it typed last; the press waits for that.
  const [pressed, setPressed] = useState<'whole' | 'parted' | null>(null);
  const planAll = (parted: boolean) => {
    plan.mutate(
      {
        body: {
          builds: [
            ...products.flatMap((product) => {
              const quantities =
                parted && isParted(product) ? [product.now, minus(product.toMake, product.now)] : [product.toMake];
              return quantities.map((quantity) => ({ itemId: product.itemId, quantity }));
            }),
            ...below,
          ].map(({ itemId, quantity }) => ({ itemId, quantity: formatDecimal(quantity), due: terms.by || null })),
          seen: {
            wanted: answer.products.map(({ itemId, quantity, now }) => ({
              itemId,
              quantity: formatDecimal(quantity),
              now: formatDecimal(now),
            })),
            stores: terms.stores ? [...terms.stores] : null,
            finishedFirst: terms.finishedFirst,
            drafts: terms.drafts,
            aside: terms.aside,
          },
        },
      },
      { onError: (error) => problemOf(error)?.code === 'cover-changed' && refetch(['stock', 'builds']) },
    );
  };
  useEffect(() => {
    if (pressed === null) return;
    if (blocked) setPressed(null);
    if (blocked || !isCurrent() || completion === null) return;
    setPressed(null);
    if (possible && !plan.isPending) planAll(pressed === 'parted');
  });
  useShortcut('Enter', () => setPressed('whole'), { ctrl: true });
  const hours = Math.floor(minutes / SCALE / 60);
  const rest = Math.round((minutes / SCALE) % 60);
  const parted = products.filter(isParted).length;
  const short = completion?.buy ?? [];
  // Parts that others were promised and that this lacks.
  const scarce = components.flatMap((one) => (one.promised > 0 && one.free < one.needed ? one.itemId : []));
  const sellers = new Set(short.flatMap(({ itemId }) => items.get(itemId)?.supplier ?? [])).size;
  return (
    <div>
      {plan.error && (
        <Under>
          <ProblemBox error={plan.error} />
        </Under>
      )}
      <Foot>
        <Muted>
          {below.length > 0
            ? `${countsOf(products.length, completion?.levels ?? [])} to build`
            : count(components.length, 'part')}{' '}
          · {hours > 0 && `${hours} h `}
          {rest} min of labour · <b>{format.money(formatDecimal(cost))}</b>
        </Muted>
        <Push />
        {scarce.length > 0 && (
          <LinkButton look="ghost" to={`/cover/scarce?items=${scarce.join(',')}`}>
            Who gets the scarce parts?
          </LinkButton>
        )}
        {short.length > 0 && (
          <LinkButton
            look="ghost"
            to={buyPath(short.map(({ itemId, quantity }) => ({ itemId, quantity: formatDecimal(quantity) })))}
          >
            Buy what’s short · {sellers > 0 ? count(sellers, 'supplier') : count(short.length, 'part')}
          </LinkButton>
        )}
        {isPlanned && <Faint>These builds are planned already.</Faint>}
        {parted > 0 && possible && (
          <Button look="ghost" busy={plan.isPending} onPress={() => setPressed('parted')}>
            Plan what can start now, and the rest separately
          </Button>
        )}
        <Button look="go" isDisabled={!possible} busy={plan.isPending} onPress={() => setPressed('whole')}>
          Plan {count(products.length + below.length, 'build')}
        </Button>
      </Foot>
    </div>
  );
}

/** How many builds of each level: "2 products and 3 parts", deeper levels each with their own count. */
function countsOf(products: number, levels: Completion['levels']): string {
  const deeper = levels.map((level, at) => (at === 0 ? count(level.length, 'part') : `${level.length} below`));
  return [count(products, 'product'), ...deeper].join(' + ');
}
