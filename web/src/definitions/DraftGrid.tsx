import { closestCenter, DndContext, type DragEndEvent, PointerSensor, useSensor, useSensors } from '@dnd-kit/core';
import { SortableContext, verticalListSortingStrategy } from '@dnd-kit/sortable';
import type { PartItem, Problem, Rate } from '@yosegi/contract';
import { formatDecimal } from '@yosegi/core/number';
import { type KeyboardEvent, memo, type RefObject, useMemo, useRef, useState } from 'react';
import { flushSync } from 'react-dom';
import styled from 'styled-components';
import { matchPasted, type PastedRow } from '../lines/matchPasted.ts';
import { Unmatched } from '../lines/Unmatched.tsx';
import { Button } from '../ui/Button.tsx';
import { focusWhenThere } from '../ui/focusWhenThere.ts';
import { useFormat } from '../ui/format.ts';
import { ItemPicker } from '../ui/ItemPicker.tsx';
import { later } from '../ui/later.tsx';
import { Grid } from '../ui/layout.ts';
import { ProblemBox } from '../ui/Problem.tsx';
import { Para } from '../ui/space.ts';
import { Bullets, Faint, Late, Row } from '../ui/text.ts';
import { useStable } from '../ui/useStable.ts';
import { DraftRow, faultsOf, type GridDeeds, SharesContext } from './DraftRow.tsx';
import {
  chargeLine,
  type Draft,
  type DraftLine,
  labourLine,
  newKey,
  noteLine,
  partLine,
  plainAmount,
  type Reckoning,
} from './draft.ts';
import { sharesExplained } from './shares.ts';

const RateDialog = later(() => import('./RateDialog.tsx'), 'RateDialog');

/** A click is no drag. The same object each time, or every row is drawn anew with the grid. */
const BY_POINTER = { activationConstraint: { distance: 4 } };

const FaultList = styled(Bullets)`color: var(--short-ink);`;
const Table = styled(Grid)`
  table-layout: fixed; width: 100%; min-width: 680px;
  input, button[data-cell] {
    border: 1px solid transparent; background: transparent; border-radius: 2px; padding: 4px 5px; width: 100%; min-width: 0;
    &:hover { border-color: var(--line); } &:focus { background: var(--field); border-color: var(--indigo); outline: 1px solid var(--indigo); }
    &[aria-invalid='true'] { border-color: var(--short); background: var(--short-wash); }
  }
  input.num { text-align: right; }
  button[data-cell] { min-height: 28px; cursor: pointer; text-align: left; > span { text-decoration: underline dotted var(--ink-3); text-underline-offset: 3px; } > svg { display: none; } }
  td { padding: 2px 3px; }
  svg { flex: none; }
`;
const Adders = styled(Row)`margin-top: 10px; flex-wrap: wrap;`;

/** A draft and what it comes to. */
export interface Figures {
  readonly draft: Draft;
  readonly reckoning: Reckoning;
}

interface Props {
  readonly draft: Draft;
  /** @param tag names the cell typed in, so that typing on in it is one step to undo */
  readonly change: (edit: (draft: Draft) => Draft, tag?: string) => void;
  readonly drawTyped: () => void;
  readonly undo: () => void;
  readonly redo: () => void;
  readonly reckoning: Reckoning;
  /** What it came to a moment ago, which may be drawn after the key that was pressed. */
  readonly figures: Figures;
  readonly rates: readonly Rate[];
  /** What one run makes, for the heading. */
  readonly output: string;
  readonly refused: Problem | null;
}

