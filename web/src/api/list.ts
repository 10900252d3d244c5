import { useEffect, useMemo } from 'react';
import { type Paged, type RowOf, type UsedPages, usePages } from './client.ts';

/** How many rows come with one page of a list that is read to its end. */
const PAGE = 200;
/** Read no further by itself than this; more is asked for by hand. */
const MOST = 3000;

/** Every row of a list, the pages that were not asked for yet included. @throws what asking for one throws */
export async function everyRow<Row>(
  pages: UsedPages<Row>,
  onRead: (rows: number) => void = () => {},
): Promise<readonly Row[]> {
  let read = await pages.fetchNextPage({ throwOnError: true });
  while (read.hasNextPage) {
    onRead(read.data?.pages.reduce((sum, page) => sum + page.rows.length, 0) ?? 0);
    read = await pages.fetchNextPage({ throwOnError: true });
  }
  return read.data?.pages.flatMap((page) => page.rows) ?? [];
}

/**
 * A list that is read page after page until it is there, as for a heading that counts it; or, where it is not `whole`, as far
 * as somebody asks for more.
 * @returns all rows that are there, for `Answer`, and the pages, for `More`
 */
export function useList<N extends Paged>(
  name: N,
  query: Record<string, string | number | boolean | undefined>,
  whole = true,
) {
  const pages = usePages(name, { ...query, limit: PAGE });
  const rows = useMemo(() => pages.data?.pages.flatMap((page) => page.rows), [pages.data]);
  const { hasNextPage, isFetchingNextPage, isError, fetchNextPage } = pages;
  const read = rows?.length ?? 0;
  const goesOn = whole && hasNextPage && !isFetchingNextPage && !isError && read < MOST;
  // biome-ignore lint/correctness/useExhaustiveDependencies: an answer may come so fast that nothing is seen between two pages
  useEffect(() => {
    if (goesOn) void fetchNextPage();
  }, [goesOn, fetchNextPage, read]);
  return {
    pages,
    /** All of it, for a file. */
    everyRow: () => everyRow(pages as UsedPages<RowOf<N>>),
    data: rows ? { rows: rows as readonly RowOf<N>[], isMore: hasNextPage } : undefined,
    error: pages.error,
    refetch: pages.refetch,
  };
}
