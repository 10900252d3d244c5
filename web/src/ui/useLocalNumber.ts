import { readLocal, writeLocal, writingOf } from '@yosegi/core/number';
import { useMemo, useState } from 'react';
import { useLocale } from './format.ts';
import { useOwnText } from './useOwnText.ts';

/**
 * A number that is typed and shown as the company writes it, while everything behind it has the plain one: "1,5 kg" on
 * screen is "1.5 kg" in `value`. What is being typed stays as it is typed until the field is left.
 */
export function useLocalNumber(held: string, onChange: (plain: string) => unknown) {
  const [value, write] = useOwnText(held, onChange);
  const locale = useLocale();
  const writing = useMemo(() => writingOf(locale), [locale]);
  const [typed, setTyped] = useState<string | null>(null);
  const read = readLocal(typed ?? '', writing);
  const isOwn = typed !== null && read.plain === value;
  return {
    shown: isOwn ? typed : writeLocal(value, writing),
    /** How it was read, where it could be meant otherwise; null where there is no doubt. */
    readAs: isOwn && read.isDoubtful ? read.plain : null,
    type: (text: string) => {
      setTyped(text);
      write(readLocal(text, writing).plain);
    },
    leave: () => setTyped(null),
  };
}
