import { useEffect, useRef, useState } from 'react';
import { useSearchParams } from 'react-router';

/**
 * A text that is kept in the address under `name`. The address follows at its own pace; what is typed shows at once,
 * and only an address that was not written from here (a link, the back button) changes it.
 */
export function useAddress(name: string, otherwise = ''): [text: string, set: (text: string) => void] {
  const [search] = useSearchParams();
  const change = useSearchChange();
  const address = search.get(name) ?? otherwise;
  const [text, setText] = useState(address);
  const written = useRef<string[]>([]);
  useEffect(() => {
    const known = written.current.indexOf(address);
    if (known >= 0) written.current.splice(0, known + 1);
    else setText(address);
  }, [address]);
  const set = (next: string) => {
    setText(next);
    written.current.push(next);
    change({ [name]: next === otherwise ? null : next });
  };
  return [text, set];
}

/**
 * Changes some of what stands after the question mark and leaves the rest; null takes a name out. It starts from the
 * address as it is at this moment: what React shows of it may still be the one before, and a quick hand is quicker.
 */
export function useSearchChange(): (changes: Readonly<Record<string, string | null>>) => void {
  const [, setSearch] = useSearchParams();
  return (changes) => {
    const after = new URLSearchParams(window.location.search);
    for (const [name, value] of Object.entries(changes)) {
      if (value === null) after.delete(name);
      else after.set(name, value);
    }
    setSearch(after, { replace: true });
  };
}
