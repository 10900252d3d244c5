import { useEffect, useRef } from 'react';
import { useSearchParams } from 'react-router';

/** Marks and shows the line that was scanned, named in the address. */
export function useMeant<T extends HTMLElement>(id: number) {
  const ref = useRef<T>(null);
  const [search] = useSearchParams();
  const isMeant = search.get('line') === String(id);
  useEffect(() => {
    if (isMeant) ref.current?.scrollIntoView({ block: 'center' });
  }, [isMeant]);
  return { ref, ...(isMeant ? { 'data-meant': true } : {}) };
}
