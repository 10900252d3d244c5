import { Item } from '@yosegi/contract';
import { useNavigate } from 'react-router';
import { problemAt, useCommand, useQuestion } from '../api/client.ts';
import { useCan } from '../api/person.ts';
import { CustomerPicker } from '../orders/index.ts';
import { Button, LinkButton } from '../ui/Button.tsx';
import { Choice } from '../ui/Choice.tsx';
import { DayField } from '../ui/DayField.tsx';
import { Field } from '../ui/Field.tsx';
import { ItemPicker } from '../ui/ItemPicker.tsx';
import { Form, Wide } from '../ui/layout.ts';
import { useNotify } from '../ui/Notice.ts';
import { ProblemBox } from '../ui/Problem.tsx';
import { TextArea } from '../ui/TextArea.tsx';
import { Tick } from '../ui/Tick.tsx';
import { Faint, Row } from '../ui/text.ts';
import { useTyped, useTypedScreen } from '../ui/useTypedScreen.ts';

const SHOWN = ['customerId', 'itemId', 'serial', 'fault', 'accessories', 'wantedOn', 'price', 'jobTag', 'storeId'];

const Goods = Item.pick({ id: true, name: true, code: true, tracking: true });

/** Takes in what a customer brings to be mended. */
export function TakeInForm({ customerId }: { customerId: number | null }) {
  const go = useNavigate();
  const notify = useNotify();
  const maySell = useCan('sell');
  const stores = useQuestion('stores', {}).data ?? [];
  const screen = useTypedScreen(`repair.new.${customerId ?? ''}`);
  const [customer, setCustomer] = useTyped(screen, 'customer', customerId === null ? '' : String(customerId));
  const [item, setItem] = useTyped(screen, 'item', null, Goods.nullable());
  const [serial, setSerial] = useTyped(screen, 'serial', '');
  const [fault, setFault] = useTyped(screen, 'fault', '');
  const [accessories, setAccessories] = useTyped(screen, 'accessories', '');
  const [wantedOn, setWantedOn] = useTyped(screen, 'wantedOn', '');
  const [warranty, setWarranty] = useTyped(screen, 'warranty', false);
  const [price, setPrice] = useTyped(screen, 'price', '');
  const [storeId, setStoreId] = useTyped(screen, 'storeId', '');
  const [jobTag, setJobTag] = useTyped(screen, 'jobTag', '');
  const take = useCommand(
    'takeIn',
    (repair) => {
      notify({ text: `${repair.number} taken in.`, to: [`/print/repair-in/${repair.id}`, 'Print the receipt'] });
      void go(`/build/repairs/${repair.id}`);
    },
    screen.forget,
  );
  const at = (name: string) => problemAt(take.error, name);
  const bySerial = item?.tracking === 'serial';
  const submit = () => {
    if (!item) return;
    take.mutate({
      body: {
        customerId: Number(customer),
        itemId: item.id,
        serial: bySerial ? serial.trim() || null : null,
        storeId: Number(storeId) || null,
        fault: fault.trim(),
        accessories,
        wantedOn: wantedOn || null,
        warranty,
        price: warranty || price.trim() === '' ? null : price.trim(),
        jobTag,
      },
    });
  };
  return (
    <Form
      $top={16}
      $max={640}
      onSubmit={(event) => {
        event.preventDefault();
        submit();
      }}
    >
      <Wide>
        <CustomerPicker
          label="Customer"
          value={customer}
          autoFocus={customer === ''}
          onChange={setCustomer}
          error={at('customerId')}
        />
      </Wide>
      <ItemPicker
        label="Item"
        placeholder="Code, name or scan"
        chosen={item ? `${item.name} · ${item.code}` : ''}
        onPick={(picked, scan) => {
          setItem({ id: picked.id, name: picked.name, code: picked.code, tracking: picked.tracking });
          if (scan?.serial) setSerial(scan.serial);
        }}
        error={at('itemId')}
      />
      {bySerial ? (
        <Field label="Serial number, known or new" value={serial} onChange={setSerial} error={at('serial')} />
      ) : (
        <Faint>{item ? `${item.name} isn’t tracked by serial number.` : ''}</Faint>
      )}
      <Wide>
        <TextArea label="Problem" value={fault} onChange={setFault} error={at('fault')} />
      </Wide>
      <Field
        label="Accessories"
        placeholder="Charger, case…"
        value={accessories}
        onChange={setAccessories}
        error={at('accessories')}
      />
      <DayField label="Wanted by" value={wantedOn} onChange={setWantedOn} error={at('wantedOn')} />
      <Tick isOn={warranty} onChange={setWarranty}>
        Under warranty: no charge
      </Tick>
      {!warranty && (
        <Field label="Price agreed, if there is one" numeric value={price} onChange={setPrice} error={at('price')} />
      )}
      {stores.length > 1 && (
        <Choice
          label="Location"
          value={storeId}
          onChange={setStoreId}
          options={stores.map((store, index): [string, string] => [index === 0 ? '' : String(store.id), store.name])}
          error={at('storeId')}
        />
      )}
      <Field label="Job tag" value={jobTag} onChange={setJobTag} error={at('jobTag')} />
      <Wide>
        <ProblemBox error={take.error} shownAt={SHOWN} />
        <Row>
          <Button
            look="go"
            type="submit"
            isDisabled={!item || customer === '' || fault.trim() === ''}
            busy={take.isPending}
          >
            Take in
          </Button>
          {maySell && (
            <LinkButton look="ghost" to="/orders/customers?new=1">
              A new customer
            </LinkButton>
          )}
        </Row>
      </Wide>
    </Form>
  );
}
