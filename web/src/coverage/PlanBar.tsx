import { formatDecimal, SCALE } from '@yosegi/core/number';
import { useNavigate } from 'react-router';
import styled from 'styled-components';
import { problemOf, refetch, useCommand } from '../api/client.ts';
import { Button } from '../ui/Button.tsx';
import { count, useFormat } from '../ui/format.ts';
import { Foot } from '../ui/layout.ts';
import { useNotify } from '../ui/Notice.tsx';
import { ProblemBox } from '../ui/Problem.tsx';
import { Muted, Push } from '../ui/text.ts';
import { useShortcut } from '../ui/useShortcut.ts';
import type { CoverAnswer } from '../workers/coverAnswer.ts';

const Under = styled.div`padding: 0 24px 10px;`;

interface Props {
  readonly answer: CoverAnswer;
  readonly due: string;
  readonly blocked: boolean;
  readonly onPlanned: () => void;
}

/** What the answer comes to, and the one step from it: plan the builds. */
export function PlanBar({ answer, due, blocked, onPlanned }: Props) {
  const format = useFormat();
  const go = useNavigate();
  const notify = useNotify();
  const { products, components, cost, minutes } = answer;
  const plan = useCommand('planBuilds', ({ builds }) => {
    notify({ text: `Planned ${builds.map((build) => build.number).join(', ')}. Their parts are promised.` });
    onPlanned();
    void go(builds.length === 1 ? `/build/${builds[0]?.id}` : '/build');
  });
  const possible = !blocked && products.length > 0 && products.every((product) => product.hasDefinition);
  const planAll = () => {
    if (!possible || plan.isPending) return;
    plan.mutate(
      {
        body: {
          builds: products.map(({ itemId, quantity }) => ({
            itemId,
            quantity: formatDecimal(quantity),
            due: due || null,
          })),
          seen: products.map((product) => formatDecimal(product.now)),
        },
      },
      { onError: (error) => problemOf(error)?.code === 'cover-changed' && refetch(['stock', 'builds']) },
    );
  };
  useShortcut('Enter', planAll, { ctrl: true });
  const hours = Math.floor(minutes / SCALE / 60);
  const rest = Math.round((minutes / SCALE) % 60);
  return (
    <div>
      {plan.error && (
        <Under>
          <ProblemBox error={plan.error} />
        </Under>
      )}
      <Foot>
        <Muted>
          {count(components.length, 'part')} · {hours > 0 && `${hours} h `}
          {rest} min of labour · <b>{format.money(formatDecimal(cost))}</b>
        </Muted>
        <Push />
        <Button look="go" isDisabled={!possible} busy={plan.isPending} onPress={planAll}>
          Plan {count(products.length, 'build')}
        </Button>
      </Foot>
    </div>
  );
}
