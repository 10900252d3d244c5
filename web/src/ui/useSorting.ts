import { useSearchParams } from 'react-router';
import type { Sorting } from './LongList.tsx';
import { useSearchChange } from './useAddress.ts';

/**
 * What a list is sorted by, kept in the address as `sort` and `down`.
 * @param usual what it is sorted by while the address says nothing
 * @returns what the server is asked for, and what the list's head shows and changes
 */
export function useSorting<Key extends string>(usual: Key): { sort: Key; down: boolean; sorting: Sorting } {
  const [search] = useSearchParams();
  const change = useSearchChange();
  const sort = (search.get('sort') ?? usual) as Key;
  const down = search.get('down') === '1';
  const by = (key: string, nextDown: boolean) =>
    change({ sort: key === usual ? null : key, down: nextDown ? '1' : null });
  return { sort, down, sorting: { key: sort, down, by } };
}
