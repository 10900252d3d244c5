import { useEffect, useMemo } from 'react';
import { type Paged, type RowOf, usePages } from './client.ts';

/** How many rows come with one page of a list that is read to its end. */
const PAGE = 200;
/** Read no further by itself than this; more is asked for by hand. */
const MOST = 3000;

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
    data: rows ? { rows: rows as readonly RowOf<N>[], isMore: hasNextPage } : undefined,
    error: pages.error,
    refetch: pages.refetch,
  };
}
