import { Dialog, Heading } from 'react-aria-components';
import { Button } from '../ui/Button.tsx';
import { DialogCard, Overlay } from '../ui/Modal.tsx';
import { Para } from '../ui/space.ts';
import { Row } from '../ui/text.ts';
import { unsaved } from '../ui/unsaved.ts';

/** What is not saved, and the ways out. */
export function Leaving({ stay, leave }: { stay: () => void; leave: () => void }) {
  const names = [...new Set(unsaved().map(({ name }) => name))];
  return (
    <Overlay isOpen onOpenChange={(open) => !open && stay()} isDismissable>
      <DialogCard>
        <Dialog role="alertdialog">
          <Heading slot="title">You haven’t saved {new Intl.ListFormat('en').format(names)}.</Heading>
          <Para $top={10} $bottom={16}>
            What you typed stays on this machine until you come back.
          </Para>
          <Row $wrap>
            <Button look="go" autoFocus onPress={stay}>
              Stay here
            </Button>
            <Button onPress={leave}>Leave, and save it for later</Button>
            <Button
              look="ghost"
              onPress={() => {
                for (const one of unsaved()) one.forget();
                leave();
              }}
            >
              Discard it
            </Button>
          </Row>
        </Dialog>
      </DialogCard>
    </Overlay>
  );
}
