import { type KeyboardEvent, useEffect, useRef } from 'react';
import { SCANNED } from './keys.ts';

/** A scanner is done by then; in milliseconds. */
const HAND_MS = 120;
/** Letters that come later begin another word. */
const WORD_MS = 1000;

/**
 * Letters typed over a choice whose list is shut choose what begins so, once it is certain that a hand typed them: a
 * scanner changes nothing on its way.
 * @returns whether a key was one of them
 */
export function useLetters(choose: (text: string) => void): (event: KeyboardEvent) => boolean {
  const latest = useRef(choose);
  const typed = useRef({ text: '', at: 0, timer: undefined as ReturnType<typeof setTimeout> | undefined });
  useEffect(() => {
    latest.current = choose;
  });
  useEffect(() => {
    const forget = () => {
      clearTimeout(typed.current.timer);
      typed.current.text = '';
    };
    window.addEventListener(SCANNED, forget);
    return () => {
      window.removeEventListener(SCANNED, forget);
      clearTimeout(typed.current.timer);
    };
  }, []);
  return ({ key, ctrlKey, altKey, metaKey, timeStamp }) => {
    const own = typed.current;
    if (timeStamp - own.at > WORD_MS) own.text = '';
    if (key === 'Tab' && own.timer !== undefined) {
      clearTimeout(own.timer);
      if (own.text !== '') latest.current(own.text);
    }
    // Space opens the list, unless it is within a word.
    if (key.length !== 1 || ctrlKey || altKey || metaKey || (key === ' ' && own.text === '')) return false;
    own.text += key;
    own.at = timeStamp;
    clearTimeout(own.timer);
    own.timer = setTimeout(() => {
      own.timer = undefined;
      latest.current(own.text);
    }, HAND_MS);
    return true;
  };
}
