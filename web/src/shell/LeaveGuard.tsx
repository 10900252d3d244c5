import { Dialog, Heading } from 'react-aria-components';
import { useBlocker } from 'react-router';
import { Button } from '../ui/Button.tsx';
import { DialogCard, Overlay } from '../ui/Modal.tsx';
import { Row } from '../ui/text.ts';
import { unsaved } from '../ui/unsaved.ts';

/** Asks once where a form with changes is left. */
export function LeaveGuard() {
  const blocker = useBlocker(
    ({ currentLocation: from, nextLocation: to }) =>
      unsaved().length > 0 && (from.pathname !== to.pathname || isEdited(from.search) !== isEdited(to.search)),
  );
  if (blocker.state !== 'blocked') return null;
  const names = [...new Set(unsaved().map(({ name }) => name))];
  return (
    <Overlay isOpen onOpenChange={(open) => !open && blocker.reset()} isDismissable>
      <DialogCard>
        <Dialog role="alertdialog">
          <Heading slot="title">You haven’t saved {listed(names)}.</Heading>
          <p>What you typed stays on this machine: it is here again when you come back.</p>
          <Row>
            <Button look="go" autoFocus onPress={() => blocker.reset()}>
              Stay here
            </Button>
            <Button onPress={() => blocker.proceed()}>Leave, and keep it for later</Button>
            <Button
              look="ghost"
              onPress={() => {
                for (const one of unsaved()) one.forget();
                blocker.proceed();
              }}
            >
              Throw it away
            </Button>
          </Row>
        </Dialog>
      </DialogCard>
    </Overlay>
  );
}

const isEdited = (search: string) => new URLSearchParams(search).has('edit');
const listed = (names: readonly string[]) => new Intl.ListFormat('en').format(names);
