import type { Definition, Revision } from '@yosegi/contract';
import { useState } from 'react';
import { useNavigate, useSearchParams } from 'react-router';
import styled from 'styled-components';
import { useCommand, useQuestion } from '../api/client.ts';
import { Button, LinkButton } from '../ui/Button.tsx';
import { Chip } from '../ui/Chip.tsx';
import { useFormat } from '../ui/format.ts';
import { Sheet, SheetAndMargin, SheetHead } from '../ui/layout.ts';
import { useNotify } from '../ui/Notice.tsx';
import { ProblemBox } from '../ui/Problem.tsx';
import { Answer } from '../ui/States.tsx';
import { Tile } from '../ui/Tile.tsx';
import { Lead, Push } from '../ui/text.ts';
import { DraftEditor } from './DraftEditor.tsx';
import { draftOf, reckon } from './draft.ts';
import { LinesView } from './LinesView.tsx';
import { MadeOf } from './MadeOf.tsx';

const Tabs = styled.nav`display: flex; gap: 6px; flex-wrap: wrap;`;

/** One bill of materials, at the revision the address names: a draft to edit, or a frozen one to read. */
export function DefinitionSheet({ definition }: { definition: Definition }) {
  const [search, setSearch] = useSearchParams();
  const rates = useQuestion('rates', {});
  const asked = Number(search.get('rev'));
  const { revisions } = definition;
  const shown =
    revisions.find((revision) => revision.number === asked) ??
    revisions.find((revision) => revision.state === 'in-use') ??
    revisions[0];
  if (!shown) return null;
  const tabs = revisions.length > 1 && (
    <Tabs aria-label="Revisions">
      {revisions.map((revision) => (
        <Button
          key={revision.id}
          look={revision.id === shown.id ? 'plain' : 'ghost'}
          aria-current={revision.id === shown.id ? 'page' : undefined}
          onPress={() => setSearch({ rev: String(revision.number) })}
        >
          rev {revision.number} · {revision.state.replace('-', ' ')}
        </Button>
      ))}
    </Tabs>
  );
  return (
    <Answer of={rates}>
      {(known) =>
        shown.state === 'draft' ? (
          <DraftEditor key={shown.id} definition={definition} revision={shown} rates={known} tabs={tabs} />
        ) : (
          <SheetAndMargin>
            <Frozen definition={definition} revision={shown} tabs={tabs} />
            <MadeOf
              item={definition.item}
              draft={draftOf(shown)}
              reckoning={reckon(draftOf(shown), definition.item.decimals, known)}
              inUse={shown.state === 'in-use'}
            />
          </SheetAndMargin>
        )
      }
    </Answer>
  );
}

function Frozen({ definition, revision, tabs }: { definition: Definition; revision: Revision; tabs: React.ReactNode }) {
  const format = useFormat();
  const go = useNavigate();
  const notify = useNotify();
  const { item, revisions } = definition;
  const draft = revisions.find((known) => known.state === 'draft');
  const next = (revisions[0]?.number ?? 0) + 1;
  const [, setSearch] = useSearchParams();
  const start = useCommand('startRevision', () => {
    notify({ text: `Revision ${next} is a draft now. The one in use stays as it is.` });
    setSearch({ rev: String(next) });
  });
  const [showing, setShowing] = useState(false);
  return (
    <Sheet>
      <SheetHead>
        <Tile code={item.code} size={52} />
        <div>
          <h1>{item.name}</h1>
          <Lead>
            {item.code} · makes {format.quantity(revision.outputQuantity, item.unit, item.decimals)} · revision{' '}
            {revision.number},{' '}
            {revision.state === 'in-use' && revision.inUseFrom
              ? `in use since ${format.day(revision.inUseFrom)}`
              : revision.state}
          </Lead>
        </div>
        <Push />
        {draft ? (
          <Button onPress={() => setSearch({ rev: String(draft.number) })}>Go on with draft {draft.number}</Button>
        ) : (
          <Button busy={start.isPending} onPress={() => start.mutate({ params: { id: definition.id }, body: {} })}>
            Start revision {next}
          </Button>
        )}
      </SheetHead>
      {tabs}
      <ProblemBox error={start.error} />
      {revision.state === 'retired' && <Chip $tone="held">Retired: builds that took it keep it</Chip>}
      <LinesView definition={definition} revision={revision} />
      <SheetHead style={{ marginTop: 14 }}>
        <Button look="ghost" aria-expanded={showing} onPress={() => setShowing(!showing)}>
          Where used
        </Button>
        <LinkButton look="ghost" to={`/stock/items/${item.id}`}>
          Stock of it
        </LinkButton>
        <Push />
        <Button look="ghost" onPress={() => void go(`/take-apart?item=${item.id}`)}>
          Take apart
        </Button>
      </SheetHead>
      {showing && <WhereUsed itemId={item.id} />}
    </Sheet>
  );
}

function WhereUsed({ itemId }: { itemId: number }) {
  const used = useQuestion('whereUsed', { params: { id: itemId } });
  return (
    <Answer of={used}>
      {(rows) =>
        rows.length === 0 ? (
          <Lead>No other product in use contains it.</Lead>
        ) : (
          <Lead>
            Part of{' '}
            {rows.map((row, index) => (
              <span key={row.id}>
                {index > 0 && ', '}
                <a href={`/define/${row.id}`}>{row.name}</a>
              </span>
            ))}
            .
          </Lead>
        )
      }
    </Answer>
  );
}
