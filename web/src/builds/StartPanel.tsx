import type { BuildDetail } from '@yosegi/contract';
import { factsOf } from '@yosegi/contract/problems';
import { useState } from 'react';
import { problemOf, useCommand } from '../api/client.ts';
import { useCan } from '../api/person.ts';
import { buyPath } from '../buying/index.ts';
import { coverOf } from '../coverage/index.ts';
import { Button, LinkButton } from '../ui/Button.tsx';
import { useFormat } from '../ui/format.ts';
import { useNotify } from '../ui/Notice.ts';
import { OverrideForm } from '../ui/OverrideForm.tsx';
import { ProblemBox } from '../ui/Problem.tsx';
import { Stack } from '../ui/space.ts';
import { Bullets, Row } from '../ui/text.ts';

/** Sends a build to the bench; when parts are short, what is missing and the ways out. */
export function StartPanel({ build }: { build: BuildDetail }) {
  const format = useFormat();
  const notify = useNotify();
  const mayOverride = useCan('override');
  const [overriding, setOverriding] = useState(false);
  const start = useCommand('startBuild', (after) =>
    notify({ text: `${after.number} started. Its parts are promised.` }),
  );
  const send = (more: { quantity?: string; override?: { reason: string } } = {}) =>
    start.mutate({ params: { id: build.id }, body: { version: build.version, ...more } });
  const problem = problemOf(start.error);
  const facts = factsOf(problem, 'parts-short');
  const short = facts?.lines ?? [];
  const bought = short.filter(({ definitionId }) => definitionId === null);
  const canStart = facts?.canStart ?? build.canStart ?? '0';
  const some = Number(canStart) > 0 && Number(canStart) < Number(build.quantity);
  return (
    <Stack $bottom={14} $gap={10}>
      {!problem && (
        <Row $wrap>
          <Button look="go" busy={start.isPending} onPress={() => send()}>
            Send to bench
          </Button>
          {some && (
            <Button busy={start.isPending} onPress={() => send({ quantity: canStart })}>
              Start {format.number(canStart)} now
            </Button>
          )}
        </Row>
      )}
      <ProblemBox
        error={start.error}
        ways={
          short.length > 0 && (
            <>
              {some && (
                <Button look="go" busy={start.isPending} onPress={() => send({ quantity: canStart })}>
                  Start {format.number(canStart)} now, keep the rest planned
                </Button>
              )}
              {bought.length > 0 && (
                <LinkButton to={buyPath(bought.map(({ itemId, short: quantity }) => ({ itemId, quantity })))}>
                  Buy what’s short
                </LinkButton>
              )}
              {short.slice(0, 3).map((part) => {
                const what = `${format.quantity(part.short, part.unit)} ${part.name}`;
                return part.definitionId === null ? (
                  <LinkButton key={part.itemId} to={`/stock/receive?item=${part.itemId}&quantity=${part.short}`}>
                    Receive {what}
                  </LinkButton>
                ) : (
                  <LinkButton key={part.itemId} to={coverOf([{ itemId: part.itemId, quantity: part.short }])}>
                    Build {what}
                  </LinkButton>
                );
              })}
              {mayOverride && !overriding && <Button onPress={() => setOverriding(true)}>Start anyway…</Button>}
              <Button look="ghost" onPress={() => start.reset()}>
                Cancel
              </Button>
            </>
          )
        }
      >
        {short.length > 0 && (
          <Bullets>
            {short.map((part) => (
              <li key={part.itemId}>
                {format.quantity(part.short, part.unit)} × {part.name}
              </li>
            ))}
          </Bullets>
        )}
      </ProblemBox>
      {overriding && problem && (
        <OverrideForm
          busy={start.isPending}
          action="Start short of parts"
          onOverride={(reason) => send({ override: { reason } })}
        />
      )}
    </Stack>
  );
}
