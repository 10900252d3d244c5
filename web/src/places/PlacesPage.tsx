import type { Bin, Store } from '@yosegi/contract';
import { useState } from 'react';
import styled from 'styled-components';
import { problemAt, useCommand, useQuestion } from '../api/client.ts';
import { LabelButton } from '../devices/index.ts';
import { UnitsCard } from '../items/index.ts';
import { CompanyForm } from '../people/index.ts';
import { useCan } from '../shell/person.ts';
import { Button, LinkButton } from '../ui/Button.tsx';
import { Choice } from '../ui/Choice.tsx';
import { Field } from '../ui/Field.tsx';
import { count, useFormat } from '../ui/format.ts';
import { KeyValue, Scroll } from '../ui/layout.ts';
import { useNotify } from '../ui/Notice.tsx';
import { ProblemBox, SaveProblem } from '../ui/Problem.tsx';
import { Answer, EmptyState } from '../ui/States.tsx';
import { Lead, Muted } from '../ui/text.ts';
import { useTypedOver } from '../ui/useTypedOver.ts';

const Cards = styled.div`display: grid; grid-template-columns: repeat(auto-fill, minmax(370px, 1fr)); gap: 16px; margin-top: 16px; align-items: start;`;
const Card = styled.section`background: var(--sheet); border: 1px solid var(--line-soft); border-left: 5px solid var(--walnut); padding: 14px 16px; border-radius: 2px;`;
const Inline = styled.form`display: grid; grid-template-columns: 1fr 1fr auto; gap: 8px; align-items: end; margin-top: 10px;`;
const BinRow = styled.form`display: grid; grid-template-columns: 1fr 62px 112px auto; gap: 6px; align-items: start; padding: 3px 0;`;

/** Stores, their bins in walking order, the company, units, and labour rates. */
export function PlacesPage() {
  const stores = useQuestion('stores', {});
  const maySetUp = useCan('set-up');
  return (
    <Scroll style={{ padding: '18px 24px 60px' }}>
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
                <StoreCard key={store.id} store={store} maySetUp={maySetUp} />
              ))}
              {maySetUp && (
                <Card>
                  <h2>Add a store</h2>
                  <NewStore />
                </Card>
              )}
              {maySetUp && (
                <Card>
                  <h2>The company</h2>
                  <CompanyForm />
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
    </Scroll>
  );
}

function StoreCard({ store, maySetUp }: { store: Store; maySetUp: boolean }) {
  const shelves = store.bins.filter((bin) => bin.kind !== 'bench');
  const last = shelves.at(-1)?.walkOrder ?? 0;
  return (
    <Card>
      <StoreName store={store} maySetUp={maySetUp} />
      {shelves.map((bin) =>
        maySetUp ? <BinForm key={bin.id} bin={bin} /> : <KeyValue key={bin.id}>{bin.code}</KeyValue>,
      )}
      {shelves.length > 0 && (
        <LabelButton ask={{ storeId: store.id }} look="ghost">
          To the label printer
        </LabelButton>
      )}
      {shelves.length > 0 && (
        <LinkButton look="ghost" to={`/print/bins/${store.id}`}>
          Bin labels on a sheet
        </LinkButton>
      )}
      <KeyValue>
        <span>Bench</span>
        <Muted>picked parts stand here</Muted>
      </KeyValue>
      {maySetUp && <NewBin key={last} storeId={store.id} walkOrder={last + 10} />}
    </Card>
  );
}

const readStore = (store: Store | null) => ({ code: store?.code ?? '', name: store?.name ?? '' });

function StoreName({ store, maySetUp }: { store: Store; maySetUp: boolean }) {
  const notify = useNotify();
  const [editing, setEditing] = useState(false);
  const over = useTypedOver(store, readStore);
  const { code, name } = over.typed;
  const update = useCommand('updateStore', (saved) => {
    notify({ text: `${saved.name} is saved.` });
    over.saved(saved);
    setEditing(false);
  });
  if (!editing) {
    return (
      <KeyValue>
        <h2>
          {store.name} <Muted>· {store.code}</Muted>
        </h2>
        {maySetUp && (
          <Button look="ghost" aria-label={`Rename ${store.name}`} onPress={() => setEditing(true)}>
            Rename
          </Button>
        )}
      </KeyValue>
    );
  }
  return (
    <Inline
      onSubmit={(event) => {
        event.preventDefault();
        update.mutate({ params: { id: store.id }, body: { code, name, version: over.version } });
      }}
    >
      <Field
        label="Code"
        value={code}
        onChange={(next) => over.set({ code: next })}
        error={problemAt(update.error, 'code')}
      />
      <Field
        label="Name"
        value={name}
        onChange={(next) => over.set({ name: next })}
        error={problemAt(update.error, 'name')}
      />
      <Button type="submit" busy={update.isPending}>
        Save
      </Button>
      <SaveProblem command={update} over={over} theirs={`${store.name} · ${store.code}`} shownAt={['code', 'name']} />
    </Inline>
  );
}

