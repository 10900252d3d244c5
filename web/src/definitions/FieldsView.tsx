import { api, type Definition } from '@yosegi/contract';
import { useCommand } from '../api/client.ts';
import { Form, Wide } from '../ui/layout.ts';
import { useNotify } from '../ui/Notice.ts';
import { OwnFields, type TypedField } from '../ui/OwnFields.tsx';
import { SaveProblem } from '../ui/Problem.tsx';
import { RecordButtons } from '../ui/RecordButtons.tsx';
import { useRecordForm } from '../ui/useRecordForm.ts';

const SHOWN = ['fields.*.name', 'fields.*.value'];

/** Whatever else is kept beside a parts list that is never built: whose it is, its serial number, its warranty. */
export function FieldsView({ definition }: { definition: Definition }) {
  const notify = useNotify();
  const save = useCommand(
    'setDefinitionFields',
    () => notify({ text: `Custom fields of ${definition.item.name} saved.` }),
    (saved) => form.saved(saved),
  );
  const form = useRecordForm({
    record: definition,
    read: (record) => ({ fields: (record ?? definition).fields as readonly TypedField[] }),
    bodyOf: ({ fields }) => ({ fields: fields.filter(({ name, value }) => name.trim() || value.trim()) }),
    schema: api.setDefinitionFields.body.omit({ version: true }),
    keptAs: `fields.${definition.id}`,
    name: `custom fields of ${definition.item.name}`,
    shownAt: SHOWN,
    command: save,
  });
  return (
    <Form
      $max={640}
      $top={12}
      onSubmit={form.submit((body) =>
        save.mutate({ params: { id: definition.id }, body: { ...body, version: form.version } }),
      )}
    >
      <Wide>
        <OwnFields
          rows={form.typed.fields}
          onChange={(fields) => form.set({ fields })}
          at={form.at}
          hint="Anything else to record, like the customer, serial number or warranty."
          example="Owner"
        />
      </Wide>
      <Wide>
        <SaveProblem
          command={save}
          over={form}
          theirs={definition.fields.map(({ name, value }) => `${name}: ${value}`).join(', ')}
          shownAt={SHOWN}
        />
      </Wide>
      <RecordButtons isNew={false} busy={save.isPending} form={form} />
    </Form>
  );
}
