import { Choice } from '../ui/Choice.tsx';
import { DayField } from '../ui/DayField.tsx';
import { Field } from '../ui/Field.tsx';
import { Para, Part } from '../ui/space.ts';
import { TextArea } from '../ui/TextArea.tsx';
import { Late, Row } from '../ui/text.ts';
import { today } from '../ui/today.ts';
import type { RecordForm } from '../ui/useRecordForm.ts';
import { CustomerPicker } from './CustomerPicker.tsx';
import { amountFault, percentFault } from './soldLine.ts';
import type { Head, OrderBody, Typed } from './typedOrder.ts';

interface Props {
  readonly form: RecordForm<Typed, OrderBody>;
}
interface AsksProps extends Props {
  /** The customer is chosen: on to what they want. */
  readonly onCustomer: () => void;
}

/** Who an order is for, and when and how it is to leave. */
export function OrderAsks({ form, onCustomer }: AsksProps) {
  const head = form.typed;
  const passed = head.wantedOn !== '' && head.wantedOn < today();
  return (
    <>
      <Row $gap={10} $wrap $end $top={10} $bottom={10}>
        <Part $width={240}>
          <CustomerPicker
            label="For"
            value={head.customerId}
            autoFocus={head.customerId === ''}
            onChange={(next) => {
              form.set({ customerId: next });
              onCustomer();
            }}
            error={form.at('customerId')}
          />
        </Part>
        <Part $width={125}>
          <Field
            label="Their reference"
            value={head.reference}
            onChange={(reference) => form.set({ reference })}
            error={form.at('reference')}
          />
        </Part>
        <Part $width={145}>
          <DayField
            label="Wanted on"
            value={head.wantedOn}
            onChange={(wantedOn) => form.set({ wantedOn })}
            error={form.at('wantedOn')}
          />
        </Part>
        <Part $width={205}>
          <Choice
            label="Delivery"
            value={head.delivery}
            onChange={(delivery) => form.set({ delivery: delivery as Head['delivery'] })}
            options={[
              ['whole', 'in one delivery'],
              ['as-ready', 'each line when ready'],
            ]}
          />
        </Part>
      </Row>
      {passed && (
        <Para $bottom={8}>
          <Late>This date has passed, so the order counts as late.</Late>
        </Para>
      )}
    </>
  );
}

/** What is said of an order beneath its lines: to the customer, to the bench, to whoever brings it. */
export function OrderNotes({ form }: Props) {
  const head = form.typed;
  return (
    <>
      <Row $gap={10} $wrap $top={12} $end>
        <Part $grow $min={200}>
          <Field
            label="Note to the customer, printed"
            value={head.remark}
            onChange={(remark) => form.set({ remark })}
          />
        </Part>
        <Part $grow $min={200}>
          <Field
            label="Note for the bench and for packing"
            value={head.benchNote}
            onChange={(benchNote) => form.set({ benchNote })}
          />
        </Part>
      </Row>
      <Row $gap={10} $wrap $top={12} $end>
        <Part $width={110}>
          <Field
            label="Order discount"
            numeric
            suffix="%"
            value={head.orderDiscount}
            onChange={(orderDiscount) => form.set({ orderDiscount })}
            error={percentFault(head.orderDiscount) ?? form.at('orderDiscount')}
          />
        </Part>
        <Part $width={110}>
          <Field
            label="Freight"
            numeric
            value={head.freight}
            onChange={(freight) => form.set({ freight })}
            error={amountFault(head.freight) ?? form.at('freight')}
          />
        </Part>
        <Part $width={130}>
          <Field
            label="Job tag"
            value={head.jobTag}
            onChange={(jobTag) => form.set({ jobTag })}
            error={form.at('jobTag')}
          />
        </Part>
      </Row>
      <Part $top={10} $max={420}>
        <TextArea
          label="Deliver to, if not to their address"
          value={head.deliverTo}
          onChange={(deliverTo) => form.set({ deliverTo })}
          error={form.at('deliverTo')}
        />
      </Part>
    </>
  );
}
