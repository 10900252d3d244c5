import type { Definition, Rate, Revision } from '@yosegi/contract';
import { formatDecimal } from '@yosegi/core/number';
import { type ReactNode, useState } from 'react';
import { useNavigate, useSearchParams } from 'react-router';
import styled from 'styled-components';
import { useCommand, useQuestion } from '../api/client.ts';
import { AskFirst } from '../ui/AskFirst.tsx';
import { Button, LinkButton } from '../ui/Button.tsx';
import { Chip } from '../ui/Chip.tsx';
import { count, useFormat } from '../ui/format.ts';
import { ItemPicker } from '../ui/ItemPicker.tsx';
import { later } from '../ui/later.tsx';
import { Sheet, SheetAndMargin, SheetHead } from '../ui/layout.ts';
import { useNotify } from '../ui/Notice.ts';
import { OwnFacts } from '../ui/OwnFields.tsx';
import { ProblemBox } from '../ui/Problem.tsx';
import { Answer } from '../ui/States.tsx';
import { Para, Part } from '../ui/space.ts';
import { Tile } from '../ui/Tile.tsx';
import { Lead, Push, Row } from '../ui/text.ts';
import { purposeName, stateName } from './behaviour.ts';
import { draftOf, reckon } from './draft.ts';
import { LinesView } from './LinesView.tsx';
import { canMakeNow, MadeOf } from './MadeOf.tsx';
import { UsedView } from './UsedView.tsx';

const BehaviourView = later(() => import('./BehaviourView.tsx'), 'BehaviourView');

const FieldsView = later(() => import('./FieldsView.tsx'), 'FieldsView');

const CompareView = later(() => import('./CompareView.tsx'), 'CompareView');

const DraftEditor = later(() => import('./DraftEditor.tsx'), 'DraftEditor');

const Tabs = styled.nav`
  display: flex; gap: 4px; flex-wrap: wrap; border-bottom: 1px solid var(--line); margin-bottom: 8px; align-items: end;
  button { border-radius: 3px 3px 0 0; border-bottom: 0; } button[aria-current] { box-shadow: inset 0 3px var(--honey); border-color: var(--line); }
`;
const views = [
  ['', 'Lines'],
  ['behaves', 'How it behaves'],
  ['compare', 'Differences'],
  ['used', 'Where used'],
  ['fields', 'Custom fields'],
] as const;

/** One bill of materials, at the revision the address names: its lines, its behaviour, its differences, its uses. */
export function DefinitionSheet({ definition }: { definition: Definition }) {
  const [search, setSearch] = useSearchParams();
  const rates = useQuestion('rates', {});
  const asked = Number(search.get('rev'));
  const view = search.get('view') ?? '';
  const { revisions } = definition;
  const shown =
    revisions.find((revision) => revision.number === asked) ??
    revisions.find((revision) => revision.state === 'in-use') ??
    revisions[0];
  if (!shown) return null;
  const open = (next: { rev?: number; view?: string }) =>
    setSearch((before) => {
      const after = new URLSearchParams(before);
      if (next.rev !== undefined) after.set('rev', String(next.rev));
      if (next.view === '') after.delete('view');
      else if (next.view !== undefined) after.set('view', next.view);
      return after;
    });
  const tabs = (
    <Tabs aria-label="Views and revisions">
      {views
        .filter(([key]) => key !== 'fields' || definition.purpose === 'record')
        .map(([key, title]) => (
          <Button
            key={key}
            look={view === key ? 'plain' : 'ghost'}
            aria-current={view === key ? 'page' : undefined}
            onPress={() => open({ view: key })}
          >
            {title}
          </Button>
        ))}
      <Push />
      {revisions.slice(0, 5).map((revision) => (
        <Button
          key={revision.id}
          look={revision.id === shown.id ? 'plain' : 'ghost'}
          aria-current={revision.id === shown.id ? 'true' : undefined}
          onPress={() => open({ rev: revision.number })}
        >
          rev {revision.number} · {stateName(revision)}
        </Button>
      ))}
    </Tabs>
  );
  return (
    <Answer of={rates}>
      {(known) =>
        shown.state === 'draft' && shown.inUseFrom === null && view === '' ? (
          <DraftEditor key={shown.id} definition={definition} revision={shown} rates={known} tabs={tabs} />
        ) : (
          <Viewed definition={definition} revision={shown} rates={known} view={view} tabs={tabs} />
        )
      }
    </Answer>
  );
}

function Viewed({
  definition,
  revision,
  rates,
  view,
  tabs,
}: {
  definition: Definition;
  revision: Revision;
  rates: readonly Rate[];
  view: string;
  tabs: ReactNode;
}) {
  const { item } = definition;
  const draft = draftOf(revision);
  const reckoning = reckon(draft, item.decimals, rates);
  const can = canMakeNow(item, draft, reckoning).quantity;
  return (
    <SheetAndMargin>
      <Sheet>
        <Head definition={definition} revision={revision} />
        {tabs}
        {view === 'behaves' && (
          <BehaviourView
            key={definition.id}
            definition={definition}
            draft={draft}
            canMake={can === null ? null : formatDecimal(can)}
          />
        )}
        {view === 'compare' && <CompareView definition={definition} revision={revision} />}
        {view === 'used' && <UsedView item={item} />}
        {view === 'fields' && <FieldsView key={definition.id} definition={definition} />}
        {view === '' && <Lines definition={definition} revision={revision} />}
      </Sheet>
      <MadeOf definition={definition} draft={draft} reckoning={reckoning} inUse={revision.state === 'in-use'} />
    </SheetAndMargin>
  );
}

