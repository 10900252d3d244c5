import type { Store } from '@yosegi/contract';
import { isForGoods } from '@yosegi/core/places';
import styled from 'styled-components';
import { useQuestion } from '../api/client.ts';
import { useCan } from '../api/person.ts';
import { UnitsCard } from '../items/index.ts';
import { count } from '../ui/format.ts';
import { KeyValue, Page } from '../ui/layout.ts';
import { Answer, EmptyState } from '../ui/States.tsx';
import { Lead, Muted } from '../ui/text.ts';
import { NewStore } from './NewStore.tsx';
import { Rates } from './Rates.tsx';
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
                : `${count(rows.length, 'store')}, ${count(rows.flatMap((store) => store.bins.filter((bin) => isForGoods(bin.kind))).length, 'bin')}.`}
            </h1>
            <Lead>
              Pick lists follow the picking order, smallest first.{!maySetUp && ' Only an owner can change places.'}
            </Lead>
            {rows.length === 0 && (
              <EmptyState title="Add your first store">
                A shed, a room or a shop. Each has bins, and a bench for picked parts.
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
        .filter(({ kind }) => isForGoods(kind))
        .map((bin) => (
          <KeyValue key={bin.id}>{bin.code}</KeyValue>
        ))}
    </>
  );
}
