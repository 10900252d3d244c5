import type { RunDetail } from '@yosegi/contract';
import { doesFor, takenOf } from '@yosegi/core/demand';
import type { Quantity } from '@yosegi/core/number';
import { formatDecimal, readExact, SCALE } from '@yosegi/core/number';
import { Link } from 'react-router';
import { problemOf, useCommand } from '../api/client.ts';
import { useCan } from '../api/person.ts';
import { Button } from '../ui/Button.tsx';
import { useFormat } from '../ui/format.ts';
import { Cell } from '../ui/layout.ts';
import { useNotify } from '../ui/Notice.ts';
import { Para, Section } from '../ui/space.ts';
import { Tile } from '../ui/Tile.tsx';
import { Late, Row } from '../ui/text.ts';
import { slotsOf } from './view.ts';
import { whereItIs } from './words.ts';

type Lacking = RunDetail['missing'][number];

/** What no shelf has, whom it is wanted for, and what may stand in for it. */
export function Missing({ run }: { run: RunDetail }) {
  if (run.missing.length === 0) return null;
  const slots = slotsOf(run);
  return (
    <Section $top={12}>
      <h3>{run.missing.every(({ elsewhere }) => elsewhere.length > 0) ? 'In another store' : 'Not on this run'}</h3>
      {run.missing.map((lacking) => (
        <OneMissing
          key={`${lacking.kind}:${lacking.lineId}`}
          lacking={lacking}
          number={slots.get(`${lacking.kind}:${lacking.id}`)?.number ?? ''}
        />
      ))}
    </Section>
  );
}

function OneMissing({ lacking, number }: { lacking: Lacking; number: string }) {
  const format = useFormat();
  const notify = useNotify();
  const mayBuild = useCan('build');
  const standIn = useCommand('standIn', () => notify({ text: `${number} takes it instead; it is on the way now.` }));
  const mayPick = useCan('pick');
  const swap = useCommand('swapPart', () => notify({ text: `${number} takes it instead; it is on the way now.` }));
  const { item, kind, id } = lacking;
  const problem = problemOf(standIn.error ?? swap.error);
  return (
    <Section $top={10}>
      <Cell>
        <Tile code={item.code} size={32} />
        <span>
          <b>{item.name}</b>
          <br />
          <Late>{whereItIs(lacking, format)}</Late> for{' '}
          <Link to={kind === 'build' ? `/build/${id}` : `/orders/${id}`}>{number}</Link>
          {kind === 'order' && lacking.standIns.length === 0 && ', to be changed on the order or left open'}
        </span>
      </Cell>
      <Row $gap={8} $top={lacking.standIns.length > 0 ? 6 : 0} $wrap>
        {kind === 'order' &&
          mayPick &&
          lacking.standIns.map((other) => (
            <Button
              key={other.itemId}
              busy={swap.isPending}
              onPress={() => swap.mutate({ params: { id }, body: { partId: lacking.lineId, itemId: other.itemId } })}
            >
              Use {other.name} in every kit instead
            </Button>
          ))}
        {kind === 'build' &&
          mayBuild &&
          lacking.standIns.map((other) => {
            const does = coverFor(lacking, other);
            if (does.standsFor <= 0) return null;
            return (
              <Button
                key={other.itemId}
                busy={standIn.isPending}
                onPress={() =>
                  standIn.mutate({
                    params: { id },
                    body: { lineId: lacking.lineId, itemId: other.itemId, quantity: formatDecimal(does.standsFor) },
                  })
                }
              >
                Take {formatDecimal(does.takes)} × {other.name} instead
              </Button>
            );
          })}
      </Row>
      {problem && <Para role="alert">{problem.detail}</Para>}
    </Section>
  );
}

/** How much of what is missing an alternate does for, and how much of it that takes. */
function coverFor({ quantity, item }: Lacking, other: Lacking['standIns'][number]) {
  const missing = readExact(quantity) as Quantity;
  const ratio = readExact(other.ratio) as Quantity;
  const there = readExact(other.quantity) as Quantity;
  const decimals = there % SCALE === 0 ? 0 : item.decimals;
  const standsFor = doesFor(there, ratio, decimals, item.decimals, missing);
  return { standsFor, takes: takenOf(standsFor, ratio, decimals) };
}