const readBin = (bin: Bin | null) => ({
  code: bin?.code ?? '',
  walk: String(bin?.walkOrder ?? ''),
  kind: bin?.kind === 'quarantine' ? bin.kind : ('shelf' as const),
});

function BinForm({ bin }: { bin: Bin }) {
  const notify = useNotify();
  const over = useTypedOver(bin, readBin);
  const { code, walk, kind } = over.typed;
  const update = useCommand('updateBin', (saved) => {
    notify({ text: `Bin ${saved.code} is saved.` });
    over.saved(saved);
  });
  return (
    <BinRow
      onSubmit={(event) => {
        event.preventDefault();
        update.mutate({ params: { id: bin.id }, body: { code, walkOrder: Number(walk), kind, version: over.version } });
      }}
    >
      <Field
        label={`Code of bin ${bin.code}`}
        hideLabel
        value={code}
        onChange={(next) => over.set({ code: next })}
        error={problemAt(update.error, 'code')}
      />
      <Field
        label={`Walk order of bin ${bin.code}`}
        hideLabel
        numeric
        value={walk}
        onChange={(next) => over.set({ walk: next })}
        error={problemAt(update.error, 'walkOrder')}
      />
      <Choice
        label={`Use of bin ${bin.code}`}
        hideLabel
        value={kind}
        onChange={(next) => over.set({ kind: next as typeof kind })}
        options={[
          ['shelf', 'shelf'],
          ['quarantine', 'quarantine'],
        ]}
      />
      <Button type="submit" look="ghost" isDisabled={!over.dirty} busy={update.isPending}>
        Save
      </Button>
      <SaveProblem
        command={update}
        over={over}
        theirs={`${bin.code}, walk order ${bin.walkOrder}, ${bin.kind}`}
        shownAt={['code', 'walkOrder']}
      />
    </BinRow>
  );
}

function NewBin({ storeId, walkOrder }: { storeId: number; walkOrder: number }) {
  const [code, setCode] = useState('');
  const [walk, setWalk] = useState(String(walkOrder));
  const create = useCommand('createBin');
  return (
    <Inline
      onSubmit={(event) => {
        event.preventDefault();
        create.mutate({ params: { id: storeId }, body: { code, walkOrder: Number(walk) } });
      }}
    >
      <Field label="New bin" value={code} onChange={setCode} error={problemAt(create.error, 'code')} />
      <Field label="Walk order" numeric value={walk} onChange={setWalk} error={problemAt(create.error, 'walkOrder')} />
      <Button type="submit" isDisabled={code.trim() === ''} busy={create.isPending}>
        Add
      </Button>
      <ProblemBox error={create.error} shownAt={['code', 'walkOrder']} />
    </Inline>
  );
}

function NewStore() {
  const notify = useNotify();
  const [code, setCode] = useState('');
  const [name, setName] = useState('');
  const create = useCommand('createStore', (store) => {
    notify({ text: `${store.name} is added. Give it bins.` });
    setCode('');
    setName('');
  });
  return (
    <Inline
      onSubmit={(event) => {
        event.preventDefault();
        create.mutate({ body: { code, name } });
      }}
    >
      <Field label="Code" value={code} onChange={setCode} error={problemAt(create.error, 'code')} />
      <Field label="Name" value={name} onChange={setName} error={problemAt(create.error, 'name')} />
      <Button type="submit" isDisabled={code.trim() === '' || name.trim() === ''} busy={create.isPending}>
        Add
      </Button>
      <ProblemBox error={create.error} shownAt={['code', 'name']} />
    </Inline>
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
