import { useRef, useState } from 'react';
import { useNavigationType } from 'react-router';
import { z } from 'zod';
import { useQuestion } from '../api/client.ts';
import { Button } from '../ui/Button.tsx';
import { count } from '../ui/format.ts';
import { Sheet } from '../ui/layout.ts';
import { Para } from '../ui/space.ts';
import { Row } from '../ui/text.ts';
import { forgetKept, keptOf } from '../ui/typed.ts';
import { OrderForm } from './OrderForm.tsx';
import { keptAs } from './typedOrder.ts';

/** What is kept of an order that was begun: as much as tells which one it is. */
const Begun = z.object({ typed: z.object({ customerId: z.string(), lines: z.array(z.unknown()) }) });

/** An order being entered; one that was left half typed is offered first, and never goes on by itself. */
export function NewOrder({ customerId }: { customerId: number | null }) {
  const isAsked = useNavigationType() === 'PUSH';
  const begun = useRef<z.infer<typeof Begun> | null | undefined>(undefined);
  // As it was when this page was come to; a reload is no new order.
  if (begun.current === undefined) begun.current = (isAsked && keptOf(keptAs(null, customerId), Begun)) || null;
  const [isChosen, setChosen] = useState(false);
  if (begun.current === null || isChosen) return <OrderForm order={null} customerId={customerId} />;
  const anew = () => {
    forgetKept(keptAs(null, customerId));
    setChosen(true);
  };
  return <Offer begun={begun.current} onContinue={() => setChosen(true)} onAnew={anew} />;
}

interface OfferProps {
  readonly begun: z.infer<typeof Begun>;
  readonly onContinue: () => void;
  readonly onAnew: () => void;
}

function Offer({ begun: { typed }, onContinue, onAnew }: OfferProps) {
  const id = Number(typed.customerId) || 0;
  const customer = useQuestion('customer', { params: { id } }, { enabled: id > 0 }).data?.name;
  const whose = customer ? `the order for ${customer}` : 'the order';
  return (
    <Sheet>
      <h1>You started an order{customer && ` for ${customer}`}.</h1>
      <Para $top={6} $bottom={14}>
        {typed.lines.length === 0 ? 'No items yet.' : `${count(typed.lines.length, 'item')} so far.`} Nothing is saved
        or promised yet.
      </Para>
      <Row $wrap>
        <Button look="go" autoFocus onPress={onContinue}>
          Continue {whose}
        </Button>
        <Button onPress={onAnew}>Start new order</Button>
      </Row>
    </Sheet>
  );
}
