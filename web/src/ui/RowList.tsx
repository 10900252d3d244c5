import { X } from 'lucide-react';
import type { ReactNode } from 'react';
import styled from 'styled-components';
import { Button } from './Button.tsx';
import { Faint } from './text.ts';

const Section = styled.fieldset`
  border: 0; border-top: 1px solid var(--line); padding: 10px 0 0; margin: 0; display: grid; gap: 6px; min-width: 0;
  legend { font: 600 16px var(--display); padding: 0 8px 0 0; }
`;
const Line = styled.div<{
  $columns: string;
}>`display: grid; grid-template-columns: ${({ $columns }) => $columns} 34px; gap: 8px; align-items: start;`;

export interface RowListProps<T> {
  readonly rows: readonly T[];
  readonly onChange: (rows: readonly T[]) => void;
  /** What the server refuses at a field like `packs.0.one`. */
  readonly at: (field: string) => string | undefined;
}

/** Rows of a record that are typed one beneath the other, with a button that adds one. */
export function RowList<T>({
  title,
  hint,
  rows,
  onChange,
  blank,
  add,
  columns,
  children,
}: {
  title: string;
  hint: string;
  rows: readonly T[];
  onChange: (rows: readonly T[]) => void;
  blank: T;
  add: string;
  columns: string;
  children: (row: T, index: number, set: (part: Partial<T>) => void) => ReactNode;
}) {
  return (
    <Section>
      <legend>{title}</legend>
      <Faint>{hint}</Faint>
      {rows.map((row, index) => (
        // A row is nothing but what is typed at its place: the fields keep no state of their own.
        // biome-ignore lint/suspicious/noArrayIndexKey: see above
        <Line key={index} $columns={columns}>
          {children(row, index, (part) => onChange(rows.map((one, at) => (at === index ? { ...one, ...part } : one))))}
          <Button
            look="icon"
            aria-label={`Remove from ${title.toLowerCase()}, line ${index + 1}`}
            onPress={() => onChange(rows.filter((_, at) => at !== index))}
          >
            <X size={15} aria-hidden />
          </Button>
        </Line>
      ))}
      <div>
        <Button look="ghost" onPress={() => onChange([...rows, blank])}>
          {add}
        </Button>
      </div>
    </Section>
  );
}
