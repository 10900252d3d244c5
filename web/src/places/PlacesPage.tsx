import type { Store } from '@yosegi/contract';
import { useState } from 'react';
import styled from 'styled-components';
import { problemAt, useCommand, useQuestion } from '../api/client.ts';
import { useCan } from '../api/person.ts';
import { UnitsCard } from '../items/index.ts';
import { Button } from '../ui/Button.tsx';
import { Field } from '../ui/Field.tsx';
import { count, useFormat } from '../ui/format.ts';
import { KeyValue, Page } from '../ui/layout.ts';
import { ProblemBox } from '../ui/Problem.tsx';
import { Answer, EmptyState } from '../ui/States.tsx';
import { Lead, Muted } from '../ui/text.ts';
import { Inline, NewStore } from './NewStore.tsx';
import { StoreForm } from './StoreForm.tsx';

const Cards = styled.div`display: grid; grid-template-columns: repeat(auto-fill, minmax(370px, 1fr)); gap: 16px; margin-top: 16px; align-items: start;`;
const Card = styled.section`background: var(--sheet); border: 1px solid var(--line-soft); border-left: 5px solid var(--walnut); padding: 14px 16px; border-radius: 2px;`;

/** Stores, their bins in walking order, units, and labour rates. */
export function PlacesPage() {
  const stores = useQuestion('stores', {});
  const maySetUp = useCan('set-up');
  return (
    <Page>
      <Answer of={stores}>
        {(rows) => (
          <>
            <h1>
              {rows.length === 0
                ? 'Where do you keep things?'
                : `${count(rows.length, 'store')}, ${count(rows.flatMap((store) => store.bins.filter((bin) => bin.kind !== 'bench')).length, 'bin')}.`}
            </h1>
            <Lead>
              Pick lists follow the walk order, the smallest first.{!maySetUp && ' Only an owner changes places.'}
            </Lead>
            {rows.length === 0 && (
              <EmptyState title="Add your first store">
                A shed, a room, a shop: each has bins, and a bench where picked parts stand.
              </EmptyState>
            )}
            <Cards>
              {rows.map((store) => (
                <Card key={store.id}>{maySetUp ? <StoreForm store={store} /> : <StoreFacts store={store} />}</Card>
              ))}
              {maySetUp && (
                <Card>
                  <h2>Add a store</h2>
                  <NewStore />
                </Card>
              )}
              <Card>
                <h2>Units</h2>
                <UnitsCard maySetUp={maySetUp} />
              </Card>
              <Card>
                <h2>Labour rates</h2>
                <Rates maySetUp={maySetUp} />
              </Card>
            </Cards>
          </>
        )}
      </Answer>
    </Page>
  );
}

function StoreFacts({ store }: { store: Store }) {
  return (
    <>
      <h2>
        {store.name} <Muted>· {store.code}</Muted>
      </h2>
      {store.bins
        .filter(({ kind }) => kind !== 'bench')
        .map((bin) => (
          <KeyValue key={bin.id}>{bin.code}</KeyValue>
        ))}
    </>
  );
}

function Rates({ maySetUp }: { maySetUp: boolean }) {
  const format = useFormat();
  const rates = useQuestion('rates', {});
  const [name, setName] = useState('');
  const [perHour, setPerHour] = useState('');
  const create = useCommand('createRate', () => {
    setName('');
    setPerHour('');
  });
  return (
    <Answer of={rates}>
      {(rows) => (
        <>
          {rows.map((rate) => (
            <KeyValue key={rate.id}>
              <span>{rate.name}</span>
              <b>{format.money(rate.perHour)} an hour</b>
            </KeyValue>
          ))}
          {maySetUp && (
            <Inline
              onSubmit={(event) => {
                event.preventDefault();
                create.mutate({ body: { name, perHour } });
              }}
            >
              <Field label="New rate" value={name} onChange={setName} error={problemAt(create.error, 'name')} />
              <Field
                label="Per hour"
                numeric
                value={perHour}
                onChange={setPerHour}
                error={problemAt(create.error, 'perHour')}
              />
              <Button type="submit" isDisabled={name.trim() === '' || perHour.trim() === ''} busy={create.isPending}>
                Add
              </Button>
            </Inline>
          )}
          <ProblemBox error={create.error} shownAt={['name', 'perHour']} />
        </>
      )}
    </Answer>
  );
}