/** The grid of a draft: type a part, Enter, its quantity, Enter, the next. */
export function DraftGrid({ draft, change, drawTyped, undo, redo, reckoning, figures, rates, output, refused }: Props) {
  const format = useFormat();
  const table = useRef<HTMLTableElement>(null);
  const adder = useRef<HTMLInputElement>(null);
  const [opened, setOpened] = useState<string | null>(null);
  const [pasteError, setPasteError] = useState<unknown>(null);
  const sensors = useSensors(useSensor(PointerSensor, BY_POINTER));
  const { lines } = draft;
  const set: GridDeeds['set'] = (index, part, tag) =>
    change((before) => {
      const line = before.lines[index];
      const to = line && (typeof part === 'function' ? part(line) : part);
      return to ? { ...before, lines: before.lines.with(index, { ...line, ...to }) } : before;
    }, tag);
  /** "450 g" stays until the cell is left; then it reads as the stock unit has it. */
  const settle = (index: number) =>
    set(
      index,
      (line) => {
        const plain = plainAmount(line);
        return plain === undefined || plain === line.amount ? null : { amount: plain };
      },
      `${lines[index]?.key}.amount`,
    );
  // At once, so that what a quick hand types next lands in the new cell.
  const cell = (index: number, column: string) =>
    table.current?.querySelector<HTMLElement>(`[data-cell="${index}.${column}"]`);
  const focus = (index: number, column: string) => cell(index, column)?.focus();
  const add = (line: DraftLine, column: string) => {
    change((before) => ({ ...before, lines: [...before.lines, line] }));
    // A part may be picked by an answer that arrives later, where React cannot be made to draw at once.
    focusWhenThere(() => cell(lines.length, column));
  };
  const [isRateAsked, setRateAsked] = useState(false);
  const addLabour = () => (rates[0] ? add(labourLine(rates[0].id), 'text') : setRateAsked(true));
  const remove = (index: number) => {
    flushSync(() => change((before) => ({ ...before, lines: before.lines.filter((_, at) => at !== index) })));
    if (lines.length > 1) focus(Math.min(index, lines.length - 2), 'amount');
    else adder.current?.focus();
  };
  const move = (from: number, to: number, column?: string) => {
    if (from < 0 || to < 0 || to >= lines.length || from === to) return;
    flushSync(() =>
      change((before) => {
        const next = [...before.lines];
        next.splice(to, 0, ...next.splice(from, 1));
        return { ...before, lines: next };
      }),
    );
    if (column) focus(to, column);
  };
  const drop = ({ active, over }: DragEndEvent) => {
    const place = (key: unknown) => lines.findIndex((line) => line.key === key);
    if (over) move(place(active.id), place(over.id));
  };

  /** Rows of a spreadsheet: what is certain becomes lines, what is not is kept for mending. */
  const paste = async (text: string) => {
    try {
      setPasteError(null);
      const { found, unknown } = await matchPasted(text);
      const added: DraftLine[] = found.map(({ item, quantity, waste }) => partLine(item, quantity, waste));
      const mending: PastedRow[] = unknown.map((row) => ({ key: newKey(), ...row }));
      change((before) => ({
        ...before,
        lines: [...before.lines, ...added],
        mending: [...before.mending, ...mending],
      }));
    } catch (error) {
      setPasteError(error);
    }
  };

  /** A step back may take away the very cell that has the focus; the keys stay with the grid. */
  const travel = (step: () => void) => () => {
    flushSync(drawTyped);
    flushSync(step);
    if (document.activeElement === document.body) adder.current?.focus();
  };
  const hotkeys = (event: KeyboardEvent) => {
    const key = event.key.toLowerCase();
    const ctrl = event.ctrlKey || event.metaKey;
    const acts: Record<string, (() => void) | undefined> = ctrl
      ? { z: travel(event.shiftKey ? redo : undo), y: travel(redo) }
      : event.altKey
        ? { l: addLabour, c: () => add(chargeLine(), 'text'), n: () => add(noteLine(), 'text') }
        : {};
    const act = acts[key];
    if (!act) return;
    event.preventDefault();
    event.stopPropagation();
    act();
  };
  const keys = (event: KeyboardEvent, index: number, column: string) => {
    const step = event.key === 'ArrowUp' ? -1 : event.key === 'ArrowDown' ? 1 : 0;
    const handled = () => {
      event.preventDefault();
      event.stopPropagation();
    };
    if (step !== 0 && event.altKey) {
      handled();
      move(index, index + step, column);
    } else if (event.altKey && event.key === 'Delete') {
      handled();
      remove(index);
    } else if (event.altKey && event.key.toLowerCase() === 'a' && lines[index]?.kind === 'part') {
      handled();
      setOpened(opened === lines[index]?.key ? null : (lines[index]?.key ?? null));
    } else if (step !== 0) {
      handled();
      focus(index + step, column);
    } else if (event.key === 'Enter' && !event.ctrlKey && !event.metaKey) {
      event.preventDefault();
      // What is done goes on to how long it takes, a number to the next part, and the rest down its column.
      if (column === 'text' && lines[index]?.kind !== 'note') focus(index, 'amount');
      else if (index + 1 < lines.length && column !== 'amount' && column !== 'text') focus(index + 1, column);
      else adder.current?.focus();
    } else sideways(event, index, column);
  };
  /** Left and right leave a cell where its text ends. */
  const sideways = (event: KeyboardEvent, index: number, column: string) => {
    const step = event.key === 'ArrowLeft' ? -1 : event.key === 'ArrowRight' ? 1 : 0;
    const input = event.target;
    if (step === 0) return;
    if (input instanceof HTMLInputElement) {
      const whole = input.selectionStart === 0 && input.selectionEnd === input.value.length;
      const atEnd = step < 0 ? input.selectionEnd === 0 : input.selectionStart === input.value.length;
      if (!whole && !atEnd) return;
    }
    const cells = [...(table.current?.querySelectorAll<HTMLElement>(`[data-cell^="${index}."]`) ?? [])];
    const next = cells[cells.findIndex((cell) => cell.dataset.cell === `${index}.${column}`) + step];
    if (!next) return;
    event.preventDefault();
    next.focus();
  };
  /** By line, of the field within it. */
  const faults = new Map<number, [string, string][]>();
  const all = refused?.field ? [...reckoning.faults, [refused.field, refused.detail] as const] : reckoning.faults;
  for (const [field, text] of all) {
    const [of, index, name] = field.split('.');
    if (of !== 'lines' || name === undefined) continue;
    faults.set(Number(index), [...(faults.get(Number(index)) ?? []), [name, text]]);
  }
  const deeds: GridDeeds = useStable({
    set,
    settle,
    remove,
    keys,
    setOpen: (key: string, open: boolean) => setOpened(open ? key : null),
  });
  const adding = useStable({
    pick: (item: PartItem, quantity?: string) => add(partLine(item, quantity), 'amount'),
    paste: (text: string) => void paste(text),
    back: () => focus(lines.length - 1, 'amount'),
    labour: addLabour,
    charge: () => add(chargeLine(), 'text'),
    note: () => add(noteLine(), 'text'),
  });
  const order = lines.map((line) => line.key).join(' ');
  // biome-ignore lint/correctness/useExhaustiveDependencies: the same keys in the same order are the same list
  const sortable = useMemo(() => lines.map((line) => line.key), [order]);
  const explained = sharesExplained(figures.draft.lines, figures.reckoning.shares);

  return (
    // biome-ignore lint/a11y/noStaticElementInteractions: the keys of the grid as a whole; each is also a button
    <div onKeyDown={hotkeys}>
      <Unmatched
        rows={draft.mending}
        onPlace={(row, item) =>
          change((before) => ({
            ...before,
            lines: [...before.lines, partLine(item, row.quantity)],
            mending: before.mending.filter((one) => one.key !== row.key),
          }))
        }
        onLeaveOut={(row) =>
          change((before) => ({ ...before, mending: before.mending.filter((one) => one.key !== row.key) }))
        }
      />
      <ProblemBox error={pasteError} />
      <DndContext sensors={sensors} collisionDetection={closestCenter} onDragEnd={drop}>
        <SortableContext items={sortable} strategy={verticalListSortingStrategy}>
          <Table ref={table}>
            <colgroup>
              {[30, undefined, 70, 66, 58, 106, 58, 92, 56].map((width, index) => (
                // biome-ignore lint/suspicious/noArrayIndexKey: columns never change places
                <col key={index} {...(width ? { style: { width } } : {})} />
              ))}
            </colgroup>
            <thead>
              <tr>
                <th>#</th>
                <th>Part</th>
                <th className="num">For {output}</th>
                <th>Counted</th>
                <th className="num">Waste %</th>
                <th>Taken</th>
                <th className="num">Cost</th>
                <th className="num">Back %</th>
                <th aria-label="More" />
              </tr>
            </thead>
            <tbody>
              <SharesContext.Provider value={figures.reckoning.shares}>
                {lines.map((line, index) => (
                  <DraftRow
                    key={line.key}
                    line={line}
                    index={index}
                    cost={reckoning.cost.lines[index] ?? 0}
                    rates={rates}
                    faults={faultsOf(faults.get(index) ?? [])}
                    open={opened === line.key}
                    grid={deeds}
                  />
                ))}
              </SharesContext.Provider>
            </tbody>
            <tfoot>
              <tr>
                <td />
                <td colSpan={4}>
                  <Adder inputRef={adder} isFirst={lines.length === 0} deeds={adding} />
                </td>
                <td />
                <td className="num">
                  <b>{format.number(formatDecimal(figures.reckoning.cost.total), 3, 3)}</b>
                </td>
                <td className="num">
                  {reckoning.faults.has('share') ? (
                    <Late>≠ 100</Late>
                  ) : (
                    figures.reckoning.shares.some((share) => share !== null) && <b>100.00</b>
                  )}
                </td>
                <td />
              </tr>
            </tfoot>
          </Table>
        </SortableContext>
      </DndContext>
      <Faults reckoning={reckoning} lines={lines} />
      {explained && (
        <Para $top={8}>
          <Faint>{explained}</Faint>
        </Para>
      )}
      <OtherLines deeds={adding} />
      {isRateAsked && (
        <RateDialog
          onClose={() => setRateAsked(false)}
          onDone={(rateId) => {
            // The dialog gives the focus back in the frame after it is gone, however long that takes; then it goes to the line.
            flushSync(() => setRateAsked(false));
            requestAnimationFrame(() => requestAnimationFrame(() => add(labourLine(rateId), 'text')));
          }}
        />
      )}
    </div>
  );
}

