import { createContext, type ReactNode, useCallback, useContext, useMemo, useState } from 'react';
import styled from 'styled-components';
import { problemOf, useCommand } from '../api/client.ts';
import { Button, LinkButton } from './Button.tsx';

interface Notice {
  readonly text: string;
  /** The posting that can be undone from here. */
  readonly documentId?: number;
  /** Where to see what it speaks of, and what the way there is called. */
  readonly to?: readonly [path: string, title: string];
}
type Notify = (notice: Notice) => void;
const NoticeContext = createContext<Notify>(() => undefined);

/** Says what was done, at the foot of every screen, and offers to undo it. */
export const useNotify = () => useContext(NoticeContext);

const Bar = styled.div`
  position: fixed; left: 50%; bottom: 18px; transform: translateX(-50%); z-index: 30; display: flex; gap: 14px; align-items: center;
  background: var(--ebony); color: #fbf3e4; padding: 10px 10px 10px 18px; border-radius: 4px; box-shadow: 0 6px 24px #0005;
  max-width: calc(100vw - 24px); button, a { background: transparent; color: #f3d59a; border-color: #6b5644; }
  @media print { display: none; }
`;

export function NoticeProvider({ children }: { children: ReactNode }) {
  const [notice, setNotice] = useState<Notice | null>(null);
  const undo = useCommand('undoDocument', (document) => setNotice({ text: `Undone by ${document.number}.` }));
  const reset = undo.reset;
  const notify = useCallback(
    (next: Notice) => {
      reset();
      setNotice(next);
    },
    [reset],
  );
  const problem = problemOf(undo.error);
  const value = useMemo(() => notify, [notify]);
  return (
    <NoticeContext.Provider value={value}>
      {children}
      <div role="status">
        {notice && (
          <Bar>
            <span>{problem ? problem.detail : notice.text}</span>
            {notice.documentId !== undefined && (
              <>
                <Button
                  look="ghost"
                  busy={undo.isPending}
                  onPress={() => undo.mutate({ params: { id: notice.documentId ?? 0 }, body: {} })}
                >
                  Undo
                </Button>
                <LinkButton look="ghost" to={`/stock/documents/${notice.documentId}`} onClick={() => setNotice(null)}>
                  Open
                </LinkButton>
              </>
            )}
            {notice.to && (
              <LinkButton look="ghost" to={notice.to[0]} onClick={() => setNotice(null)}>
                {notice.to[1]}
              </LinkButton>
            )}
            <Button look="ghost" aria-label="Dismiss" onPress={() => setNotice(null)}>
              ✕
            </Button>
          </Bar>
        )}
      </div>
    </NoticeContext.Provider>
  );
}
