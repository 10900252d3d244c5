import { useState } from 'react';
import { useSearchParams } from 'react-router';
import styled from 'styled-components';
import { useCommand, useQuestion } from '../api/client.ts';
import { Button } from './Button.tsx';
import { Choice } from './Choice.tsx';
import { Field } from './Field.tsx';
import { ProblemBox } from './Problem.tsx';
import { Part } from './space.ts';
import { Row } from './text.ts';

const Keep = styled.form`display: flex; gap: 6px; align-items: center;`;

/** Filters, sorting and columns of a list under names of one's own. */
export function SavedFilters({ list }: { list: string }) {
  const [search, setSearch] = useSearchParams();
  const [name, setName] = useState<string | null>(null);
  const views = (useQuestion('views', {}).data ?? []).filter((view) => view.list === list);
  const save = useCommand('saveView', () => setName(null));
  const forget = useCommand('deleteView');
  const here = search.toString();
  const current = views.find((view) => view.search === here);
  return (
    <>
      {views.length > 0 && (
        <Part $width={140}>
          <Choice
            label="Saved filters"
            hideLabel
            value={current ? String(current.id) : ''}
            onChange={(id) => setSearch(views.find((view) => String(view.id) === id)?.search ?? '')}
            options={[['', 'saved filters'], ...views.map((view) => [String(view.id), view.name] as const)]}
          />
        </Part>
      )}
      {current ? (
        <Button look="ghost" busy={forget.isPending} onPress={() => forget.mutate({ params: { id: current.id } })}>
          Forget “{current.name}”
        </Button>
      ) : name === null ? (
        <Button look="ghost" isDisabled={here === ''} onPress={() => setName('')}>
          Save this filter
        </Button>
      ) : (
        <Keep
          onSubmit={(event) => {
            event.preventDefault();
            if (name.trim()) save.mutate({ body: { list, name: name.trim(), search: here } });
          }}
        >
          <Field
            label="Name of the filter"
            hideLabel
            placeholder="Name"
            value={name}
            onChange={setName}
            autoFocus
            onKeyDown={(event) => event.key === 'Escape' && setName(null)}
          />
          <Row>
            <Button type="submit" busy={save.isPending} isDisabled={name.trim() === ''}>
              Save
            </Button>
          </Row>
          <ProblemBox error={save.error} />
        </Keep>
      )}
    </>
  );
}
