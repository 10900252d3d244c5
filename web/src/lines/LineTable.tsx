import { Fragment, type ReactNode, type RefObject } from 'react';
import { LineGrid } from '../ui/layout.ts';
import { Th } from '../ui/space.ts';
import { RemoveLine, type TypedLine } from './typedLines.tsx';

/** One column of typed lines: what stands above it, and what each line has in it. */
export interface LineColumn<Line> {
  readonly head: string;
  /** In pixels; the first column takes what the others leave. */
  readonly width?: number;
  /** Figures, which stand at the right. */
  readonly numeric?: boolean;
  /** What the cell is called on a phone, where a line is a card; nothing where it says so itself. */
  readonly onPhone?: string;
  readonly cell: (line: Line, index: number) => ReactNode;
}

interface Props<Line extends TypedLine> {
  readonly lines: readonly Line[];
  /** Where the walk from field to field looks for them. */
  readonly body: RefObject<HTMLTableSectionElement | null>;
  readonly columns: readonly LineColumn<Line>[];
  readonly onRemove?: ((line: Line) => void) | undefined;
  /** Rows of their own beneath a line: its lots and serials, its day, its contents. */
  readonly beneath?: (line: Line, index: number, span: number) => ReactNode;
  /** What the next line begins with. */
  readonly adder?: ReactNode;
}

/** The lines of a document while they are typed. On a phone each is a card. */
export function LineTable<Line extends TypedLine>({ lines, body, columns, onRemove, beneath, adder }: Props<Line>) {
  const span = columns.length + (onRemove ? 1 : 0);
  return (
    <LineGrid $full>
      <thead>
        <tr>
          {columns.map(({ head, width, numeric }) => (
            <Th key={head} {...(width ? { $width: width } : {})} className={numeric ? 'num' : ''}>
              {head}
            </Th>
          ))}
          {onRemove && <Th aria-label="Remove" $width={50} />}
        </tr>
      </thead>
      <tbody ref={body}>
        {lines.map((line, index) => (
          <Fragment key={line.key}>
            <tr data-line={line.key}>
              {columns.map(({ head, numeric, onPhone, cell }) => (
                <td key={head} data-label={onPhone} className={numeric ? 'num' : ''}>
                  {cell(line, index)}
                </td>
              ))}
              {onRemove && (
                <td data-end>
                  <RemoveLine item={line.item} onRemove={() => onRemove(line)} />
                </td>
              )}
            </tr>
            {beneath?.(line, index, span)}
          </Fragment>
        ))}
        {adder && (
          <tr>
            <td colSpan={Math.min(span, 3)}>{adder}</td>
            {span > 3 && <td colSpan={span - 3} />}
          </tr>
        )}
      </tbody>
    </LineGrid>
  );
}

/** A row beneath a line, as wide as the table. */
export function Beneath({ line, span, children }: { line: TypedLine; span: number; children: ReactNode }) {
  return (
    <tr data-line={line.key}>
      <td colSpan={span}>{children}</td>
    </tr>
  );
}
