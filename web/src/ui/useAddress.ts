import { useSearchParams } from 'react-router';
import { useOwnText } from './useOwnText.ts';

/**
 * A text that is kept in the address under `name`. The address follows at its own pace; what is typed shows at once,
 * and only an address that was not written from here (a link, the back button) changes it.
 */
export function useAddress(name: string, otherwise = ''): [text: string, set: (text: string) => void] {
  const [search] = useSearchParams();
  const change = useSearchChange();
  return useOwnText(search.get(name) ?? otherwise, (next) => change({ [name]: next === otherwise ? null : next }));
}

/**
 * Changes some of what stands after the question mark and leaves the rest; null takes a name out, a list says it often. It starts from the
 * address as it is at this moment: what React shows of it may still be the one before, and a quick hand is quicker.
 */
export function useSearchChange(): (changes: Readonly<Record<string, string | readonly string[] | null>>) => void {
  const [, setSearch] = useSearchParams();
  return (changes) => {
    const after = new URLSearchParams(window.location.search);
    for (const [name, value] of Object.entries(changes)) {
      after.delete(name);
      for (const one of value === null ? [] : typeof value === 'string' ? [value] : value) after.append(name, one);
    }
    setSearch(after, { replace: true });
  };
}
