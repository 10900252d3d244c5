import { useState } from 'react';
import { useNavigate, useParams } from 'react-router';
import { useCommand, useQuestion } from '../api/client.ts';
import { Button } from '../ui/Button.tsx';
import { Field } from '../ui/Field.tsx';
import { useFormat } from '../ui/format.ts';
import { ItemPicker } from '../ui/ItemPicker.tsx';
import { Sheet, Strip, StripHead, StripList, Three } from '../ui/layout.ts';
import { ProblemBox } from '../ui/Problem.tsx';
import { Answer, EmptyState } from '../ui/States.tsx';
import { StripItem, StripSection } from '../ui/StripItem.tsx';
import { Muted } from '../ui/text.ts';
import { useAddress } from '../ui/useAddress.ts';
import { DefinitionSheet } from './DefinitionSheet.tsx';

/** Bills of materials: the list, one of them, and what it is made of. */
export function DefinePage() {
  const { id } = useParams();
  const [q, setQ] = useAddress('q');
  const list = useQuestion('definitions', { query: { q, limit: 500 } }, { keep: true });
  return (
    <Three $margin={false}>
      <Strip>
        <StripHead>
          <Field label="Find a product" hideLabel placeholder="Find a product" value={q} onChange={setQ} />
          <NewDefinition />
        </StripHead>
        <StripList aria-label="Bills of materials">
          <Answer of={list}>
            {({ rows }) => (
              <>
                <Group title="In use" rows={rows.filter((row) => row.inUse !== null)} />
                <Group title="Drafts only" rows={rows.filter((row) => row.inUse === null)} />
              </>
            )}
          </Answer>
        </StripList>
      </Strip>
      {id ? (
        <Definition key={id} id={Number(id)} />
      ) : (
        <Sheet>
          <EmptyState title={list.data?.rows.length ? 'Choose a product on the left' : 'Define your first product'}>
            A bill of materials says what goes into one product: parts, minutes of work, charges. Its cost, its margin
            and how many you can make now follow while you type. Start one with “New bill of materials”.
          </EmptyState>
        </Sheet>
      )}
    </Three>
  );
}

interface Row {
  readonly id: number;
  readonly code: string;
  readonly name: string;
  readonly unit: string;
  readonly inUse: number | null;
  readonly draft: number | null;
  readonly canMakeNow: string | null;
}

function Group({ title, rows }: { title: string; rows: readonly Row[] }) {
  const format = useFormat();
  return (
    <StripSection title={title} rows={rows}>
      {(row) => (
        <StripItem
          key={row.id}
          to={`/define/${row.id}`}
          code={row.code}
          title={row.name}
          under={`${row.code} · ${row.inUse === null ? `draft ${row.draft}` : `rev ${row.inUse}${row.draft === null ? '' : ` · draft ${row.draft}`}`}`}
          side={row.canMakeNow !== null && <b title="can be made now">{format.number(row.canMakeNow)}</b>}
        />
      )}
    </StripSection>
  );
}

function Definition({ id }: { id: number }) {
  const definition = useQuestion('definition', { params: { id } });
  return <Answer of={definition}>{(data) => <DefinitionSheet definition={data} />}</Answer>;
}

function NewDefinition() {
  const go = useNavigate();
  const [open, setOpen] = useState(false);
  const create = useCommand('createDefinition', (definition) => {
    setOpen(false);
    void go(`/define/${definition.id}`);
  });
  if (!open) return <Button onPress={() => setOpen(true)}>New bill of materials</Button>;
  return (
    <>
      <ItemPicker
        label="What is made?"
        placeholder="The product's code or name"
        autoFocus
        onPick={(item) =>
          item.definitionId === null
            ? create.mutate({ body: { itemId: item.id } })
            : void go(`/define/${item.definitionId}`)
        }
        onKeyDown={(event) => event.key === 'Escape' && setOpen(false)}
      />
      <ProblemBox error={create.error} />
      <Muted>
        <small>
          Not in the list? <a href="/stock/items?new=1">Add the item first</a>.
        </small>
      </Muted>
    </>
  );
}
