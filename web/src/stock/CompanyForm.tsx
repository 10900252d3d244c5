import { useContext, useState } from 'react';
import { problemAt, useCommand } from '../api/client.ts';
import { Button } from '../ui/Button.tsx';
import { Field, TextArea } from '../ui/Field.tsx';
import { CompanyContext } from '../ui/format.ts';
import { Form } from '../ui/layout.ts';
import { useNotify } from '../ui/Notice.tsx';
import { ProblemBox } from '../ui/Problem.tsx';

/** What our papers say of us. */
export function CompanyForm() {
  const company = useContext(CompanyContext);
  const notify = useNotify();
  const [name, setName] = useState(company.name);
  const [address, setAddress] = useState(company.address);
  const [email, setEmail] = useState(company.email);
  const [version, setVersion] = useState(company.version);
  const update = useCommand('updateCompany', (saved) => {
    setVersion(saved.version);
    notify({ text: 'Papers say it so from now on.' });
  });
  return (
    <Form
      $columns={1}
      onSubmit={(event) => {
        event.preventDefault();
        update.mutate({ body: { name: name.trim(), address: address.trim(), email: email.trim(), version } });
      }}
    >
      <Field label="Name" value={name} onChange={setName} error={problemAt(update.error, 'name')} />
      <TextArea
        label="Address, as orders print it"
        value={address}
        onChange={setAddress}
        error={problemAt(update.error, 'address')}
      />
      <Field label="Mail address" value={email} onChange={setEmail} error={problemAt(update.error, 'email')} />
      <ProblemBox error={update.error} shownAt={['name', 'email', 'address']} />
      <div>
        <Button type="submit" busy={update.isPending} isDisabled={!name.trim()}>
          Save
        </Button>
      </div>
    </Form>
  );
}
