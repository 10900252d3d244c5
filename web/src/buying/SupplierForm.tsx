import { type Supplier, SupplierInput } from '@yosegi/contract';
import { useNavigate } from 'react-router';
import { useCommand } from '../api/client.ts';
import { useCan } from '../api/person.ts';
import { Field } from '../ui/Field.tsx';
import { Form, Wide } from '../ui/layout.ts';
import { useNotify } from '../ui/Notice.ts';
import { SaveProblem } from '../ui/Problem.tsx';
import { RecordButtons } from '../ui/RecordButtons.tsx';
import { Part } from '../ui/space.ts';
import { TextArea } from '../ui/TextArea.tsx';
import { Tick } from '../ui/Tick.tsx';
import { useRecordForm } from '../ui/useRecordForm.ts';
import { Weekdays } from '../ui/Weekdays.tsx';

const readSupplier = (supplier: Supplier | null) => ({
  code: supplier?.code ?? '',
  name: supplier?.name ?? '',
  email: supplier?.email ?? '',
  address: supplier?.address ?? '',
  learnLeads: supplier?.learnLeads ?? true,
  deliveryDays: (supplier?.deliveryDays ?? [1, 2, 3, 4, 5, 6, 7]) as readonly number[],
});
type Typed = ReturnType<typeof readSupplier>;
const SHOWN = ['code', 'name', 'email', 'address', 'deliveryDays'];
const bodyOf = (typed: Typed) => ({ ...typed, deliveryDays: [...typed.deliveryDays] });

/** A supplier while they are typed. */
export function SupplierForm({ supplier, onDone }: { supplier: Supplier | null; onDone?: () => void }) {
  const go = useNavigate();
  const notify = useNotify();
  const mayValue = useCan('value');
  const done = (saved: Supplier) => {
    notify({ text: `${saved.name} saved.` });
    onDone?.();
    if (!supplier) void go(`/buying/suppliers/${saved.id}`);
  };
  const saved = (one: Supplier) => form.saved(one);
  const create = useCommand('createSupplier', done, saved);
  const update = useCommand('updateSupplier', done, saved);
  const command = supplier ? update : create;
  const form = useRecordForm({
    record: supplier,
    read: readSupplier,
    bodyOf,
    schema: SupplierInput,
    keptAs: supplier ? `supplier.${supplier.id}` : 'supplier',
    name: supplier ? supplier.name : 'the new supplier',
    shownAt: SHOWN,
    command,
  });
  return (
    <Form
      $max={640}
      $bottom={16}
      onSubmit={form.submit((body) =>
        supplier
          ? update.mutate({ params: { id: supplier.id }, body: { ...body, version: form.version } })
          : create.mutate({ body }),
      )}
    >
      <Field label="Code" {...form.field('code')} autoFocus />
      <Field label="Name" {...form.field('name')} />
      <Field label="Email for orders" {...form.field('email')} />
      <TextArea label="Address, as printed" {...form.field('address')} />
      <Wide>
        <Weekdays
          legend="Delivery days"
          value={form.typed.deliveryDays}
          onChange={(deliveryDays) => form.set({ deliveryDays })}
          isMissing={form.at('deliveryDays') !== undefined}
        />
        <Part $top={8}>
          <Tick isOn={form.typed.learnLeads} isDisabled={!mayValue} onChange={(learnLeads) => form.set({ learnLeads })}>
            Use the actual lead time where it is longer than the stated one
          </Tick>
        </Part>
      </Wide>
      <Wide>
        <SaveProblem
          command={command}
          over={form}
          theirs={[supplier?.code, supplier?.name, supplier?.email, supplier?.address].filter(Boolean).join(', ')}
          shownAt={SHOWN}
        />
      </Wide>
      <RecordButtons isNew={supplier === null} busy={command.isPending} form={form} onDone={onDone} />
    </Form>
  );
}
