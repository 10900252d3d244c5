import { api, type Company } from '@yosegi/contract';
import { useContext } from 'react';
import { useCommand } from '../api/client.ts';
import { Button } from '../ui/Button.tsx';
import { Field } from '../ui/Field.tsx';
import { CompanyContext } from '../ui/format.ts';
import { Form } from '../ui/layout.ts';
import { useNotify } from '../ui/Notice.tsx';
import { SaveProblem } from '../ui/Problem.tsx';
import { TextArea } from '../ui/TextArea.tsx';
import { useRecordForm } from '../ui/useRecordForm.ts';

const readCompany = (company: Company | null) => ({
  name: company?.name ?? '',
  address: company?.address ?? '',
  email: company?.email ?? '',
});

const ASKED = api.updateCompany.body.omit({ version: true });
const SHOWN = ['name', 'email', 'address'];
const bodyOf = (typed: ReturnType<typeof readCompany>) => typed;

/** What our papers say of us. */
export function CompanyForm() {
  const company = useContext(CompanyContext);
  const notify = useNotify();
  const update = useCommand('updateCompany', (saved) => {
    form.saved(saved);
    notify({ text: 'Papers say it so from now on.' });
  });
  const form = useRecordForm({
    record: company,
    read: readCompany,
    bodyOf,
    schema: ASKED,
    keptAs: 'company',
    name: 'the company',
    shownAt: SHOWN,
    command: update,
  });
  return (
    <Form $columns={1} onSubmit={form.submit((body) => update.mutate({ body: { ...body, version: form.version } }))}>
      <Field label="Name" {...form.field('name')} />
      <TextArea label="Address, as orders print it" {...form.field('address')} />
      <Field label="Mail address" {...form.field('email')} />
      <SaveProblem
        command={update}
        over={form}
        theirs={[company.name, company.address, company.email].filter(Boolean).join(', ')}
        shownAt={SHOWN}
      />
      <div>
        <Button type="submit" busy={update.isPending}>
          Save
        </Button>
      </div>
    </Form>
  );
}
