import type { Supplier } from '@yosegi/contract';
import { useState } from 'react';
import { Link } from 'react-router';
import styled from 'styled-components';
import { problemAt, problemOf, useCommand, useQuestion } from '../api/client.ts';
import { Button } from '../ui/Button.tsx';
import { Field } from '../ui/Field.tsx';
import { count } from '../ui/format.ts';
import { Scroll } from '../ui/layout.ts';
import { useNotify } from '../ui/Notice.tsx';
import { ProblemBox } from '../ui/Problem.tsx';
import { Answer } from '../ui/States.tsx';
import { Lead } from '../ui/text.ts';

const Line = styled.form`display: grid; grid-template-columns: 130px minmax(0, 340px) 150px auto; gap: 10px; align-items: start; padding: 6px 0; max-width: 800px;`;

/** Who sells us things. Their prices stand with each item; many at once come in as a file. */
export function SuppliersPage() {
  const suppliers = useQuestion('suppliers', {});
  return (
    <Scroll style={{ padding: '18px 24px 60px', background: 'var(--sheet)' }}>
      <Answer of={suppliers}>
        {(rows) => (
          <>
            <h1>{rows.length === 0 ? 'Who sells you things?' : `${count(rows.length, 'supplier')}.`}</h1>
            <Lead>
              Their prices, packs and lead times stand with each item. Many at once come in under{' '}
              <Link to="/stock/in-out">In and out</Link>.
            </Lead>
            <div style={{ marginTop: 14 }}>
              {rows.map((supplier) => (
                <SupplierForm key={`${supplier.id}:${supplier.version}`} supplier={supplier} />
              ))}
              <h2 style={{ marginTop: 18 }}>Add a supplier</h2>
              <SupplierForm key={rows.length} supplier={null} />
            </div>
          </>
        )}
      </Answer>
    </Scroll>
  );
}

function SupplierForm({ supplier }: { supplier: Supplier | null }) {
  const notify = useNotify();
  const [code, setCode] = useState(supplier?.code ?? '');
  const [name, setName] = useState(supplier?.name ?? '');
  const done = (saved: Supplier) => notify({ text: `${saved.name} is saved.` });
  const create = useCommand('createSupplier', done);
  const update = useCommand('updateSupplier', done);
  const command = supplier ? update : create;
  const problem = problemOf(command.error);
  const dirty = code !== (supplier?.code ?? '') || name !== (supplier?.name ?? '');
  return (
    <Line
      onSubmit={(event) => {
        event.preventDefault();
        const body = { code: code.trim(), name: name.trim() };
        if (supplier) update.mutate({ params: { id: supplier.id }, body: { ...body, version: supplier.version } });
        else create.mutate({ body });
      }}
    >
      <Field
        label={supplier ? `Code of ${supplier.name}` : 'Code'}
        hideLabel={supplier !== null}
        value={code}
        onChange={setCode}
        error={problemAt(command.error, 'code')}
      />
      <Field
        label={supplier ? `Name of ${supplier.name}` : 'Name'}
        hideLabel={supplier !== null}
        value={name}
        onChange={setName}
        error={problemAt(command.error, 'name')}
      />
      {supplier ? (
        <Link to={`/stock/items?supplier=${supplier.id}`} style={{ alignSelf: 'center' }}>
          {count(supplier.items, 'item')}
        </Link>
      ) : (
        <span />
      )}
      {(dirty || !supplier) && (
        <Button
          type="submit"
          busy={command.isPending}
          isDisabled={!code.trim() || !name.trim()}
          style={{ alignSelf: 'end' }}
        >
          {supplier ? 'Save' : 'Add'}
        </Button>
      )}
      {problem && !problem.field && <ProblemBox error={command.error} />}
    </Line>
  );
}
