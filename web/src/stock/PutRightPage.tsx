import type { PutRight } from '@yosegi/contract';
import { Link } from 'react-router';
import styled from 'styled-components';
import { useCommand, useQuestion } from '../api/client.ts';
import { useCan } from '../api/person.ts';
import { buyPath } from '../buying/index.ts';
import { ReasonChoice } from '../lines/ReasonChoice.tsx';
import { Button, LinkButton } from '../ui/Button.tsx';
import { Field } from '../ui/Field.tsx';
import { count, negated, useFormat } from '../ui/format.ts';
import { Cell, Page } from '../ui/layout.ts';
import { useNotify } from '../ui/Notice.ts';
import { ProblemBox } from '../ui/Problem.tsx';
import { Answer, EmptyState } from '../ui/States.tsx';
import { Part, Stack } from '../ui/space.ts';
import { Tile } from '../ui/Tile.tsx';
import { Faint, Late, Lead, Muted, Row } from '../ui/text.ts';
import { useTyped, useTypedScreen } from '../ui/useTypedScreen.ts';
import { When } from '../ui/When.tsx';

const Entry = styled.article`
  border: 1px solid var(--line); border-left: 5px solid var(--short); border-radius: 3px; padding: 14px 16px; display: grid; gap: 10px; background: var(--paper);
  max-width: 980px;
`;

/** What went below zero or was overridden, with what would settle each, in one step. */
export function PutRightPage() {
  const entries = useQuestion('putRight', {});
  return (
    <Page $white>
      <Answer of={entries}>
        {(rows) => (
          <>
            <h1>{rows.length === 0 ? 'Nothing to fix.' : `${count(rows.length, 'thing')} to fix.`}</h1>
            <Lead>
              Someone took more than the books had, and gave a reason. Each stays here until the books agree again.
            </Lead>
            {rows.length === 0 && (
              <EmptyState title="The books and the shelves agree">
                When an owner lets a posting go below zero, it appears here with what would settle it.
              </EmptyState>
            )}
            <Stack $gap={12} $top={16}>
              {rows.map((row) => (
                <One key={row.id} entry={row} />
              ))}
            </Stack>
          </>
        )}
      </Answer>
    </Page>
  );
}

function One({ entry }: { entry: PutRight }) {
  const format = useFormat();
  const notify = useNotify();
  const mayOverride = useCan('override');
  const reasons = (useQuestion('reasons', {}).data ?? []).filter(({ usedFor }) => usedFor === 'adjustment');
  const screen = useTypedScreen(`put-right.${entry.id}`);
  const [reasonId, setReasonId] = useTyped(screen, 'reasonId', '');
  const [remark, setRemark] = useTyped(screen, 'remark', '');
  const settle = useCommand(
    'settle',
    ({ document }) =>
      notify({
        text: document ? `${document.number} has put it right.` : 'Taken off the list.',
        ...(document ? { documentId: document.id } : {}),
      }),
    screen.forget,
  );
  const params = { id: entry.id };
  const amount = (text: string) => format.quantity(text, entry.unit, entry.decimals);
  const missingText = entry.quantity === null ? '' : negated(entry.quantity);
  const missing = entry.quantity === null ? null : amount(negated(entry.quantity));
  const where = entry.documentId === null ? `/build/${entry.buildId}` : `/stock/documents/${entry.documentId}`;
  const reason = reasonId || String(reasons.find(({ name }) => name === 'Found')?.id ?? reasons[0]?.id ?? '');
  return (
    <Entry aria-label={`To put right: ${entry.name}`}>
      <Cell>
        <Tile code={entry.code} size={36} />
        <span>
          <b>
            {missing === null ? (
              `${entry.name}: started short`
            ) : (
              <>
                {entry.name} is <Late>{missing}</Late> below zero in {entry.bin}
              </>
            )}
          </b>
          <br />
          <Faint>
            <Link to={where}>{entry.source}</Link> · “{entry.reason}” · {entry.person}, <When at={entry.at} />
          </Faint>
        </span>
      </Cell>
      {missing !== null && entry.binId !== null && (
        <>
          <Row $wrap>
            {entry.order && (
              <LinkButton look="go" to={`/buying/orders/${entry.orderId}/receive`}>
                Receive {entry.order}
              </LinkButton>
            )}
            <LinkButton
              look={entry.order ? 'plain' : 'go'}
              to={`/stock/receive?item=${entry.itemId}&quantity=${missingText}`}
            >
              Receive {missing}
            </LinkButton>
            <LinkButton look="ghost" to={buyPath([{ itemId: entry.itemId ?? 0, quantity: missingText ?? '0' }])}>
              Buy {missing}
            </LinkButton>
            {entry.elsewhere.map((bin) => (
              <Button
                key={bin.binId}
                busy={settle.isPending}
                onPress={() => settle.mutate({ params, body: { by: 'transfer', fromBinId: bin.binId } })}
              >
                Move {missing} from {bin.bin}
              </Button>
            ))}
          </Row>
          <Row $wrap $end>
            <ReasonChoice
              usedFor="adjustment"
              label="or the books were wrong:"
              hideLabel={false}
              value={reason}
              onChange={setReasonId}
            />
            <Button
              isDisabled={reason === ''}
              busy={settle.isPending}
              onPress={() => settle.mutate({ params, body: { by: 'adjustment', reasonId: Number(reason) } })}
            >
              Adjust by {missing}
            </Button>
            <LinkButton look="ghost" to="/stock/counts">
              Count it
            </LinkButton>
          </Row>
        </>
      )}
      {missing === null &&
        (mayOverride ? (
          <Row $wrap $end>
            <Part $width={320}>
              <Field label="What you did about it" value={remark} onChange={setRemark} />
            </Part>
            <Button
              isDisabled={remark.trim() === ''}
              busy={settle.isPending}
              onPress={() => settle.mutate({ params, body: { by: 'seen', remark: remark.trim() } })}
            >
              Take it off the list
            </Button>
            <LinkButton look="ghost" to={where}>
              Open {entry.source}
            </LinkButton>
          </Row>
        ) : (
          <Muted>An owner takes this off the list.</Muted>
        ))}
      <ProblemBox error={settle.error} />
    </Entry>
  );
}
