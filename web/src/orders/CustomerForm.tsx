import { CustomerInput, type Saved } from '@yosegi/contract';
import { useNavigate } from 'react-router';
import { useCommand } from '../api/client.ts';
import { Field } from '../ui/Field.tsx';
import { Form, Wide } from '../ui/layout.ts';
import { useNotify } from '../ui/Notice.ts';
import { OwnFields } from '../ui/OwnFields.tsx';
import { SaveProblem } from '../ui/Problem.tsx';
import { RecordButtons } from '../ui/RecordButtons.tsx';
import { TextArea } from '../ui/TextArea.tsx';
import { useRecordForm } from '../ui/useRecordForm.ts';
import type { Customer } from './CustomersPage.tsx';

const readCustomer = (customer: Customer | null) => ({
  code: customer?.code ?? '',
  name: customer?.name ?? '',
  contact: customer?.contact ?? '',
  email: customer?.email ?? '',
  phone: customer?.phone ?? '',
  billing: customer?.billing ?? '',
  delivery: customer?.delivery ?? '',
  discount: customer?.discount ?? '0',
  transportDays: customer?.transportDays === null || customer === null ? '' : String(customer.transportDays),
  returnDays: customer?.returnDays === null || customer === null ? '' : String(customer.returnDays),
  note: customer?.note ?? '',
  fields: (customer?.fields ?? []) as readonly { name: string; value: string }[],
});
type Typed = ReturnType<typeof readCustomer>;

const bodyOf = ({ discount, transportDays, returnDays, fields, ...typed }: Typed) => ({
  ...typed,
  discount: discount.trim() || '0',
  transportDays: transportDays.trim() === '' ? null : Number(transportDays),
  returnDays: returnDays.trim() === '' ? null : Number(returnDays),
  fields: fields.filter(({ name, value }) => name.trim() || value.trim()),
});

const FIELDS: readonly (readonly [Exclude<keyof Typed, 'fields'>, string, ('wide' | 'numeric')?])[] = [
  ['code', 'Code'],
  ['name', 'Name'],
  ['contact', 'Contact person'],
  ['email', 'Email'],
  ['phone', 'Phone'],
  ['discount', 'Discount, %', 'numeric'],
  ['transportDays', 'Delivery days', 'numeric'],
  ['returnDays', 'Return window, days', 'numeric'],
  ['billing', 'Billing address, as printed', 'wide'],
  ['delivery', 'Delivery address, if different', 'wide'],
  ['note', 'Note', 'wide'],
];

const SHOWN = [...FIELDS.map(([name]) => name), 'fields.*.name', 'fields.*.value'];

/** A customer while they are typed. */
export function CustomerForm({ customer, onDone }: { customer: Customer | null; onDone?: () => void }) {
  const go = useNavigate();
  const notify = useNotify();
  const said = ({ body }: { body: { name: string } }) => notify({ text: `${body.name.trim()} saved.` });
  const saved = (one: Saved) => form.saved(one);
  const create = useCommand(
    'createCustomer',
    ({ id }, sent) => {
      said(sent);
      void go(`/orders/customers/${id}`);
    },
    saved,
  );
  const update = useCommand(
    'updateCustomer',
    (_, sent) => {
      said(sent);
      onDone?.();
    },
    saved,
  );
  const command = customer ? update : create;
  const form = useRecordForm({
    record: customer,
    read: readCustomer,
    bodyOf,
    schema: CustomerInput,
    keptAs: customer ? `customer.${customer.id}` : 'customer',
    name: customer ? customer.name : 'the new customer',
    shownAt: SHOWN,
    command,
  });
  return (
    <Form
      $max={640}
      $bottom={16}
      onSubmit={form.submit((body) =>
        customer
          ? update.mutate({ params: { id: customer.id }, body: { ...body, version: form.version } })
          : create.mutate({ body }),
      )}
    >
      {FIELDS.map(([name, label, kind]) => {
        const shared = { label, ...form.field(name) };
        return kind === 'wide' ? (
          <TextArea key={name} {...shared} />
        ) : (
          <Field key={name} {...shared} numeric={kind === 'numeric'} autoFocus={name === 'code'} />
        );
      })}
      <Wide>
        <OwnFields
          rows={form.typed.fields}
          onChange={(fields) => form.set({ fields })}
          at={form.at}
          hint="Anything else to record, like how many hives they have or when to call."
          example="Hives"
        />
      </Wide>
      <Wide>
        <SaveProblem
          command={command}
          over={form}
          theirs={[customer?.code, customer?.name, customer?.email].filter(Boolean).join(', ')}
          shownAt={SHOWN}
        />
      </Wide>
      <RecordButtons isNew={customer === null} busy={command.isPending} form={form} onDone={onDone} />
    </Form>
  );
}
