import { useEffect, useRef } from 'react';
import { z } from 'zod';
import { useTyped, useTypedScreen } from './useTypedScreen.ts';

/**
 * A field that is saved when it is left. Until somebody types it shows what is held, whoever changed that, and leaving it
 * says nothing; what is typed stays on this machine until it is saved.
 * @param key what is typed about, like `owed.12`
 * @param held what is saved, as it is typed
 */
export function useAtOnce(key: string, held: string) {
  const screen = useTypedScreen(key);
  const [typed, setTyped] = useTyped(screen, 'text', null, z.string().nullable());
  const latest = useRef(typed);
  useEffect(() => {
    latest.current = typed;
  });
  return {
    text: typed ?? held,
    /** Null until somebody types. */
    typed,
    type: (text: string) => setTyped(text),
    /** This much is saved; what was typed since stays. */
    saved: (text: string | null) => {
      if (latest.current !== text) return;
      setTyped(null);
      screen.forget();
    },
  };
}
