import type { Item } from '@yosegi/contract';
import { writingOf } from '@yosegi/core/number';
import type { ElementString } from '@yosegi/core/scan';
import { Plus } from 'lucide-react';
import {
  type KeyboardEvent,
  type Ref,
  useContext,
  useDeferredValue,
  useEffect,
  useMemo,
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
import styled from 'styled-components';
import { useQuestion } from '../api/client.ts';
import { countedText } from './countedText.ts';
import { useFormat, useLocale } from './format.ts';
import { later } from './later.tsx';
import { scannedLabel } from './scanned.ts';
import { Tile } from './Tile.tsx';
import { isTypedAhead, typeAhead } from './typeAhead.ts';

const ItemDialog = later(() => import('./ItemDialog.tsx'), 'ItemDialog');

const Wrap = styled(ComboBox)`
  display: flex; flex-direction: column; gap: 3px; min-width: 0;
  label { font-size: 12px; color: var(--ink-2); }
  input { border: 1px solid var(--line); border-radius: 3px; background: var(--field); padding: 6px 9px; min-height: 34px; width: 100%; }
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
const Wrong = styled(FieldError)`color: var(--short-ink); font-size: 12.5px;`;

export interface ItemPickerProps {
  label: string;
  hideLabel?: boolean;
  placeholder?: string;
  /**
   * The item; where it was scanned what its label says besides: its lot, day and serial; and how many, a plain decimal, where
   * {@link counted} lets that be typed.
   */
  onPick: (item: Item, scan?: ElementString, quantity?: string) => void;
  /** How many may be typed with it: "30 KIT-M", "KIT-M 30". */
  counted?: boolean;
  error?: string | undefined;
  autoFocus?: boolean;
  inputRef?: Ref<HTMLInputElement>;
  source?: Item['source'];
  /** What the box shows before anything is typed; it is cleared after a pick when absent. */
  chosen?: string;
  onKeyDown?: (event: KeyboardEvent<HTMLInputElement>) => void;
  /** What is scanned or typed and is no item, like a bin: true when it was taken. */
  onText?: (text: string) => boolean;
  /** Offers to make a new item of what was typed and is not known. */
  canAdd?: boolean;
  /** How a new item comes that is added here; bought, unless it says otherwise. */
  readonly newIs?: Item['source'];
  /** Rows of a spreadsheet, pasted where one item is asked for. */
  onPasteRows?: (text: string) => void;
}

const NEW = 'new';

/**
 * Any item by code, name or a part of either. Enter takes what is meant beyond doubt: the marked one, the one of that code,
 * barcode or whole name, or the only one that was found, unless a mere number found it. Otherwise it marks the first that was
 * found, for another Enter to take. Keys that follow such an Enter before the answer is there wait for the field they are
 * meant for.
 */
export function ItemPicker(props: ItemPickerProps) {
  const { chosen } = props;
  const format = useFormat();
  const locale = useLocale();
  const writing = useMemo(() => writingOf(locale), [locale]);
  const [typed, setTyped] = useState<string | null>(null);
  const text = typed ?? chosen ?? '';
  const asked = useDeferredValue((typed ?? '').trim());
  const label = readLabel(asked);
  const query = { q: label?.gtin ?? asked, limit: 12, ...(props.source ? { source: props.source } : {}) };
  const whole = useQuestion('items', { query }, { enabled: asked !== '', keep: true });
  const isSettled = (of: typeof whole) => of.isSuccess && !of.isPlaceholderData;
  const isNone = isSettled(whole) && whole.data?.rows.length === 0;
  // A name may begin or end with a number, so that it is read as how many only where nothing has that name.
  const split = props.counted && isNone && !label ? countedText(asked, writing) : null;
  const rest = useQuestion(
    'items',
    { query: { ...query, q: split?.rest ?? '' } },
    { enabled: split !== null, keep: true },
  );
  const found = split ? rest : whole;
  const items = asked === '' ? [] : (found.data?.rows ?? []);
  const settled = isSettled(found);
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
  const pick = (item: Item | undefined) => {
    if (!item) return;
    clear();
    // A plain barcode was scanned too, though it says nothing more.
    const scan = label ?? (item.barcode !== null && item.barcode === asked ? {} : undefined);
    props.onPick(item, scan, split?.quantity);
    typeAhead(ahead.current, box.current?.querySelector('input') ?? null);
    ahead.current = [];
  };
  const exactly = () => {
    // A GTIN is found however many zeros its label puts before it.
    if (label?.gtin && items.length === 1) return items[0];
    const meant = (label?.gtin ?? split?.rest ?? asked).toLowerCase();
    const named = items.find(({ code, name, barcode }) =>
      [code, name, barcode].some((own) => own?.toLowerCase() === meant),
    );
    // A number alone may be meant for the field beside.
    return named ?? (items.length === 1 && !/^[\d.,]+$/.test(asked) ? items[0] : undefined);
  };
  const pickBest = () => {
    const exact = exactly();
    if (exact) pick(exact);
    else if (items.length > 0) setMarking((before) => before + 1);
    else if (props.canAdd) setAdding(asked);
  };
  /** Counts how often the first that was found is to be marked. */
  const [marking, setMarking] = useState(0);
  const [adding, setAdding] = useState<string | null>(null);
  // A scanner, or a quick hand, is done before the answer is there: Enter then counts as soon as it is.
  const [hurried, setHurried] = useState<string | null>(null);
  // biome-ignore lint/correctness/useExhaustiveDependencies: only the arrival of the awaited answer matters
  useEffect(() => {
    if (hurried === null || hurried !== asked || !settled) return;
    setHurried(null);
    pickBest();
    // What was meant for the next field is let go where there is none to go to.
    ahead.current = [];
  }, [hurried, asked, settled]);
  /** The keys that came since. */
  const ahead = useRef<string[]>([]);
  const takeFirst = (event: KeyboardEvent<HTMLInputElement>) => {
    if (hurried !== null && hurried === typed?.trim() && isTypedAhead(event)) {
      event.preventDefault();
      event.stopPropagation();
      ahead.current.push(event.key);
      return;
    }
    props.onKeyDown?.(event);
    const marked = event.currentTarget.getAttribute('aria-activedescendant');
    const text = typed?.trim() ?? '';
    if (event.key !== 'Enter' || marked || text === '') return;
    event.preventDefault();
    if (props.onText?.(text)) clear();
    else if (text === asked && settled) {
      // The box would take the text as it is, and shut the list in which one is to be marked.
      if (!exactly()) event.stopPropagation();
      pickBest();
    } else setHurried(text);
  };
  return (
    <>
      <Wrap
        ref={box}
        {...(props.hideLabel ? { 'aria-label': props.label } : {})}
        inputValue={text}
        onInputChange={setTyped}
        selectedKey={null}
        onSelectionChange={(key) => (key === NEW ? setAdding(asked) : pick(items.find((item) => item.id === key)))}
        onBlur={() => setTyped(null)}
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
          placeholder={props.placeholder ?? 'Type a code or a name'}
          autoFocus={props.autoFocus ?? false}
          onKeyDownCapture={takeFirst}
          onPaste={(event) => {
            const rows = event.clipboardData.getData('text/plain');
            if (!props.onPasteRows || !/\S[\t\r\n]+\S/.test(rows.trim())) return;
            event.preventDefault();
            props.onPasteRows(rows);
          }}
        />
        <Wrong>{props.error}</Wrong>
        {typed !== null && (
          <Pop placement="bottom start">
            <List
              renderEmptyState={() => (
                <Nothing>
                  {asked === ''
                    ? 'Type a code, a name or a part of either.'
                    : settled
                      ? 'No item has that name or code.'
                      : 'Looking…'}
                </Nothing>
              )}
            >
              {items.map((item) => (
                <Option key={item.id} id={item.id} textValue={`${item.code} ${item.name}`}>
                  <Tile code={item.code} size={28} />
                  <span>
                    <b>
                      {split && `${format.number(split.quantity)} × `}
                      {item.name}
                    </b>
                    <br />
                    <small>{item.code}</small>
                  </span>
                  <small>
                    {format.quantity(item.free, item.unit, item.decimals)} free · {format.unitCost(item.averageCost)}
                  </small>
                </Option>
              ))}
              {props.canAdd && settled && asked !== '' && (
                <Option id={NEW} textValue={`New item ${asked}`}>
                  <Plus size={16} aria-hidden />
                  <span>
                    New item <b>{asked}</b>
                  </span>
                  <small>without leaving</small>
                </Option>
              )}
            </List>
          </Pop>
        )}
      </Wrap>
      {/* Outside of the box, whose parts would otherwise take the dialog's fields for their own. */}
      {adding !== null && (
        <ItemDialog
          text={adding}
          {...(props.newIs ? { source: props.newIs } : {})}
          onClose={() => setAdding(null)}
          onDone={(item) => {
            setAdding(null);
            pick(item);
          }}
        />
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

/** What a scanned label says; null for anything that is typed. */
function readLabel(text: string): ElementString | null {
  try {
    return scannedLabel(text);
  } catch {
    return null;
  }
}

const Nothing = styled.div`padding: 10px 12px; color: var(--ink-2);`;
