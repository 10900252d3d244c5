import type { Company } from '@yosegi/contract';
import { useContext } from 'react';
import { problemAt, useCommand } from '../api/client.ts';
import { Button } from '../ui/Button.tsx';
import { Field } from '../ui/Field.tsx';
import { CompanyContext } from '../ui/format.ts';
import { Form } from '../ui/layout.ts';
import { useNotify } from '../ui/Notice.tsx';
import { SaveProblem } from '../ui/Problem.tsx';
import { TextArea } from '../ui/TextArea.tsx';
import { useTypedOver } from '../ui/useTypedOver.ts';

const readCompany = (company: Company | null) => ({
  name: company?.name ?? '',
  address: company?.address ?? '',
  email: company?.email ?? '',
});

/** What our papers say of us. */
export function CompanyForm() {
  const company = useContext(CompanyContext);
  const notify = useNotify();
  const over = useTypedOver(company, readCompany);
  const { name, address, email } = over.typed;
  const update = useCommand('updateCompany', (saved) => {
    over.saved(saved);
    notify({ text: 'Papers say it so from now on.' });
  });
  return (
    <Form
      $columns={1}
      onSubmit={(event) => {
        event.preventDefault();
        update.mutate({
          body: { name: name.trim(), address: address.trim(), email: email.trim(), version: over.version },
        });
      }}
    >
      <Field
        label="Name"
        value={name}
        onChange={(next) => over.set({ name: next })}
        error={problemAt(update.error, 'name')}
      />
      <TextArea
        label="Address, as orders print it"
        value={address}
        onChange={(next) => over.set({ address: next })}
        error={problemAt(update.error, 'address')}
      />
      <Field
        label="Mail address"
        value={email}
        onChange={(next) => over.set({ email: next })}
        error={problemAt(update.error, 'email')}
      />
      <SaveProblem
        command={update}
        over={over}
        theirs={[company.name, company.address, company.email].filter(Boolean).join(', ')}
        shownAt={['name', 'email', 'address']}
      />
      <div>
        <Button type="submit" busy={update.isPending} isDisabled={!name.trim()}>
          Save
        </Button>
      </div>
    </Form>
  );
}
