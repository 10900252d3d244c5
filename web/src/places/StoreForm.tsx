import { closestCenter, DndContext, type DragEndEvent, PointerSensor, useSensor, useSensors } from '@dnd-kit/core';
import { SortableContext, useSortable, verticalListSortingStrategy } from '@dnd-kit/sortable';
import { CSS } from '@dnd-kit/utilities';
import { type Store, StoreInput } from '@yosegi/contract';
import { newKey } from '@yosegi/contract/key';
import { isForGoods } from '@yosegi/core/places';
import { GripVertical, X } from 'lucide-react';
import { type ClipboardEvent, type KeyboardEvent, useRef } from 'react';
import { flushSync } from 'react-dom';
import styled from 'styled-components';
import { useCommand } from '../api/client.ts';
import { LabelButton } from '../devices/index.ts';
import { Button, LinkButton } from '../ui/Button.tsx';
import { Choice } from '../ui/Choice.tsx';
import { Field } from '../ui/Field.tsx';
import { useNotify } from '../ui/Notice.ts';
import { SaveProblem } from '../ui/Problem.tsx';
import { Faint, Row } from '../ui/text.ts';
import { useRecordForm } from '../ui/useRecordForm.ts';

/** A click is no drag. The same object each time, or every row is drawn anew with the grid. */
const BY_POINTER = { activationConstraint: { distance: 4 } };

const Head = styled.div`display: grid; grid-template-columns: 1fr 2fr; gap: 8px;`;
const Bins = styled.fieldset`border: 0; padding: 0; margin: 0; min-width: 0;`;
const BinRow = styled.div`
  display: grid; grid-template-columns: 24px minmax(0, 1fr) 130px 34px; gap: 6px; align-items: start; padding: 3px 0; background: var(--sheet);
`;
const Handle = styled.span`cursor: grab; display: grid; place-items: center; height: 34px; color: var(--ink-3); touch-action: none;`;
const Adding = styled.div`display: grid; grid-template-columns: minmax(0, 1fr) auto; gap: 8px; align-items: end; margin: 10px 0;`;

interface TypedBin {
  /** Null for one that is not saved yet. */
  readonly id: number | null;
  /** Stays with it while the others move. */
  readonly key: string;
  /** What it was called when the sheet was opened, or when it was added. */
  readonly was: string;
  readonly code: string;
  readonly kind: 'shelf' | 'quarantine';
}

const readStore = (store: Store | null) => ({
  code: store?.code ?? '',
  name: store?.name ?? '',
  bins: (store?.bins ?? [])
    .filter(({ kind }) => isForGoods(kind))
    .map(({ id, code, kind }) => ({ id, key: String(id), was: code, code, kind })) as readonly TypedBin[],
  /** A bin that is typed and not added yet: it is one all the same. */
  adding: '',
});
type Typed = ReturnType<typeof readStore>;

const bodyOf = ({ code, name, bins, adding }: Typed) => ({
  code,
  name,
  bins: [...bins, ...newBins(adding)].map(({ id, code, kind }) => ({ id, code, kind })),
});

/** The bins that a text names: one, or one on each line of what was pasted. */
const newBins = (text: string): TypedBin[] =>
  text
    .split(/[\n\r\t;,]+/)
    .map((code) => code.trim())
    .filter((code) => code !== '')
    .map((code) => ({ id: null, key: `new ${newKey()}`, was: code, code, kind: 'shelf' }));
const SHOWN = ['code', 'name', 'bins.*.code'];

