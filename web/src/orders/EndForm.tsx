import type { Order } from '@yosegi/contract';
import { readForText } from '@yosegi/core/number';
import { Link } from 'react-router';
import { useCommand } from '../api/client.ts';
import { Button } from '../ui/Button.tsx';
import { Field } from '../ui/Field.tsx';
import { Form } from '../ui/layout.ts';
import { useNotify } from '../ui/Notice.ts';
import { ProblemBox } from '../ui/Problem.tsx';
import { Para } from '../ui/space.ts';
import { Muted, Row } from '../ui/text.ts';
import { useTyped, useTypedScreen } from '../ui/useTypedScreen.ts';
import { stillBuilt } from './serving.ts';

/** Cancels, or gives up what is open, with the reason that stays with the order. */
export function EndForm({ order, onDone }: { order: Order; onDone: () => void }) {
  const notify = useNotify();
  const screen = useTypedScreen(`end.${order.id}`);
  const [reason, setReason] = useTyped(screen, 'reason', '');
  const cancel = useCommand(
    'cancelOrder',
    ({ number }) => {
      notify({ text: `${number} cancelled. Its promised stock is free again.` });
      onDone();
    },
    screen.forget,
  );
  const drop = useCommand(
    'dropOrder',
    ({ number }) => {
      notify({ text: `Rest of ${number} given up.` });
      onDone();
    },
    screen.forget,
  );
  const isPart = order.standing === 'partly-shipped';
  const command = isPart ? drop : cancel;
  const open = order.lines.filter((line) => readForText(line.open) > 0n).map((line) => line.id);
  const end = () => {
    const body = { version: order.version, reason: reason.trim() };
    if (isPart) drop.mutate({ params: { id: order.id }, body: { ...body, lineIds: open } });
    else cancel.mutate({ params: { id: order.id }, body });
  };
  return (
    <Form
      $columns={1}
      $top={14}
      $max={520}
      onSubmit={(event) => {
        event.preventDefault();
        if (reason.trim().length >= 3 && !command.isPending) end();
      }}
    >
      <Field
        label={isPart ? 'Reason for giving up the rest' : 'Reason for cancelling'}
        value={reason}
        onChange={setReason}
        autoFocus
      />
      <WhatHappens order={order} />
      <ProblemBox error={command.error} />
      <Row $top={10}>
        <Button type="submit" look="danger" busy={command.isPending} isDisabled={reason.trim().length < 3}>
          {isPart ? 'Give up the rest' : 'Cancel the order'}
        </Button>
        <Button onPress={onDone}>Don’t cancel</Button>
      </Row>
    </Form>
  );
}

/** What becomes of its parcel and its builds. */
function WhatHappens({ order }: { order: Order }) {
  const isPacked = order.lines.some((line) => line.parts.some((part) => readForText(part.packed) > 0n));
  const builds = stillBuilt(order);
  if (!isPacked && builds.length === 0) return null;
  return (
    <Para $top={8}>
      {isPacked && <Muted>Parcel contents go back to the bins they came from. </Muted>}
      {builds.length > 0 && (
        <Muted>
          {builds.map(({ id, number }, index) => (
            <span key={id}>
              {index > 0 && ', '}
              <Link to={`/build/${id}`}>{number}</Link>
            </span>
          ))}{' '}
          {builds.length === 1 ? 'stays as it is and is' : 'stay as they are and are'} for stock then.
        </Muted>
      )}
    </Para>
  );
}
