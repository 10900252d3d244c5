import { useEffect, useRef, useState } from 'react';
import { useSearchParams } from 'react-router';

/**
 * A text that is kept in the address under `name`. The address follows at its own pace; what is typed shows at once,
 * and only an address that was not written from here (a link, the back button) changes it.
 */
export function useAddress(name: string, otherwise = ''): [text: string, set: (text: string) => void] {
  const [search, setSearch] = useSearchParams();
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
    setSearch(
      (before) => {
        const after = new URLSearchParams(before);
        if (next === otherwise) after.delete(name);
        else after.set(name, next);
        return after;
      },
      { replace: true },
    );
  };
  return [text, set];
}
