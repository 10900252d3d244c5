import type { UseInfiniteQueryResult } from '@tanstack/react-query';
import { useVirtualizer } from '@tanstack/react-virtual';
import { type ReactNode, useEffect, useRef } from 'react';
import styled from 'styled-components';

const Frame = styled.div`overflow: auto; min-height: 0; flex: 1; position: relative;`;
const Row = styled.div`position: absolute; left: 0; width: 100%; top: 0;`;

interface EndlessProps<T> {
  readonly rows: readonly T[];
  /** Where the rows come from, for the pages that are not there yet. */
  readonly pages: Pick<UseInfiniteQueryResult, 'hasNextPage' | 'isFetchingNextPage' | 'fetchNextPage'>;
  /** In pixels; where rows may grow, what most of them are. */
  readonly rowHeight: number;
  /** Rows are as high as what they say. */
  readonly mayGrow?: boolean;
  readonly keyOf: (row: T) => string | number;
  readonly label: string;
  readonly role?: 'table' | 'navigation';
  /** What stays on top while rows pass beneath it. */
  readonly head?: ReactNode;
  readonly headHeight?: number;
  readonly children: (row: T, index: number) => ReactNode;
}

/**
 * A list of any length: only the rows in sight are drawn, and the next page is fetched before its end comes into sight.
 */
export function Endless<T>(props: EndlessProps<T>) {
  const { rows, pages, rowHeight, keyOf, head, headHeight = 0 } = props;
  const frame = useRef<HTMLDivElement>(null);
  const list = useVirtualizer({
    count: rows.length,
    getScrollElement: () => frame.current,
    estimateSize: () => rowHeight,
    overscan: 5,
    scrollPaddingStart: headHeight,
    getItemKey: (index) => {
      const row = rows[index];
      return row === undefined ? index : keyOf(row);
    },
  });
  const shown = list.getVirtualItems();
  const last = shown.at(-1)?.index ?? 0;
  const { hasNextPage, isFetchingNextPage, fetchNextPage } = pages;
  useEffect(() => {
    if (last >= rows.length - 40 && hasNextPage && !isFetchingNextPage) void fetchNextPage();
  }, [last, rows.length, hasNextPage, isFetchingNextPage, fetchNextPage]);
  return (
    <Frame ref={frame} role={props.role} aria-label={props.label}>
      {head}
      <div
        {...(props.role === 'table' ? { role: 'rowgroup' } : {})}
        style={{ height: list.getTotalSize(), position: 'relative' }}
      >
        {shown.map((item) => {
          const row = rows[item.index];
          return (
            row !== undefined && (
              <Row
                key={item.key}
                data-index={item.index}
                ref={props.mayGrow ? list.measureElement : null}
                style={{
                  ...(props.mayGrow ? {} : { height: item.size }),
                  transform: `translateY(${item.start}px)`,
                }}
              >
                {props.children(row, item.index)}
              </Row>
            )
          );
        })}
      </div>
    </Frame>
  );
}
