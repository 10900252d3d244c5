import { useSyncExternalStore } from 'react';

/** @param width of the screen in pixels up to which it is narrow; 700 is a phone */
export function useNarrow(width: number): boolean {
  const query = `(max-width: ${width}px)`;
  return useSyncExternalStore(
    (changed) => {
      const media = window.matchMedia(query);
      media.addEventListener('change', changed);
      return () => media.removeEventListener('change', changed);
    },
    () => window.matchMedia(query).matches,
  );
}
