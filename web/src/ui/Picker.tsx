import { Plus } from 'lucide-react';
import {
  type ClipboardEvent,
  type KeyboardEvent,
  type ReactNode,
  type Ref,
  useContext,
  useDeferredValue,
  useEffect,
  useRef,
  useState,
} from 'react';
import {
  ComboBox,
  ComboBoxStateContext,
  FieldError,
  Input,
  Label,
  ListBox,
  ListBoxItem,
  Popover,
} from 'react-aria-components';
import { flushSync } from 'react-dom';
import styled from 'styled-components';
import { boxLook, column, labelLook, wrongLook } from './box.ts';
import { focusMoved, holdKeys } from './typeAhead.ts';

const Wrap = styled(ComboBox)`
  ${column}
  label { ${labelLook} }
  input { ${boxLook} padding: 6px 9px; width: 100%; }
  &[data-invalid] input { border-color: var(--short); }
`;
const Pop = styled(Popover)`
  background: var(--sheet); border: 1px solid var(--line); border-radius: 4px; box-shadow: 0 8px 28px var(--shade); overflow: auto; min-width: 340px;
`;
const List = styled(ListBox)`max-height: 320px; overflow: auto; padding: 4px; outline: none;`;
const Option = styled(ListBoxItem)`
  display: grid; grid-template-columns: 30px 1fr auto; gap: 10px; align-items: center; padding: 6px 8px; border-radius: 3px; cursor: pointer;
  line-height: 1.2; outline: none; small { color: var(--ink-3); }
  &[data-focused] { background: var(--coming-wash); box-shadow: inset 4px 0 var(--honey); }
  @media (forced-colors: active) { &[data-focused] { outline: 2px solid Highlight; outline-offset: -2px; } }
`;
const Wrong = styled(FieldError)`${wrongLook}`;
const Nothing = styled.div`padding: 10px 12px; color: var(--ink-2);`;

/** What was found for a text, as far as the answer is there. */
export interface Found<T> {
  readonly rows: readonly T[];
  /** Whether this is the answer to what is asked now, and not to the text before. */
  readonly settled: boolean;
  /** The one that is meant beyond doubt: of that very code, name or label. */
  readonly exact: T | undefined;
  /** Whether the only one found is meant too. */
  readonly takesOnly: boolean;
}

export interface PickerField {
  readonly label: string;
  readonly hideLabel?: boolean;
  readonly placeholder?: string;
  readonly error?: string | undefined;
  readonly autoFocus?: boolean;
  readonly inputRef?: Ref<HTMLInputElement>;
  /** What the box shows before anything is typed; it is cleared after a pick when absent. */
  readonly chosen?: string;
  readonly onKeyDown?: (event: KeyboardEvent<HTMLInputElement>) => void;
  /** What is scanned or typed and is none of what is looked for, like a bin: true when it was taken. */
  readonly onText?: (text: string) => boolean;
}

interface Props<T extends { readonly id: number }> extends PickerField {
  /** What is typed into it, and what was found for that. */
  readonly typing: Typing;
  readonly found: Found<T>;
  readonly onPick: (row: T) => void;
  /** How one is shown in the list: its picture, its words, and what stands at the right. */
  readonly draw: (row: T) => ReactNode;
  readonly textOf: (row: T) => string;
  readonly says: { readonly before: string; readonly none: string };
  /** Makes a new one of what was typed and is not known: what it is called, and the dialog that does it. */
  readonly adding?: {
    readonly what: string;
    readonly dialog: (text: string, onClose: () => void, onDone: (made: T) => void) => ReactNode;
  };
  readonly onPaste?: (event: ClipboardEvent<HTMLInputElement>) => void;
}

/** What is typed into a picker: the text itself, null while nothing is, and what is to be looked for. */
export function useTyping() {
  const [typed, setTyped] = useState<string | null>(null);
  return { typed, setTyped, asked: useDeferredValue((typed ?? '').trim()) };
}
export type Typing = ReturnType<typeof useTyping>;

/** How long an Enter waits for its answer, in milliseconds. */
const PATIENCE_MS = 5000;
const NEW = 'new';

/**
 * Finds one of many by typing. Enter takes what is meant beyond doubt: the marked one, the exact one, or the only one that
 * was found. Otherwise it marks the first that was found, for another Enter to take. Keys that follow such an Enter before
 * the answer is there wait for the field they are meant for.
 */