function Head({ definition, revision }: { definition: Definition; revision: Revision }) {
  const format = useFormat();
  const notify = useNotify();
  const [, setSearch] = useSearchParams();
  const { item, revisions, purpose } = definition;
  const draft = revisions.find((known) => known.state === 'draft');
  const next = (revisions[0]?.number ?? 0) + 1;
  const start = useCommand('startRevision', () => {
    notify({ text: `Revision ${next} is a draft now. The one in use stays as it is.` });
    setSearch({ rev: String(next) });
  });
  const holdBack = useCommand('holdBack', () => notify({ text: 'Held back. You can change the draft again.' }));
  return (
    <>
      <SheetHead>
        <Tile code={item.code} size={52} />
        <div>
          <h1>{item.name}</h1>
          <Lead>
            {item.code}
            {purpose !== 'build' && ` · ${purposeName(purpose)}`} · makes{' '}
            {format.quantity(revision.outputQuantity, item.unit, item.decimals)} · revision {revision.number},{' '}
            {standing(revision, (day) => format.day(day))}
          </Lead>
        </div>
        <Push />
        {draft?.inUseFrom != null ? (
          <Button
            busy={holdBack.isPending}
            onPress={() => holdBack.mutate({ params: { id: draft.id }, body: { version: draft.version } })}
          >
            Hold back revision {draft.number}
          </Button>
        ) : draft ? (
          draft.id !== revision.id && (
            <Button onPress={() => setSearch({ rev: String(draft.number) })}>Continue draft {draft.number}</Button>
          )
        ) : (
          <Button busy={start.isPending} onPress={() => start.mutate({ params: { id: definition.id }, body: {} })}>
            Start revision {next}
          </Button>
        )}
      </SheetHead>
      <ProblemBox error={start.error ?? holdBack.error} />
    </>
  );
}

function standing(revision: Revision, day: (iso: string) => string): string {
  if (revision.state === 'in-use')
    return revision.inUseFrom ? `in use since ${day(revision.inUseFrom)}` : 'in use from the start';
  if (revision.state === 'draft') return revision.inUseFrom ? `in use from ${day(revision.inUseFrom)}` : 'draft';
  return 'retired';
}

function Lines({ definition, revision }: { definition: Definition; revision: Revision }) {
  const go = useNavigate();
  const notify = useNotify();
  const [, setSearch] = useSearchParams();
  const { item } = definition;
  const inUse = definition.revisions.find((known) => known.state === 'in-use');
  const older = definition.openBuilds.filter((build) => inUse && build.revisionId !== inUse.id);
  const retire = useCommand('retireRevision', () =>
    notify({ text: `Revision ${revision.number} is retired; nothing new is built by it.` }),
  );
  const oldest = older[0];
  const keeping = definition.openBuilds.filter((build) => build.revisionId === revision.id).length;
  return (
    <>
      {revision.state === 'retired' && <Chip $tone="held">Retired: builds that use it keep it</Chip>}
      {revision.state === 'in-use' && oldest && (
        <Row $wrap $bottom={8}>
          <Chip $tone="coming">
            {count(older.length, 'open build')} took an older revision and {older.length === 1 ? 'keeps' : 'keep'} it
          </Chip>
          <Button look="ghost" onPress={() => setSearch({ view: 'compare', against: String(oldest.revision) })}>
            See the difference, and move what has not started
          </Button>
        </Row>
      )}
      {definition.fields.length > 0 && (
        <Part $width={460} $bottom={14}>
          <OwnFacts fields={definition.fields} />
        </Part>
      )}
      <LinesView definition={definition} revision={revision} />
      <ProblemBox error={retire.error} />
      <SheetHead $top={14}>
        <LinkButton look="ghost" to={`/stock/items/${item.id}`}>
          Stock
        </LinkButton>
        <LinkButton look="ghost" to={`/print/definition/${definition.id}?rev=${revision.number}`}>
          Print
        </LinkButton>
        <CopyTo revision={revision} purpose={definition.purpose} />
        <Push />
        {definition.purpose === 'build' && (
          <Button look="ghost" onPress={() => void go(`/take-apart/stock?item=${item.id}`)}>
            Take apart
          </Button>
        )}
        {revision.state === 'in-use' && (
          <AskFirst
            label="Retire…"
            look="ghost"
            title={`Retire revision ${revision.number} of ${item.name}?`}
            action="Retire revision"
            keep={`Keep revision ${revision.number} in use`}
            busy={retire.isPending}
            onDo={() => retire.mutate({ params: { id: revision.id }, body: { version: revision.version } })}
          >
            <Para>
              No new builds can start from it until another revision is in use.
              {keeping > 0 && ` ${count(keeping, 'open build')} took it and ${keeping === 1 ? 'keeps' : 'keep'} it.`}
            </Para>
          </AskFirst>
        )}
      </SheetHead>
    </>
  );
}

/** The lines of this revision as the first draft of another product. */
function CopyTo({ revision, purpose }: { revision: Revision; purpose: Definition['purpose'] }) {
  const go = useNavigate();
  const [open, setOpen] = useState(false);
  const create = useCommand('createDefinition', (made) => void go(`/define/${made.definitionId}`));
  if (!open)
    return (
      <Button look="ghost" onPress={() => setOpen(true)}>
        Copy to another product…
      </Button>
    );
  return (
    <Part $width={280}>
      <ItemPicker
        label="Copy to"
        hideLabel
        autoFocus
        canAdd
        placeholder="The other product, or a new one"
        onPick={(item) => create.mutate({ body: { itemId: item.id, purpose, copyOf: revision.id } })}
        onKeyDown={(event) => event.key === 'Escape' && setOpen(false)}
      />
      <ProblemBox error={create.error} />
    </Part>
  );
}