interface Adding {
  readonly pick: (item: PartItem, quantity?: string) => void;
  readonly paste: (text: string) => void;
  /** To the last line. */
  readonly back: () => void;
  readonly labour: () => void;
  readonly charge: () => void;
  readonly note: () => void;
}

const Adder = memo(function Adder({
  inputRef,
  isFirst,
  deeds,
}: {
  inputRef: RefObject<HTMLInputElement | null>;
  isFirst: boolean;
  deeds: Adding;
}) {
  return (
    <ItemPicker
      label="Add a part"
      hideLabel
      placeholder="Enter or scan a part, or paste rows from a spreadsheet"
      inputRef={inputRef}
      autoFocus={isFirst}
      canAdd
      counted
      onPick={(item, _, quantity) => deeds.pick(item, quantity)}
      onPasteRows={deeds.paste}
      onKeyDown={(event) => {
        if (event.key !== 'ArrowUp' || event.currentTarget.value !== '') return;
        event.preventDefault();
        deeds.back();
      }}
    />
  );
});

const OtherLines = memo(function OtherLines({ deeds }: { deeds: Adding }) {
  return (
    <Adders>
      <Button look="ghost" onPress={deeds.labour}>
        + Labour
      </Button>
      <Button look="ghost" onPress={deeds.charge}>
        + Charge
      </Button>
      <Button look="ghost" onPress={deeds.note}>
        + Note
      </Button>
      <Faint>Ctrl Z undoes. Alt ↑ ↓ or the handle moves a line, Alt A lists alternates. ? lists all keys.</Faint>
    </Adders>
  );
});

/** What keeps the draft from being saved, line by line. */
function Faults({ reckoning, lines }: { reckoning: Reckoning; lines: readonly DraftLine[] }) {
  const faults = [...reckoning.faults].filter(([field]) => field !== 'outputQuantity');
  if (faults.length === 0) return null;
  return (
    <FaultList role="status" $top={10}>
      {faults.map(([field, text]) => {
        const index = Number(field.split('.')[1]);
        return (
          <li key={field}>
            {Number.isNaN(index)
              ? text
              : `Line ${index + 1}${lines[index]?.item ? `, ${lines[index].item.name}` : ''}: ${text}`}
          </li>
        );
      })}
    </FaultList>
  );
}