export function Picker<T extends { readonly id: number }>(props: Props<T>) {
  const { chosen, adding } = props;
  const { typed, setTyped, asked } = props.typing;
  const { rows, settled, exact, takesOnly } = props.found;
  const text = typed ?? chosen ?? '';
  const box = useRef<HTMLDivElement>(null);
  /** Empties the box and shuts its list, which would otherwise stay open while the focus does not move on. */
  const clear = () => {
    setTyped(null);
    setTimeout(() => {
      const input = box.current?.querySelector('input');
      if (!input || document.activeElement !== input) return;
      input.blur();
      input.focus();
    });
  };
  const pick = (row: T | undefined) => {
    if (!row) return;
    const input = box.current?.querySelector('input') ?? null;
    clear();
    props.onPick(row);
    holdKeys(focusMoved(input));
  };
  const meant = exact ?? (takesOnly && rows.length === 1 ? rows[0] : undefined);
  const pickBest = () => {
    if (meant) pick(meant);
    else if (rows.length > 0) setMarking((before) => before + 1);
    else if (adding) setNew(asked);
  };
  /** Counts how often the first that was found is to be marked. */
  const [marking, setMarking] = useState(0);
  const [isNew, setNew] = useState<string | null>(null);
  // A scanner, or a quick hand, is done before the answer is there: Enter then counts as soon as it is.
  const [hurried, setHurried] = useState<string | null>(null);
  const answered = useRef(() => {});
  const hurry = (text: string) => {
    setHurried(text);
    // An answer that never comes holds nobody's keys.
    holdKeys(
      new Promise<void>((resolve) => {
        answered.current = resolve;
        setTimeout(resolve, PATIENCE_MS);
      }),
    );
  };
  // biome-ignore lint/correctness/useExhaustiveDependencies: only the arrival of the awaited answer matters
  useEffect(() => {
    if (hurried === null || hurried !== asked || !settled) return;
    setHurried(null);
    pickBest();
    answered.current();
  }, [hurried, asked, settled]);
  const takeFirst = (event: KeyboardEvent<HTMLInputElement>) => {
    const text = typed?.trim() ?? '';
    props.onKeyDown?.(event);
    const marked = event.currentTarget.getAttribute('aria-activedescendant');
    if (event.key !== 'Enter' || event.ctrlKey || marked || text === '') return;
    event.preventDefault();
    if (props.onText?.(text)) clear();
    else if (text === asked && settled) {
      // The box would take the text as it is, and shut the list in which one is to be marked.
      if (!meant) event.stopPropagation();
      pickBest();
    } else hurry(text);
  };
  return (
    <>
      <Wrap
        ref={box}
        {...(props.hideLabel ? { 'aria-label': props.label } : {})}
        inputValue={text}
        onInputChange={setTyped}
        selectedKey={null}
        onSelectionChange={(key) => (key === NEW ? setNew(asked) : pick(rows.find((row) => row.id === key)))}
        onBlur={() => {
          setTyped(null);
          setHurried(null);
          answered.current();
        }}
        allowsCustomValue
        allowsEmptyCollection
        menuTrigger="input"
        defaultFilter={() => true}
        isInvalid={props.error !== undefined}
        validationBehavior="aria"
      >
        <MarkFirst times={marking} />
        {!props.hideLabel && <Label>{props.label}</Label>}
        <Input
          ref={props.inputRef}
          placeholder={props.placeholder}
          autoFocus={props.autoFocus ?? false}
          onKeyDownCapture={takeFirst}
          onPaste={props.onPaste}
        />
        <Wrong>{props.error}</Wrong>
        {typed !== null && (
          <Pop placement="bottom start">
            <List
              renderEmptyState={() => (
                <Nothing>{asked === '' ? props.says.before : settled ? props.says.none : 'Looking…'}</Nothing>
              )}
            >
              {rows.map((row) => (
                <Option key={row.id} id={row.id} textValue={props.textOf(row)}>
                  {props.draw(row)}
                </Option>
              ))}
              {adding && settled && asked !== '' && (
                <Option id={NEW} textValue={`New ${adding.what} ${asked}`}>
                  <Plus size={16} aria-hidden />
                  <span>
                    New {adding.what} <b>{asked}</b>
                  </span>
                  <small>without leaving</small>
                </Option>
              )}
            </List>
          </Pop>
        )}
      </Wrap>
      {/* Outside of the box, whose parts would otherwise take the dialog's fields for their own. */}
      {isNew !== null &&
        adding?.dialog(
          isNew,
          () => setNew(null),
          (made) => {
            // The dialog gives the focus back in the frame after it is gone; whoever takes the new one puts it further on.
            flushSync(() => setNew(null));
            requestAnimationFrame(() => requestAnimationFrame(() => pick(made)));
          },
        )}
    </>
  );
}

/** Marks the first choice of the list around it. */
function MarkFirst({ times }: { times: number }) {
  const state = useContext(ComboBoxStateContext);
  const marked = useRef(0);
  // What was found arrives in the list a moment later than here, so each drawing looks again until it has.
  useEffect(() => {
    const first = state?.collection.getFirstKey();
    if (!state || times === marked.current || first == null) return;
    if (state.isOpen) marked.current = times;
    else state.open('first', 'manual');
    state.selectionManager.setFocusedKey(first);
  });
  return null;
}
