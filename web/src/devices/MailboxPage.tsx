import type { Mail } from '@yosegi/contract';
import { Link } from 'react-router';
import styled from 'styled-components';
import { useCommand, usePages, useQuestion } from '../api/client.ts';
import { OrderChip } from '../buying/index.ts';
import { Button } from '../ui/Button.tsx';
import { Field } from '../ui/Field.tsx';
import { Sheet, Strip, StripHead, StripList, Three } from '../ui/layout.ts';
import { More } from '../ui/More.tsx';
import { useNotify } from '../ui/Notice.ts';
import { ProblemBox } from '../ui/Problem.tsx';
import { Answer, EmptyState } from '../ui/States.tsx';
import { StripButton } from '../ui/StripItem.tsx';
import { Part, Stack } from '../ui/space.ts';
import { Faint, Lead, Muted, Row } from '../ui/text.ts';
import { useAddress, useSearchChange } from '../ui/useAddress.ts';
import { useTyped, useTypedScreen } from '../ui/useTypedScreen.ts';
import { When } from '../ui/When.tsx';

const Text = styled.pre`
  background: var(--paper); border: 1px solid var(--line); border-radius: 3px; padding: 12px 14px; font-size: 12px; line-height: 1.4; overflow: auto; max-height: 46vh;
  white-space: pre-wrap; overflow-wrap: anywhere;
`;

/** Stands in for the mail of all suppliers: what we sent, and their answers, which are given here on request. */
export function MailboxPage() {
  const change = useSearchChange();
  const [chosen] = useAddress('mail');
  const [order] = useAddress('order');
  const pages = usePages('mail', { limit: 60 });
  const rows = pages.data?.pages.flatMap((page) => page.rows) ?? [];
  const shown = rows.find((row) => (chosen ? row.id === Number(chosen) : order ? row.orderId === Number(order) : true));
  const id = shown?.id ?? (Number(chosen) || undefined);
  return (
    <Three $margin={false}>
      <Strip {...(id ? {} : { 'data-alone': true })}>
        <StripHead>
          <b>Mail with suppliers</b>
          <Muted>A stand-in that reads our orders and answers as suppliers do.</Muted>
        </StripHead>
        <StripList aria-label="Mail">
          <Answer of={pages}>
            {() => (
              <>
                {rows.map((row) => (
                  <StripButton
                    key={row.id}
                    type="button"
                    aria-current={row.id === id || undefined}
                    onClick={() => change({ mail: String(row.id), order: null })}
                  >
                    <b>
                      {row.direction === 'out' ? '→' : '←'} {row.supplier}
                    </b>
                    <br />
                    <small>
                      {row.subject} · <When at={row.at} />
                    </small>
                  </StripButton>
                ))}
                <More of={pages}>Show older</More>
              </>
            )}
          </Answer>
        </StripList>
      </Strip>
      <Sheet>
        {id ? (
          <One key={id} id={id} />
        ) : (
          <EmptyState isPage title="No mail yet" action={<Link to="/buying/orders">See the orders</Link>}>
            Send an order by email. It arrives here as a UBL order, which its supplier can confirm, delay or deliver.
          </EmptyState>
        )}
      </Sheet>
    </Three>
  );
}

function One({ id }: { id: number }) {
  const mail = useQuestion('mailContent', { params: { id } });
  return (
    <Answer of={mail}>
      {(data) => (
        <>
          <h1>{data.subject}</h1>
          <Lead>
            {data.direction === 'out' ? `From us to ${data.supplier}` : `From ${data.supplier} to us`},{' '}
            <When at={data.at} />
            {data.received && ` · received with ${data.received}`}
          </Lead>
          <Play mail={data} />
          <Text tabIndex={0} aria-label="The message as it was sent">
            {data.content}
          </Text>
        </>
      )}
    </Answer>
  );
}

const answers = [
  ['confirm', 'Confirm as ordered'],
  ['delay', 'Confirm, but later'],
  ['deliver-part', 'Send half'],
  ['deliver', 'Send everything'],
] as const;

/** Plays the supplier of the order that a message is about. */
function Play({ mail }: { mail: Mail }) {
  const notify = useNotify();
  const order = useQuestion('purchase', { params: { id: mail.orderId } }).data;
  const screen = useTypedScreen('mailbox');
  const [days, setDays] = useTyped(screen, 'days', '7');
  const answer = useCommand('answerAsSupplier', ({ id, number }) =>
    notify({
      text: `${order?.supplier ?? 'The supplier'} has answered ${number}.`,
      to: [`/buying/orders/${id}`, 'See the order'],
    }),
  );
  if (!order) return null;
  const later = Math.trunc(Number(days));
  return (
    <Stack $top={14} $bottom={14} $gap={10}>
      <Row $wrap>
        <Link to={`/buying/orders/${order.id}`}>
          <b>{order.number}</b>
        </Link>
        <OrderChip order={order} />
        {order.announced && <Faint>delivery to receive</Faint>}
      </Row>
      {order.state === 'closed' || order.state === 'cancelled' ? (
        <Muted>This order is closed, so there is nothing to answer.</Muted>
      ) : (
        <Row $wrap $end>
          {answers.map(([key, title]) => (
            <Button
              key={key}
              busy={answer.isPending && answer.variables?.body.answer === key}
              isDisabled={key === 'delay' && !(later >= 1 && later <= 365)}
              onPress={() =>
                answer.mutate({
                  params: { id: order.id },
                  body: { answer: key, ...(key === 'delay' ? { days: later } : {}) },
                })
              }
            >
              {title}
            </Button>
          ))}
          <Part $width={120}>
            <Field label="Days later" numeric value={days} onChange={setDays} />
          </Part>
        </Row>
      )}
      <ProblemBox error={answer.error} />
    </Stack>
  );
}
