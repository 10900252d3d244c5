import { Dialog } from 'react-aria-components';
import { DialogCard, Overlay } from '../ui/Modal.tsx';
import { SignIn } from './SignIn.tsx';

/** Over the page that stays, when the session has ended under it. */
export function SignInAgain() {
  return (
    <Overlay isOpen>
      <DialogCard>
        <Dialog aria-label="Sign in again">
          <SignIn again />
        </Dialog>
      </DialogCard>
    </Overlay>
  );
}
