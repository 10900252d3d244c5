import { useNavigate } from 'react-router';
import { useNotify } from '../ui/Notice.ts';
import { useKept } from '../ui/useKept.ts';
import { type TypedLine, useTypedLines } from './typedLines.tsx';

interface Posted {
  readonly id: number;
  readonly number: string;
}
interface Sent {
  readonly body: { readonly lines: readonly unknown[] };
}

export type LineDocumentState<Line extends TypedLine, Head> = ReturnType<typeof useLineDocument<Line, Head>>;

/**
 * A document of lines while it is typed: its lines and its head stay on this machine until it is posted; then it is told
 * of, with its undo, and opened.
 * @param keepAs under which it stays
 * @param start what its head begins with, and its lines where it does not begin empty
 */
export function useLineDocument<Line extends TypedLine, Head>(
  keepAs: string,
  start: { readonly head: Head; readonly lines?: readonly Omit<Line, 'key'>[] },
) {
  const go = useNavigate();
  const notify = useNotify();
  const typed = useTypedLines<Line>(keepAs, start.lines);
  const [head, setHead, forgetHead] = useKept<Head>(`${keepAs}.head`, () => start.head);
  return {
    ...typed,
    head,
    change: (part: Partial<Head>) => setHead((before) => ({ ...before, ...part })),
    /** Everything typed, once it is posted. */
    forget: () => {
      typed.forget();
      forgetHead();
    },
    /** @param says what happened to so many lines, like “2 lines moved” */
    posted:
      (says: (lines: number) => string) =>
      ({ id, number }: Posted, { body }: Sent) => {
        notify({ text: `${number}: ${says(body.lines.length)}.`, documentId: id });
        void go(`/stock/documents/${id}`);
      },
  };
}
