import type { Item } from '@yosegi/contract';
import { writingOf } from '@yosegi/core/number';
import type { ElementString } from '@yosegi/core/scan';
import { useMemo } from 'react';
import { useQuestion } from '../api/client.ts';
import { countedText } from './countedText.ts';
import { useFormat, useLocale } from './format.ts';
import { later } from './later.tsx';
import { type Found, Picker, type PickerField, useTyping } from './Picker.tsx';
import { scannedLabel } from './scanned.ts';
import { Tile } from './Tile.tsx';

const ItemDialog = later(() => import('./ItemDialog.tsx'), 'ItemDialog');

export interface ItemPickerProps extends PickerField {
  /**
   * The item; where it was scanned what its label says besides: its lot, day and serial; and how many, a plain decimal, where
   * {@link counted} lets that be typed.
   */
  readonly onPick: (item: Item, scan?: ElementString, quantity?: string) => void;
  /** How many may be typed with it: "30 KIT-M", "KIT-M 30". */
  readonly counted?: boolean;
  readonly source?: Item['source'];
  /** Offers to make a new item of what was typed and is not known. */
  readonly canAdd?: boolean;
  /** How a new item comes that is added here; bought, unless it says otherwise. */
  readonly newIs?: Item['source'];
  /** Rows of a spreadsheet, pasted where one item is asked for. */
  readonly onPasteRows?: (text: string) => void;
}

/** Any item by code, name, barcode or a part of one of them, with how many where that is asked. */
export function ItemPicker(props: ItemPickerProps) {
  const format = useFormat();
  const locale = useLocale();
  const writing = useMemo(() => writingOf(locale), [locale]);
  const typing = useTyping();
  const { asked } = typing;
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
  const answer = split ? rest : whole;
  const rows = asked === '' ? [] : (answer.data?.rows ?? []);
  const meant = (label?.gtin ?? split?.rest ?? asked).toLowerCase();
  const named = rows.find(({ code, name, barcode }) =>
    [code, name, barcode].some((own) => own?.toLowerCase() === meant),
  );
  const found: Found<Item> = {
    rows,
    settled: isSettled(answer),
    // A GTIN is found however many zeros its label puts before it.
    exact: named ?? (label?.gtin && rows.length === 1 ? rows[0] : undefined),
    // A number alone may be meant for the field beside.
    takesOnly: !/^[\d.,]+$/.test(asked),
  };
  const pick = (item: Item) => {
    // A plain barcode was scanned too, though it says nothing more.
    const scan = label ?? (item.barcode !== null && item.barcode === asked ? {} : undefined);
    props.onPick(item, scan, split?.quantity);
  };
  return (
    <Picker<Item>
      {...props}
      placeholder={props.placeholder ?? 'Enter a code or a name'}
      typing={typing}
      found={found}
      onPick={pick}
      textOf={({ code, name }) => `${code} ${name}`}
      draw={(item) => (
        <>
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
        </>
      )}
      says={{ before: 'Enter a code, a name or part of either.', none: 'No item has that name or code.' }}
      {...(props.canAdd
        ? {
            adding: {
              what: 'item',
              dialog: (text, onClose, onDone) => (
                <ItemDialog
                  text={text}
                  {...(props.newIs ? { source: props.newIs } : {})}
                  onClose={onClose}
                  onDone={onDone}
                />
              ),
            },
          }
        : {})}
      onPaste={(event) => {
        const rows = event.clipboardData.getData('text/plain');
        if (!props.onPasteRows || !/\S[\t\r\n]+\S/.test(rows.trim())) return;
        event.preventDefault();
        props.onPasteRows(rows);
      }}
    />
  );
}

/** What a scanned label says; null for anything that is typed. */
function readLabel(text: string): ElementString | null {
  try {
    return scannedLabel(text);
  } catch {
    return null;
  }
}
