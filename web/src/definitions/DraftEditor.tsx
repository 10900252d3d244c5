import type { Definition, Rate, Revision, SavedRevision } from '@yosegi/contract';
import { memo, type ReactNode, useDeferredValue, useEffect, useMemo, useRef, useState } from 'react';
import { useNavigate } from 'react-router';
import { problemAt, problemOf, useCommand } from '../api/client.ts';
import { AskFirst } from '../ui/AskFirst.tsx';
import { Button } from '../ui/Button.tsx';
import { Chip } from '../ui/Chip.tsx';
import { DayField } from '../ui/DayField.tsx';
import { Field } from '../ui/Field.tsx';
import { count, useFormat } from '../ui/format.ts';
import { Sheet, SheetAndMargin, SheetHead } from '../ui/layout.ts';
import { useNotify } from '../ui/Notice.ts';
import { ProblemBox } from '../ui/Problem.tsx';
import { Part } from '../ui/space.ts';
import { Tile } from '../ui/Tile.tsx';
import { Faint, Lead, Push, Row } from '../ui/text.ts';
import { useShortcut } from '../ui/useShortcut.ts';
import { useStable } from '../ui/useStable.ts';
import { purposeName } from './behaviour.ts';
import { DraftGrid } from './DraftGrid.tsx';
import { type Draft, draftOf, isSavedAs, reckon, toInput } from './draft.ts';
import { useHistory } from './history.ts';
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
  const format = useFormat();
  const kept = useRef(keptDraft(revision.id));
  const { history, now, step, drawTyped } = useHistory<Draft>(() => kept.current?.draft ?? draftOf(revision));
  const draft = history.present;
  // A tab that was closed before it heard that its save was done has nothing to save: nobody else changed it.
  const [wasSaved] = useState(() => kept.current !== null && isSavedAs(kept.current.draft, revision));
  const [version, setVersion] = useState(wasSaved ? revision.version : (kept.current?.version ?? revision.version));
  const [dirty, setDirty] = useState(kept.current !== null && !(wasSaved && kept.current.draft.mending.length === 0));
  const [from, setFrom] = useState<string | null>(null);
  const reckoning = useMemo(() => reckon(draft, item.decimals, rates), [draft, item.decimals, rates]);
  // What follows from a key may be drawn after the key itself.
  const figures = useDeferredValue(useMemo(() => ({ draft, reckoning }), [draft, reckoning]));

  // Someone else's save shows here as long as nothing is typed.
  useEffect(() => {
    // Only what is newer: after a save of one's own, the older one may still be shown for a moment.
    if (dirty || revision.version <= version) return;
    step({ do: 'replace', by: draftOf(revision) });
    setVersion(revision.version);
  }, [revision, version, dirty, step]);
  // What is typed is kept on this machine at every step, also the ones taken back.
  useEffect(() => {
    if (dirty) keepDraft(revision.id, version, draft);
  }, [dirty, draft, revision.id, version]);

  const unsaved = () => setDirty(true);
  const change = (edit: (draft: Draft) => Draft, tag?: string) => {
    const to = edit(now());
    if (to !== now()) step({ do: 'change', to, tag: tag ?? null }, unsaved);
  };
  const sent = useRef<Draft | null>(null);
  const settle = (saved: SavedRevision) => {
    setVersion(saved.version);
    // What was typed while it was being saved is not saved, and pasted rows still to be mended are on this machine only.
    if (now() !== sent.current || now().mending.length > 0) return;
    forgetDraft(revision.id);
    setDirty(false);
  };
  const takeTheirs = () => {
    step({ do: 'replace', by: draftOf(revision) });
    setVersion(revision.version);
    setDirty(false);
    forgetDraft(revision.id);
    save.reset();
  };
  const save = useCommand('saveRevision', undefined, settle);
  const use = useCommand('putInUse', (used) => {
    notify({
      text:
        used.state === 'in-use'
          ? `Revision ${revision.number} of ${item.name} is in use. New builds take it.`
          : `Revision ${revision.number} of ${item.name} comes into use on ${format.day(used.inUseFrom ?? '')}.`,
    });
    void go(`/define/${definition.id}`, { replace: true });
  });
  const discard = useCommand(
    'discardRevision',
    ({ definitionId }) => void go(definitionId === null ? '/define' : `/define/${definitionId}`, { replace: true }),
    () => forgetDraft(revision.id),
  );
  const saveNow = (then?: (saved: SavedRevision) => void) => {
    const sending = now();
    sent.current = sending;
    save.mutate(
      {
        params: { id: revision.id },
        body: {
          version,
          outputQuantity: sending.outputQuantity,
          lines: toInput(sending),
          sellPrice: sending.price.trim() || null,
        },
      },
      then ? { onSuccess: then } : {},
    );
  };
  const putInUse = (at: number) =>
    use.mutate({ params: { id: revision.id }, body: { version: at, from: from || null } });
  const faulty = reckoning.faults.size > 0;
  // Rows still to be mended stay on this machine; the lines that are whole can be saved meanwhile.
  const unsavable = [...reckoning.faults.keys()].some((field) => field !== 'mending');
  const takeIntoUse = () => {
    if (faulty || draft.lines.length === 0 || use.isPending || save.isPending) return;
    if (!dirty) return putInUse(version);
    saveNow((saved) => putInUse(saved.version));
  };
  useShortcut('s', () => dirty && !unsavable && saveNow(), { ctrl: true });
  useShortcut('Enter', takeIntoUse, { ctrl: true });

  const deeds: Deeds = useStable({
    save: () => saveNow(),
    use: takeIntoUse,
    setFrom,
    setPrice: (price: string) => change((before) => ({ ...before, price }), 'price'),
    setOutput: (outputQuantity: string) => change((before) => ({ ...before, outputQuantity }), 'output'),
    discard: () => discard.mutate({ params: { id: revision.id } }),
  });
  const stale = problemOf(save.error)?.code === 'stale-save';
  return (
    <SheetAndMargin>
      <Sheet>
        <Head
          definition={definition}
          number={revision.number}
          saving={save.isPending}
          maySave={dirty && !unsavable}
          using={use.isPending}
          mayUse={!faulty && draft.lines.length > 0}
          from={from}
          fromError={problemAt(use.error, 'from')}
          deeds={deeds}
        />
        {tabs}
        <Output
          unit={item.unit}
          quantity={draft.outputQuantity}
          error={reckoning.faults.get('outputQuantity')}
          dirty={dirty}
          discarding={discard.isPending}
          lines={draft.lines.length}
          deeds={deeds}
        />
        {stale ? (
          <ProblemBox
            error={save.error}
            ways={
              <>
                <Button onPress={takeTheirs}>Use theirs</Button>
                <Button
                  onPress={() => {
                    setVersion(revision.version);
                    save.reset();
                  }}
                >
                  Save mine over theirs
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
          drawTyped={drawTyped}
          undo={() => step({ do: 'undo' }, unsaved)}
          redo={() => step({ do: 'redo' }, unsaved)}
          reckoning={reckoning}
          figures={figures}
          rates={rates}
          output={`${draft.outputQuantity} ${item.unit}`}
          refused={problemOf(save.error)}
        />
      </Sheet>
      <MadeOf
        definition={definition}
        draft={figures.draft}
        reckoning={figures.reckoning}
        inUse={false}
        onPrice={deeds.setPrice}
      />
    </SheetAndMargin>
  );
}

interface Deeds {
  readonly save: () => void;
  readonly use: () => void;
  readonly setFrom: (day: string) => void;
  readonly setPrice: (price: string) => void;
  readonly setOutput: (quantity: string) => void;
  readonly discard: () => void;
}

interface HeadProps {
  readonly definition: Definition;
  readonly number: number;
  readonly saving: boolean;
  readonly maySave: boolean;
  readonly using: boolean;
  readonly mayUse: boolean;
  /** The day from which it is to be used; null while nobody asks for one. */
  readonly from: string | null;
  readonly fromError: string | undefined;
  readonly deeds: Deeds;
}

/** What is drafted, and what to do with the draft. */
const Head = memo(function Head({ definition: { item, purpose }, number, from, deeds, ...can }: HeadProps) {
  return (
    <SheetHead>
      <Tile code={item.code} size={52} />
      <div>
        <h1>{item.name}</h1>
        <Lead>
          {item.code} · {purposeName(purpose)} · revision {number}, draft
        </Lead>
      </div>
      <Push />
      <Row>
        <Button busy={can.saving} isDisabled={!can.maySave} onPress={deeds.save}>
          Save draft
        </Button>
        {from === null ? (
          <Button look="ghost" onPress={() => deeds.setFrom('')}>
            Schedule…
          </Button>
        ) : (
          <Part $width={150}>
            <DayField label="In use from" hideLabel value={from} onChange={deeds.setFrom} error={can.fromError} />
          </Part>
        )}
        <Button look="go" busy={can.using} isDisabled={!can.mayUse} onPress={deeds.use}>
          Put in use
        </Button>
      </Row>
    </SheetHead>
  );
});

interface OutputProps {
  readonly unit: string;
  readonly quantity: string;
  readonly error: string | undefined;
  readonly dirty: boolean;
  readonly discarding: boolean;
  /** How many lines it has. */
  readonly lines: number;
  readonly deeds: Deeds;
}

/** How much one run makes, and whether the draft is saved. */
const Output = memo(function Output({ unit, quantity, error, dirty, discarding, lines, deeds }: OutputProps) {
  return (
    <Row $top={10} $bottom={10} $wrap>
      <Part $width={170}>
        <Field
          label="One batch makes"
          numeric
          value={quantity}
          suffix={unit}
          onChange={deeds.setOutput}
          error={error}
        />
      </Part>
      <Push />
      {dirty ? (
        <Chip $tone="coming">Not saved yet; kept on this machine</Chip>
      ) : (
        <Faint>Saved. Ctrl S saves again.</Faint>
      )}
      <AskFirst
        label="Discard draft…"
        look="ghost"
        title={`Discard the draft with ${count(lines, 'line')}?`}
        action="Discard draft"
        keep="Keep the draft"
        busy={discarding}
        onDo={deeds.discard}
      >
        The draft and what you typed in it are gone for good. The revision in use stays as it is.
      </AskFirst>
    </Row>
  );
});
