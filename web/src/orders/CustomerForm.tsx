import { useState } from 'react';
import { useNavigate } from 'react-router';
import { problemAt, useCommand } from '../api/client.ts';
import { Fields } from '../items/index.ts';
import { Button } from '../ui/Button.tsx';
import { Field } from '../ui/Field.tsx';
import { Form, Wide } from '../ui/layout.ts';
import { useNotify } from '../ui/Notice.tsx';
import { SaveProblem } from '../ui/Problem.tsx';
import { TextArea } from '../ui/TextArea.tsx';
import { Row } from '../ui/text.ts';
import { useTypedOver } from '../ui/useTypedOver.ts';
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
  note: customer?.note ?? '',
});
type Typed = ReturnType<typeof readCustomer>;

const FIELDS: readonly (readonly [keyof Typed, string, ('wide' | 'numeric')?])[] = [
  ['code', 'Code'],
  ['name', 'Name'],
  ['contact', 'Whom to ask for'],
  ['email', 'Mail address'],
  ['phone', 'Phone'],
  ['discount', 'Discount, %', 'numeric'],
  ['transportDays', 'Days on the way', 'numeric'],
  ['billing', 'Billing address, as printed', 'wide'],
  ['delivery', 'Delivery address, where it differs', 'wide'],
  ['note', 'Note', 'wide'],
];

/** A customer while they are typed. */
export function CustomerForm({ customer, onDone }: { customer: Customer | null; onDone?: () => void }) {
  const go = useNavigate();
  const notify = useNotify();
  const over = useTypedOver(customer, readCustomer);
  const { typed } = over;
  const [fields, setFields] = useState<readonly { name: string; value: string }[]>(customer?.fields ?? []);
  const said = () => notify({ text: `${typed.name.trim()} is saved.` });
  const create = useCommand('createCustomer', ({ id }) => {
    said();
    void go(`/orders/customers/${id}`);
  });
  const update = useCommand(
    'updateCustomer',
    () => {
      said();
      onDone?.();
    },
    over.saved,
  );
  const command = customer ? update : create;
  const submit = () => {
    const body = {
      ...typed,
      discount: typed.discount.trim() || '0',
      transportDays: typed.transportDays.trim() === '' ? null : Math.trunc(Number(typed.transportDays)),
      fields: fields.filter(({ name, value }) => name.trim() || value.trim()),
    };
    if (customer) update.mutate({ params: { id: customer.id }, body: { ...body, version: over.version } });
    else create.mutate({ body });
  };
  return (
    <Form
      style={{ maxWidth: 640, marginBottom: 16 }}
      onSubmit={(event) => {
        event.preventDefault();
        if (typed.code.trim() && typed.name.trim() && !command.isPending) submit();
      }}
    >
      {FIELDS.map(([name, label, kind]) => {
        const shared = {
          label,
          value: typed[name],
          onChange: (text: string) => over.set({ [name]: text } as Partial<Typed>),
          error: problemAt(command.error, name),
        };
        return kind === 'wide' ? (
          <TextArea key={name} {...shared} />
        ) : (
          <Field key={name} {...shared} numeric={kind === 'numeric'} autoFocus={name === 'code'} />
        );
      })}
      <Wide>
        <Fields
          rows={fields}
          onChange={setFields}
          at={(name) => problemAt(command.error, name)}
          hint="Anything else worth keeping: how many hives, who rings first."
          example="Hives"
        />
      </Wide>
      <Wide>
        <SaveProblem
          command={command}
          over={over}
          theirs={[customer?.code, customer?.name, customer?.email].filter(Boolean).join(', ')}
          shownAt={[...FIELDS.map(([name]) => name), 'fields.*.name', 'fields.*.value']}
        />
      </Wide>
      <Row>
        <Button type="submit" look="go" busy={command.isPending} isDisabled={!typed.code.trim() || !typed.name.trim()}>
          {customer ? 'Save' : 'Add'}
        </Button>
        {onDone && <Button onPress={onDone}>Leave it</Button>}
      </Row>
    </Form>
  );
}
