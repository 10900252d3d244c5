import { useLayoutEffect, useRef, useState } from 'react';

/**
 * What is typed shows at once, while what holds its `value` may follow as late as it likes (an address, a page drawn in
 * a transition). Only a value that was not written from here replaces what is shown.
 * @param write takes it in; a text that it returns is shown instead, as where it was put elsewhere
 */
export function useOwnText(
  value: string,
  write: (text: string) => unknown,
): [text: string, type: (text: string) => void] {
  const [text, setText] = useState(value);
  const onItsWay = useRef<string[]>([]);
  // biome-ignore lint/correctness/useExhaustiveDependencies: what is typed changes no value, and must not be undone by an old one
  useLayoutEffect(() => {
    const known = onItsWay.current.indexOf(value);
    // What was on its way may never arrive after that, and must not be taken for it later.
    if (known < 0) setText(value);
    onItsWay.current = known < 0 || value === text ? [] : onItsWay.current.slice(known + 1);
  }, [value]);
  const type = (next: string) => {
    setText(next);
    onItsWay.current.push(next);
    const instead = write(next);
    if (typeof instead === 'string') setText(instead);
  };
  return [text, type];
}