/** A store and its bins as one sheet, in the order a person walks past them, with one save. */
export function StoreForm({ store }: { store: Store }) {
  const notify = useNotify();
  const adder = useRef<HTMLInputElement>(null);
  const list = useRef<HTMLFieldSetElement>(null);
  const sensors = useSensors(useSensor(PointerSensor, BY_POINTER));
  const update = useCommand(
    'updateStore',
    (saved) => notify({ text: `${saved.name} saved.` }),
    (saved) => form.saved(saved),
  );
  const form = useRecordForm({
    record: store,
    read: readStore,
    bodyOf,
    schema: StoreInput,
    keptAs: `store.${store.id}`,
    name: store.name,
    shownAt: SHOWN,
    command: update,
  });
  const { bins, adding } = form.typed;
  const set = (key: string, part: Partial<TypedBin>) =>
    form.set({ bins: bins.map((bin) => (bin.key === key ? { ...bin, ...part } : bin)) });
  const add = (text = adding) => {
    form.set({ bins: [...bins, ...newBins(text)], adding: '' });
    adder.current?.focus();
  };
  /** A field of one line would run the lines of a spreadsheet together. */
  const paste = (event: ClipboardEvent) => {
    const text = event.clipboardData.getData('text/plain').trim();
    if (!/[\n\r\t]/.test(text)) return;
    event.preventDefault();
    add(text);
  };
  const move = (from: number, to: number) => {
    if (from < 0 || to < 0 || to >= bins.length || from === to) return;
    const next = [...bins];
    next.splice(to, 0, ...next.splice(from, 1));
    flushSync(() => form.set({ bins: next }));
  };
  const byKeys = (event: KeyboardEvent<HTMLFieldSetElement>) => {
    const step = event.altKey ? { ArrowUp: -1, ArrowDown: 1 }[event.key] : undefined;
    const row = (event.target as HTMLElement).closest<HTMLElement>('[data-bin]')?.dataset.bin;
    if (step === undefined || row === undefined) return;
    event.preventDefault();
    const from = bins.findIndex(({ key }) => key === row);
    move(from, from + step);
    list.current?.querySelector<HTMLElement>(`[data-bin="${row}"] input`)?.focus();
  };
  const drop = ({ active, over }: DragEndEvent) => {
    const place = (key: unknown) => bins.findIndex((bin) => bin.key === key);
    if (over) move(place(active.id), place(over.id));
  };
  return (
    <form
      onSubmit={form.submit((body) =>
        update.mutate({ params: { id: store.id }, body: { ...body, version: form.version } }),
      )}
    >
      <Head>
        <Field label="Code" {...form.field('code')} />
        <Field label="Name" {...form.field('name')} />
      </Head>
      <p>
        <Faint>Bins in picking order: drag, or Alt ↑ ↓ to move one. Picked parts go to the bench.</Faint>
      </p>
      <Bins ref={list} aria-label={`Bins of ${store.name}`} onKeyDown={byKeys}>
        <DndContext sensors={sensors} collisionDetection={closestCenter} onDragEnd={drop}>
          <SortableContext items={bins.map(({ key }) => key)} strategy={verticalListSortingStrategy}>
            {bins.map((bin, index) => (
              <Bin
                key={bin.key}
                bin={bin}
                error={form.at(`bins.${index}.code`)}
                set={(part) => set(bin.key, part)}
                remove={() => form.set({ bins: bins.filter(({ key }) => key !== bin.key) })}
              />
            ))}
          </SortableContext>
        </DndContext>
      </Bins>
      <Adding onPasteCapture={paste}>
        <Field
          label="New bin"
          placeholder="A1, or paste a column"
          value={adding}
          onChange={(next) => form.set({ adding: next })}
          inputRef={adder}
          // A store that was just added is given its bins next.
          autoFocus={!store.bins.some(({ kind }) => isForGoods(kind))}
          error={form.at(`bins.${bins.length}.code`)}
          onKeyDown={(event) => {
            if (event.key !== 'Enter' || event.ctrlKey) return;
            event.preventDefault();
            add();
          }}
        />
        <Button onPress={() => add()} isDisabled={adding.trim() === ''}>
          Add below
        </Button>
      </Adding>
      <SaveProblem
        command={update}
        over={form}
        theirs={`${store.name} · ${store.code}, bins ${readStore(store)
          .bins.map(({ code }) => code)
          .join(', ')}`}
        shownAt={SHOWN}
      />
      <Row $wrap>
        <Button type="submit" look={form.dirty ? 'go' : 'plain'} busy={update.isPending} isDisabled={!form.dirty}>
          Save {store.name}
        </Button>
        {store.bins.length > 1 && (
          <>
            <LabelButton ask={{ storeId: store.id }} look="ghost">
              To the label printer
            </LabelButton>
            <LinkButton look="ghost" to={`/print/bins/${store.id}`}>
              Bin labels on a sheet
            </LinkButton>
          </>
        )}
      </Row>
    </form>
  );
}

interface BinProps {
  readonly bin: TypedBin;
  readonly error: string | undefined;
  readonly set: (part: Partial<TypedBin>) => void;
  readonly remove: () => void;
}

function Bin({ bin, error, set, remove }: BinProps) {
  const { setNodeRef, listeners, transform, transition } = useSortable({ id: bin.key });
  const style = { transform: CSS.Transform.toString(transform ? { ...transform, scaleY: 1 } : null), transition };
  return (
    <BinRow ref={setNodeRef} style={style} data-bin={bin.key}>
      <Handle {...listeners} aria-hidden>
        <GripVertical size={14} />
      </Handle>
      <Field
        label={`Code of bin ${bin.was}`}
        hideLabel
        value={bin.code}
        onChange={(code) => set({ code })}
        error={error}
      />
      <Choice
        label={`Use of bin ${bin.was}`}
        hideLabel
        value={bin.kind}
        onChange={(kind) => set({ kind: kind as TypedBin['kind'] })}
        options={[
          ['shelf', 'shelf'],
          ['quarantine', 'quarantine'],
        ]}
      />
      {bin.id === null && (
        <Button look="ghost" aria-label={`Without bin ${bin.was}`} onPress={remove}>
          <X size={16} aria-hidden />
        </Button>
      )}
    </BinRow>
  );
}
