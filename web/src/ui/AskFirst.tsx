import { type ReactNode, useState } from 'react';
import { Dialog, Heading } from 'react-aria-components';
import { Button, type ButtonProps } from './Button.tsx';
import { DialogCard, Overlay } from './Modal.tsx';
import { Part } from './space.ts';
import { Row } from './text.ts';

interface AskedProps {
  /** The question, which can be understood alone. */
  readonly title: string;
  /** What the deed does, and what depends on it. */
  readonly children: ReactNode;
  /** The deed, as verb and object. */
  readonly action: string;
  /** The way out: what is kept, or Cancel. */
  readonly keep?: string;
  /** What is looked at before it is done, rather than warned of: the deed has the focus. */
  readonly isPreview?: boolean;
  readonly onDo: () => void;
  readonly onClose: () => void;
}

/** Asks once before something that cannot be taken back. */
export function Asked({ title, children, action, keep = 'Cancel', isPreview = false, onDo, onClose }: AskedProps) {
  return (
    <Overlay isOpen onOpenChange={(open) => !open && onClose()} isDismissable>
      <DialogCard>
        <Dialog role="alertdialog">
          <Heading slot="title">{title}</Heading>
          <Part $top={10} $bottom={16}>
            {children}
          </Part>
          <Row $wrap>
            <Button
              look={isPreview ? 'go' : 'danger'}
              autoFocus={isPreview}
              onPress={() => {
                onClose();
                onDo();
              }}
            >
              {action}
            </Button>
            <Button autoFocus={!isPreview} onPress={onClose}>
              {keep}
            </Button>
          </Row>
        </Dialog>
      </DialogCard>
    </Overlay>
  );
}

interface Props extends Omit<AskedProps, 'onClose' | 'isPreview'> {
  /** What the button says; three dots tell that it asks. */
  readonly label: string;
  readonly look?: ButtonProps['look'];
  readonly busy?: boolean;
  readonly 'aria-label'?: string;
}

/** A button that asks once before it does something that cannot be taken back. */
export function AskFirst({ label, look = 'danger', busy = false, ...asked }: Props) {
  const [isAsking, setAsking] = useState(false);
  return (
    <>
      <Button
        look={look}
        busy={busy}
        onPress={() => setAsking(true)}
        {...(asked['aria-label'] ? { 'aria-label': asked['aria-label'] } : {})}
      >
        {label}
      </Button>
      {isAsking && <Asked {...asked} onClose={() => setAsking(false)} />}
    </>
  );
}
