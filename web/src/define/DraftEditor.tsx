import type { Definition, Rate, Revision } from '@yosegi/contract';
import { type ReactNode, useEffect, useMemo, useRef, useState } from 'react';
import { useNavigate } from 'react-router';
import { problemOf, useCommand } from '../api/client.ts';
import { useShortcut } from '../shell/useShortcut.ts';
import { Button } from '../ui/Button.tsx';
import { Chip } from '../ui/Chip.tsx';
import { Field } from '../ui/Field.tsx';
import { Sheet, SheetAndMargin, SheetHead } from '../ui/layout.ts';
import { useNotify } from '../ui/Notice.tsx';
import { ProblemBox } from '../ui/Problem.tsx';
import { Tile } from '../ui/Tile.tsx';
import { Faint, Lead, Push, Row } from '../ui/text.ts';
import { DraftGrid } from './DraftGrid.tsx';
import { type Draft, draftOf, reckon, toInput } from './draft.ts';
import { forgetDraft, keepDraft, keptDraft } from './keep.ts';
import { MadeOf } from './MadeOf.tsx';

interface Props {
  readonly definition: Definition;
  readonly revision: Revision;
  readonly rates: readonly Rate[];
  readonly tabs: ReactNode;
}

/** A draft, edited in a grid; cost, margin and what can be made follow every key press. */
export function DraftEditor({ definition, revision, rates, tabs }: Props) {
  const { item } = definition;
  const go = useNavigate();
  const notify = useNotify();
  const kept = useRef(keptDraft(revision.id));
  const [draft, setDraft] = useState<Draft>(() => kept.current?.draft ?? draftOf(revision));
  const [version, setVersion] = useState(kept.current?.version ?? revision.version);
  const [dirty, setDirty] = useState(kept.current !== null);
  const reckoning = useMemo(() => reckon(draft, item.decimals, rates), [draft, item.decimals, rates]);

  // Someone else's save shows here as long as nothing is typed.
  useEffect(() => {
    if (dirty) return;
    setDraft(draftOf(revision));
    setVersion(revision.version);
  }, [revision, dirty]);

  const change = (next: Draft) => {
    setDraft(next);
    setDirty(true);
    keepDraft(revision.id, version, next);
  };
  const settle = (saved: Definition) => {
    forgetDraft(revision.id);
    const mine = saved.revisions.find((known) => known.id === revision.id);
    if (mine) setVersion(mine.version);
    setDirty(false);
  };
  const save = useCommand('saveRevision', settle);
  const use = useCommand('putInUse', () => {
    notify({ text: `Revision ${revision.number} of ${item.name} is in use. New builds take it.` });
    void go(`/define/${definition.id}`, { replace: true });
  });
  const discard = useCommand('discardRevision', ({ definitionId }) => {
    forgetDraft(revision.id);
    void go(definitionId === null ? '/define' : `/define/${definitionId}`, { replace: true });
  });
  const saveNow = (then?: (saved: Definition) => void) =>
    save.mutate(
      { params: { id: revision.id }, body: { version, outputQuantity: draft.outputQuantity, lines: toInput(draft) } },
      then ? { onSuccess: then } : {},
    );
  const putInUse = (at: number) => use.mutate({ params: { id: revision.id }, body: { version: at } });
  const faulty = reckoning.faults.size > 0;
  const takeIntoUse = () => {
    if (faulty || draft.lines.length === 0 || use.isPending || save.isPending) return;
    if (!dirty) return putInUse(version);
    saveNow((saved) => putInUse(saved.revisions.find((known) => known.id === revision.id)?.version ?? 0));
  };
  useShortcut('s', () => dirty && !faulty && saveNow(), { ctrl: true });
  useShortcut('Enter', takeIntoUse, { ctrl: true });

  const stale = problemOf(save.error)?.code === 'stale-save';
  return (
    <SheetAndMargin>
      <Sheet>
        <SheetHead>
          <Tile code={item.code} size={52} />
          <div>
            <h1>{item.name}</h1>
            <Lead>
              {item.code} · revision {revision.number}, draft
            </Lead>
          </div>
          <Push />
          <Row>
            <Button busy={save.isPending} isDisabled={!dirty || faulty} onPress={() => saveNow()}>
              Save draft
            </Button>
            <Button
              look="go"
              busy={use.isPending}
              isDisabled={faulty || draft.lines.length === 0}
              onPress={takeIntoUse}
            >
              Put in use
            </Button>
          </Row>
        </SheetHead>
        {tabs}
        <Row style={{ margin: '10px 0' }} $wrap>
          <div style={{ width: 170 }}>
            <Field
              label="One run makes"
              numeric
              value={draft.outputQuantity}
              suffix={item.unit}
              onChange={(outputQuantity) => change({ ...draft, outputQuantity })}
              error={reckoning.faults.get('outputQuantity')}
            />
          </div>
          <Push />
          {dirty ? (
            <Chip $tone="coming">Not saved yet; kept on this machine</Chip>
          ) : (
            <Faint>Saved. Ctrl S saves again.</Faint>
          )}
          <Button look="ghost" busy={discard.isPending} onPress={() => discard.mutate({ params: { id: revision.id } })}>
            Discard draft
          </Button>
        </Row>
        {stale ? (
          <ProblemBox
            error={save.error}
            ways={
              <>
                <Button
                  onPress={() => {
                    setDraft(draftOf(revision));
                    setVersion(revision.version);
                    setDirty(false);
                    forgetDraft(revision.id);
                    save.reset();
                  }}
                >
                  Take theirs
                </Button>
                <Button
                  onPress={() => {
                    setVersion(revision.version);
                    save.reset();
                  }}
                >
                  Keep mine, and save over theirs
                </Button>
              </>
            }
          >
            <Faint>
              Theirs: {revision.lines.length} lines. Yours: {draft.lines.length} lines, shown below.
            </Faint>
          </ProblemBox>
        ) : (
          <ProblemBox error={save.error ?? use.error ?? discard.error} />
        )}
        <DraftGrid
          draft={draft}
          change={change}
          reckoning={reckoning}
          rates={rates}
          output={`${draft.outputQuantity} ${item.unit}`}
          refused={problemOf(save.error)}
        />
      </Sheet>
      <MadeOf item={item} draft={draft} reckoning={reckoning} inUse={false} />
    </SheetAndMargin>
  );
}
