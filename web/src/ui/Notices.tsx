import { X } from 'lucide-react';
import { useRef } from 'react';
import {
  Button as AriaButton,
  UNSTABLE_Toast as Toast,
  UNSTABLE_ToastContent as ToastContent,
  UNSTABLE_ToastRegion as ToastRegion,
} from 'react-aria-components';
import styled from 'styled-components';
import { problemOf, useCommand } from '../api/client.ts';
import { Button, LinkButton } from './Button.tsx';
import { type Notice, notices, notify, useNotices } from './Notice.ts';
import { useUncovered } from './uncovered.ts';

const Region = styled(ToastRegion<Notice>)`
  position: fixed; left: 50%; bottom: 18px; transform: translateX(-50%); z-index: 30; display: flex; flex-direction: column-reverse; gap: 8px; align-items: center;
  &[data-place='left'] { left: 12px; transform: none; align-items: start; max-width: min(380px, calc(100vw - 24px)); }
  &[data-place='right'] { left: auto; right: 12px; transform: none; align-items: end; max-width: min(380px, calc(100vw - 24px)); }
  &[data-place='top'] { bottom: auto; top: 72px; }
  max-width: calc(100vw - 24px); outline: none;
  &[data-focus-visible] { outline: 2px solid var(--indigo); outline-offset: 4px; }
  @media print { display: none; }
`;
const Told = styled(Toast<Notice>)`
  display: flex; gap: 14px; align-items: center; background: var(--ebony); color: var(--on-dark); padding: 10px 10px 10px 18px; border-radius: 4px;
  box-shadow: 0 6px 24px var(--shade); max-width: 100%; button, a { background: transparent; color: var(--on-dark-go); border-color: var(--on-dark-line); }
  &[data-focus-visible] { outline: 2px solid var(--on-dark); outline-offset: -4px; }
  @media (forced-colors: active) { border: 1px solid; }
`;

/** Where notices appear, the newest lowest: over nothing that is pressed, where there is such a place. */
export function Notices() {
  const region = useRef<HTMLDivElement>(null);
  const isShown = useNotices();
  useUncovered(region, isShown);
  return (
    <Region ref={region} queue={notices} aria-label="Messages">
      {({ toast }) => (
        <Told toast={toast}>
          <Said notice={toast.content} close={() => notices.close(toast.key)} />
        </Told>
      )}
    </Region>
  );
}

function Said({ notice, close }: { notice: Notice; close: () => void }) {
  const undo = useCommand('undoDocument', (document) => {
    close();
    notify({ text: `Undone by ${document.number}.` });
  });
  const { documentId, to, text } = notice;
  return (
    <>
      <ToastContent>{problemOf(undo.error)?.detail ?? text}</ToastContent>
      {documentId !== undefined && (
        <>
          <Button
            look="ghost"
            busy={undo.isPending}
            onPress={() => undo.mutate({ params: { id: documentId }, body: {} })}
          >
            Undo
          </Button>
          <LinkButton look="ghost" to={`/stock/documents/${documentId}`} onClick={close}>
            Open
          </LinkButton>
        </>
      )}
      {notice.undo && (
        <Button
          look="ghost"
          onPress={() => {
            notice.undo?.();
            close();
          }}
        >
          Undo
        </Button>
      )}
      {to && (
        <LinkButton look="ghost" to={to[0]} onClick={close}>
          {to[1]}
        </LinkButton>
      )}
      <Dismiss slot="close" aria-label="Dismiss">
        <X size={16} aria-hidden />
      </Dismiss>
    </>
  );
}

const Dismiss = styled(AriaButton)`
  border: 0; width: 34px; height: 34px; display: grid; place-items: center; cursor: pointer; border-radius: 3px;
  &[data-focus-visible] { outline: 2px solid var(--on-dark); }
`;
