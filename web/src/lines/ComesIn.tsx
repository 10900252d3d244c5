import type { ReactNode } from 'react';
import { plainTyped } from '../ui/measuring.ts';
import { InFields } from './InFields.tsx';
import { Beneath } from './LineTable.tsx';
import type { TrackedItem, TypedTrack } from './typed.ts';
import type { TypedLine, useLines } from './typedLines.tsx';

interface Line extends TypedLine {
  readonly quantity: string;
  readonly track: TypedTrack;
}

interface Props<L extends Line> {
  readonly line: L;
  readonly span: number;
  /** What comes in; nothing is asked of what is kept by neither lot nor serial. */
  readonly item: TrackedItem & Parameters<typeof plainTyped>[1];
  readonly typed: Pick<ReturnType<typeof useLines<L>>, 'set' | 'toNext'>;
  readonly errorAt: (name: 'lot' | 'bestBefore' | 'serials') => string | undefined;
  readonly children?: ReactNode;
}

/** The lot or the serials of goods that come in, beneath their line; a range of serials says how many. */
export function ComesIn<L extends Line>({ line, span, item, typed, errorAt, children }: Props<L>) {
  if (item.tracking === 'none') return null;
  const set = (part: { track?: TypedTrack; quantity?: string }) => typed.set(line.key, part as Partial<L>);
  return (
    <Beneath line={line} span={span}>
      <InFields
        item={item}
        typed={line.track}
        onChange={(track) => set({ track })}
        quantity={Number(plainTyped(line.quantity, item)) || 0}
        setCount={(n) => set({ quantity: String(n) })}
        errorAt={errorAt}
        onKeyDown={typed.toNext}
      />
      {children}
    </Beneath>
  );
}
