import type { Item } from '@yosegi/contract';
import { X } from 'lucide-react';
import { type KeyboardEvent, type ReactNode, useRef } from 'react';
import { Button } from '../ui/Button.tsx';
import { focusWhenThere } from '../ui/focusWhenThere.ts';
import { useFormat } from '../ui/format.ts';
import { Cell } from '../ui/layout.ts';
import { Tile } from '../ui/Tile.tsx';
import { Faint } from '../ui/text.ts';
import { useKept } from '../ui/useKept.ts';
import { STEPS, stepLines } from './steps.ts';

export interface TypedLine {
  /** Stays with the line while others come and go. */
  readonly key: number;
  readonly item: ItemHead;
}
/** What a line shows of its item. */
export type ItemHead = Pick<Item, 'code' | 'name'>;
/** Unlike any before, also those that were kept from before a reload. */
let nextKey = Date.now();

/**
 * The lines of a stock document while they are typed: they stay on this machine until they are posted.
 * @param keepAs under which they stay
 * @param begin the lines it begins with when none were kept
 */
export function useTypedLines<Line extends TypedLine>(keepAs: string, begin: readonly Omit<Line, 'key'>[] = []) {
  const [lines, setLines, forget] = useKept<readonly Line[]>(keepAs, () => begin.map(withKey<Line>));
  return { ...useLines(lines, setLines), /** Once they are posted. */ forget };
}

/**
 * Lines that are typed, wherever they are kept. A picked item becomes a line whose first number is focused; Enter goes on
 * through the line's numbers, lot and serials, and from the last back to the picker; arrows go up and down. Rows of a line
 * carry its key as `data-line`.
 */
export function useLines<Line extends TypedLine>(
  lines: readonly Line[],
  setLines: (change: (before: readonly Line[]) => readonly Line[]) => void,
) {
  const adder = useRef<HTMLInputElement>(null);
  const body = useRef<HTMLTableSectionElement>(null);
  const steps = (key: string) => [
    ...(body.current?.querySelectorAll<HTMLElement>(`[data-line="${key}"] ${STEPS}`) ?? []),
  ];
  const toNext = (event: KeyboardEvent<HTMLElement>) => {
    // With Ctrl it posts the document.
    if (stepLines(event) || event.key !== 'Enter' || event.ctrlKey) return;
    event.preventDefault();
    // The field itself: what listens may stand around it.
    const field = event.target as HTMLElement;
    const own = steps(field.closest<HTMLElement>('[data-line]')?.dataset.line ?? '');
    const at = own.indexOf(field);
    ((at < 0 ? null : own[at + 1]) ?? adder.current)?.focus();
  };
  return {
    lines,
    adder,
    body,
    /** @param stay leaves the focus where it is, as for one scan after another */
    append: (line: Omit<Line, 'key'>, stay = false) => {
      const added = withKey<Line>(line);
      setLines((before) => [...before, added]);
      if (!stay) focusWhenThere(() => steps(String(added.key))[0]);
    },
    set: (key: number, part: Partial<Line>) =>
      setLines((before) => before.map((line) => (line.key === key ? { ...line, ...part } : line))),
    remove: (key: number) => setLines((before) => before.filter((line) => line.key !== key)),
    toNext,
  };
}

function withKey<Line extends TypedLine>(line: Omit<Line, 'key'>): Line {
  nextKey += 1;
  return { ...line, key: nextKey } as Line;
}

/** The item of a typed line; `more` stands beside its code. */
export function LineItem({ item, more }: { item: ItemHead; more?: ReactNode }) {
  return (
    <Cell>
      <Tile code={item.code} size={28} />
      <span>
        <b>{item.name}</b>
        <br />
        <Faint>
          {item.code}
          {more && <> · {more}</>}
        </Faint>
      </span>
    </Cell>
  );
}

/** How much of an item there is now, in its unit. */
export function OnHand({ item }: { item: Item }) {
  const format = useFormat();
  return <>{format.quantity(item.onHand, item.unit, item.decimals)} on hand</>;
}

/** Takes a typed line away. */
export function RemoveLine({ item, onRemove }: { item: ItemHead; onRemove: () => void }) {
  return (
    <Button look="icon" aria-label={`Remove ${item.name}`} onPress={onRemove}>
      <X size={16} aria-hidden />
    </Button>
  );
}
