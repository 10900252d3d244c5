import type { Item } from '@yosegi/contract';
import { X } from 'lucide-react';
import { type KeyboardEvent, type ReactNode, useRef, useState } from 'react';
import { Button } from '../ui/Button.tsx';
import { useFormat } from '../ui/format.ts';
import { Cell } from '../ui/layout.ts';
import { Tile } from '../ui/Tile.tsx';
import { Faint } from '../ui/text.ts';

interface TypedLine {
  /** Stays with the line while others come and go. */
  readonly key: number;
  readonly item: Item;
}
let nextKey = 0;

/**
 * The lines of a stock document while they are typed. A picked item becomes a line whose first number is focused;
 * Enter goes on to the next number of the line, and from its last back to the picker.
 *
 * @param numbers how many number inputs a line has
 */
export function useTypedLines<Line extends TypedLine>(numbers: number) {
  const [lines, setLines] = useState<readonly Line[]>([]);
  const adder = useRef<HTMLInputElement>(null);
  const body = useRef<HTMLTableSectionElement>(null);
  const inputs = () => [...(body.current?.querySelectorAll<HTMLInputElement>('input.num') ?? [])];
  const onEnter = (go: (input: HTMLInputElement) => void) => (event: KeyboardEvent<HTMLInputElement>) => {
    // With Ctrl it posts the document.
    if (event.key !== 'Enter' || event.ctrlKey) return;
    event.preventDefault();
    go(event.currentTarget);
  };
  return {
    lines,
    adder,
    body,
    append: (line: Omit<Line, 'key'>) => {
      setLines((before) => [...before, { ...line, key: ++nextKey } as Line]);
      requestAnimationFrame(() => inputs().at(-numbers)?.focus());
    },
    set: (key: number, part: Partial<Line>) =>
      setLines((before) => before.map((line) => (line.key === key ? { ...line, ...part } : line))),
    remove: (key: number) => setLines((before) => before.filter((line) => line.key !== key)),
    toNext: onEnter((input) => {
      const all = inputs();
      all[all.indexOf(input) + 1]?.focus();
    }),
    toAdder: onEnter(() => adder.current?.focus()),
  };
}

/** The item of a typed line; `more` stands beside its code. */
export function LineItem({ item, more }: { item: Item; more?: ReactNode }) {
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
export function RemoveLine({ item, onRemove }: { item: Item; onRemove: () => void }) {
  return (
    <Button look="ghost" style={{ padding: 8 }} aria-label={`Remove ${item.name}`} onPress={onRemove}>
      <X size={16} aria-hidden />
    </Button>
  );
}

/** Each shortage of a refused document, in words. */
export function Shorts({ facts }: { facts: Record<string, unknown> | undefined }) {
  const lines = (facts?.lines ?? []) as { name: string; bin: string; wanted: string; there: string; unit: string }[];
  return (
    <ul style={{ margin: 0, paddingLeft: 18 }}>
      {lines.map((line) => (
        <li key={`${line.name}.${line.bin}`}>
          {line.name}: {line.wanted} wanted from {line.bin}, {line.there} there
        </li>
      ))}
    </ul>
  );
}
